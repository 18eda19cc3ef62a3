// Addresses written in pages and sheets, resolved inside the site. Paths are site-relative with `/`.

import { without } from './characters.js';
import { holdsEngineMark } from './engine-marks.js';

export type Resolved =
  | { readonly kind: 'site'; readonly path: string; readonly suffix: string }
  /** Out of the site's folder, but on the same machine: the path begins with `../`. */
  | { readonly kind: 'above'; readonly path: string; readonly suffix: string; readonly address: string }
  | { readonly kind: 'elsewhere'; readonly address: string }
  /** Only a fragment: it points into the document that uses it, whatever sheet it stands in. */
  | { readonly kind: 'fragment'; readonly address: string };

/**
 * Resolves an address against the folder of the file that holds it, as the URL standard does: a backslash is a slash,
 * tabs and line breaks count for nothing, and a query alone is one of the file that holds it.
 * In: the address as written; the site-relative path of the holding file. A leading `/` means the site's folder.
 * Out: a path (percent-decoded, with its `?query#fragment` as suffix) in the site or above it, or what lies elsewhere.
 */
export function resolveAddress(address: string, holder: string): Resolved {
  const trimmed = address.trim();
  if (trimmed === '' || trimmed.startsWith('#')) return { kind: 'fragment', address: trimmed };
  const cut = trimmed.search(/[?#]/);
  const bare = without(cut < 0 ? trimmed : trimmed.slice(0, cut), '\t\n\r').replaceAll('\\', '/');
  if (/^[a-z][a-z0-9+.-]*:/i.test(bare) || bare.startsWith('//') || holdsEngineMark(trimmed)) {
    return { kind: 'elsewhere', address: trimmed };
  }
  const suffix = cut < 0 ? '' : trimmed.slice(cut);
  if (bare === '') return placed(holder.split('/'), suffix, trimmed);
  const isFromTop = bare.startsWith('/');
  const parts = isFromTop ? [] : foldersOf(holder);
  for (const part of decode(bare).split('/')) {
    if (part === '' || part === '.') continue;
    if (part !== '..') parts.push(part);
    // Above the top of a host there is nothing; above a folder there is another.
    else if (parts.length === 0 || parts.at(-1) === '..') {
      if (isFromTop) return { kind: 'elsewhere', address: trimmed };
      parts.push('..');
    } else parts.pop();
  }
  return placed(parts, suffix, trimmed);
}

function placed(parts: readonly string[], suffix: string, address: string): Resolved {
  const path = parts.join('/');
  return parts[0] === '..' ? { kind: 'above', path, suffix, address } : { kind: 'site', path, suffix };
}

/**
 * The sheet or script that an address leads to, in the site or above it; `undefined` when elsewhere. In: `copyOf`, the file of the site that is meant by an
 * address, where that is known: a local copy, or what a server makes of it.
 */
export function fileAt(
  address: string,
  holder: string,
  copyOf: (address: string) => string | undefined,
): string | undefined {
  const known = copyOf(address.trim());
  if (known !== undefined) return known;
  const resolved = resolveAddress(address, holder);
  return resolved.kind === 'site' || resolved.kind === 'above' ? resolved.path : undefined;
}

/** Whether a path leads out of the site's folder, upwards. */
export function isAbove(path: string): boolean {
  return path.startsWith('../');
}

/** The address of `target` as the file `holder` would write it: relative, percent-encoded where it must be. */
export function addressFrom(holder: string, target: string): string {
  const from = foldersOf(holder);
  const to = target.split('/');
  let shared = 0;
  while (shared < from.length && shared < to.length - 1 && from[shared] === to[shared]) shared++;
  const climb = from.slice(shared).map(() => '..');
  return [...climb, ...to.slice(shared).map(encodePart)].join('/');
}

/**
 * The folder of a path, with its last `/`; empty at the top. Relative addresses mean the same in all files of a folder:
 * texts that hold some are compared together with it.
 */
export function folderOf(path: string): string {
  return path.slice(0, path.lastIndexOf('/') + 1);
}

/** The folder that holds all of some files, without its last slash; empty for the top. */
export function commonFolder(paths: readonly string[]): string {
  const [first = [], ...others] = paths.map((path) => path.split('/').slice(0, -1));
  let depth = 0;
  while (depth < first.length && others.every((one) => one[depth] === first[depth])) depth++;
  return first.slice(0, depth).join('/');
}

/** Whether a text holds an address, so that it means something else in another folder. */
export function holdsAddress(css: string): boolean {
  return css.toLowerCase().includes('url(');
}

function foldersOf(path: string): string[] {
  return path.split('/').slice(0, -1);
}

function decode(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
}

function encodePart(part: string): string {
  return encodeURI(part).replace(/[?#'()]/g, (char) => `%${char.charCodeAt(0).toString(16).toUpperCase()}`);
}
