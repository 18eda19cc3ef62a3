// The first home: what is already given. Without the movable declaration everything is as it was, so it can go.

import type { KeptReason } from '../base/reasons/index.js';
import type { MovableDeclaration } from '../stock/index.js';
import type { Census, ElementGroup } from './census.js';
import { looksTheSame, settle } from './reach.js';

export interface Given {
  readonly group: ElementGroup;
  readonly movable: MovableDeclaration;
}

const NO_RULES = { own: [], cells: [] };

/**
 * Takes away what is given, old attributes before declarations. Beside a sheet that was not read nothing is: it may declare
 * anything. In: told of what would be given but for such a sheet.
 */
export function takeGiven(
  census: Census,
  refuse: (group: ElementGroup, movable: MovableDeclaration, reason: KeptReason) => void,
): Given[] {
  const given: Given[] = [];
  for (const group of census.groups) {
    if (group.movables.length === 0) continue;
    const inOrder = [...group.left].sort((a, b) => rank(a) - rank(b));
    for (const movable of inOrder) {
      if (movable.objection !== undefined || movable.from.kind === 'name') continue;
      if (!looksTheSame(group, [movable], NO_RULES)) continue;
      const unread = unreadBeside(group);
      if (unread !== undefined) {
        refuse(group, movable, { kind: 'sheet not read', address: unread });
        continue;
      }
      settle(group, [movable], NO_RULES);
      given.push({ group, movable });
    }
  }
  return given;
}

function unreadBeside({ readers }: ElementGroup): string | undefined {
  for (const { sheetOrder } of readers)
    if (sheetOrder.unread[0] !== undefined) return sheetOrder.unread[0].address;
  return undefined;
}

function rank({ from }: MovableDeclaration): number {
  return from.kind === 'attributes' ? 0 : 1;
}

/** Outdated names go when nothing is left that needs them. */
export function takeNames(census: Census): Given[] {
  const given: Given[] = [];
  for (const group of census.groups) {
    for (const movable of group.left) {
      if (movable.from.kind !== 'name' || movable.objection !== undefined || movable.declarations.length > 0)
        continue;
      if ([...group.left].some(({ from }) => from.kind === 'attributes')) continue;
      group.left.delete(movable);
      given.push({ group, movable });
    }
  }
  return given;
}
