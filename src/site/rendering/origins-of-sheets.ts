// Where the declarations of a sheet are written that a preprocessor makes, told by the map of its compiler.

import { originalPositionFor, TraceMap } from '@jridgewell/trace-mapping';
import { type Declaration, parseSheet } from '../../core/sheets/index.js';
import type { CompiledMap } from '../files/compiled.js';
import type { SiteFiles } from '../files/files.js';

/** A declaration as it is written in a source. */
export interface Origin {
  readonly file: string;
  readonly text: string;
  readonly start: number;
  /** Of its value, with its importance. */
  readonly value: { readonly start: number; readonly end: number };
}

/** Finds where declarations of a sheet are written: the first of what it compiles to is the first of it, and so on. */
export class Origins {
  readonly #numbers: ReadonlyMap<number, number>;
  readonly #made: readonly Declaration[];
  readonly #map: TraceMap;

  constructor(
    readonly files: SiteFiles,
    readonly compiled: CompiledMap,
    before: string,
  ) {
    const all = (text: string): Declaration[] =>
      parseSheet(text).rules.flatMap(({ declarations }) => declarations);
    this.#numbers = new Map(all(before).map(({ range }, at) => [range.start, at]));
    this.#made = all(compiled.css);
    this.#map = new TraceMap(compiled.map);
  }

  of(declaration: Declaration): Origin | undefined {
    const made = this.#made[this.#numbers.get(declaration.range.start) ?? -1];
    if (made === undefined) return undefined;
    const { css, fileOf } = this.compiled;
    const lines = css.slice(0, made.range.start).split('\n');
    const found = originalPositionFor(this.#map, {
      line: lines.length,
      column: lines.at(-1)!.length,
    });
    const file = found.source === null ? undefined : fileOf(found.source);
    const text = file === undefined ? undefined : this.files.read(file)?.toString('utf8');
    if (file === undefined || text === undefined || found.line === null) return undefined;
    const start = offsetOf(text, found.line, found.column);
    const name = /^[\w-]+\s*:\s*/.exec(text.slice(start))?.[0];
    if (name === undefined || !made.property.endsWith(name.replace(/\s*:\s*$/, '').toLowerCase()))
      return undefined;
    const from = start + name.length;
    return { file, text, start, value: { start: from, end: from + valueLength(text.slice(from)) } };
  }
}

function offsetOf(text: string, line: number, column: number): number {
  let at = 0;
  for (let number = 1; number < line; number++) {
    const end = text.indexOf('\n', at);
    if (end < 0) return text.length;
    at = end + 1;
  }
  return at + column;
}

/** Characters up to what ends a declaration, without the space before it. */
function valueLength(text: string): number {
  const end =
    /^(?:"(?:[^"\\]|\\[\s\S])*"|'(?:[^'\\]|\\[\s\S])*'|\((?:[^()]|\([^()]*\))*\)|#\{[^}]*\}|\/\*[\s\S]*?\*\/|[^;{}"'()])*/.exec(
      text,
    )![0];
  return end.replace(/\s*(?:\/\/[^\n]*)?\s*$/, '').length;
}
