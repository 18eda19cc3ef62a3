// Where the declarations of a sheet are written that a preprocessor makes, told by the map of its compiler.

import { endingOf } from '../../core/read/kinds/index.js';
import { type Declaration, parseSheet } from '../../core/read/sheets/index.js';
import type { CompiledMap } from '../files/compiled.js';
import type { SiteFiles } from '../files/files.js';
import { MappedSheet } from './mapped-sheet.js';

/** A declaration as it is written in a source. */
export interface SourcePlace {
  readonly file: string;
  readonly text: string;
  readonly start: number;
  /** Of its value, with its importance. */
  readonly value: { readonly start: number; readonly end: number };
  /** Lines end declarations there, and no semicolon. */
  readonly isIndented: boolean;
}

/** Finds where declarations of a sheet are written: the first of what it compiles to is the first of it, and so on. */
export class SourcePlaces {
  readonly #numbers: ReadonlyMap<number, number>;
  readonly #made: readonly Declaration[];
  readonly #sheet: MappedSheet;

  constructor(
    readonly files: SiteFiles,
    readonly compiled: CompiledMap,
    before: string,
  ) {
    const all = (text: string): Declaration[] =>
      parseSheet(text).rules.flatMap(({ declarations }) => declarations);
    this.#numbers = new Map(all(before).map(({ range }, at) => [range.start, at]));
    this.#made = all(compiled.css);
    this.#sheet = new MappedSheet(files, compiled.css, compiled.map, (source) => [compiled.fileOf(source)]);
  }

  of(declaration: Declaration): SourcePlace | undefined {
    const made = this.#made[this.#numbers.get(declaration.range.start) ?? -1];
    if (made === undefined) return undefined;
    const written = this.#sheet.at(made.range.start);
    if (written === undefined) return undefined;
    const { file, text, start } = written;
    const name = /^[\w-]+\s*:\s*/.exec(text.slice(start, start + 200))?.[0];
    if (name === undefined || !made.property.endsWith(name.replace(/\s*:\s*$/, '').toLowerCase()))
      return undefined;
    const from = start + name.length;
    const isIndented = endingOf(file) === 'sass';
    const rest = isIndented ? text.slice(from).split(/[\r\n]/, 1)[0]! : text.slice(from);
    return { file, text, start, value: { start: from, end: from + valueLength(rest) }, isIndented };
  }
}

/** Characters up to what ends a declaration, without the space before it. */
function valueLength(text: string): number {
  const end =
    /^(?:"(?:[^"\\]|\\[\s\S])*"|'(?:[^'\\]|\\[\s\S])*'|\((?:[^()]|\([^()]*\))*\)|#\{[^}]*\}|\/\*[\s\S]*?\*\/|[^;{}"'()])*/.exec(
      text,
    )![0];
  return end.replace(/\s*(?:\/\/[^\n]*)?\s*$/, '').length;
}
