// Media queries as conditions over what a device is: its type, its ranges (width, resolution), its choices (colour scheme,
// pointer). Media Queries 5 §2, §3.

import type { CssNode } from 'css-tree';
import * as csstree from 'css-tree/dist/csstree.esm';

/** One thing that media queries ask about. Ranges in different units are kept apart: what an `em` is, no file tells. */
export interface MediaAxis {
  /** `width`, whatever the unit. */
  readonly feature: string;
  readonly key: string;
  /** What the query tells apart: numbers of a range, or names. */
  readonly marks: readonly (number | string)[];
}

/** What a device is on one axis. */
export type OnAxis = (axis: MediaAxis) => number | string;

export interface MediaCondition {
  readonly axes: readonly MediaAxis[];
  readonly holds: (on: OnAxis) => boolean;
}

/** The choices of which there are no others (Media Queries 5 §4 to §9). */
const ALL_CHOICES: Readonly<Record<string, readonly string[]>> = {
  'prefers-color-scheme': ['light', 'dark'],
  orientation: ['portrait', 'landscape'],
  hover: ['none', 'hover'],
  'any-hover': ['none', 'hover'],
  pointer: ['none', 'coarse', 'fine'],
  'any-pointer': ['none', 'coarse', 'fine'],
  'forced-colors': ['none', 'active'],
  'prefers-reduced-motion': ['no-preference', 'reduce'],
  'prefers-reduced-transparency': ['no-preference', 'reduce'],
  'prefers-contrast': ['no-preference', 'more', 'less', 'custom'],
  scripting: ['none', 'initial-only', 'enabled'],
};

/** Choices that a query without a value does not ask for (Media Queries 5 §2.4.2). */
const OFF = new Set(['none', 'no-preference', 'off']);
/** Some other choice than those that are named. */
const ANOTHER = 'another';

/** In: a media query list, without `@media`. Out: `undefined` where it is not understood. */
export function readMedia(text: string): MediaCondition | undefined {
  let list: CssNode;
  try {
    list = csstree.parse(text, { context: 'mediaQueryList' });
  } catch {
    return undefined;
  }
  if (list.type !== 'MediaQueryList') return undefined;
  const queries = list.children.toArray().map(readQuery);
  return everyOne(queries) ? joined(queries, (parts) => parts.some(Boolean)) : undefined;
}

/** Where a device can stand on an axis, given all that is asked of it: on each mark, between them, and beyond. */
export function standings(axes: readonly MediaAxis[]): (number | string)[] {
  const [first] = axes;
  if (first === undefined) return [];
  const marks = new Set(axes.flatMap((axis) => axis.marks));
  if (typeof first.marks[0] !== 'number') {
    const all = ALL_CHOICES[first.feature];
    return all === undefined ? [...marks, ANOTHER] : [...all];
  }
  const numbers = [...marks].map(Number).sort((a, b) => a - b);
  return numbers.flatMap((mark, at) => {
    const below = at === 0 ? mark / 2 : (numbers[at - 1]! + mark) / 2;
    const own = below === mark ? [mark] : [below, mark];
    return at === numbers.length - 1 ? [...own, mark + 1] : own;
  });
}

function readQuery(query: CssNode): MediaCondition | undefined {
  if (query.type !== 'MediaQuery') return undefined;
  // Types of css-tree know an older form of the node.
  const { modifier, mediaType, condition } = query as unknown as {
    modifier: string | null;
    mediaType: string | null;
    condition: CssNode | null;
  };
  const parts: (MediaCondition | undefined)[] = [];
  if (mediaType !== null && mediaType !== 'all') parts.push(choice('type', mediaType));
  if (condition !== null) parts.push(readCondition(condition));
  if (!everyOne(parts)) return undefined;
  const negated = modifier === 'not';
  return joined(parts, (held) => held.every(Boolean) !== negated);
}

function readCondition(node: CssNode): MediaCondition | undefined {
  const kind: string = node.type;
  if (kind === 'Feature') return readFeature(node as unknown as FeatureNode);
  if (kind === 'FeatureRange') return readRange(node as unknown as RangeNode);
  if (kind !== 'Condition') return undefined;
  const children = (node as unknown as { children: csstree.List<CssNode> }).children.toArray();
  const words = children.flatMap((child) => (child.type === 'Identifier' ? [child.name.toLowerCase()] : []));
  const members = children.filter(({ type }) => type !== 'Identifier').map(readCondition);
  if (!everyOne(members) || words.some((word) => word !== words[0])) return undefined;
  if (words[0] === 'not') return joined(members, ([held]) => !held);
  return joined(members, (held) => (words[0] === 'or' ? held.some(Boolean) : held.every(Boolean)));
}

