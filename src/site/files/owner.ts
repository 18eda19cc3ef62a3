// Whose a file is, as far as its name and the configuration tell.

import picomatch from 'picomatch';
import {
  DIGIT,
  either,
  LOWER,
  not,
  SPACE,
  trimmedAfter,
  trimmedBefore,
  WORD,
  without,
} from '../../core/base/characters.js';
import { isComponentByName, isComponentFile, isScript, isStyleSheet } from '../../core/read/kinds/index.js';

import type { Config } from '../config.js';
import { CONFIG_FILE, type SiteFiles } from './files.js';

export interface Owner {
  readonly owner: 'platform' | 'theme';
  /** How it was decided, for the reader of a survey. */
  readonly because: string;
}

/** Of folders that libraries are put into; what some kits and systems call so by habit, `src/lib` and `usr/lib`, is none. */
const LIBRARY_NAMES = 'platform|vendors?|plugins?|(?<!(?:^|/)(?:src|usr)/)libs?|third[-_]party|frameworks?';
const PLATFORM_FOLDERS = new RegExp(`(^|/)(${LIBRARY_NAMES}|dist|packages|kit)/`, 'i');

const BUILT = /(^|\/)(dist|build|esm?|cjs)\//i;
const componentHouses = new WeakMap<SiteFiles, boolean>();

/** Whether a page is what a test run leaves behind, or a build: of components their copies, and pages beside their sources. */
function isLeftBehind(file: string, files: SiteFiles): boolean {
  if (/(^|\/)(coverage|lcov-report|htmlcov)\//i.test(file)) return true;
  if (!BUILT.test(file)) return false;
  if (isComponentFile(file)) return true;
  let has = componentHouses.get(files);
  if (has === undefined) {
    has = files.list().some((one) => isComponentByName(one) && !BUILT.test(one));
    componentHouses.set(files, has);
  }
  return has;
}

/** Up to a folder that libraries are put into, and the one of the library in it. */
const LIBRARIES = new RegExp(`^(?:.*?/)?(?:${LIBRARY_NAMES})/(?:[^/]+/)?`, 'i');

/** In a folder of a library: one that holds sheets, scripts or a package. A page about plugins is not one of them. */
export function isPlatformPage(file: string, { theme, platform }: Config, files: SiteFiles): boolean {
  if (globs(theme)(file)) return false;
  if (globs(platform)(file) || isLeftBehind(file, files)) return true;
  const folder = LIBRARIES.exec(file)?.[0];
  if (folder === undefined) return false;
  const tells = /\.(css|js|mjs)$|(^|\/)(composer|package|bower)\.json$/i;
  return files.list().some((other) => other.startsWith(folder) && tells.test(other));
}

/** Code that is not one of the site's own: libraries, tests, and what a build made. */
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
function isMinified(file: string, read: () => string | undefined): boolean {
  if (/\.min\.(css|js)$/i.test(file)) return true;
  const text = isStyleSheet(file) || isScript(file) ? (read() ?? '') : '';
  return text.length > 2000 && text.length / (text.split('\n').length || 1) > 400;
}

/** The owner of a sheet or script that nothing but its text tells. */
export function ownerByText(file: string, read: () => string | undefined, files: SiteFiles): Owner {
  if (isMinified(file, read)) return { owner: 'platform', because: 'minified' };
  const release = /\.(?:s?css|less|m?js)$/i.test(file) ? releasedAs(file, read() ?? '', files) : undefined;
  return release === undefined
    ? { owner: 'theme', because: 'readable source' }
    : { owner: 'platform', because: `a release: ${release}` };
}

const BANNER = /^\s*(?:@charset[^;]*;\s*)?\/\*!([\s\S]*?)\*\//i;
const ANY_BANNER =
  /^\s*(?:(?:['"]use strict['"];?|\/\*\s*(?:js[hl]int|eslint|globals?|exported)\b[\s\S]*?\*\/|\/\/[^\n]*)\s*)*\/\*([\s\S]*?)\*\//i;
const VERSION = /\bv?(?:ersion:?\s*)?\d+\.\d+(?:\.\d+)?(?:[-.]?[a-z]+\d*)?\b/i;
const FROM_ELSEWHERE = /https?:\/\/|\blicen[sc]e|\bcopyright\b|\(c\)|\u00a9/i;

/** `tribute-5.1.3.css`: nobody gives the number of a release to what is edited in place. */
const NUMBERED = /(?:^|\/)([a-z][\w-]*?)[-._]v?(\d+\.\d+\.\d+)(?:[-.][\w.]+)?\.\w+$/i;

/**
 * What a sheet or script says that it is a release of, in its name or in the comment that tools leave in place: a name, a version,
 * whose it is. Out: `undefined` for any other, and for a release of the site's own package.
 */
function releasedAs(file: string, text: string, files: SiteFiles): string | undefined {
  const isOwn = (name: string): boolean =>
    letters(name) === '' ||
    packageNames(files).some((one) => letters(name).includes(one) || one.includes(letters(name)));
  const [, called = '', number] = NUMBERED.exec(file) ?? [];
  if (number !== undefined && !isOwn(called)) return `${called} ${number}`;
  // In scripts most tools leave the first comment alone, however it begins.
  const banner = (/\.(?:s?css|less)$/i.test(file) ? BANNER : ANY_BANNER).exec(text)?.[1];
  if (banner === undefined || !FROM_ELSEWHERE.test(banner)) return undefined;
  const lines = banner
    .split('\n')
    .map((one) => trimmedBefore(one, either(SPACE, '*=!-')).trim())
    .filter((one) => one !== '')
    .slice(0, 5);
  const line = lines.find((one) => VERSION.test(one));
  const version = line === undefined ? undefined : VERSION.exec(line);
  if (line === undefined || version === null || version === undefined) return undefined;
  const name = trimmedAfter(line.slice(0, version.index) || lines[0]!, not(either(WORD, ')')));
  return isOwn(name) ? undefined : `${name} ${version[0]}`;
}

/** Names under which the site itself is published, letters alone. */
function packageNames(files: SiteFiles): string[] {
  return ['package.json', 'composer.json', 'bower.json'].flatMap((file) => {
    const name = /"name"\s*:\s*"(?:[^"/]*\/)?([^"/]+)"/.exec(files.read(file)?.toString() ?? '')?.[1];
    return name === undefined || letters(name).length < 3 ? [] : [letters(name)];
  });
}

function letters(text: string): string {
  return without(text.toLowerCase(), not(either(LOWER, DIGIT)));
}
