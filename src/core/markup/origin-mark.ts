// The mark by which a tag of a built page is told to come from a tag of a source: an attribute that no rule asks for. A page
// has it only while a build is looked through; in the model it is no attribute.

import type { SourceTag } from './page.js';

export const ORIGIN_MARK = 'data-acervus-origin';

const NUMBER = /(\d+)"?$/;

/** The number of the source's tag that a tag comes from; `undefined` where it comes from none. */
export function originOf(page: { readonly text: string }, tag: SourceTag | undefined): number | undefined {
  const range = tag?.attributes.get(ORIGIN_MARK);
  if (range === undefined) return undefined;
  const number = NUMBER.exec(page.text.slice(range.start, range.end))?.[1];
  return number === undefined ? undefined : Number(number);
}

const MARKS = new RegExp(` ${ORIGIN_MARK}="?\\d+"?`, 'g');

/** The text of a page as its build makes it without marks. */
export function withoutMarks(text: string): string {
  return text.replace(MARKS, '');
}
