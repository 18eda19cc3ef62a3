// The scripts of one page, side by side: what one calls another may have, and what is not understood in one is taken to do
// whatever its words could mean.

import { BoundedMap } from '../../base/bounded.js';
import { getOrInsert } from '../../base/get-or-insert.js';
import { isOldAttribute } from '../hints/table.js';
import type { Doing } from './doings.js';
import type { ScriptReading } from './read.js';
import { attributeWord, CLASS_WRITTEN, type StyleTouch } from './touches.js';
import type { UnclearDoing } from './understood.js';
import type { NameWrite } from './writes.js';

/** A script as a page uses it. */
export interface ScriptOnPage {
  readonly reading: ScriptReading;
  readonly isLibrary: boolean;
}

export interface NotUnderstood {
  readonly does: UnclearDoing | 'calls';
  /** Of what is called. */
  readonly name: string | undefined;
  /** Offset in the script's text. */
  readonly offset: number;
}

/**
 * In: the scripts of a page; whether these are all that it has: what is called may be in one that was not read.
 * Out: for each, what is not understood in it; nothing of a library, which is assumed as a whole.
 */
export function notUnderstood(scripts: readonly ScriptOnPage[], areAll: boolean): NotUnderstood[][] {
  return scripts.map(({ reading, isLibrary }) => {
    if (isLibrary || !reading.readable) return [];
    const { unclear, calls } = reading.understanding;
    const strange = !areAll
      ? undefined
      : [...calls].find(([name]) => !scripts.some((one) => has(one.reading, name)));
    const found: NotUnderstood[] = unclear.map((one) => ({ ...one, name: undefined }));
    if (strange !== undefined) found.push({ does: 'calls', name: strange[0], offset: strange[1] });
    return found;
  });
}

function has(reading: ScriptReading, name: string): boolean {
  return reading.readable && reading.understanding.defines.has(name);
}

const asUnclear = new WeakMap<ScriptReading, Map<boolean, ScriptReading>>();

/**
 * In: see `notUnderstood`; the words in the page's attributes that scripts keep names in.
 * Out: the scripts of a page, those that are not understood with all that their words could mean.
 */
export function readingsOnPage<T extends ScriptOnPage>(
  scripts: readonly T[],
  areAll: boolean,
  keptInMarkup: () => ReadonlySet<string>,
): T[] {
  const unclear = notUnderstood(scripts, areAll);
  return scripts.map((script, at) => {
    const { reading, isLibrary } = script;
    if (isLibrary) return script;
    const isClear = unclear[at]!.length === 0 && reading.readable;
    const own = isClear ? reading : unclearReading(reading, unclear[at]!);
    const takesNames = own.writes.some(({ computed }) => computed) && reading.understanding.readsMarkup;
    const kept = takesNames ? keptInMarkup() : NO_WORDS;
    if (isClear && kept.size === 0) return script;
    return { ...script, reading: kept.size === 0 ? own : withWords(own, kept) };
  });
}

const NO_WORDS: ReadonlySet<string> = new Set();
const withMore = new WeakMap<ScriptReading, BoundedMap<string, ScriptReading>>();

/** A script that takes names from the markup: its words are those too. */
function withWords(reading: ScriptReading, more: ReadonlySet<string>): ScriptReading {
  const variants = getOrInsert(withMore, reading, () => new BoundedMap<string, ScriptReading>(200));
  const key = [...more].sort().join(' ');
  return variants.get(key, () => {
    const { touches, stems, made, readable, writes, doings, sheets, imports, understanding } = reading;
    const words = new Set([...reading.words, ...more]);
    return { touches, words, stems, made, readable, writes, doings, sheets, imports, understanding };
  });
}

/** What moves elements, or could: a member that is kept or copied moves none by itself. */
const MOVING = new Set<NotUnderstood['does']>([
  'calls',
  'calls what it names only as it runs',
  'runs code that it puts together',
  'keeps a method that changes elements',
]);

function unclearReading(reading: ScriptReading, unclear: readonly NotUnderstood[]): ScriptReading {
  const isMoving = !reading.readable || unclear.some(({ does }) => MOVING.has(does));
  const variants = getOrInsert(asUnclear, reading, () => new Map<boolean, ScriptReading>());
  return getOrInsert(variants, isMoving, () => takenForAll(reading, unclear, isMoving));
}

/** A script with what its words could mean among what it does. */
function takenForAll(
  reading: ScriptReading,
  unclear: readonly NotUnderstood[],
  isMoving: boolean,
): ScriptReading {
  const offset =
    Math.min(...unclear.map((one) => one.offset), Number.MAX_SAFE_INTEGER) % Number.MAX_SAFE_INTEGER;
  const words = new Set([...reading.words, ...reading.understanding.keys]);
  for (const word of [...words])
    if (isOldAttribute(word.toLowerCase())) words.add(attributeWord(word.toLowerCase()));
  const touches: StyleTouch[] = [...reading.touches];
  const anyOf = (names: readonly string[]): boolean => names.some((name) => words.has(name));
  if (anyOf(['class', 'className', 'classList']))
    touches.push({ property: CLASS_WRITTEN, target: 'anyone', offset });
  if (anyOf(['style', 'cssText'])) touches.push({ property: '*', target: 'anyone', offset });
  const doings: Doing[] = [...reading.doings];
  if (isMoving) doings.push({ kind: 'elements', offset });
  const kinds: NameWrite['kind'][] = ['class', 'id', 'attribute'];
  const writes: NameWrite[] = [
    ...reading.writes,
    ...kinds.map(
      (kind): NameWrite => ({
        ...{ kind, names: [], computed: true, gives: true, takes: true, anew: false, asProperty: false },
        ...{ target: 'anyone', offset },
      }),
    ),
  ];
  const { stems, made, readable, sheets, imports, understanding } = reading;
  return { touches, words, stems, made, readable, writes, doings, sheets, imports, understanding };
}

/** Whether a name may be put together from one of these: they may be its beginning or its end. */
export function isBuiltOf(name: string, stems: ReadonlySet<string>): boolean {
  for (const stem of stems) if (name.startsWith(stem) || name.endsWith(stem)) return true;
  return false;
}

/** The same of the words of a script. */
export function isMadeOfWords(name: string, { words, stems, understanding }: ScriptReading): boolean {
  return words.has(name) || understanding.keys.has(name) || isBuiltOf(name, stems);
}
