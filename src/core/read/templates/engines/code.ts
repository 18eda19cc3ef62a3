// What engines have in common: code in strings and brackets, words, calls and the names of files in them.

import { either, isMadeOf, WORD } from '../../../base/characters.js';
import type { EngineSource, FoundPiece, NamedFile, Role } from './engine.js';

/** A piece from an opener to the next closer. */
export function between(
  source: EngineSource,
  start: number,
  open: string,
  close: string,
  roleOf: (code: string) => Role = () => 'none',
): FoundPiece | undefined {
  const end = source.find(close, start + open.length);
  if (end < 0) return undefined;
  const code = source.text.slice(start + open.length, end).trim();
  const role = roleOf(code);
  return { start, end: end + close.length, role, prints: role === 'none', code };
}

/** A piece of which nothing comes. */
export function comment(start: number, end: number): FoundPiece {
  return { start, end, role: 'none', prints: false, code: '' };
}

export function isWordCharacter(char: string | undefined): boolean {
  return char !== undefined && isWordCode(char.charCodeAt(0));
}

/** A letter, a digit or `_`. */
function isWordCode(code: number): boolean {
  return (
    (code >= 97 && code <= 122) || (code >= 65 && code <= 90) || (code >= 48 && code <= 57) || code === 95
  );
}

/** Behind the name that begins at an offset. */
export function wordEnd(text: string, start: number): number {
  let at = start;
  while (at < text.length && isWordCode(text.charCodeAt(at))) at++;
  return at;
}

/** The word that code begins with, empty for none. */
export function firstWord(code: string): string {
  return code.slice(0, wordEnd(code, 0));
}

/** Code without the marks by which an engine trims the spaces around it. */
export function withoutTrim(code: string, marks: string): string {
  const start = code !== '' && marks.includes(code[0]!) ? 1 : 0;
  const end = code.length > start && marks.includes(code.at(-1)!) ? code.length - 1 : code.length;
  return code.slice(start, end).trim();
}

/** Behind the string that begins at an offset, the text's end where nothing ends it. */
export function stringEnd(text: string, start: number): number {
  const quote = text[start]!;
  for (let end = text.indexOf(quote, start + 1); end >= 0; end = text.indexOf(quote, end + 1)) {
    let slashes = 0;
    while (text[end - 1 - slashes] === '\\' && end - 1 - slashes > start) slashes++;
    if (slashes % 2 === 0) return end + 1;
  }
  return text.length;
}

/** Behind the parenthesis that closes the one at an offset; `undefined` where none does. */
export function callEnd(text: string, start: number): number | undefined {
  let depth = 0;
  for (let at = start; at < text.length; at++) {
    if (text[at] === '(') depth++;
    else if (text[at] === ')' && --depth === 0) return at + 1;
  }
  return undefined;
}

