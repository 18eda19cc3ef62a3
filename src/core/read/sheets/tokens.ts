// CSS text cut into tokens, kept as flat arrays: the parser walks them by number.

import * as csstree from 'css-tree/tokenizer';

/** Token types of CSS Syntax 3 §4. */
export const Token = csstree.tokenTypes;

/** The token that closes what another one opens. */
export const CLOSERS: ReadonlyMap<number, number> = new Map([
  [Token.LeftCurlyBracket, Token.RightCurlyBracket],
  [Token.LeftParenthesis, Token.RightParenthesis],
  [Token.Function, Token.RightParenthesis],
  [Token.LeftSquareBracket, Token.RightSquareBracket],
]);

export interface Tokens {
  readonly text: string;
  readonly count: number;
  readonly types: Uint8Array;
  /** `count + 1` offsets: the end of a token is the start of the next. */
  readonly starts: Uint32Array;
}

export function tokenize(text: string): Tokens {
  const types: number[] = [];
  const starts: number[] = [];
  csstree.tokenize(text, (type, start) => {
    types.push(type);
    starts.push(start);
  });
  starts.push(text.length);
  return { text, count: types.length, types: Uint8Array.from(types), starts: Uint32Array.from(starts) };
}

export function tokenText(tokens: Tokens, at: number): string {
  return tokens.text.slice(tokens.starts[at], tokens.starts[at + 1]);
}

export function isSpace(type: number | undefined): boolean {
  return type === Token.WhiteSpace || type === Token.Comment;
}

/**
 * Whether a value ends by itself: every bracket, string, address and comment in it is closed. The end of a style
 * attribute closes what is open; in a sheet it would take in what follows.
 */
export function isFinished(value: string): boolean {
  const tokens = tokenize(value);
  const open: number[] = [];
  for (let at = 0; at < tokens.count; at++) {
    const type = tokens.types[at]!;
    const text = tokenText(tokens, at);
    if (type === Token.BadString || type === Token.BadUrl) return false;
    if (
      type === Token.String &&
      (text.length < 2 || text.at(-1) !== text[0] || /(^|[^\\])(\\\\)*\\.$/s.test(text))
    )
      return false;
    if (type === Token.Comment && !(text.length >= 4 && text.endsWith('*/'))) return false;
    if (type === Token.Url && !text.endsWith(')')) return false;
    const closer = CLOSERS.get(type);
    if (closer !== undefined) open.push(closer);
    else if (
      type === Token.RightParenthesis ||
      type === Token.RightSquareBracket ||
      type === Token.RightCurlyBracket
    ) {
      if (open.pop() !== type) return false;
    }
  }
  return open.length === 0 && !value.endsWith('\\');
}

/** The index behind the bracket that closes the one at `open`. */
export function behindBracket(tokens: Tokens, open: number): number {
  let depth = 0;
  for (let at = open; at < tokens.count; at++) {
    const type = tokens.types[at];
    if (type === Token.Function || type === Token.LeftParenthesis) depth++;
    if (type === Token.RightParenthesis && --depth === 0) return at + 1;
  }
  return tokens.count;
}
