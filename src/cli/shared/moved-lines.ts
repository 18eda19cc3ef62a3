// What the commands for every day show alike: how much moved on which pages, and the folder behind the next command.

import { clean, dim, grouped, row } from './paper.js';

export interface Moved {
  readonly elements: number;
  readonly pages: readonly { readonly path: string; readonly elements: number }[];
}

/** How many elements, and the pages with most of them. */
export function movedLines(
  { elements, pages }: Moved,
  all: boolean,
  mark: 'made' | 'none' = 'made',
): string[] {
  const shown = all ? pages : pages.slice(0, 4);
  const lines = [row({ count: elements, mark, text: elementsOn(elements, pages.length) })];
  for (const { path, elements: own } of shown) lines.push(row({ count: own, text: dim(clean(path)) }));
  if (pages.length > shown.length)
    lines.push(row({ text: dim(`${grouped(pages.length - shown.length)} more pages (--all)`) }));
  return lines;
}

export function elementsOn(elements: number, pages: number): string {
  return `${elements === 1 ? 'element' : 'elements'} of ${plural(pages, 'page')}`;
}

export function plural(number: number, word: string): string {
  return `${grouped(number)} ${word}${number === 1 ? '' : 's'}`;
}

/** The proof of a change that was made. */
export function doneLine(what: string, files: readonly string[]): string {
  return row({ count: 0, text: `${what}; ${plural(files.length, 'file')} written` });
}

/** ` my-site`, behind a command that is to run on the same site. */
export function onSite(folder: string): string {
  return folder === '.' ? '' : ` ${folder}`;
}
