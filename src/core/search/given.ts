// The first home: what is already given. Without the unit everything is as it was, so it can go.

import type { CarriedUnit } from '../stock/index.js';
import type { Census, Kind } from './census.js';
import { bears, settle } from './reach.js';

export interface Given {
  readonly kind: Kind;
  readonly unit: CarriedUnit;
}

const NO_RULES = { own: [], cells: [] };

/** Takes away what is given, old attributes before declarations. */
export function takeGiven(census: Census): Given[] {
  const given: Given[] = [];
  for (const kind of census.kinds) {
    if (kind.units.length === 0) continue;
    const inOrder = [...kind.left].sort((a, b) => rank(a) - rank(b));
    for (const unit of inOrder) {
      if (unit.objection !== undefined || unit.from.kind === 'name') continue;
      if (!bears(kind, [unit], NO_RULES)) continue;
      settle(kind, [unit], NO_RULES);
      given.push({ kind, unit });
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
  for (const kind of census.kinds) {
    for (const unit of kind.left) {
      if (unit.from.kind !== 'name' || unit.objection !== undefined || unit.declarations.length > 0) continue;
      if ([...kind.left].some(({ from }) => from.kind === 'attributes')) continue;
      kind.left.delete(unit);
      given.push({ kind, unit });
    }
  }
  return given;
}
