// Places in source text: half-open ranges of UTF-16 offsets, and the line and column a person sees.

import { BoundedMap } from './bounded.js';

export interface SourceRange {
  readonly start: number;
  readonly end: number;
}

/** A place as it is shown: 1-based line and column, columns counted in UTF-16 movable declarations. */
export interface Place {
  readonly path: string;
  readonly line: number;
  readonly column: number;
}

/** Turns offsets of one text into places. Built once per text, answers in O(log lines). */
export class LineIndex {
  readonly #starts: number[] = [0];

  constructor(
    readonly path: string,
    text: string,
  ) {
    // CR LF, LF and a lone CR each end a line, as in HTML and CSS.
    for (let i = 0; i < text.length; i++) {
      const code = text.charCodeAt(i);
      if (code === 10 || (code === 13 && text.charCodeAt(i + 1) !== 10)) this.#starts.push(i + 1);
    }
  }

  placeAt(offset: number): Place {
    let low = 0;
    let high = this.#starts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.#starts[middle] ?? 0) <= offset) low = middle;
      else high = middle - 1;
    }
    return { path: this.path, line: low + 1, column: offset - (this.#starts[low] ?? 0) + 1 };
  }
}

/** Where a line begins, counted from 1; the end of the text where it has fewer. */
export function lineStart(text: string, line: number): number {
  const ends = /\r\n|\n|\r/g;
  let start = 0;
  for (let at = 1; at < line; at++) {
    if (ends.exec(text) === null) return text.length;
    start = ends.lastIndex;
  }
  return start;
}

/** In: a line and a column as a person sees them. Out: the offset in the text. */
export function offsetAt(text: string, line: number, column: number): number {
  return lineStart(text, line) + column - 1;
}

const indexes = new BoundedMap<string, { readonly text: string; readonly index: LineIndex }>(100);

/** The place of an offset in a file's text. Remembers the line indexes of the files last asked about. */
export function placeIn(path: string, text: string, offset: number): Place {
  // Two states of a file are asked about in turn where they are compared.
  const key = `${text.length} ${path}`;
  let known = indexes.peek(key);
  if (known?.text !== text) {
    known = { text, index: new LineIndex(path, text) };
    indexes.set(key, known);
  }
  return known.index.placeAt(offset);
}

/** The place of an offset in a text that begins at `start`. */
export function placeWithin(start: Place, text: string, offset: number): Place {
  const { line, column } = placeIn(`${start.path}:${start.line}:${start.column}`, text, offset);
  return {
    path: start.path,
    line: start.line + line - 1,
    column: line === 1 ? start.column + column - 1 : column,
  };
}

export function showPlace(place: Place): string {
  return `${place.path}:${place.line}:${place.column}`;
}

/** Order by path (code movable declarations), then line, then column: stable on every machine. */
export function comparePlaces(a: Place, b: Place): number {
  return comparePaths(a.path, b.path) || a.line - b.line || a.column - b.column;
}

export function comparePaths(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
