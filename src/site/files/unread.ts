// Documents of the site that are not read as pages, and what they load all the same.

import path from 'node:path';
import { isScriptText, mayLoadSheets } from '../../core/read/kinds/index.js';
import type { SiteFiles } from './files.js';

const INERT = /<(?:template|script)\b[^>]*>([\s\S]*?)<\/(?:template|script)/gi;
const SRCDOC = /\bsrcdoc\s*=\s*(?:"([^"]*)"|'([^']*)')/gi;

/**
 * In: the site's files; the texts of those that are read as pages; paths of sheets.
 * Out: by sheet, the texts of the documents that are not read and hold its name: files, and what frames hold in `srcdoc`.
 */
export function sheetsOfUnread(
  files: SiteFiles,
  pages: ReadonlyMap<string, string>,
  sheets: readonly string[],
): Map<string, string[]> {
  const found = new Map<string, string[]>();
  const note = (text: string): void => {
    for (const sheet of sheets)
      if (text.includes(path.posix.basename(sheet))) found.set(sheet, [...(found.get(sheet) ?? []), text]);
  };
  for (const file of files.list())
    if (!pages.has(file) && mayLoadSheets(file)) note(files.read(file)?.toString('latin1') ?? '');
  for (const text of pages.values()) {
    for (const [, double, single] of text.matchAll(SRCDOC)) note(double ?? single ?? '');
    // What is cloned from a template may link a sheet into a shadow root; so may what a script writes.
    for (const [, inside] of text.matchAll(INERT)) note(inside ?? '');
  }
  return found;
}

/** In: a word; the files that were read. Out: the texts of the others, as far as they are texts and hold the word. */
export function othersWith(
  word: string,
  files: SiteFiles,
  isRead: (file: string) => boolean,
): Map<string, string> {
  const found = new Map<string, string>();
  for (const file of files.list()) {
    if (isRead(file) || !(mayLoadSheets(file) || isScriptText(file))) continue;
    const text = files.read(file)?.toString('latin1') ?? '';
    if (text.includes(word)) found.set(file, text);
  }
  return found;
}
