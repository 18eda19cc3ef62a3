// Documents of the site that are not read as pages, and what they load all the same.

import path from 'node:path';
import { UsageError } from '../../core/usage-error.js';
import type { SiteFiles } from './files.js';

/** Kinds of files that may link a sheet, beside the pages; pages of the platform among them. */
const DOCUMENTS =
  /\.(html?|xhtml|xht|xml|svg|shtml|php\d?|phtml|inc|aspx?|jsp|cfm|erb|ejs|hbs|handlebars|mustache|twig|njk|liquid|vue|svelte|jsx|tsx|md|markdown)$/i;

/** In: the site's files; those that are read as pages; its sheets. Out: the sheets whose names stand in a document that is not read. */
export function sheetsOfUnread(
  files: SiteFiles,
  pages: ReadonlySet<string>,
  sheets: readonly string[],
): Set<string> {
  const found = new Set<string>();
  for (const file of files.list()) {
    if (pages.has(file) || !DOCUMENTS.test(file)) continue;
    const text = readAsIs(files, file);
    for (const sheet of sheets)
      if (!found.has(sheet) && text.includes(path.posix.basename(sheet))) found.add(sheet);
  }
  return found;
}

/** A document that leads out of the site is none of it. */
function readAsIs(files: SiteFiles, file: string): string {
  try {
    return files.read(file)?.toString('latin1') ?? '';
  } catch (error) {
    if (error instanceof UsageError) return '';
    throw error;
  }
}
