// A name that was probably meant by another.

import { closest, distance } from 'fastest-levenshtein';
import { DIGIT, without } from '../base/characters.js';

/** A known name one letter away, or with its letters in another order; none for a short name. */
export function nearName(name: string, known: readonly string[]): string | undefined {
  if (name.length < 6) return undefined;
  const candidates = known.filter((other) => Math.abs(other.length - name.length) <= 1);
  if (candidates.length === 0) return undefined;
  const near = closest(name, candidates);
  // `row-1` and `row-2` are neighbours, not a slip.
  const onlyDigits = without(near, DIGIT) === without(name, DIGIT);
  const letters = (text: string): string => [...text].sort().join('');
  const isNear = distance(name, near) === 1 || letters(name) === letters(near);
  return isNear && !onlyDigits ? near : undefined;
}
