// Places in sheets that are made of other files, as places in these: told by the compiler where it is one of ours, else by the
// source map that the sheet names (ECMA-426).

import path from 'node:path';
import { originalPositionFor, TraceMap } from '@jridgewell/trace-mapping';
import { parseSheet } from '../../core/sheets/parse.js';
import { lineStart, offsetAt, type Place, placeIn } from '../../core/source.js';
import { type Files, isInside } from '../files/compile-options.js';
import { compiledWithMap, isCompiled } from '../files/compiled.js';
import { decodeFile } from '../files/encoding.js';
import type { CompiledSheets } from './compiled-sheets.js';

/** A sheet with the map of what it is made of. */
interface Mapped {
  /** What the map speaks of: the sheet itself, or what the compiler makes of it in its own words. */
  readonly css: string;
  readonly map: TraceMap;
  /** Paths that a source of the map may be, nearest by first. */
  readonly filesOf: (source: string) => readonly string[];
  /** Offsets in the sheet as it is read, by those in `css`, where the two are not the same. */
  readonly starts: ReadonlyMap<number, number> | undefined;
}

export class SheetPlaces {
  readonly #known = new Map<string, Mapped | 'none'>();
  readonly #sources = new Map<string, string | undefined>();

  /** In: the text of a sheet as it was read. */
  constructor(
    readonly files: Files,
    readonly compiled: CompiledSheets,
    readonly textOf: (sheet: string) => string | undefined,
  ) {}

  /** In: the place of a rule or declaration. Out: where it is written; `undefined` where nothing tells, or the map is an old one. */
  of(place: Place): Place | undefined {
    const sheet = this.#mapped(place.path);
    const text = sheet === undefined ? undefined : this.textOf(place.path);
    if (sheet === undefined || text === undefined) return undefined;
    const read = offsetAt(text, place.line, place.column);
    const made = sheet.starts === undefined ? read : sheet.starts.get(read);
    if (made === undefined) return undefined;
    const { line, column } = placeIn('', sheet.css, made);
    const found = originalPositionFor(sheet.map, { line, column: column - 1 });
    if (found.source === null) return undefined;
    for (const file of sheet.filesOf(found.source)) {
      const source = this.#sourceAt(file);
      if (source === undefined) continue;
      const start = lineStart(source, found.line) + found.column;
      const said = sheet.css.slice(made, made + LONGEST);
      // What a compiler has told just now is so.
      return sheet.starts !== undefined || isSaidAt(said, source.slice(start, start + LONGEST))
        ? placeIn(file, source, start)
        : undefined;
    }
    return undefined;
  }

  /** The files that a sheet is made of, as far as they lie in the site. */
  sourcesOf(sheet: string): string[] {
    const mapped = this.#mapped(sheet);
    const named = mapped?.map.sources ?? [];
    return named.flatMap((source) => {
      const file = source === null ? undefined : mapped!.filesOf(source).find((one) => this.#sourceAt(one));
      return file ?? [];
    });
  }

  #mapped(sheet: string): Mapped | undefined {
    let found = this.#known.get(sheet);
    if (found === undefined) {
      found = this.#byCompiler(sheet) ?? this.#byMap(sheet) ?? 'none';
      this.#known.set(sheet, found);
    }
    return found === 'none' ? undefined : found;
  }

  #byCompiler(sheet: string): Mapped | undefined {
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
      css: made.css,
      map: new TraceMap(made.map),
      filesOf: (source) => [made.fileOf(source)],
      starts: new Map(read.map((start, at) => [start, own[at]!])),
    };
  }

  #byMap(sheet: string): Mapped | undefined {
    const css = /\.css$/i.test(sheet) ? this.textOf(sheet) : undefined;
    const named = css === undefined ? undefined : MAP.exec(css)?.[1];
    if (css === undefined || named === undefined) return undefined;
    const inline = /^data:application\/json[^,]*?(;base64)?,(.*)$/s.exec(named);
    const file = path.posix.join(path.posix.dirname(sheet), decoded(named.replace(/[?#].*$/, '')));
    const text =
      inline === null
        ? this.#sourceAt(file)
        : inline[1] === undefined
          ? decoded(inline[2]!)
          : Buffer.from(inline[2]!, 'base64').toString('utf8');
    const map = text === undefined ? undefined : readMap(text);
    const from = path.posix.dirname(inline === null ? file : sheet);
    return map && { css, map, filesOf: (source) => candidates(source, from), starts: undefined };
  }

  #sourceAt(file: string): string | undefined {
    if (!this.#sources.has(file)) {
      const bytes = isInside(file) ? this.files.read(file) : undefined;
      this.#sources.set(file, bytes && decodeFile(bytes)?.text);
    }
    return this.#sources.get(file);
  }
}

const MAP = /\/\*[#@]\s*sourceMappingURL=([^*\s]+)\s*\*\/\s*$/;
/** Characters of a source in which its name stands. */
const LONGEST = 200;

function readMap(text: string): TraceMap | undefined {
  try {
    return new TraceMap(text.replace(/^\)\]\}'[^\n]*\n/, ''));
  } catch {
    // What is no map tells nothing.
    return undefined;
  }
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
  const plain = decoded(source.replace(/^[a-z]+:\/\/[^/]*\//i, '').replace(/^\/+/, ''));
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
