// What stands in front of a page's body, and must be alike on a page that is shown as another one is: what becomes of a style
// block there becomes of it here.

import { hasOneOf, SPACE } from '../../base/characters.js';
import type { SourceRange } from '../../base/source.js';
import type { LeftOut } from '../../cascade/index.js';
import type { Edit } from '../../edit/text/index.js';
import type { Page } from '../../read/markup/index.js';

export interface Front {
  /** Equal keys, equal blocks, and as much white space in front of them. */
  readonly key: string;
  readonly body: number;
  /** Its style blocks, each with the white space in front. */
  readonly blocks: readonly SourceRange[];
}

/** Out: `undefined` where not all sheets of a page stand in front of its body, each by itself. */
export function frontOf({ elements, sheets, text }: Page): Front | undefined {
  const body = elements.find(({ name }) => name === 'body');
  const end = body?.tag?.range.end;
  if (body === undefined || end === undefined) return undefined;
  const blocks: SourceRange[] = [];
  for (const sheet of sheets) {
    if (sheet.element >= body.index) return undefined;
    if (sheet.kind === 'link') continue;
    const tag = elements[sheet.element]?.tag?.range;
    if (tag === undefined || sheet.offset !== tag.end) return undefined;
    const close = /^<\/style[^>]*>/i.exec(text.slice(tag.end + sheet.text.length))?.[0];
    if (close === undefined || text.slice(tag.end, tag.end + sheet.text.length) !== sheet.text)
      return undefined;
    let { start } = tag;
    while (start > 0 && hasOneOf(text[start - 1]!, SPACE)) start--;
    blocks.push({ start, end: tag.end + sheet.text.length + close.length });
  }
  if (blocks.length === 0) return { key: '', body: end, blocks };
  // A rule for a section of the site goes by the classes of these.
  const around = elements
    .filter(({ name, parent }) => parent < 0 || name === 'body')
    .map(({ classes, id }) => [...classes, `#${id}`].join(' '));
  return {
    key: [...around, ...blocks.map((one) => text.slice(one.start, one.end))].join('\0'),
    body: end,
    blocks,
  };
}

/** What becomes of the blocks of a page that was left out. In: what was done to the page that it is like. */
export function blocksAs({ blocks }: LeftOut, edits: readonly Edit[]): Edit[] {
  return blocks.flatMap(({ start, like }) =>
    edits
      .filter((edit) => like.start <= edit.start && like.start < edit.end && edit.end <= like.end)
      .map((edit) => ({
        ...edit,
        start: edit.start - like.start + start,
        end: edit.end - like.start + start,
      })),
  );
}
