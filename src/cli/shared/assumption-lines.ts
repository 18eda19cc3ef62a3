// What a proof takes for granted, as a person reads it.

import { clean, heading, more, row } from './paper.js';

const MOST_SHOWN = 6;

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
