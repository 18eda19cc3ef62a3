// The boxes of a running system as they stand in its pages. A box is a sheet of its own here, in its place in each page: the
// pages stay as they were brought.

import path from 'node:path';
import type { Box } from '../../core/ask/visit/box-schema.js';
import { meansBlock, sheetLinks, styleBlocks } from '../../core/ask/visit/boxes.js';
import { addressFrom, resolveAddress } from '../../core/base/addresses.js';
import { withoutStart } from '../../core/base/phrases.js';

export interface Visited {
  /** Files of the pages, in order. */
  readonly pages: readonly string[];
  /** Where addresses lead, as they are written in pages and sheets. */
  readonly addresses: ReadonlyMap<string, string>;
  readonly boxes: readonly BoxPlace[];
  /** Page's file to its first address. */
  readonly addressOf: ReadonlyMap<string, string>;
  /** The files of pages and of what they load, by every address. */
  readonly files: ReadonlyMap<string, string>;
  readonly origin: string;
}

export interface BoxPlace {
  readonly box: Box;
  /** The sheet that a box is brought as; `undefined` for style blocks. */
  readonly sheet: string | undefined;
}

/** The file that holds the text of a box. In: for the block of a page, its file. */
export function boxFile({ box, sheet }: BoxPlace, page: string): string | undefined {
  if ('sheet' in box) return sheet?.replace(/(?:\.css)?$/, '.own.css');
  const name = ('style' in box ? box.style : box.page).replace(/[^\w-]+/g, '-').replace(/^-+|-+$/g, '');
  const plain = withoutStart(name, 'style-');
  return 'style' in box
    ? path.posix.join('own', `${plain}.css`)
    : path.posix.join('own', plain, page.replace(/\.html?$/, '.css'));
}

/** Whether a file is the text of a box. */
export function isBoxFile({ boxes }: Visited, file: string): boolean {
  return boxes.some((one) => {
    if (!('page' in one.box)) return boxFile(one, '') === file;
    return file.startsWith(`${path.posix.dirname(boxFile(one, 'index.html')!)}/`) && file.endsWith('.css');
  });
}

/** One box as it stands in a page. */
export interface BoxInPage {
  readonly place: BoxPlace;
  readonly start: number;
  readonly end: number;
  readonly attributes: ReadonlyMap<string, string>;
  /** What stands in the block; `undefined` for a sheet. */
  readonly css: string | undefined;
}

/** In: the text of a page as it was brought. Out: in their order. */
export function boxesIn(text: string, page: string, { boxes, addresses }: Visited): BoxInPage[] {
  if (boxes.length === 0) return [];
  const found: BoxInPage[] = [];
  const blocks = boxes.some(({ box }) => !('sheet' in box)) ? styleBlocks(text) : [];
  for (const { start, end, attributes, css } of blocks) {
    const place = boxes.find(({ box }) => {
      const selector = 'style' in box ? box.style : 'page' in box ? box.page : undefined;
      return selector !== undefined && meansBlock(selector, { attributes });
    });
    if (place !== undefined) found.push({ place, start, end, attributes, css });
  }
  const links = boxes.some(({ sheet }) => sheet !== undefined) ? sheetLinks(text) : [];
  for (const { start, end, attributes, address } of links) {
    const plain = resolveAddress(address, page);
    const file = addresses.get(address) ?? (plain.kind === 'site' ? plain.path : undefined);
    const place = boxes.find(({ sheet }) => sheet !== undefined && sheet === file);
    if (place !== undefined) found.push({ place, start, end, attributes, css: undefined });
  }
  return found.sort((a, b) => a.start - b.start);
}

/**
 * The text of a page in which each box is a link to the sheet that holds its text, on the same lines.
 * In: whether there is such a sheet.
 */
export function withBoxes(
  text: string,
  page: string,
  visited: Visited,
  isThere: (file: string) => boolean,
): string {
  let out = '';
  let at = 0;
  for (const { place, start, end, attributes } of boxesIn(text, page, visited)) {
    const file = boxFile(place, page);
    if (file === undefined || !isThere(file) || start < at) continue;
    const kept = [...attributes].filter(
      ([name]) => !['rel', 'href', 'type', 'integrity', 'crossorigin'].includes(name),
    );
    const tag = [
      '<link rel="stylesheet"',
      `href="${addressFrom(page, file)}"`,
      ...kept.map(([name, value]) => `${name}="${value.replaceAll('&', '&amp;').replaceAll('"', '&quot;')}"`),
    ].join(' ');
    const lines = text.slice(start, end).split('\n').length - 1;
    out += `${text.slice(at, start)}${tag}${'\n'.repeat(lines)}>`;
    at = end;
  }
  return out + text.slice(at);
}

/** The text of a page in which sheets that lie elsewhere are linked where they lie here. */
export function withSheets(text: string, page: string, { addresses }: Visited): string {
  let out = '';
  let at = 0;
  for (const { start, end, address } of sheetLinks(text)) {
    const file = addresses.get(address);
    if (file === undefined) continue;
    const tag = text
      .slice(start, end)
      .replace(/(\shref\s*=\s*)("[^"]*"|'[^']*'|[^\s"'>]+)/i, `$1"${addressFrom(page, file)}"`);
    out += text.slice(at, start) + tag;
    at = end;
  }
  return out + text.slice(at);
}
