// Places on built pages as places in the sources, wherever they stand in a document.

import { readFileSync } from 'node:fs';
import path from 'node:path';
import { BoundedMap } from '../../core/base/bounded.js';
import { lineStart, offsetAt, type Place, showPlace } from '../../core/base/source.js';
import { isStyleSheet } from '../../core/read/kinds/index.js';
import { type Page, parsePage, withoutMarks } from '../../core/read/markup/index.js';
import { decodeFile } from '../files/encoding.js';
import { openFolder } from '../files/files.js';
import { CompiledSheets } from '../rendering/compiled-sheets.js';
import { withPlaces } from '../rendering/places-in.js';
import { SheetPlaces } from '../rendering/sheet-places.js';
import type { BuiltSite } from './build.js';

/** Where pages come from, in a document about a site that is built. */
export interface BuiltDocument {
  readonly command: string;
  readonly into: string;
  /** By place in a source, on how many pages it shows; only those of the document. */
  readonly pagesOf: Readonly<Record<string, number>>;
}

/** What a document says of built pages, said of the sources; what no source holds is said of the folder of the build. */
export function inSources<T>(
  built: BuiltSite,
  document: T,
): { readonly document: T; readonly built: BuiltDocument } {
  const places = new SourcePlaces(built);
  const moved = withPlaces(document, (place) => places.of(place));
  const { build, into } = built.command;
  return { document: moved, built: { command: build, into, pagesOf: Object.fromEntries(places.pagesOf) } };
}

/** Of a place on a built page or in a built sheet, the one in the sources; itself where no source holds it. */
export function sourcePlaces(built: BuiltSite): (place: Place) => Place {
  const places = new SourcePlaces(built);
  return (place) => places.of(place) ?? place;
}

class SourcePlaces {
  readonly pagesOf = new Map<string, number>();
  readonly #built: BuiltSite;
  readonly #pages = new BoundedMap<string, { readonly page: Page | undefined }>(200);
  readonly #sheets: SheetPlaces;

  constructor(built: BuiltSite) {
    this.#built = built;
    this.#sheets = sheetsOf(built);
  }

  /** `undefined` for a path that the build did not make. */
  of(place: Place): Place | undefined {
    const { sourcePlaces, copies, command } = this.#built;
    const copied = copies.get(place.path);
    if (copied !== undefined) return { ...place, path: copied };
    if (isStyleSheet(place.path)) return this.#sheets.of({ ...place, path: `${command.into}/${place.path}` });
    const { page } = this.#pages.get(place.path, () => ({ page: this.#read(place.path) }));
    if (page === undefined) return undefined;
    const offset = offsetAt(page.text, place.line, place.column);
    const tag = page.elements.findLast(
      ({ tag: own }) => own !== undefined && own.range.start <= offset && offset < own.range.end,
    )?.tag;
    const sourcePlace = sourcePlaces.of(page, tag);
    const found = sourcePlace && sourcePlaces.placeOfNumber(sourcePlace.number);
    if (sourcePlace !== undefined && found !== undefined) {
      this.pagesOf.set(showPlace(found), sourcePlaces.pagesOf(sourcePlace.number));
      return found;
    }
    const before = page.text.slice(lineStart(page.text, place.line), offset);
    return {
      path: `${command.into}/${place.path}`,
      line: place.line,
      column: withoutMarks(before).length + 1,
    };
  }

  #read(file: string): Page | undefined {
    const full = path.join(this.#built.folder, file);
    try {
      const text = decodeFile(readFileSync(full))?.text;
      return text === undefined ? undefined : parsePage(file, text);
    } catch {
      // It is no file of the build.
      return undefined;
    }
  }
}

/** The sheets of a build beside what they are made of, where a build puts them. */
function sheetsOf({ command, folder, sources }: BuiltSite): SheetPlaces {
  const made = openFolder(folder);
  const own = openFolder(sources.root);
  const inside = `${command.into}/`;
  const files = {
    ...own,
    read: (file: string) => (file.startsWith(inside) ? made.read(file.slice(inside.length)) : own.read(file)),
  };
  return new SheetPlaces(files, new CompiledSheets(files), (sheet) => {
    const bytes = files.read(sheet);
    return bytes && decodeFile(bytes)?.text;
  });
}
