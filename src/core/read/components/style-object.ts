// Styles that are objects in code, as the text that the framework makes of them.

import { hasOneOf } from '../../base/characters.js';
import type { SourceRange } from '../../base/source.js';
import { isNode, keyOf, type Node, nodesAt, numberOf, stringOf } from './expression.js';
import { unwritten } from './unwritten.js';

export interface ReadObject {
  /** As a style attribute. */
  readonly style: string;
  readonly entries: readonly SourceRange[];
}

export type Units = 'px' | 'none';

/** Properties whose numbers are no lengths, as React's documentation lists them (react.dev, common components, `style`). */
const UNITLESS: ReadonlySet<string> = new Set([
  'animationIterationCount',
  'aspectRatio',
  'borderImageOutset',
  'borderImageSlice',
  'borderImageWidth',
  'boxFlex',
  'boxFlexGroup',
  'boxOrdinalGroup',
  'columnCount',
  'columns',
  'flex',
  'flexGrow',
  'flexPositive',
  'flexShrink',
  'flexNegative',
  'flexOrder',
  'gridArea',
  'gridRow',
  'gridRowEnd',
  'gridRowSpan',
  'gridRowStart',
  'gridColumn',
  'gridColumnEnd',
  'gridColumnSpan',
  'gridColumnStart',
  'fontWeight',
  'lineClamp',
  'lineHeight',
  'opacity',
  'order',
  'orphans',
  'scale',
  'tabSize',
  'widows',
  'zIndex',
  'zoom',
  'fillOpacity',
  'floodOpacity',
  'stopOpacity',
  'strokeDasharray',
  'strokeDashoffset',
  'strokeMiterlimit',
  'strokeOpacity',
  'strokeWidth',
]);

/**
 * In: an object; the text of the file; how many characters the object's offsets lie behind the file's; what a number is in.
 * Out: `undefined` for an object whose keys are not all written out, or that says what no browser would take so.
 */
export function readStyleObject(
  node: Node,
  text: string,
  shift: number,
  units: Units,
): ReadObject | undefined {
  if (node.type !== 'ObjectExpression') return undefined;
  const said: string[] = [];
  const entries: SourceRange[] = [];
  const known = new Set<string>();
  const properties = nodesAt(node, 'properties');
  for (const [at, property] of properties.entries()) {
    const key = keyOf(property);
    const value =
      key === undefined
        ? undefined
        : (valueText(property, key, units) ?? computedText(property, text, shift));
    if (key === undefined || value === undefined || known.has(key)) return undefined;
    known.add(key);
    said.push(`${cssName(key)}: ${value}`);
    const next = properties[at + 1];
    const end = next === undefined ? Number(property.end) : Number(next.start);
    entries.push({ start: Number(property.start) + shift, end: end + shift });
  }
  return said.length === 0 ? undefined : { style: said.join('; '), entries };
}

function valueText(property: Node, key: string, units: Units): string | undefined {
  const node = property.value;
  if (typeof node !== 'object' || node === null) return undefined;
  const number = numberOf(node as Node);
  if (number !== undefined) {
    if (units === 'none' || number === 0 || UNITLESS.has(withoutPrefix(key)) || key.startsWith('--'))
      return String(number);
    return `${number}px`;
  }
  const text = stringOf(node as Node)?.trim();
  // In code, importance is no part of a value.
  return text === undefined || text === '' || hasOneOf(text, '!;') ? undefined : text;
}

/** A value that code comes to, as it is written. */
function computedText({ value }: Node, text: string, shift: number): string | undefined {
  if (!isNode(value) || stringOf(value) !== undefined) return undefined;
  return unwritten(text.slice(Number(value.start) + shift, Number(value.end) + shift));
}

function withoutPrefix(key: string): string {
  return key.replace(/^(?:Webkit|Moz|ms|O)([A-Z])/, (_, letter: string) => letter.toLowerCase());
}

/** `WebkitLineClamp` is `-webkit-line-clamp`, and `msFlex` `-ms-flex`. */
function cssName(key: string): string {
  if (key.startsWith('--') || key.includes('-')) return key;
  return key.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`).replace(/^ms-/, '-ms-');
}
