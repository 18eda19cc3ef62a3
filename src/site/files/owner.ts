// Whose a file is, as far as its name and the configuration tell.

import picomatch from 'picomatch';
import { isComponentFile } from '../../core/components/index.js';
import type { Config } from '../config.js';
import { CONFIG_FILE, type SiteFiles } from './files.js';

export interface Owner {
  readonly owner: 'platform' | 'theme';
  /** How it was decided, for the reader of a survey. */
  readonly because: string;
}

/** Of folders that libraries are put into; what some kits and systems call so by habit, `src/lib` and `usr/lib`, is none. */
export const LIBRARY_NAMES =
  'platform|vendors?|plugins?|(?<!(?:^|/)(?:src|usr)/)libs?|third[-_]party|frameworks?';
const PLATFORM_FOLDERS = new RegExp(`(^|/)(${LIBRARY_NAMES}|dist|packages|kit)/`, 'i');

const BUILT = /(^|\/)(dist|build|esm?|cjs)\//i;
const componentHouses = new WeakMap<SiteFiles, boolean>();

/** Whether a page is what a test run leaves behind, or a build: of components their copies, and pages beside their sources. */
export function isLeftBehind(file: string, files: SiteFiles): boolean {
  if (/(^|\/)(coverage|lcov-report|htmlcov)\//i.test(file)) return true;
  if (!BUILT.test(file)) return false;
  if (isComponentFile(file)) return true;
  let has = componentHouses.get(files);
  if (has === undefined) {
    has = files.list().some((one) => /\.(vue|svelte|astro|jsx|tsx)$/i.test(one) && !BUILT.test(one));
    componentHouses.set(files, has);
  }
  return has;
}

/** Code that is none of the site's own: libraries, tests, and what a build made. */
export const APART = /\.(min|bundle|test|spec|d)\.\w+$|(^|\/)(vendors?|tests?|specs?|fixtures|dist|build)\//i;

/** Out: the owner of a sheet or script, `undefined` where only its text could tell. */
export function ownerByName({ theme, platform }: Config, file: string): Owner | undefined {
  if (globs(theme)(file)) return { owner: 'theme', because: `"theme" in ${CONFIG_FILE}` };
  if (globs(platform)(file)) return { owner: 'platform', because: `"platform" in ${CONFIG_FILE}` };
  const folder = PLATFORM_FOLDERS.exec(file)?.[2];
  return folder === undefined ? undefined : { owner: 'platform', because: `folder ${folder}` };
}

/** Whether a path is among those that patterns of the configuration name. */
export function globs(patterns: readonly string[] | undefined): (file: string) => boolean {
  return patterns === undefined || patterns.length === 0
    ? () => false
    : picomatch([...patterns], { dot: false });
}

/** Whether a sheet or script is written for machines: more than 400 characters a line on average, nobody edits that by hand. */
export function isMinified(file: string, read: () => string | undefined): boolean {
  if (/\.min\.(css|js)$/i.test(file)) return true;
  const text = /\.(css|m?js)$/i.test(file) ? (read() ?? '') : '';
  return text.length > 2000 && text.length / (text.split('\n').length || 1) > 400;
}
