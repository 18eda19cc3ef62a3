// SVG's presentation attributes (SVG 2 §6.6): they are named as the properties they set, and weigh as old attributes do.
// `transform` has a syntax of its own and is left out.

import { hasOneOf } from '../../base/characters.js';
import type { PageElement } from '../markup/index.js';
import type { HintDeclaration } from './table.js';

const PROPERTIES = new Set(
  (
    'alignment-baseline baseline-shift clip-path clip-rule color color-interpolation color-interpolation-filters cursor ' +
    'direction display dominant-baseline fill fill-opacity fill-rule filter flood-color flood-opacity font-family ' +
    'font-size font-size-adjust font-stretch font-style font-variant font-weight image-rendering letter-spacing ' +
    'lighting-color marker-end marker-mid marker-start mask mask-type opacity overflow paint-order pointer-events ' +
    'shape-rendering stop-color stop-opacity stroke stroke-dasharray stroke-dashoffset stroke-linecap stroke-linejoin ' +
    'stroke-miterlimit stroke-opacity stroke-width text-anchor text-decoration text-rendering unicode-bidi ' +
    'vector-effect visibility word-spacing writing-mode'
  ).split(' '),
);
/** Geometry that only these elements have as properties. */
const GEOMETRY: ReadonlyMap<string, readonly string[]> = new Map([
  ['circle', ['cx', 'cy', 'r']],
  ['ellipse', ['cx', 'cy', 'rx', 'ry']],
  ['rect', ['x', 'y', 'width', 'height', 'rx', 'ry']],
  ['image', ['x', 'y', 'width', 'height']],
  ['foreignObject', ['x', 'y', 'width', 'height']],
  ['svg', ['x', 'y', 'width', 'height']],
]);
const LENGTHS = new Set([
  'font-size',
  'letter-spacing',
  'word-spacing',
  'stroke-width',
  'stroke-dashoffset',
  'baseline-shift',
  'x',
  'y',
  'cx',
  'cy',
  'rx',
  'ry',
  'r',
  'width',
  'height',
]);

/** In: an element of an SVG. Out: what its attributes declare in CSS; bare numbers are pixels. */
export function svgHints({ name, attributes }: PageElement): HintDeclaration[] {
  const own = GEOMETRY.get(name);
  return attributes.flatMap(({ name: property, value }) => {
    if (!PROPERTIES.has(property) && own?.includes(property) !== true) return [];
    const trimmed = value.trim();
    if (trimmed === '' || hasOneOf(trimmed, ';{}!')) return [];
    const bare = LENGTHS.has(property) && /^[+-]?[\d.]+(e[+-]?\d+)?$/i.test(trimmed);
    return [{ property, value: bare ? `${Number(trimmed)}px` : trimmed }];
  });
}
