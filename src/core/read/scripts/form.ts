// What a script is to a page, in short: two that differ in texts and numbers alone are one.

import { shortHash } from '../../base/short-hash.js';
import type { ScriptReading } from './read.js';

/**
 * Equal texts are equal in all that is asked of a script; empty where nothing is.
 * In: whether a word names something on the page.
 */
export function scriptForm(reading: ScriptReading, isName: (word: string) => boolean): string {
  const { touches, words, stems, made, readable, writes, doings, sheets, imports, understanding } = reading;
  const named = [...words].filter((word) => word.startsWith('[') || isName(word)).sort();
  const parts = [
    touches.map(({ property, target }) => [property, target]),
    named,
    [...stems].sort(),
    [...made].sort(),
    writes.map(({ offset: _offset, ...write }) => write),
    doings.map(({ kind }) => kind),
    sheets.map(({ offset: _offset, ...sheet }) => sheet),
    imports,
    understanding.unclear.map(({ does }) => does),
    [...understanding.calls.keys()].sort(),
  ];
  if (readable && parts.every(({ length }) => length === 0)) return '';
  return JSON.stringify([readable, ...parts, shortHash([...understanding.defines].sort().join(' '))]);
}
