// What a proof takes for granted, as a person reads it.

import { includesAny } from '../../core/base/phrases.js';
import { clean, heading, more, row } from './paper.js';

const MOST_SHOWN = 6;

/** What may beat a change, or take it elsewhere, out of sight. That libraries do what they do is taken for granted here. */
const OUT_OF_SIGHT = [
  'makes a shadow root',
  'adds a sheet',
  'is no script that can be read',
  'was not read',
  'puts a class or attribute together',
];

/** Of what a proof assumes, what counts for a change that was asked for. */
export function assumptionsOfChange(assumptions: readonly string[]): string[] {
  return assumptions.filter((one) => includesAny(one, OUT_OF_SIGHT));
}

/** Out: no lines where nothing is assumed. */
export function assumptionLines(assumptions: readonly string[], all: boolean): string[] {
  if (assumptions.length === 0) return [];
  const shown = all ? assumptions : assumptions.slice(0, MOST_SHOWN);
  return [
    heading('Assumed', 'the proof holds if these do'),
    ...shown.map((one) => row({ mark: 'needs', text: clean(one) })),
    ...(assumptions.length > shown.length ? [more(assumptions.length - shown.length, '--all')] : []),
  ];
}
