// The order of the cascade: what declares something of one target, strongest first.

import type { WrittenIn } from './outcome-model.js';
import type { Block } from './rule-index.js';
import type { Truth } from './truth.js';

/** One rule that matches, the style attribute, or the old attributes. */
export interface Contribution {
  readonly writtenIn: WrittenIn;
  readonly block: Block;
  readonly truth: Truth;
  /** Full name, `undefined` outside layers. */
  readonly layerName: string | undefined;
  /** For normal declarations; unlayered above all layers. */
  readonly layer: number;
  readonly specificity: number;
  readonly scopeDistance: number;
  readonly at: number;
  readonly order: number;
}

export const UNLAYERED = Number.MAX_SAFE_INTEGER;

/** CSS Cascade 6 §2: importance, the style attribute, layers, specificity, proximity, order. */
export function inCascadeOrder(
  contributions: readonly Contribution[],
): { readonly contribution: Contribution; readonly important: boolean }[] {
  const inline = contributions.filter(({ writtenIn }) => writtenIn.kind === 'style attribute');
  const rules = contributions.filter(
    ({ writtenIn }) => writtenIn.kind === 'rule' || writtenIn.kind === 'trial rule',
  );
  // HTML standard, "presentational hints": author level, specificity 0, in front of every sheet.
  const hints = contributions.filter(({ writtenIn }) => writtenIn.kind === 'old attribute');
  const mark = (list: readonly Contribution[], important: boolean) =>
    list.map((contribution) => ({ contribution, important }));
  return [
    ...mark(inline, true),
    ...mark(
      [...rules].sort((a, b) => a.layer - b.layer || bySpecificity(a, b)),
      true,
    ),
    ...mark(inline, false),
    ...mark(
      [...rules].sort((a, b) => b.layer - a.layer || bySpecificity(a, b)),
      false,
    ),
    ...mark(hints, false),
  ];
}

function bySpecificity(a: Contribution, b: Contribution): number {
  return (
    b.specificity - a.specificity ||
    nearer(a.scopeDistance, b.scopeDistance) ||
    b.at - a.at ||
    b.order - a.order
  );
}

function nearer(a: number, b: number): number {
  return a === b ? 0 : a - b;
}
