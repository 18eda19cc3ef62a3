// A width and a state that somebody asks about: which conditions they decide.

import type { Truth, TruthTable } from '../../cascade/index.js';

export interface Circumstances {
  /** Of the window, in CSS pixels. */
  readonly width: number | undefined;
  /** Names of the states the element is in, without colons: `hover`. `undefined` leaves all states open. */
  readonly states: ReadonlySet<string> | undefined;
}

export const ANY_CIRCUMSTANCES: Circumstances = { width: undefined, states: undefined };

/** States that the pointer, the keyboard and the address bar make; an element is in none of them unless they say so. */
const INTERACTIVE = new Set([
  'hover',
  'active',
  'focus',
  'focus-visible',
  'focus-within',
  'target',
  'visited',
]);
/** An element under the pointer has its ancestors under the pointer too. */
const SPREADS_UP = new Set(['hover', 'active', 'focus-within']);

/** What is left open of a condition. */
export function settleIn(truth: Truth, at: Circumstances, truths: TruthTable): Truth {
  return truths.settle(truth, (literal) => decideLiteral(literal, at));
}

/** Out: `undefined` for what the circumstances do not mention. */
export function decideLiteral(literal: string, { width, states }: Circumstances): boolean | undefined {
  if (literal.startsWith('@media '))
    return width === undefined ? undefined : mediaHolds(literal.slice(7), width);
  const state = /^(?:::[\w-]+)?:([a-z-]+)(?: on (.*))?$/.exec(literal);
  if (state === null || states === undefined) return undefined;
  const [, name = '', where] = state;
  if (name === 'link') return !states.has('visited');
  if (!INTERACTIVE.has(name)) return states.has(name) && where === undefined ? true : undefined;
  const holds = states.has(name) || (name === 'focus-within' && states.has('focus'));
  const above = where === undefined || /^(its parent|ancestor \d+|the top)$/.test(where);
  return holds && above && (where === undefined || SPREADS_UP.has(name));
}

/** Media Queries 4, as far as a width on a screen decides: `undefined` for everything else. */
function mediaHolds(text: string, width: number): boolean | undefined {
  let open = false;
  for (const query of text.split(',')) {
    const holds = queryHolds(query.trim(), width);
    if (holds === true) return true;
    if (holds === undefined) open = true;
  }
  return open ? undefined : false;
}

function queryHolds(query: string, width: number): boolean | undefined {
  const negated = /^not\s+/.test(query);
  const parts = query.replace(/^(not|only)\s+/, '').split(/\s+and\s+/);
  const answers = parts.map((part) => partHolds(part.trim(), width));
  const all = answers.includes(false) ? false : answers.includes(undefined) ? undefined : true;
  return all === undefined || !negated ? all : !all;
}

function partHolds(part: string, width: number): boolean | undefined {
  if (part === 'all' || part === 'screen') return true;
  if (['print', 'speech'].includes(part)) return false;
  const plain = /^\(\s*(min|max)-width\s*:\s*([\d.]+)(px|em|rem)\s*\)$/.exec(part);
  if (plain !== null) {
    const limit = pixels(plain[2]!, plain[3]!);
    return plain[1] === 'min' ? width >= limit : width <= limit;
  }
  const range = /^\(\s*width\s*(<=|>=|<|>|=)\s*([\d.]+)(px|em|rem)\s*\)$/.exec(part);
  if (range === null) return undefined;
  const limit = pixels(range[2]!, range[3]!);
  switch (range[1]) {
    case '<=':
      return width <= limit;
    case '>=':
      return width >= limit;
    case '<':
      return width < limit;
    case '>':
      return width > limit;
    default:
      return width === limit;
  }
}

/** In media queries an em is that of the browser's own text size: 16 pixels unless the reader changed it. */
function pixels(number: string, unit: string): number {
  return Number(number) * (unit === 'px' ? 1 : 16);
}
