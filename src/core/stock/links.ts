// Which sheets the links of a page lead to, through the imports in them, and which of them could not be read.

import { fileAt } from '../base/addresses.js';
import type { Place } from '../base/source.js';
import { parseSheet, type Sheet } from '../read/sheets/index.js';
import type { Links } from './statistics.js';

/** Where parsed sheets come from, each parsed once. */
export interface SheetShelf {
  sheetAt(path: string): Sheet | undefined;
  /** Whether there is such a file, and it is not one of the site. */
  isElsewhere?(path: string): boolean;
  /** A local copy of a sheet that lies elsewhere, if the developer named one. */
  copyOf(address: string): string | undefined;
}

export interface UnreadLink {
  readonly address: string;
  /** Where in the site it should be; `undefined` for what lies elsewhere. */
  readonly path: string | undefined;
  /** Of the page's link; `undefined` for an import. */
  readonly place: Place;
}

export interface Reached {
  readonly paths: ReadonlySet<string>;
  readonly unread: readonly UnreadLink[];
}

/** In: the links that pages share. Out: the paths of the sheets they use; addresses that lead to none. */
export function reachSheets(links: Links, shelf: SheetShelf): Reached {
  const paths = new Set<string>();
  const unread: UnreadLink[] = [];
  const follow = (path: string | undefined, address: string, place: Place, isToCome = false): void => {
    if (path !== undefined && paths.has(path)) return;
    const sheet = path === undefined ? undefined : shelf.sheetAt(path);
    if (sheet === undefined && isToCome) return;
    if (path === undefined || sheet === undefined) unread.push({ address, path, place });
    else {
      paths.add(path);
      imports(sheet, path, place);
    }
  };
  const imports = (sheet: Sheet, holder: string, place: Place): void => {
    for (const one of sheet.imports)
      follow(
        fileAt(one.address, holder, (address) => shelf.copyOf(address)),
        one.address,
        place,
      );
  };
  for (const { address, path, place, given } of links.sheets) follow(path, address, place, given);
  const start = { path: links.holder, line: 1, column: 1 };
  for (const text of links.importing) imports(parseSheet(text), links.holder, start);
  return { paths, unread };
}

/** Of these sheets those that every page links plainly, in order. In: by page, what it links so. */
export function linkedByAll(themes: readonly string[], linked: readonly (readonly string[])[]): string[] {
  const [first = [], ...others] = linked;
  return first.filter((file) => themes.includes(file) && others.every((one) => one.includes(file)));
}

/**
 * Of sheets that all pages link, the one for what all have: the last, as nothing behind it takes part; one that holds in some media
 * alone only where there is no other.
 */
export function sheetForAll(
  sheets: readonly string[],
  textOf: (path: string) => string | undefined,
): string | undefined {
  const isForAnyMedium = (path: string): boolean => {
    const { rules } = parseSheet(textOf(path) ?? '');
    return rules.filter(({ conditions }) => conditions.length > 0).length * 2 <= rules.length;
  };
  return sheets.findLast(isForAnyMedium) ?? sheets.at(-1);
}
