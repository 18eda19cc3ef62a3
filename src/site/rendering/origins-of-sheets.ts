// Where the declarations of a sheet are written that a preprocessor makes, told by the map of its compiler.

import { originalPositionFor, TraceMap } from '@jridgewell/trace-mapping';
import { type Declaration, parseSheet } from '../../core/sheets/index.js';
import { placeIn } from '../../core/source.js';
import type { CompiledMap } from '../files/compiled.js';
import type { SiteFiles } from '../files/files.js';

/** A declaration as it is written in a source. */
export interface Origin {
  readonly file: string;
  readonly text: string;
  readonly start: number;
  /** Of its value, with its importance. */
  readonly value: { readonly start: number; readonly end: number };
  /** Lines end declarations there, and no semicolon. */
  readonly isIndented: boolean;
}

/** Finds where declarations of a sheet are written: the first of what it compiles to is the first of it, and so on. */
export class Origins {
  readonly #numbers: ReadonlyMap<number, number>;
  readonly #made: readonly Declaration[];
  readonly #map: TraceMap;
  readonly #sources = new Map<string, Source | undefined>();

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
    const { line, column } = placeIn('', this.compiled.css, made.range.start);
    const found = originalPositionFor(this.#map, { line, column: column - 1 });
    const source = found.source === null ? undefined : this.#sourceOf(this.compiled.fileOf(found.source));
    if (source === undefined || found.line === null) return undefined;
    const { file, text, lines } = source;
    const start = (lines[found.line - 1] ?? text.length) + found.column;
    const name = /^[\w-]+\s*:\s*/.exec(text.slice(start, start + 200))?.[0];
    if (name === undefined || !made.property.endsWith(name.replace(/\s*:\s*$/, '').toLowerCase()))
      return undefined;
    const from = start + name.length;
    const isIndented = /\.sass$/i.test(file);
    const rest = isIndented ? text.slice(from).split(/[\r\n]/, 1)[0]! : text.slice(from);
    return { file, text, start, value: { start: from, end: from + valueLength(rest) }, isIndented };
  }

  #sourceOf(file: string): Source | undefined {
    if (!this.#sources.has(file)) {
      const text = this.files.read(file)?.toString('utf8');
      const lines = text === undefined ? [] : [0, ...[...text.matchAll(/\n/g)].map(({ index }) => index + 1)];
      this.#sources.set(file, text === undefined ? undefined : { file, text, lines });
    }
    return this.#sources.get(file);
  }
}

/** A file, and where its lines begin. */
interface Source {
  readonly file: string;
  readonly text: string;
  readonly lines: readonly number[];
}

/** Characters up to what ends a declaration, without the space before it. */
function valueLength(text: string): number {
  const end =
    /^(?:"(?:[^"\\]|\\[\s\S])*"|'(?:[^'\\]|\\[\s\S])*'|\((?:[^()]|\([^()]*\))*\)|#\{[^}]*\}|\/\*[\s\S]*?\*\/|[^;{}"'()])*/.exec(
      text,
    )![0];
  return end.replace(/\s*(?:\/\/[^\n]*)?\s*$/, '').length;
}
