// Which sheet or script of the site an address means that only a server or a template engine could tell.

import { resolveAddress } from '../../core/base/addresses.js';
import { getOrInsert } from '../../core/base/get-or-insert.js';
import { groupBy } from '../../core/base/group-by.js';
import { withoutEnd, withoutStart } from '../../core/base/phrases.js';
import { isScript, isStyleSheet } from '../../core/read/kinds/index.js';
import { enginePieces, mayHoldEngineText } from '../../core/read/templates/index.js';

/** Folders from which files are served, with the address under which they are. */
export type Served = ReadonlyMap<string, string>;

/**
 * In: an address as it is written, `engine:` in front of a name that a call of an engine is given; the page that it stands in;
 * the files of the site. Out: the file that is meant; `undefined` where none or several could be.
 */
export function guessFile(
  address: string,
  holder: string,
  files: readonly string[],
  served: Served,
): string | undefined {
  const sheets = linkable(files);
  const shown = fromAbove(address, holder, sheets);
  if (shown !== undefined) return shown;
  for (const name of namesIn(address)) {
    const found = byAddress(name, sheets, served) ?? byEnding(name, holder, sheets);
    if (found !== undefined) return found;
  }
  return undefined;
}

const known = new WeakMap<readonly string[], ReadonlyMap<string, readonly string[]>>();

/** Of a site's files those that pages link, by the last name of their paths; found once. */
function linkable(files: readonly string[]): ReadonlyMap<string, readonly string[]> {
  return getOrInsert(known, files, () =>
    groupBy(
      files.filter((file) => isStyleSheet(file) || isScript(file)),
      lastName,
    ),
  );
}

function lastName(path: string): string {
  return path.slice(path.lastIndexOf('/') + 1);
}

/** What of an address is written out, best first. */
function namesIn(address: string): string[] {
  if (address.startsWith('engine:')) return [address.slice('engine:'.length)];
  if (!mayHoldEngineText(address)) return address.startsWith('/') ? [address.replace(/[?#].*$/, '')] : [];
  const pieces = enginePieces(address);
  const inside = pieces.flatMap(({ code }) =>
    [...code.matchAll(/(["'])([^"']+\.(?:css|m?js))\1/gi)].map(([, , name]) => name!),
  );
  const behind = address.slice(pieces.at(-1)?.end ?? 0).replace(/[?#].*$/, '');
  return [...(isStyleSheet(behind) || isScript(behind) ? [behind] : []), ...inside];
}

/** What is shown in the place of a page above it: a relative address means what it does there. */
function fromAbove(
  address: string,
  holder: string,
  sheets: ReadonlyMap<string, readonly string[]>,
): string | undefined {
  if (/^(?:[a-z][\w+.-]*:|\/|#)/i.test(address) || mayHoldEngineText(address)) return undefined;
  for (let folder = holder; folder.includes('/'); ) {
    folder = folder.slice(0, folder.lastIndexOf('/'));
    const above = folder.includes('/') ? folder.slice(0, folder.lastIndexOf('/') + 1) : '';
    const resolved = resolveAddress(address, `${above}page`);
    if (resolved.kind === 'site' && sheets.get(lastName(resolved.path))?.includes(resolved.path) === true)
      return resolved.path;
  }
  return undefined;
}

function byAddress(
  name: string,
  sheets: ReadonlyMap<string, readonly string[]>,
  served: Served,
): string | undefined {
  for (const [folder, address] of served) {
    const start = `/${address.replace(/^\/|\/$/g, '')}/`.replace('//', '/');
    const full = `/${withoutStart(name, '/')}`;
    const file = full.startsWith(start) ? `${withoutEnd(folder, '/')}/${full.slice(start.length)}` : '';
    if (sheets.get(lastName(file))?.includes(file) === true) return file;
  }
  return undefined;
}

/** The file whose path ends like that: beside the page before elsewhere, near the top before deep down. */
function byEnding(
  name: string,
  holder: string,
  sheets: ReadonlyMap<string, readonly string[]>,
): string | undefined {
  const resolved = resolveAddress(withoutStart(name, '/'), '');
  if (resolved.kind !== 'site') return undefined;
  const { path } = resolved;
  const [top] = holder.split('/');
  const found = (sheets.get(lastName(path)) ?? [])
    .filter((file) => file === path || file.endsWith(`/${path}`))
    .sort(
      (a, b) =>
        Number(b.startsWith(`${top}/`)) - Number(a.startsWith(`${top}/`)) ||
        a.split('/').length - b.split('/').length ||
        a.length - b.length ||
        (a < b ? -1 : 1),
    );
  return found[0];
}
