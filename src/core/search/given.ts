// The first home: what is already given. Without the unit everything is as it was, so it can go.

import type { CarriedUnit } from '../stock/index.js';
import type { Census, ElementGroup } from './census.js';
import { looksTheSame, settle } from './reach.js';

export interface Given {
  readonly group: ElementGroup;
  readonly unit: CarriedUnit;
}

const NO_RULES = { own: [], cells: [] };

/** Takes away what is given, old attributes before declarations. */
export function takeGiven(census: Census): Given[] {
  const given: Given[] = [];
  for (const group of census.groups) {
    if (group.units.length === 0) continue;
    const inOrder = [...group.left].sort((a, b) => rank(a) - rank(b));
    for (const unit of inOrder) {
      if (unit.objection !== undefined || unit.from.kind === 'name') continue;
      if (!looksTheSame(group, [unit], NO_RULES)) continue;
      settle(group, [unit], NO_RULES);
      given.push({ group, unit });
    }
  }
  return given;
}

function rank({ from }: CarriedUnit): number {
  return from.kind === 'attributes' ? 0 : 1;
}

/** Outdated names go when nothing is left that needs them. */
export function takeNames(census: Census): Given[] {
  const given: Given[] = [];
  for (const group of census.groups) {
    for (const unit of group.left) {
      if (unit.from.kind !== 'name' || unit.objection !== undefined || unit.declarations.length > 0) continue;
      if ([...group.left].some(({ from }) => from.kind === 'attributes')) continue;
      group.left.delete(unit);
      given.push({ group, unit });
    }
  }
  return given;
}
