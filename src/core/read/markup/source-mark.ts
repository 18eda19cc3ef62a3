// The mark by which a tag of a built page is told to come from a tag of a source: an attribute that no rule asks for. A page
// has it only while a build is looked through; in the model it is no attribute.

import type { SourceTag } from './page.js';

export const SOURCE_MARK = 'data-acervus-origin';

/** A number; behind it a plus where another tag of the site, before this one, comes from the same. */
const NUMBER = /(\d+)(\+?)"?$/;

/** The number of the source's tag that a tag comes from; `undefined` where it comes from none. */
export function sourceNumberOf(
  page: { readonly text: string },
  tag: SourceTag | undefined,
): number | undefined {
  const number = markOf(page, tag)?.[1];
  return number === undefined ? undefined : Number(number);
}

/** Whether a tag before this one comes from the same tag of a source: it is no further place to keep up. */
export function isAgain(page: { readonly text: string }, tag: SourceTag | undefined): boolean {
  return markOf(page, tag)?.[2] === '+';
}

function markOf(
  page: { readonly text: string },
  tag: SourceTag | undefined,
): RegExpExecArray | null | undefined {
  const range = tag?.attributes.get(SOURCE_MARK);
  return range && NUMBER.exec(page.text.slice(range.start, range.end));
}

const MARKS = new RegExp(` ${SOURCE_MARK}=(?:"\\d+\\+?"|\\d+\\+? ?(?=/)|\\d+\\+?)`, 'g');

/** The text of a page as its build makes it without marks. */
export function withoutMarks(text: string): string {
  return text.replace(MARKS, '');
}

export interface CountedMarks {
  readonly text: string;
  /** By number, how many tags of the page come from it. */
  readonly counts: ReadonlyMap<number, number>;
}

/** Tells the marks of a page that stand for what was seen before. In: the numbers that were seen, which grow. */
export function countMarks(text: string, seen: Set<number>): CountedMarks {
  const counts = new Map<number, number>();
  const marked = text.replace(/( data-acervus-origin="?)(\d+)/g, (whole, before: string, digits: string) => {
    const number = Number(digits);
    counts.set(number, (counts.get(number) ?? 0) + 1);
    if (!seen.has(number)) {
      seen.add(number);
      return whole;
    }
    return number === 0 ? whole : `${before}${digits}+`;
  });
  return { text: marked, counts };
}
