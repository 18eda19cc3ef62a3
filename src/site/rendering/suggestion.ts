// What a person could write into the configuration where nothing tells which sheets style the templates.

import path from 'node:path';
import { commonFolder } from '../../core/base/addresses.js';
import { isCompiled, isSheetSource, isStyleSheet } from '../../core/read/kinds/index.js';
import type { Config } from '../config.js';
import { compiledText } from '../files/compiled.js';
import { globs } from '../files/owner.js';
import type { SiteReader } from './reader.js';

/** A sheet of one's own, for the system to link as it links others. */
const NAME = 'house.css';

/** Out: the sheet that styles the components, where one does, and one for all of them, beside the theme's sources; `undefined` where the configuration counts already. */
export function suggestedSheets(reader: SiteReader): NonNullable<Config['sheets']> | undefined {
  if (reader.config.sheets !== undefined) return undefined;
  const components = reader.pagePaths.filter((file) => reader.isComponent(file));
  const folder = commonFolder(components);
  const sources = reader.files
    .list()
    .filter(
      (file) => (isStyleSheet(file) || isSheetSource(file)) && (isCompiled(file) || !reader.isPlatform(file)),
    );
  const known = sheetNaming(reader, components);
  const own = path.posix.join(homeOf(sources), NAME);
  return { [folder === '' ? '**' : `${folder}/**`]: [...(known === undefined ? [] : [known]), own] };
}

/** Sheets that are looked into. */
const MOST = 80;
/** So many classes of the components it names at least, or it is another's. */
const LEAST = 8;

/** Parts of sheets, what a build names by a sum (the next build has another), and what takes the place of a sheet at times. */
const NO_NAME = /(^|\/)_|[.-][0-9a-f]{8,}(\.min)?\.css$|[-._](rtl|print)(\.min)?\.s?css$/i;

/** The sheet whose rules name most classes of the components; `undefined` where none names many. */
function sheetNaming(reader: SiteReader, components: readonly string[]): string | undefined {
  const words = new Set<string>();
  for (const file of components)
    for (const [word] of (reader.page(file) ?? '').matchAll(/(?<![\w-])[a-zA-Z][\w-]{3,}/g)) words.add(word);
  let best: { readonly file: string; readonly named: number } | undefined;
  const isExcluded = globs(reader.config.exclude);
  const sheets = reader.files
    .list()
    .filter((file) => /\.(css|scss)$/i.test(file) && !NO_NAME.test(file) && !isExcluded(file));
  for (const file of sheets.slice(0, MOST)) {
    // Nobody has asked for one that is only a part of others: that it is none by itself is no fault of it.
    const text = isCompiled(file) ? compiledText(reader.files, file) : reader.textAt(file);
    if (text === undefined) continue;
    const names = new Set([...text.matchAll(/\.([a-zA-Z][\w-]{3,})(?=[^{}]*\{)/g)].map(([, name]) => name!));
    const named = [...names].filter((name) => words.has(name)).length;
    // Of two that name the same, the one that is there as it is linked.
    if (named > (best?.named ?? LEAST - 1)) best = { file, named };
  }
  return best?.file;
}

/** Where the sources of sheets lie; of several folders the one that holds most, with all that is in it. */
function homeOf(sources: readonly string[]): string {
  const folders = new Map<string, string[]>();
  for (const file of sources) {
    const [top = ''] = file.includes('/') ? file.split('/') : [''];
    folders.set(top, [...(folders.get(top) ?? []), file]);
  }
  const [most] = [...folders].sort((a, b) => b[1].length - a[1].length || (a[0] < b[0] ? -1 : 1));
  return most === undefined ? '' : commonFolder(most[1]);
}
