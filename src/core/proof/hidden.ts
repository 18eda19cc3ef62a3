// Conditions that are no medium and no state: what the files do not show.

import { includesAny } from '../base/phrases.js';
import type { Truth, TruthTable } from '../cascade/index.js';
import type { Difference, ShownOutcome } from './describe.js';

const HIDDEN = [
  'template text',
  'outside the fragment',
  'not in the file',
  'its position ',
  'a script moves it ',
];

export function isHidden(condition: Truth, truths: TruthTable): boolean {
  return isHiddenText(truths.text(condition));
}

export function isHiddenText(condition: string): boolean {
  return includesAny(condition, HIDDEN);
}

/** Whether two lists differ only in what the files do not show. */
export function isHiddenOnly({ before, after }: Extract<Difference, { kind: 'style' }>): boolean {
  const shown = (list: readonly ShownOutcome[]): string =>
    list
      .filter(({ condition }) => !isHiddenText(condition))
      .map(({ value, condition }) => `${value}?${condition}`)
      .join('|');
  return shown(before) === shown(after);
}
