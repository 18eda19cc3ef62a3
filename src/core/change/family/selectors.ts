// Selectors of a table put together token by token: what stands in a string or in brackets is never taken for a comma or
// for the element itself.

import { compileSelectorList } from '../../cascade/index.js';
import { isSpace, Token, tokenize, tokenText } from '../../read/sheets/tokens.js';

const OPENERS: ReadonlySet<number> = new Set([
  Token.LeftParenthesis,
  Token.Function,
  Token.LeftSquareBracket,
  Token.LeftCurlyBracket,
]);
const CLOSERS: ReadonlySet<number> = new Set([
  Token.RightParenthesis,
  Token.RightSquareBracket,
  Token.RightCurlyBracket,
]);

/** The members of a list: of selectors, of media queries. */
export function splitList(text: string): string[] {
  const tokens = tokenize(text);
  const found: string[] = [];
  let depth = 0;
  let start = 0;
  for (let at = 0; at < tokens.count; at++) {
    const type = tokens.types[at]!;
    if (OPENERS.has(type)) depth++;
    else if (CLOSERS.has(type)) depth--;
    else if (type === Token.Comma && depth === 0) {
      found.push(text.slice(start, tokens.starts[at]).trim());
      start = tokens.starts[at + 1]!;
    }
  }
  return [...found, text.slice(start).trim()];
}

/** One part of a table's rules, for one element: `&` is the element, anything else is inside it (CSS Nesting 1 §3). */
export function insideOf(item: string, part: string): string {
  const tokens = tokenize(part);
  let text = '';
  let hasElement = false;
  for (let at = 0; at < tokens.count; at++) {
    const own = tokenText(tokens, at);
    const type = tokens.types[at]!;
    const isElement = own === '&' && type === Token.Delim && !isInSquare(tokens, at);
    if (!isElement) {
      text += own;
      continue;
    }
    hasElement = true;
    // In the middle of a compound, or before a type, the element is one condition more.
    const follows = tokens.types[at + 1] === Token.Ident;
    const begins =
      at === 0 || isSpace(tokens.types[at - 1]) || /^[>+~,(]$|\($/.test(tokenText(tokens, at - 1));
    text += begins && !follows ? item : `:is(${item})`;
  }
  return hasElement ? text : `${item} ${part}`;
}

function isInSquare(tokens: ReturnType<typeof tokenize>, until: number): boolean {
  let depth = 0;
  for (let at = 0; at < until; at++) {
    if (tokens.types[at] === Token.LeftSquareBracket) depth++;
    if (tokens.types[at] === Token.RightSquareBracket) depth--;
  }
  return depth > 0;
}

/** The elements that several variants of one selector are for, as specific as one of them. */
export function anyOf(variants: readonly string[]): string {
  const [first = '', ...others] = variants;
  if (others.length === 0) return first;
  const pseudo = pseudoElementOf(first);
  const bare = variants.map((one) => one.slice(0, one.length - pseudo.length));
  // What stands around the names is declared once: `.kw-badge:is(.is-full, .is-free)`.
  const classes = bare.map((one) => [...one.matchAll(/[.#](?:[\w-]|[^\0-\x7f])+/g)]);
  const at = classes[0]!.findIndex((own, i) => classes.some((all) => all[i]?.[0] !== own[0]));
  const [differs] = at < 0 ? [] : [classes.map((all) => all[at])];
  const around = (one: string, match: RegExpMatchArray | undefined): string =>
    match === undefined
      ? one
      : `${one.slice(0, match.index)}\0${one.slice((match.index ?? 0) + match[0].length)}`;
  if (differs !== undefined) {
    const shells = new Set(bare.map((one, i) => around(one, differs[i])));
    const [shell = ''] = shells;
    if (shells.size === 1)
      return `${shell.replace('\0', `:is(${differs.map((match) => match?.[0]).join(', ')})`)}${pseudo}`;
  }
  return `:is(${bare.join(', ')})${pseudo}`;
}

/** `::before` at the end of a selector; empty for none. */
function pseudoElementOf(selector: string): string {
  const list = compileSelectorList(selector);
  const own = list.kind === 'list' ? (list.selectors[0]?.pseudoElement ?? '') : '';
  return own !== '' && selector.endsWith(own) ? own : '';
}
