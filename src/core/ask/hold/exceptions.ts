// Exceptions that stand in the source: a comment with a reason, on the line of what is excepted or the one before.

import { type Place, placeIn } from '../../base/source.js';
import type { Debt } from './debts.js';

export interface Exception {
  readonly place: Place;
  /** Empty for one without a reason, which excepts nothing. */
  readonly reason: string;
}

const MARK =
  /(?:<!--|\/\*|\{#|\{\{!(?:--)?|<%#|@\*)\s*acervus-hold\b\s*:?\s*([\s\S]*?)\s*(?:--\}\}|-->|\*\/|#\}|\}\}|%>|\*@)/g;

export function exceptionsIn(path: string, text: string): Exception[] {
  if (!text.includes('acervus-hold')) return [];
  return [...text.matchAll(MARK)].map((match) => ({
    // Where it ends is next to what it is for.
    place: placeIn(path, text, match.index + match[0].length),
    reason: match[1]!.replace(/\s+/g, ' '),
  }));
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
