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