interface FeatureNode {
  readonly name: string;
  readonly value: CssNode | null;
}

interface RangeNode {
  readonly left: CssNode;
  readonly leftComparison: string;
  readonly middle: CssNode;
  readonly rightComparison: string | null;
  readonly right: CssNode | null;
}

function readFeature({ name, value }: FeatureNode): MediaCondition | undefined {
  const feature = name.toLowerCase();
  if (value === null) return chosen(feature, [...OFF], (at) => !OFF.has(String(at)));
  if (value.type === 'Identifier') return choice(feature, value.name.toLowerCase());
  const bound = /^(min|max)-(.+)$/.exec(feature);
  const asked = numberOf(value);
  if (asked === undefined) return undefined;
  const comparison = bound === null ? '=' : bound[1] === 'min' ? '>=' : '<=';
  return compared(bound?.[2] ?? feature, comparison, asked);
}

/** `width < 40em`, `40em > width`, `20em <= width <= 40em`. */
function readRange(node: RangeNode): MediaCondition | undefined {
  const { left, leftComparison, middle, rightComparison, right } = node;
  if (left.type === 'Identifier') {
    const asked = numberOf(middle);
    return asked && compared(left.name.toLowerCase(), leftComparison, asked);
  }
  if (middle.type !== 'Identifier') return undefined;
  const feature = middle.name.toLowerCase();
  const low = numberOf(left);
  const high = right === null ? undefined : numberOf(right);
  if (low === undefined || (right !== null && high === undefined)) return undefined;
  const parts = [compared(feature, TURNED[leftComparison] ?? leftComparison, low)];
  if (high !== undefined && rightComparison !== null) parts.push(compared(feature, rightComparison, high));
  return joined(parts, (held) => held.every(Boolean));
}

const TURNED: Readonly<Record<string, string>> = { '<': '>', '<=': '>=', '>': '<', '>=': '<=' };

function numberOf(node: CssNode): { value: number; unit: string } | undefined {
  if (node.type === 'Dimension') return { value: Number(node.value), unit: node.unit.toLowerCase() };
  if (node.type === 'Number') {
    const value = Number(node.value);
    return { value, unit: value === 0 ? 'px' : '' };
  }
  if (node.type !== 'Ratio') return undefined;
  const { left, right } = node as unknown as { left: CssNode; right: CssNode | null };
  const [over, under] = [numberOf(left), right === null ? { value: 1 } : numberOf(right)];
  return over === undefined || under === undefined || under.value === 0
    ? undefined
    : { value: over.value / under.value, unit: '' };
}

function compared(
  feature: string,
  comparison: string,
  { value, unit }: { value: number; unit: string },
): MediaCondition {
  const axis: MediaAxis = { feature, key: `${feature} ${unit}`, marks: [value] };
  const holds = (on: OnAxis): boolean => {
    const at = Number(on(axis));
    switch (comparison) {
      case '<':
        return at < value;
      case '<=':
        return at <= value;
      case '>':
        return at > value;
      case '>=':
        return at >= value;
      default:
        return at === value;
    }
  };
  return { axes: [axis], holds };
}

function choice(feature: string, name: string): MediaCondition {
  return chosen(feature, [name], (at) => at === name);
}

function chosen(
  feature: string,
  marks: readonly string[],
  isOne: (at: number | string) => boolean,
): MediaCondition {
  const axis: MediaAxis = { feature, key: feature, marks };
  return { axes: [axis], holds: (on) => isOne(on(axis)) };
}

function joined(
  parts: readonly MediaCondition[],
  decide: (held: readonly boolean[]) => boolean,
): MediaCondition {
  return {
    axes: parts.flatMap(({ axes }) => axes),
    holds: (on) => decide(parts.map(({ holds }) => holds(on))),
  };
}

function everyOne<T>(list: readonly (T | undefined)[]): list is readonly T[] {
  return list.every((one) => one !== undefined);
}
