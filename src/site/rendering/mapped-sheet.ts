// A sheet with the source map of what it is made of (ECMA-426): one position in it, as a position in a source.

import { originalPositionFor, TraceMap } from '@jridgewell/trace-mapping';
import { getOrInsert } from '../../core/base/get-or-insert.js';
import { placeIn } from '../../core/base/source.js';
import { type Files, isInside } from '../files/compile-options.js';

/** A position in a source. */
export interface Written {
  readonly file: string;
  readonly text: string;
  readonly start: number;
}

export class MappedSheet {
  readonly #map: TraceMap;
  readonly #sources = new Map<string, Source | undefined>();

  /** In: what the map mentions; the map as JSON; the paths that a source of it may have, nearest by first. Throws for what is no map. */
  constructor(
    readonly files: Files,
    readonly css: string,
    map: string,
    readonly filesOf: (source: string) => readonly string[],
  ) {
    this.#map = new TraceMap(map);
  }

  /** In: an offset in the CSS. Out: where it is written, as far as that lies in the site. */
  at(offset: number): Written | undefined {
    const { line, column } = placeIn('', this.css, offset);
    const found = originalPositionFor(this.#map, { line, column: column - 1 });
    const source = found.source === null ? undefined : this.#sourceOf(found.source);
    if (source === undefined || found.line === null) return undefined;
    const { file, text, lines } = source;
    return { file, text, start: (lines[found.line - 1] ?? text.length) + found.column };
  }

  /** The files that it is made of, as far as they lie in the site. */
  get sources(): string[] {
    return this.#map.sources.flatMap((one) => (one === null ? [] : (this.#sourceOf(one)?.file ?? [])));
  }

  #sourceOf(source: string): Source | undefined {
    for (const file of this.filesOf(source)) {
      const found = getOrInsert(this.#sources, file, () => sourceAt(this.files, file));
      if (found !== undefined) return found;
    }
    return undefined;
  }
}

/** A file, and where its lines begin. */
interface Source {
  readonly file: string;
  readonly text: string;
  readonly lines: readonly number[];
}

function sourceAt(files: Files, file: string): Source | undefined {
  const text = isInside(file) ? files.read(file)?.toString('utf8') : undefined;
  if (text === undefined) return undefined;
  return { file, text, lines: [0, ...[...text.matchAll(/\n/g)].map(({ index }) => index + 1)] };
}
