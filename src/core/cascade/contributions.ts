// What declares something of an element, with its place in the cascade: rules, rules on trial, and the element itself.

import { type Contribution, UNLAYERED } from './order.js';
import type { TakenOut, TrialRule } from './outcome-model.js';
import { UNSCOPED } from './program-matches.js';
import type { Block, ProgramRule } from './rule-index.js';
import type { SheetUse } from './sheet-order.js';
import { ALWAYS } from './truth.js';

export function blockWithout({ normal, important }: Block, { declarations }: TakenOut): Block {
  const stays = ({ declaration }: Block['normal'][number]): boolean => !declarations.has(declaration);
  return normal.every(stays) && important.every(stays)
    ? { normal, important }
    : { normal: normal.filter(stays), important: important.filter(stays) };
}

export function trialContribution(
  { block, specificity, order, writtenIn, placed }: TrialRule,
  at: number,
): Contribution {
  const place = {
    layerName: undefined,
    layer: UNLAYERED,
    specificity,
    scopeDistance: UNSCOPED,
    at,
    order,
  };
  return { writtenIn, block, truth: placed?.truth ?? ALWAYS, ...place };
}

/** What the element itself declares: its place in the cascade is its origin's, and nothing else decides. */
export function ofElement(kind: 'style attribute' | 'old attribute', block: Block): Contribution {
  const place = {
    layerName: undefined,
    layer: UNLAYERED,
    specificity: 0,
    scopeDistance: UNSCOPED,
    at: 0,
    order: 0,
  };
  return { writtenIn: { kind }, block, truth: ALWAYS, ...place };
}

export function fullLayer(use: SheetUse, rule: ProgramRule): string | undefined {
  const own = rule.rule.layer;
  if (use.layer === undefined) return own;
  return own === undefined ? use.layer : `${use.layer}.${own}`;
}
