// CSS text cut into tokens, kept as flat arrays: the parser walks them by number.

import * as csstree from 'css-tree';

/** Token types of CSS Syntax 3 §4. */
export const Token = csstree.tokenTypes;

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
