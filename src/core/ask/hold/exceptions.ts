// Exceptions that stand in the source: a comment with a reason, on the line of what is excepted or the one before.

import { type Place, placeIn } from '../../base/source.js';
import { COMMENTS } from '../../read/templates/index.js';
import type { Debt } from './debts.js';

export interface Exception {
  readonly place: Place;
  /** Empty for one without a reason, which excepts nothing. */
  readonly reason: string;
}

/** Begin and end of comments of markup, of sheets and scripts, and of template engines. */
const ALL_COMMENTS: readonly (readonly [begin: string, end: string])[] = [
  ['<!--', '-->'],
  ['/*', '*/'],
  ...COMMENTS,
];
const WORD = 'acervus-hold';

export function exceptionsIn(path: string, text: string): Exception[] {
  const found: Exception[] = [];
  for (let at = text.indexOf(WORD); at >= 0; at = text.indexOf(WORD, at + WORD.length)) {
    const before = text.slice(0, at).trimEnd();
    const [, close] = ALL_COMMENTS.find(([begin]) => before.endsWith(begin)) ?? [];
    const end = close === undefined ? -1 : text.indexOf(close, at);
    if (close === undefined || end < 0) continue;
    const reason = text
      .slice(at + WORD.length, end)
      .trim()
      .replace(/^:\s*/, '');
    // Where it ends is next to what it is for.
    found.push({
      place: placeIn(path, text, end + close.length),
      reason: reason.split(/\s+/).join(' '),
    });
  }
  return found;
}

/** Debts that nothing excepts. */
export function withoutExcepted(debts: readonly Debt[], exceptions: readonly Exception[]): Debt[] {
  const lines = new Map<string, Set<number>>();
  for (const { place, reason } of exceptions) {
    if (reason === '') continue;
    const own = lines.get(place.path) ?? new Set<number>();
    own.add(place.line).add(place.line + 1);
    lines.set(place.path, own);
  }
  return debts.filter(({ place }) => lines.get(place.path)?.has(place.line) !== true);
}
