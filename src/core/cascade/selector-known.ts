// What browsers know of selectors by name: pseudo-classes, pseudo-elements, and what may follow them.

import type { Simple } from './selector-model.js';
import { STATIC_STATES } from './static-states.js';

/** States that every browser in use accepts; any other name may make a browser drop the rule. */
export const STATES = new Set(
  (
    'hover active focus focus-within focus-visible visited link target checked disabled enabled required optional valid ' +
    'invalid in-range out-of-range read-only read-write placeholder-shown default indeterminate lang'
  ).split(' '),
);
export const LEGACY_ELEMENTS = new Set(['before', 'after', 'first-line', 'first-letter']);
export const ELEMENTS = new Set([
  ...LEGACY_ELEMENTS,
  'selection',
  'placeholder',
  'marker',
  'backdrop',
  'file-selector-button',
]);

/** What may follow a `#`: a name that does not begin with a digit (CSS Syntax 3 §4.3.9). */
export const IDENTIFIER = /^(--|-?([a-zA-Z_\u0080-\uffff]|\\))/;

const nth = (last: boolean, ofType: boolean): Simple => ({
  kind: 'nth',
  a: 0,
  b: 1,
  last,
  ofType,
  of: undefined,
});

export const POSITIONS: ReadonlyMap<string, readonly Simple[]> = new Map([
  ['first-child', [nth(false, false)]],
  ['last-child', [nth(true, false)]],
  ['only-child', [nth(false, false), nth(true, false)]],
  ['first-of-type', [nth(false, true)]],
  ['last-of-type', [nth(true, true)]],
  ['only-of-type', [nth(false, true), nth(true, true)]],
]);

/** Pseudo-classes that are known, and take an argument only where it is `:lang()` or `:dir()`. */
export const PLAIN = new Set([
  ...STATES,
  ...STATIC_STATES,
  ...POSITIONS.keys(),
  'empty',
  'root',
  'any-link',
  'scope',
]);
