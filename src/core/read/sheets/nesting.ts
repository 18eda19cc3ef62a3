// The selector of a nested rule, as it would be written if nothing were nested (CSS Nesting 1 §3).

import { either, endsWithOneOf, SPACE, startsWithOneOf, WORD } from '../../base/characters.js';
import { CLOSERS, isSpace, Token, type Tokens, tokenize, tokenText } from './tokens.js';

/**
 * `.card` and `& .title, :hover > &` are `.card .title, :hover > .card`. Where `&` could not be written so, it is `:is(…)`, which
 * is what it stands for.
 * In: the selector list of the rule around, nested in nothing, `undefined` where there is none; the rule's own list as written.
 */
export function unnested(around: string | undefined, own: string): string {
  if (around === undefined) return own;
  const parents = listItems(around);
  const selector = listItems(own)
    .map((one) => within(parents, one))
    .join(', ');
  return selector.length > LONGEST ? own : selector;
}

/** Characters. `& & { & & { … } }` doubles with each level: what is longer stays as it is written. */
const LONGEST = 10_000;

/** The selectors of a list, split at its commas outside of brackets. Without what comments and spaces stand around them. */
export function listItems(list: string): string[] {
  const tokens = tokenize(list);
  const found: string[] = [];
  const open: number[] = [];
  let item = '';
  for (let at = 0; at < tokens.count; at++) {
    const type = tokens.types[at]!;
    const closer = CLOSERS.get(type);
    if (closer !== undefined) open.push(closer);
    else if (open.at(-1) === type) open.pop();
    if (open.length === 0 && type === Token.Comma) {
      found.push(item.trim());
      item = '';
    } else item += type === Token.Comment ? '' : tokenText(tokens, at);
  }
  return [...found, item.trim()];
}

function within(parents: readonly string[], own: string): string {
  const tokens = tokenize(own);
  const nests = Array.from({ length: tokens.count }, (_, at) => at).filter((at) => isNest(tokens, at));
  const [only] = parents.length === 1 ? parents : [];
  // A relative selector: `> p`, or `p` alone, is within what is around.
  if (nests.length === 0) return `${only ?? isAny(parents)} ${own}`;
  let text = '';
  for (let at = 0; at < tokens.count; at++) {
    if (!nests.includes(at)) text += tokenText(tokens, at);
    else if (tokens.types[at + 1] === Token.Ident) {
      // `&p` is an element name, which stands first, and the rest.
      text += tokenText(tokens, at + 1) + isAny(parents);
      at++;
    } else text += only !== undefined && standsPlainly(only, text) ? only : isAny(parents);
  }
  return text;
}

function isNest(tokens: Tokens, at: number): boolean {
  return tokens.types[at] === Token.Delim && tokenText(tokens, at) === '&';
}

function isAny(parents: readonly string[]): string {
  return `:is(${parents.join(', ')})`;
}

/** Whether a selector means in the place of `&`, behind some text, what `:is()` of it would. */
function standsPlainly(parent: string, before: string): boolean {
  if (before.trim() === '') return true;
  const startsCompound = endsWithOneOf(before, either(SPACE, '>+~(,'));
  if (hasCombinator(parent)) return false;
  return startsCompound || !startsWithOneOf(parent, either(WORD, '*|-'));
}

function hasCombinator(selector: string): boolean {
  const tokens = tokenize(selector);
  const open: number[] = [];
  for (let at = 0; at < tokens.count; at++) {
    const type = tokens.types[at]!;
    const closer = CLOSERS.get(type);
    if (closer !== undefined) open.push(closer);
    else if (open.at(-1) === type) open.pop();
    else if (open.length > 0) continue;
    else if (isSpace(type) || (type === Token.Delim && '>+~'.includes(tokenText(tokens, at)))) return true;
  }
  return false;
}