/** Code without what its strings and comments say. */
export function withoutStrings(code: string): string {
  let bare = '';
  let from = 0;
  const skip = (start: number, end: number, inPlace: string): void => {
    bare += code.slice(from, start) + inPlace;
    from = end;
  };
  const marks = /["'/]/g;
  for (let mark = marks.exec(code); mark !== null; mark = marks.exec(code)) {
    const { 0: char, index: at } = mark;
    if (char !== '/') {
      const end = stringEnd(code, at);
      if (end - at < 2 || code[end - 1] !== char) continue;
      skip(at, end, '""');
    } else if (code[at + 1] === '*') {
      const end = code.indexOf('*/', at + 2);
      if (end >= 0) skip(at, end + 2, ' ');
    } else if (code[at + 1] === '/') {
      const line = code.indexOf('\n', at);
      skip(at, line < 0 ? code.length : line, ' ');
    }
    marks.lastIndex = Math.max(at + 1, from);
  }
  return (bare + code.slice(from)).trim();
}

/** The strings in code, with what stands in front of each and behind it. */
export function stringsIn(
  code: string,
): { readonly text: string; readonly start: number; readonly end: number }[] {
  const found = [];
  for (let at = 0; at < code.length; at++) {
    if (code[at] !== '"' && code[at] !== "'") continue;
    const end = stringEnd(code, at);
    const text = code.slice(at + 1, end - 1);
    // One that is never closed, or goes over lines, is an apostrophe.
    if (end - at < 2 || code[end - 1] !== code[at] || text.includes('\n') || text.includes('\\')) continue;
    found.push({ text, start: at, end });
    at = end - 1;
  }
  return found;
}

/** What may be the path or the dotted name of a file. */
export function isFileName(text: string): boolean {
  return text !== '' && isMadeOf(text, either(WORD, './~@:-'));
}

/** Options that say which file is meant. */
const NAMING = new Set('file partial template layout page src name view'.split(' '));

/** The first string that may be the name of a file; of one that goes on in code, its beginning. `dotHands`: a dot behind it hands over data. */
export function fileIn(code: string, dotHands = false): string | undefined {
  for (const { text, start, end } of stringsIn(code)) {
    const option = optionBefore(code.slice(0, start));
    if (!isFileName(text) || (option !== undefined && !NAMING.has(option))) continue;
    const behind = code.slice(end).trimStart()[0];
    const goesOn = behind === '+' || behind === '~' || (behind === '.' && !dotHands);
    return goesOn ? `${text}*` : text;
  }
  return undefined;
}

/** The name of the option whose value comes next: `file=`, `partial:`, `'layout' =>`. */
function optionBefore(code: string): string | undefined {
  const bare = code.trimEnd();
  const sign = ['=>', ':', '='].find((one) => bare.endsWith(one));
  if (sign === undefined) return undefined;
  return /(\w*)["']?\s*$/.exec(bare.slice(0, -sign.length))?.[1] ?? '';
}

/** What includes a file: named by the first string of the code, or by its first word where that has the form of a path. */
export function included(code: string, dotHands = false): NamedFile {
  const file = fileIn(code, dotHands);
  if (file !== undefined) return { kind: 'include', names: [file] };
  const [, bare] = /^(?:include|render)\s+([\w./-]+\.\w+|[\w-]+\/[\w./-]+)/.exec(code) ?? [];
  return { kind: 'include', names: bare === undefined ? [] : [bare] };
}

/** What fills a layout, where its name is a string or is computed. */
export function extending(code: string): NamedFile {
  const file = fileIn(code);
  return { kind: 'extends', names: file === undefined ? [] : [file] };
}

/** The name behind a word: `main` of `block main`, `block 'main'`, `block name="main"`, `content_for :main`. */
export function nameBehind(code: string, word: string): string | undefined {
  return /^\s*\(?\s*(?:name\s*=\s*)?[:"']?([\w.-]+)/.exec(code.slice(word.length))?.[1];
}

/** Whether a method is called: `$this->render(`, `page.partial(`. Out: what stands behind its parenthesis. */
export function methodCall(code: string, names: ReadonlySet<string>, arrow: string): string | undefined {
  for (let at = code.indexOf(arrow); at >= 0; at = code.indexOf(arrow, at + 1)) {
    const start = at + arrow.length;
    const end = wordEnd(code, start);
    if (names.has(code.slice(start, end)) && code[end] === '(') return code.slice(end + 1);
  }
  return undefined;
}

/** Whether a word that begins like one of these is called or used in code, by itself: not of an object, not a variable. */
export function usesWord(code: string, beginnings: readonly string[], exact: ReadonlySet<string>): boolean {
  for (const { 0: word, index } of code.matchAll(/\w+/g)) {
    const before = code[index - 1];
    if (before !== undefined && '$>.'.includes(before)) continue;
    if (exact.has(word) || beginnings.some((one) => word.startsWith(one))) return true;
  }
  return false;
}

/** How deep the braces of a code go below where it begins, and how many it leaves open above that. */
export function braceDepth(code: string): { readonly lowest: number; readonly open: number } {
  let depth = 0;
  let lowest = 0;
  for (const char of code) {
    if (char === '{') depth++;
    else if (char === '}') depth--;
    lowest = Math.min(lowest, depth);
  }
  return { lowest, open: depth - lowest };
}
