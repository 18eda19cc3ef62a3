// What kind of value a declaration declares: told by the property, and for a custom property by the value itself.

import { includesAny, withSingleSpaces } from '../../base/phrases.js';
import { canonicalProperty, normalColour } from '../../read/sheets/index.js';
import { usesVariables } from '../../read/sheets/variables.js';
import { coloursIn } from '../../stock/index.js';

/** Kinds, by the names that the design token format has for them, and line heights, which are numbers there. */
export const VALUE_KINDS = [
  'color',
  'gradient',
  'fontFamily',
  'fontSize',
  'fontWeight',
  'lineHeight',
  'shadow',
  'radius',
  'duration',
  'dimension',
  'number',
] as const;

export type ValueKind = (typeof VALUE_KINDS)[number];

const BY_PROPERTY: readonly (readonly [RegExp, ValueKind])[] = [
  [/^font-family$/, 'fontFamily'],
  [/^font-size$/, 'fontSize'],
  [/^font-weight$/, 'fontWeight'],
  [/^line-height$/, 'lineHeight'],
  [/^(?:box|text)-shadow$/, 'shadow'],
  [/^border(?:-[a-z]+)*-radius$/, 'radius'],
  [/^(?:transition|animation)-(?:duration|delay)$/, 'duration'],
];

/** What stands for nothing that could have a name. */
const EMPTY = new Set([
  'inherit',
  'initial',
  'unset',
  'revert',
  'revert-layer',
  'none',
  'normal',
  'auto',
  '0',
  'currentcolor',
  'transparent',
]);

const DIMENSION =
  /^-?(?:\d+\.?\d*|\.\d+)(?:px|rem|em|ch|ex|lh|rlh|vw|vh|vmin|vmax|svh|lvh|dvh|%|pt|pc|cm|mm|in|q)$/i;
const DURATION = /^(?:\d+\.?\d*|\.\d+)m?s$/i;
const NUMBER = /^-?(?:\d+\.?\d*|\.\d+)$/;
const GRADIENT = /^(?:repeating-)?(?:linear|radial|conic)-gradient\(/i;

/** Of a declaration, the values in it that could have a name, each with its kind. */
export function valuesIn(
  property: string,
  value: string,
): { readonly kind: ValueKind; readonly value: string }[] {
  const text = value.trim();
  if (EMPTY.has(text.toLowerCase()) || usesVariables(text)) return [];
  const own = kindFor(property);
  if (own !== undefined) return [{ kind: own, value: text }];
  if (GRADIENT.test(text)) return [{ kind: 'gradient', value: text }];
  return coloursIn(property, text).flatMap(({ text: one }) =>
    normalColour(one) === undefined ? [] : [{ kind: 'color' as const, value: one }],
  );
}

/** What a property takes as a whole; `undefined` for one that takes many kinds. */
export function kindFor(property: string): ValueKind | undefined {
  const name = canonicalProperty(property);
  return BY_PROPERTY.find(([pattern]) => pattern.test(name))?.[1];
}

/** Lengths and a colour, in any order. */
const SHADOW = /^(?:inset\s+)?(?:-?[\d.]+[a-z]*\s+){2,4}(?:#|rgb|hsl|[a-z])/i;

/** In: a custom property, its value, and what it is used for as a whole. Out: `undefined` for what is none of these. */
export function kindOf(name: string, value: string, use?: ValueKind): ValueKind | undefined {
  const text = value.trim();
  if (use !== undefined && !usesVariables(text)) return use;
  if (normalColour(text) !== undefined) return 'color';
  if (GRADIENT.test(text)) return 'gradient';
  if (DURATION.test(text)) return 'duration';
  if (SHADOW.test(text)) return 'shadow';
  if (DIMENSION.test(text)) {
    if (includesAny(name.toLowerCase(), ['radius', 'round', 'corner'])) return 'radius';
    return includesAny(name.toLowerCase(), ['font', 'text', 'type', 'size']) &&
      !includesAny(name.toLowerCase(), ['space', 'gap', 'width', 'height'])
      ? 'fontSize'
      : 'dimension';
  }
  if (name.toLowerCase().includes('weight') && /^(?:\d{1,4}|bold|normal|lighter|bolder)$/i.test(text))
    return 'fontWeight';
  if (NUMBER.test(text))
    return includesAny(name.toLowerCase(), ['line', 'leading']) ? 'lineHeight' : 'number';
  if (
    includesAny(name.toLowerCase(), ['font', 'family', 'face']) &&
    /^(?:"[^"]*"|'[^']*'|[\w -]+)(?:\s*,\s*(?:"[^"]*"|'[^']*'|[\w -]+))*$/.test(text)
  )
    return 'fontFamily';
  return undefined;
}

/** Equal forms are one value, however it is written. */
export function valueForm(kind: ValueKind, value: string): string {
  if (kind === 'color') return normalColour(value) ?? value.toLowerCase();
  return kind === 'fontFamily'
    ? value.replace(/\s*,\s*/g, ', ').replaceAll('"', "'")
    : withSingleSpaces(value);
}
