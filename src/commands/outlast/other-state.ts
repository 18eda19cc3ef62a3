// The site under another version of its platform: as it was visited on a copy of it, or before and after an update.

import { existsSync } from 'node:fs';
import path from 'node:path';
import { UsageError } from '../../core/base/usage-error.js';
import type { Update } from '../../core/change/outlast/index.js';
import { CONFIG_FILE, openFolder, type SiteFiles } from '../../site/files/files.js';
import { openForChange } from '../../site/ledger/carry-out.js';
import { loadSite, type Site } from '../../site/rendering/load.js';
import { LAST_VISIT } from '../../site/visiting/keeper.js';
import { isBoxFile } from '../../site/visiting/with-boxes.js';

/** The word for the visit before, and the last one. */
export const VISITS = 'visits';

/**
 * In: the site's folder; a folder with the site under the new platform, or `visits`: then the folder itself is that, and the
 * visit before is what it was. Out: the site under the old platform with the developer's sheets as they are now, and what the
 * new one makes of it. Throws `UsageError`.
 */
export function otherState(folder: string, other: string): { site: Site; update: Update } {
  const here = openForChange(folder);
  const isOwn = ownOf(here);
  if (other !== VISITS) {
    const there = withOwn(openFolder(other), here.files, isOwn);
    return { site: here, update: updateTo(here, loadSite(there)) };
  }
  const before = path.join(folder, LAST_VISIT);
  if (!existsSync(before)) throw new UsageError('outlast-one-visit', { folder });
  const then = { ...loadSite(withOwn(openFolder(before), here.files, isOwn)), files: here.files };
  return { site: then, update: updateTo(then, here) };
}

/** What is the developer's: it is the same in both. */
function ownOf({ visited, themes }: Site): (file: string) => boolean {
  return visited === undefined ? (file) => themes.includes(file) : (file) => isBoxFile(visited, file);
}

/** One state's files with the developer's own out of another. */
function withOwn(files: SiteFiles, own: SiteFiles, isOwn: (file: string) => boolean): SiteFiles {
  const isTaken = (file: string): boolean =>
    isOwn(file) || (file === CONFIG_FILE && own.read(file) !== undefined);
  return {
    ...files,
    list: () => [...new Set([...files.list(), ...own.list().filter(isTaken)])].sort(),
    read: (file) => (isTaken(file) ? own.read(file) : files.read(file)),
  };
}

function updateTo(before: Site, after: Site): Update {
  const sheets = new Map<string, string>();
  const old = before.model.sources.sheets;
  for (const [file, text] of after.model.sources.sheets)
    if (old.get(file) !== text && before.isPlatform(file)) sheets.set(file, text);
  // A sheet that the new platform does not load has nothing to say.
  for (const file of old.keys())
    if (!after.model.sources.sheets.has(file) && before.isPlatform(file)) sheets.set(file, '');
  const pages = new Map<string, string>();
  for (const file of before.model.paths) {
    const text = after.model.sources.pages.get(file);
    if (text !== undefined) pages.set(file, text);
  }
  if (pages.size === 0) throw new UsageError('markup-no-pages', { folder: after.files.label });
  return { sheets, pages, copies: after.model.sources.copies };
}
