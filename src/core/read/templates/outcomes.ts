// What an expression can come to, where every outcome of it is written out: `paid ? 'paid' : 'due'` is one of two words.

import { hasOneOf } from '../../base/characters.js';
import { callEnd, firstWord, isWordCharacter, stringEnd, wordEnd } from './engines/code.js';

/** What an expression can print, and where in its code that is written; `at` is -1 for nothing printed. */
export interface PrintedText {
  readonly text: string;
  readonly at: number;
}

/** In: the code of a piece that prints. Out: all that it may print; `undefined` where something is not written out. */
export function outcomesOf(code: string): readonly string[] | undefined {
  return printedBy(code)?.map(({ text }) => text);
}

/** The same, with places. */
export function printedBy(code: string): readonly PrintedText[] | undefined {
  const word = firstWord(code);
  const start = word === 'echo' || word === 'print' ? word.length : 0;
  const end = code.trimEnd().endsWith(';') ? code.lastIndexOf(';') : code.length;
  return ofExpression(code.slice(start, end), start);
}

const NOTHING: PrintedText = { text: '', at: -1 };

/** In: code, and where it begins. */
function ofExpression(text: string, offset: number): readonly PrintedText[] | undefined {
  const { code, at } = withoutParentheses(text, offset);
  const literal = literalIn(code);
  if (literal !== undefined) return [{ text: literal, at: at + 1 }];
  if (code === '') return undefined;
  const parts = topLevel(code);
  const question = parts.findIndex(({ mark }) => mark === '?');
  if (question >= 0) return ofTernary(code, at, parts, question);
  const after = parts.find(({ mark }) => mark === 'if' || mark === 'unless');
  if (after === undefined) return undefined;
  const otherwise = parts.find((part) => part.mark === 'else' && part.at > after.at);
  const first = ofExpression(code.slice(0, after.at), at);
  const second =
    otherwise === undefined ? [NOTHING] : ofExpression(code.slice(otherwise.at + 4), at + otherwise.at + 4);
  return first && second && [...first, ...second];
}

/** A string that is all of the code, and into which nothing is written. */
function literalIn(code: string): string | undefined {
  const quote = code[0];
  if ((quote !== '"' && quote !== "'") || stringEnd(code, 0) !== code.length || code.at(-1) !== quote)
    return undefined;
  const text = code.slice(1, -1);
  return text.includes('\\') || (quote === '"' && hasOneOf(text, '$#')) || code.length < 2 ? undefined : text;
}

function ofTernary(
  code: string,
  offset: number,
  parts: readonly Part[],
  question: number,
): readonly PrintedText[] | undefined {
  const ofRange = (start: number, end?: number): readonly PrintedText[] | undefined =>
    ofExpression(code.slice(start, end), offset + start);
  let depth = 0;
  for (const { mark, at } of parts.slice(question)) {
    if (mark === '?') depth++;
    if (mark !== ':') continue;
    depth--;
    if (depth > 0) continue;
    const first = ofRange(parts[question]!.at + 1, at);
    const second = ofRange(at + 1);
    return first && second && [...first, ...second];
  }
  // Some engines take no second part for nothing.
  const only = ofRange(parts[question]!.at + 1);
  return only && [...only, NOTHING];
}

interface Part {
  readonly mark: string;
  readonly at: number;
}

/** Signs that look like marks of a choice. */
const NO_MARKS = ['?.', '??', '?:', '::'];

/** The marks of a choice that stand in no string and no parentheses. */
function topLevel(code: string): Part[] {
  const found: Part[] = [];
  let depth = 0;
  for (let at = 0; at < code.length; at++) {
    const char = code[at]!;
    if (char === '"' || char === "'") at = stringEnd(code, at) - 1;
    else if ('([{'.includes(char)) depth++;
    else if (')]}'.includes(char)) depth--;
    else if (NO_MARKS.includes(code.slice(at, at + 2))) at++;
    else if (char === '?' || char === ':') {
      if (depth === 0) found.push({ mark: char, at });
    } else if (isWordCharacter(char)) {
      const word = code.slice(at, wordEnd(code, at));
      if (depth === 0 && (word === 'if' || word === 'unless' || word === 'else'))
        found.push({ mark: word, at });
      at += word.length - 1;
    }
  }
  return found;
}

/** Code without the spaces and parentheses around all of it, and where that begins. */
function withoutParentheses(text: string, offset: number): { readonly code: string; readonly at: number } {
  const code = text.trim();
  const at = offset + text.length - text.trimStart().length;
  if (!code.startsWith('(') || callEnd(code, 0) !== code.length) return { code, at };
  return withoutParentheses(code.slice(1, -1), at + 1);
}
