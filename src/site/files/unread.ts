// Documents of the site that are not read as pages, and what they load all the same.

import path from 'node:path';
import type { SiteFiles } from './files.js';

/** Kinds of files that may link a sheet, beside the pages. */
const DOCUMENTS =
  /\.(xhtml|xht|xml|svg|shtml|php\d?|phtml|inc|aspx?|jsp|cfm|erb|ejs|hbs|handlebars|mustache|twig|njk|liquid|vue|svelte|jsx|tsx|md|markdown)$/i;

/** In: the site's files; those that are read as pages; its sheets. Out: the sheets whose names stand in a document that is not read. */
export function sheetsOfUnread(
  files: SiteFiles,
  pages: ReadonlySet<string>,
  sheets: readonly string[],
): Set<string> {
  const found = new Set<string>();
  for (const file of files.list()) {
    if (pages.has(file) || !DOCUMENTS.test(file)) continue;
    const text = files.read(file)?.toString('latin1') ?? '';
    for (const sheet of sheets)
      if (!found.has(sheet) && text.includes(path.posix.basename(sheet))) found.add(sheet);
  }
  return found;
}
