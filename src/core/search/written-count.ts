// What the upkeep counts of one movable declaration.

import type { MovableDeclaration } from '../stock/index.js';

/** How many places of upkeep a movable declaration is: declarations of a style, or the attributes that declare them. */
export function writtenCount({ from, declarations }: MovableDeclaration): number {
  return from.kind === 'style' ? declarations.length : from.kind === 'name' ? 1 : from.names.length;
}
