// Places in sheets that are made of other files, as places in these: told by the compiler where it is one of ours, else by the
// source map that the sheet names (ECMA-426).

import path from 'node:path';
import { trimmedBefore } from '../../core/base/characters.js';
import { offsetAt, type Place, placeIn } from '../../core/base/source.js';
import { isCompiled, isStyleSheet } from '../../core/read/kinds/index.js';
import { parseSheet } from '../../core/read/sheets/parse.js';
import { type Files, isInside } from '../files/compile-options.js';
import { compiledWithMap } from '../files/compiled.js';
import type { CompiledSheets } from './compiled-sheets.js';
import { MappedSheet } from './mapped-sheet.js';

interface Known {
  readonly sheet: MappedSheet;
  /**
   * Offsets in the sheet as it is read, by those of what the compiler makes now; `undefined` where the map mentions the sheet as
   * it is read, and may be an old one.
   */
  readonly starts: ReadonlyMap<number, number> | undefined;
}

export class SheetPlaces {
  readonly #known = new Map<string, Known | 'none'>();

  /** In: the text of a sheet as it was read. */
  constructor(
    readonly files: Files,
    readonly compiled: CompiledSheets,
    readonly textOf: (sheet: string) => string | undefined,
  ) {}

  /** In: the place of a rule or declaration. Out: where it is written; `undefined` where nothing tells, or the map is an old one. */
  of(place: Place): Place | undefined {
    const known = this.#knownOf(place.path);
    const text = known === undefined ? undefined : this.textOf(place.path);
    if (known === undefined || text === undefined) return undefined;
    const { sheet, starts } = known;
    const read = offsetAt(text, place.line, place.column);
    const made = starts === undefined ? read : starts.get(read);
    const written = made === undefined ? undefined : sheet.at(made);
    if (made === undefined || written === undefined) return undefined;
    const { file, text: source, start } = written;
    const isSaid =
      starts !== undefined ||
      isSaidAt(sheet.css.slice(made, made + LONGEST), source.slice(start, start + LONGEST));
    return isSaid ? placeIn(file, source, start) : undefined;
  }

  /** The files that a sheet is made of, as far as they lie in the site. */
  sourcesOf(sheet: string): string[] {
    return this.#knownOf(sheet)?.sheet.sources ?? [];
  }

  #knownOf(sheet: string): Known | undefined {
    let found = this.#known.get(sheet);
    if (found === undefined) {
      found = this.#byCompiler(sheet) ?? this.#byMap(sheet) ?? 'none';
      this.#known.set(sheet, found);
    }
    return found === 'none' ? undefined : found;
  }

  #byCompiler(sheet: string): Known | undefined {
    const built = this.compiled.of(sheet);
    const isSource = isCompiled(sheet) && !this.compiled.isPart(sheet);
    const entry = isSource ? sheet : built?.source;
    if (entry === undefined) return undefined;
    const made = compiledWithMap(this.files, entry, built?.isTaken === true ? built.part : undefined);
    const text = this.textOf(sheet);
    if (made === undefined || text === undefined) return undefined;
    const [read, own] = [startsIn(text), startsIn(made.css)];
    // The first of what it compiles to is the first of it, and so on.
    if (read.length !== own.length) return undefined;
    return {
      sheet: new MappedSheet(this.files, made.css, made.map, (source) => [made.fileOf(source)]),
      starts: new Map(read.map((start, at) => [start, own[at]!])),
    };
  }

  #byMap(sheet: string): Known | undefined {
    const css = isStyleSheet(sheet) ? this.textOf(sheet) : undefined;
    const named = css === undefined ? undefined : MAP.exec(css)?.[1];
    if (css === undefined || named === undefined) return undefined;
    const inline = /^data:application\/json[^,]*?(;base64)?,(.*)$/s.exec(named);
    const file = path.posix.join(path.posix.dirname(sheet), decoded(named.replace(/[?#].*$/, '')));
    const map = inline === null ? this.#mapAt(file) : dataOf(inline[2]!, inline[1] !== undefined);
    const from = path.posix.dirname(inline === null ? file : sheet);
    try {
      // Builders put in front what keeps browsers from running it.
      const text = map?.replace(/^\)\]\}'[^\n]*\n/, '');
      const filesOf = (source: string): string[] => candidates(source, from);
      return text === undefined
        ? undefined
        : { sheet: new MappedSheet(this.files, css, text, filesOf), starts: undefined };
    } catch {
      // What is no map tells nothing.
      return undefined;
    }
  }

  #mapAt(file: string): string | undefined {
    return isInside(file) ? this.files.read(file)?.toString('utf8') : undefined;
  }
}

const MAP = /\/\*[#@]\s*sourceMappingURL=([^*\s]+)\s*\*\/\s*$/;
/** Characters of a source in which its name stands. */
const LONGEST = 200;

function dataOf(text: string, isBase64: boolean): string {
  return isBase64 ? Buffer.from(text, 'base64').toString('utf8') : decoded(text);
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** Where a source may lie: beside the map, or from the top of the site, as builders name what they were given. */
function candidates(source: string, from: string): string[] {
  const plain = decoded(trimmedBefore(source.replace(/^[a-z]+:\/\/[^/]*\//i, ''), '/'));
  return [path.posix.join(from, plain), path.posix.normalize(plain)];
}

/** Where rules and declarations begin, rule by rule. */
function startsIn(css: string): number[] {
  return parseSheet(css).rules.flatMap(({ selectorRange, declarations }) => [
    selectorRange.start,
    ...declarations.map(({ range }) => range.start),
  ]);
}

/** Whether a source says at a place what was made of it: the property, or something of the selector. */
function isSaidAt(made: string, source: string): boolean {
  const property = /^(-?[a-z][\w-]*)\s*:(?!:?[a-z-]+[^;{}]*\{)/i.exec(made)?.[1]?.toLowerCase();
  if (property === undefined) {
    const names = /^[^{}]*/.exec(made)![0].match(/[\w-]{2,}/g) ?? [];
    const line = /^[^{}\n]*/.exec(source)![0];
    return line.includes('&') || names.length === 0 || names.some((name) => line.includes(name));
  }
  // A preprocessor puts the names of nested properties together, and writes some with the prefix of a browser.
  const own = /^[\w-]+/.exec(source)?.[0]?.toLowerCase();
  return own !== undefined && property.endsWith(own);
}
