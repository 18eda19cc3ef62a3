// What a script does to styles, read from its syntax tree, with the code in its strings: each part is found out when it
// is first asked for.

import type { AnyNode } from 'acorn';
import { BoundedMap } from '../../base/bounded.js';
import { includesAny } from '../../base/phrases.js';
import { codeIn } from './code.js';
import { type AddedSheet, type Doing, doingsOf, sheetsIn } from './doings.js';
import { importsOf, sheetsImported } from './imports.js';
import { parseScript } from './parse.js';
import { Targets } from './targets.js';
import { addWords, type StyleTouch, TouchReader, tagsIn } from './touches.js';
import { NOTHING_UNCLEAR, type Understanding, understandingOf } from './understood.js';
import { type NameWrite, nameWrites } from './writes.js';

export interface ScriptReading {
  readonly touches: readonly StyleTouch[];
  /** Every word in a string: class names, ids, selectors. */
  readonly words: ReadonlySet<string>;
  /** What a name is built with: `"row-" + i` may be any id or class that begins so. */
  readonly stems: ReadonlySet<string>;
  /** Names of elements that it makes, by `createElement` or as markup in a string. */
  readonly made: ReadonlySet<string>;
  readonly readable: boolean;
  /** Names that it gives to elements and takes from them; found out when first asked for. */
  readonly writes: readonly NameWrite[];
  readonly doings: readonly Doing[];
  /** The sheets that it adds, as far as they are written out in it. */
  readonly sheets: readonly AddedSheet[];
  /** Addresses of the scripts that it brings in. */
  readonly imports: readonly string[];
  /** What in it is not understood, and the names that it calls and has. */
  readonly understanding: Understanding;
}

const IMPORTING = /\b(import|export|importScripts)\b/;

/** What a script with code in its strings, or in an address that it imports, has in it. */
const RUNNING_CODE = ['eval', 'setTimeout', 'setInterval', 'Function', 'execScript', 'data:'];

const readings = new BoundedMap<string, ScriptReading>(2000);

/** `readScript`, once for a text: pages ask for the same scripts again and again. */
export function scriptReading(text: string): ScriptReading {
  return readings.get(text, () => readScript(text));
}

/** Reads a classic script or a module. A script that does not parse is `readable: false`, and touches everything. */
export function readScript(text: string, depth = 0): ScriptReading {
  const program = parseScript(text);
  if (program === undefined) return unreadable(text);
  const own = readProgram(program, text);
  const codes = depth < 3 && includesAny(text, RUNNING_CODE) ? codeIn(program) : [];
  if (codes.length === 0) return own;
  return codes.reduce((all, code) => joined(all, readScript(code.text, depth + 1), code.offset), own);
}

function readProgram(program: AnyNode, text: string): ScriptReading {
  const targets = once(() => new Targets(program));
  const { words, stems, made, touches } = new TouchReader(text, program, targets).read();
  const doings = once(() => doingsOf(program));
  const parts = {
    writes: once(() => nameWrites(program, targets())),
    doings,
    imports: once(() => (IMPORTING.test(text) ? importsOf(program) : [])),
    sheets: once(() => [
      ...(doings().some(({ kind }) => kind === 'sheet') ? sheetsIn(program) : []),
      ...(IMPORTING.test(text) && text.includes('.css') ? sheetsImported(program) : []),
    ]),
    understanding: once(() => understandingOf(program, targets().bindings)),
  };
  return withParts({ touches, words, stems, made, readable: true }, parts);
}

/** A script and the code in one of its strings. In: where the string stands. */
function joined(own: ScriptReading, code: ScriptReading, offset: number): ScriptReading {
  const moved = <T extends { offset: number }>(found: readonly T[]): T[] =>
    found.map((one) => ({ ...one, offset }));
  const both = <T>(a: Iterable<T>, b: Iterable<T>): Set<T> => new Set([...a, ...b]);
  return withParts(
    {
      touches: [...own.touches, ...moved(code.touches)],
      words: both(own.words, code.words),
      stems: both(own.stems, code.stems),
      made: both(own.made, code.made),
      readable: own.readable && code.readable,
    },
    {
      writes: once(() => [...own.writes, ...moved(code.writes)]),
      doings: once(() => [...own.doings, ...moved(code.doings)]),
      imports: once(() => [...own.imports, ...code.imports]),
      sheets: once(() => [...own.sheets, ...moved(code.sheets)]),
      understanding: once(() => ({
        unclear: [...own.understanding.unclear, ...moved(code.understanding.unclear)],
        calls: new Map([
          ...[...code.understanding.calls.keys()].map((name) => [name, offset] as const),
          ...own.understanding.calls,
        ]),
        defines: both(own.understanding.defines, code.understanding.defines),
        keys: both(own.understanding.keys, code.understanding.keys),
        readsMarkup: own.understanding.readsMarkup || code.understanding.readsMarkup,
      })),
    },
  );
}

type Lazy = Pick<ScriptReading, 'writes' | 'doings' | 'imports' | 'sheets' | 'understanding'>;

function withParts(
  read: Omit<ScriptReading, keyof Lazy>,
  parts: { [Name in keyof Lazy]: () => Lazy[Name] },
): ScriptReading {
  return {
    ...read,
    get writes() {
      return parts.writes();
    },
    get doings() {
      return parts.doings();
    },
    get imports() {
      return parts.imports();
    },
    get sheets() {
      return parts.sheets();
    },
    get understanding() {
      return parts.understanding();
    },
  };
}

function once<T>(find: () => T): () => T {
  let found: { value: T } | undefined;
  return () => {
    found ??= { value: find() };
    return found.value;
  };
}

function unreadable(text: string): ScriptReading {
  const words = new Set<string>();
  addWords(text, words);
  return {
    touches: [{ property: '*', target: 'anyone', offset: 0 }],
    ...{ words, stems: new Set(), made: tagsIn(text), readable: false },
    ...{ writes: [], doings: [], sheets: [], imports: [], understanding: NOTHING_UNCLEAR },
  };
}
