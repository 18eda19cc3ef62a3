// What the upkeep counts of one unit.

import type { MovableDeclaration } from '../stock/index.js';

/** How many places of upkeep a unit is: declarations of a style, or the attributes that say them. */
export function writtenCount({ from, declarations }: MovableDeclaration): number {
  return from.kind === 'style' ? declarations.length : from.kind === 'name' ? 1 : from.names.length;
}
