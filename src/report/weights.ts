// How much styling each page of a site holds of its own, and where the pages that hold most lie.

import { debtsOf } from '../core/ask/hold/index.js';
import type { Page } from '../core/read/markup/index.js';
import type { SiteFiles } from '../site/files/files.js';
import { readConfig } from '../site/files/pages.js';
import { parseAlone } from '../site/rendering/placing.js';
import { SiteReader } from '../site/rendering/reader.js';

/** By page, in order: declarations and old attributes in its tags and its style blocks. */
export async function weightsOf(files: SiteFiles): Promise<Map<string, number>> {
  const reader = new SiteReader(files, await readConfig(files));
  const found = new Map<string, number>();
  for (const file of reader.pagePaths) {
    const text = reader.page(file);
    if (text === undefined) continue;
    const page: Page = parseAlone(reader, file, text);
    found.set(file, weightOf(page));
  }
  return found;
}

function weightOf(page: Page): number {
  const all = () => true;
  return debtsOf({ pages: [page], sheets: [], knownOn: () => all })
    .filter(({ kind }) => kind === 'inline style' || kind === 'style block' || kind === 'old attribute')
    .reduce((sum, { declarations }) => sum + Math.max(1, declarations.length), 0);
}

export interface Area {
  /** A folder, or a page at the top. */
  readonly name: string;
  readonly pages: number;
  readonly before: number;
  readonly after: number;
}

/** The folders of the pages, the one that held most first. In: the same pages, before and after; twice the same without a change. */
export function areasOf(before: ReadonlyMap<string, number>, after: ReadonlyMap<string, number>): Area[] {
  const found = new Map<string, { pages: number; before: number; after: number }>();
  for (const file of new Set([...before.keys(), ...after.keys()])) {
    const cut = file.indexOf('/');
    const name = cut < 0 ? file : file.slice(0, cut + 1);
    const own = found.get(name) ?? { pages: 0, before: 0, after: 0 };
    own.pages++;
    own.before += before.get(file) ?? 0;
    own.after += after.get(file) ?? 0;
    found.set(name, own);
  }
  return [...found]
    .map(([name, own]) => ({ name, ...own }))
    .sort((a, b) => b.before - a.before || (a.name < b.name ? -1 : 1));
}
