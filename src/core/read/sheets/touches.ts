// Whether writing, clearing or reading one property may concern what another declares.

import { BoundedMap } from '../../base/bounded.js';
import { competesWith, everyLonghand } from './properties.js';

/** By the first property, then the second: asked for each declaration of each element. */
const known = new BoundedMap<string, Map<string, boolean>>(500);

/** `all` leaves these alone (CSS Cascading 5 §3.2), and custom properties. */
const OUTSIDE_ALL = new Set(['direction', 'unicode-bidi']);

/**
 * `gap` touches `row-gap`, `-webkit-transform` touches `transform`, `inset` touches `left`, `font` touches the
 * `line-height` that it resets; and each the other way round.
 * In: two properties, shorthands or longhands, by any of their names.
 */
export function touches(property: string, declared: string): boolean {
  if (property === declared) return true;
  const answers = known.get(property, () => new Map());
  let answer = answers.get(declared);
  if (answer === undefined) {
    answer = shareValue(property, declared);
    answers.set(declared, answer);
  }
  return answer;
}

function shareValue(one: string, other: string): boolean {
  if (one === 'all') return isInAll(other);
  if (other === 'all') return isInAll(one);
  const [mine, theirs] = [everyLonghand(one), everyLonghand(other)];
  return mine.some((a) => theirs.some((b) => a === b || competesWith(a, b)));
}

function isInAll(property: string): boolean {
  return !property.startsWith('--') && !OUTSIDE_ALL.has(property);
}
