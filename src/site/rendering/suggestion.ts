// What a person could write into the configuration where nothing tells which sheets style the templates.

import path from 'node:path';
import type { Config } from '../config.js';
import type { SiteReader } from './reader.js';

const SOURCE = /\.(css|scss|sass|less|styl)$/i;
/** A sheet of one's own, for the system to link as it links others. */
const NAME = 'house.css';

/** Out: a sheet for all components, beside the theme's sources; `undefined` where the configuration has its say already. */
export function suggestedSheets(reader: SiteReader): NonNullable<Config['sheets']> | undefined {
  if (reader.config.sheets !== undefined) return undefined;
  const components = reader.pagePaths.filter((file) => reader.isComponent(file));
  const folder = commonFolder(components);
  const sources = reader.files.list().filter((file) => SOURCE.test(file) && !reader.isPlatform(file));
  return { [folder === '' ? '**' : `${folder}/**`]: [path.posix.join(homeOf(sources), NAME)] };
}

/** The folder that holds all of them; empty for the top. */
function commonFolder(files: readonly string[]): string {
  const [first = [], ...others] = files.map((file) => file.split('/').slice(0, -1));
  let depth = 0;
  while (depth < first.length && others.every((one) => one[depth] === first[depth])) depth++;
  return first.slice(0, depth).join('/');
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
