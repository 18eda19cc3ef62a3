// Which declarations some browser of the target does not keep, though Chromium does. The target is the default query of
// browserslist, the answers those of @mdn/browser-compat-data: scripts/support.mjs writes the table.

import { wordsOf } from '../../base/phrases.js';
import { BY_ANOTHER_NAME, DROPPED_VALUES, UNKNOWN_FUNCTIONS } from './support-table.js';

const byAnotherName: ReadonlySet<string> = new Set(wordsOf(BY_ANOTHER_NAME));
const unknownFunctions: ReadonlySet<string> = new Set(wordsOf(UNKNOWN_FUNCTIONS));
const droppedValues: ReadonlyMap<string, ReadonlySet<string>> = new Map(
  DROPPED_VALUES.split(';').map((line) => {
    const [property = '', words = ''] = line.split(':');
    return [property.trim(), new Set(wordsOf(words))];
  }),
);

/** Whether every browser of the target knows a property by this name, or does not have it at all. */
export function isNamedSoEverywhere(property: string): boolean {
  return !byAnotherName.has(property);
}

/** Whether every browser of the target keeps a declaration that Chromium keeps. */
export function isKeptByTarget(property: string, value: string): boolean {
  if (!isNamedSoEverywhere(property)) return false;
  const dropped = droppedValues.get(property);
  const words = value.toLowerCase().split(/[\s,/()]+/);
  if (dropped !== undefined && words.some((word) => dropped.has(word))) return false;
  // `clip: rect(…)` is older than the shape.
  return property === 'clip' || !functionsIn(value).some((name) => unknownFunctions.has(name));
}

function functionsIn(value: string): string[] {
  return [...value.toLowerCase().matchAll(/([a-z][a-z0-9-]*)\(/g)].map(([, name]) => name!);
}

const PREFIXED = /(^|[\s,(])-(webkit|moz|ms|o|khtml)-/i;
/** Functions that a value has had since CSS 2.1 and 3: nobody writes a fallback for these any more. */
const OLD_FUNCTIONS = new Set(['attr', 'counter', 'counters', 'rect', 'rgb', 'rgba', 'hsl', 'hsla', 'url']);

/**
 * Whether an earlier declaration is written for browsers that drop the later one: behind a prefix, or plainly where the
 * later one has a function. Such a pair is meant, whatever the target keeps.
 */
export function isFallback(
  earlier: { property: string; value: string },
  later: { property: string; value: string },
): boolean {
  if (PREFIXED.test(earlier.property) || PREFIXED.test(earlier.value)) return true;
  const has = new Set(functionsIn(earlier.value));
  return functionsIn(later.value).some((name) => !has.has(name) && !OLD_FUNCTIONS.has(name));
}
