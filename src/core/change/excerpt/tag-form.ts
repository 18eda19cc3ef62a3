// The tags of an element as a form: what stands in them, but for values that tell one element of many and that nothing goes by.
// An edit of such a tag is an edit of all that have its form.

import { scriptInAddress } from '../../base/script-address.js';
import type { Page, PageElement } from '../../read/markup/index.js';

export interface TagForm {
  readonly text: string;
  /** Offsets in the start tag where such values begin and end, in turn. */
  readonly free: readonly number[];
}

const FREE = new Set(['id', 'name', 'href', 'src', 'title', 'alt', 'summary', 'abbr', 'headers', 'for']);
const NONE: readonly number[] = [];

/** In: an element; its page; whether a rule, a script or the search may go by a name. */
export function tagForm(
  { tag, index, attributes }: PageElement,
  { text, contentEnds }: Pick<Page, 'text' | 'contentEnds'>,
  isMeant: (name: string) => boolean,
): TagForm {
  const end = endTagAt(text, contentEnds[index]!);
  if (tag === undefined) return { text: end, free: NONE };
  const { start } = tag.range;
  const free: number[] = [];
  for (const { name, value } of attributes) {
    if (!FREE.has(name) || scriptInAddress(value) !== undefined || isMeant(value)) continue;
    const range = tag.attributes.get(name);
    const inside = range && insideQuotes(text, range.start, range.end);
    if (inside !== undefined) free.push(inside - start, range!.end - 1 - start);
  }
  if (free.length === 0) return { text: text.slice(start, tag.range.end) + end, free: NONE };
  free.sort((a, b) => a - b);
  let form = '';
  let at = start;
  for (let one = 0; one < free.length; one += 2) {
    form += text.slice(at, start + free[one]!);
    at = start + free[one + 1]!;
  }
  return { text: form + text.slice(at, tag.range.end) + end, free };
}

/** Where the value of an attribute begins; `undefined` without quotes. */
function insideQuotes(text: string, start: number, end: number): number | undefined {
  const quote = text[end - 1];
  if (quote !== '"' && quote !== "'") return undefined;
  const open = /^[^=]+=\s*(?=["'])/.exec(text.slice(start, end))?.[0].length;
  return open === undefined || text[start + open] !== quote || start + open + 1 >= end
    ? undefined
    : start + open + 1;
}

/** The end tag that begins at an offset; nothing where none does. */
export function endTagAt(text: string, offset: number): string {
  return text.startsWith('</', offset) ? text.slice(offset, text.indexOf('>', offset) + 1) : '';
}

/**
 * An offset in a start tag as one in another that has its form; `undefined` inside a value that tells them apart.
 * In: the offset; where such values stand in the one and in the other.
 */
export function inOtherTag(at: number, of: readonly number[], other: readonly number[]): number | undefined {
  let shift = 0;
  for (let one = 0; one < of.length && of[one]! < at; one += 2) {
    if (at < of[one + 1]!) return undefined;
    shift = other[one + 1]! - of[one + 1]!;
  }
  return at + shift;
}
