// A declaration becomes the longhands it sets. Values of the simple shorthands are taken apart; of the others each
// longhand's value is "its part of that text", which compares equal exactly when the text does.

import { aliasedValue, canonicalProperty, longhands } from './properties.js';
import { normalValue } from './values.js';

export interface LonghandValue {
  readonly longhand: string;
  /** Normal form; see `values.ts`. */
  readonly value: string;
  /** Some browsers do not set this longhand with this shorthand. */
  readonly unsettled: boolean;
}

const CSS_WIDE = new Set(['initial', 'inherit', 'unset', 'revert', 'revert-layer']);
const SIDES = ['top', 'right', 'bottom', 'left'] as const;
/** Corners, clockwise from the first, as four values name them. */
const CORNERS = {
  top: 'border-top-left-radius',
  right: 'border-top-right-radius',
  bottom: 'border-bottom-right-radius',
  left: 'border-bottom-left-radius',
} as const;
const WIDTHS = /^(thin|medium|thick|[+-]?[0-9.]+[a-z]*|calc\(.*\))$/;
const STYLES = new Set([
  'none',
  'hidden',
  'dotted',
  'dashed',
  'solid',
  'double',
  'groove',
  'ridge',
  'inset',
  'outset',
]);

/**
 * The longhands that a declaration sets, in a fixed order.
 * In: property and value as written, and the path of the file, for `url()`.
 */
export function expandDeclaration(property: string, value: string, holder: string): LonghandValue[] {
  const canonical = canonicalProperty(property);
  const form = aliasedValue(property, normalValue(canonical, value, holder));
  const { set, reset, unsettled } = longhands(canonical);
  const settled = (longhand: string, part: string): LonghandValue => ({
    longhand,
    value: part,
    unsettled: false,
  });
  if (set.length === 1 && reset.length === 0 && unsettled.length === 0) return [settled(set[0]!, form)];
  const wide = CSS_WIDE.has(form) ? form : undefined;
  const parts = wide !== undefined || form.includes('var(') ? undefined : takeApart(canonical, form);
  return [
    ...set.map((longhand) =>
      settled(longhand, wide ?? parts?.get(longhand) ?? `part of ${canonical}: ${form}`),
    ),
    ...reset.map((longhand) => settled(longhand, wide ?? 'initial')),
    ...unsettled.map((longhand) => ({ longhand, value: wide ?? 'initial', unsettled: true })),
  ];
}

function takeApart(shorthand: string, form: string): Map<string, string> | undefined {
  const words = splitValue(form);
  if (words === undefined) return undefined;
  switch (shorthand) {
    case 'margin':
    case 'padding':
      return fourSides(words, (side) => `${shorthand}-${side}`);
    case 'inset':
      return fourSides(words, (side) => side);
    case 'border-width':
    case 'border-style':
    case 'border-color':
      return fourSides(words, (side) => shorthand.replace('border', `border-${side}`));
    // Without a slash both radii of a corner are the same (CSS Backgrounds 3 §4.1).
    case 'border-radius':
      return fourSides(words, (side) => CORNERS[side]);
    case 'border':
      return lineParts(
        words,
        SIDES.map((side) => `border-${side}`),
      );
    case 'border-top':
    case 'border-right':
    case 'border-bottom':
    case 'border-left':
    case 'border-inline-start':
    case 'border-inline-end':
    case 'border-block-start':
    case 'border-block-end':
    case 'outline':
      return lineParts(words, [shorthand]);
    case 'border-inline':
    case 'border-block':
      return lineParts(words, [`${shorthand}-start`, `${shorthand}-end`]);
    case 'margin-inline':
    case 'margin-block':
    case 'padding-inline':
    case 'padding-block':
    case 'inset-inline':
    case 'inset-block':
      return pair(words, `${shorthand}-start`, `${shorthand}-end`);
    case 'overflow':
      return pair(words, 'overflow-x', 'overflow-y');
    case 'gap':
      return pair(words, 'row-gap', 'column-gap');
    case 'background':
      return plainBackground(words);
    default:
      return undefined;
  }
}

/** Splits at spaces outside brackets; `undefined` where commas or slashes make it more than a list of words. */
function splitValue(form: string): string[] | undefined {
  const words: string[] = [];
  let depth = 0;
  let word = '';
  for (const char of form) {
    if (char === '(') depth++;
    if (char === ')') depth--;
    if (depth === 0 && (char === ',' || (char === '/' && !word.startsWith('#')))) return undefined;
    if (depth === 0 && char === ' ') {
      words.push(word);
      word = '';
    } else word += char;
  }
  words.push(word);
  return words;
}

function fourSides(
  words: readonly string[],
  name: (side: (typeof SIDES)[number]) => string,
): Map<string, string> | undefined {
  if (words.length < 1 || words.length > 4) return undefined;
  const [top, right = top, bottom = top, left = right] = words;
  const values = [top, right, bottom, left];
  return new Map(SIDES.map((side, i) => [name(side), values[i]!]));
}

function pair(words: readonly string[], first: string, second: string): Map<string, string> | undefined {
  if (words.length < 1 || words.length > 2) return undefined;
  return new Map([
    [first, words[0]!],
    [second, words[1] ?? words[0]!],
  ]);
}

/** `<line-width> || <line-style> || <color>`: what is not named gets its initial value. */
function lineParts(words: readonly string[], prefixes: readonly string[]): Map<string, string> | undefined {
  let width: string | undefined;
  let style: string | undefined;
  let colour: string | undefined;
  for (const word of words) {
    if (style === undefined && STYLES.has(word)) style = word;
    else if (width === undefined && WIDTHS.test(word)) width = word;
    else if (colour === undefined && /^#|^currentcolor$/.test(word)) colour = word;
    else return undefined;
  }
  const parts = new Map<string, string>();
  for (const prefix of prefixes) {
    parts.set(`${prefix}-width`, width ?? 'initial');
    parts.set(`${prefix}-style`, style ?? 'initial');
    parts.set(`${prefix}-color`, colour ?? 'initial');
  }
  return parts;
}

/** `background: <colour>` or `none`: the other longhands become initial. */
function plainBackground(words: readonly string[]): Map<string, string> | undefined {
  const only = words[0] ?? '';
  if (words.length !== 1 || !(only.startsWith('#') || only === 'none')) return undefined;
  const parts = new Map(longhands('background').set.map((longhand) => [longhand, 'initial']));
  if (only !== 'none') parts.set('background-color', only);
  return parts;
}
