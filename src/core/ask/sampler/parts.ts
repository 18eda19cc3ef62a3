// The parts of a sheet, as its author names them: comments that stand on lines of their own.

import { withSingleSpaces } from '../../base/phrases.js';
import type { Sheet } from '../../read/sheets/index.js';

export interface Heading {
  readonly start: number;
  readonly text: string;
}

/** A remark is longer than a heading. */
const LONGEST = 60;

/** In order. A comment within a rule is none, and neither is one that mentions the rule right behind it. */
export function headingsOf({ text, rules }: Sheet): Heading[] {
  const found: Heading[] = [];
  for (const match of text.matchAll(/^[ \t]*\/\*([\s\S]*?)\*\/[ \t]*\r?$/gm)) {
    const start = match.index;
    if (rules.some(({ range }) => range.start < start && start < range.end)) continue;
    const isApart = /^[ \t]*(?:\r?\n[ \t]*\r?\n|\s*$)/.test(text.slice(start + match[0].length));
    const isDrawn = /[=*#~_-]{2,}/.test(match[1]!);
    if (!isApart && !isDrawn) continue;
    const words = withSingleSpaces(match[1]!.replace(/[=*#~_-]{2,}/g, ' ')).replace(/^[\s*]+|[\s*.:]+$/g, '');
    if (words !== '' && words.length <= LONGEST) found.push({ start, text: words });
  }
  return found;
}

/** The heading that something stands under. */
export function headingAt(headings: readonly Heading[], offset: number): string | undefined {
  return headings.findLast(({ start }) => start < offset)?.text;
}
