// Where the text of a selector names classes, for who needs no more than the names or edits them: nothing is compiled, and
// what a selector matches is not asked. Names count wherever they stand, inside `:is()` and the like too.

import { ident } from 'css-tree/utils';
import type { SourceRange } from '../base/source.js';
import { Token, tokenize, tokenText } from '../read/sheets/tokens.js';

export interface WrittenClass {
  /** Without escapes. */
  readonly name: string;
  /** Of the name alone, in the text. */
  readonly range: SourceRange;
}

/** `.name`, and `name` in `[class~=name]`, in order. */
export function writtenClasses(text: string): WrittenClass[] {
  const tokens = tokenize(text);
  const found: WrittenClass[] = [];
  for (let at = 0; at < tokens.count; at++) {
    const isDot = tokens.types[at] === Token.Delim && tokenText(tokens, at) === '.';
    if (isDot && tokens.types[at + 1] === Token.Ident) {
      const range = { start: tokens.starts[at + 1]!, end: tokens.starts[at + 2]! };
      found.push({ name: decoded(tokenText(tokens, at + 1)), range });
    } else if (tokens.types[at] === Token.LeftSquareBracket) {
      let close = at;
      while (close < tokens.count && tokens.types[close] !== Token.RightSquareBracket) close++;
      const from = tokens.starts[at]! + 1;
      const inside = text.slice(from, tokens.starts[close]);
      const match = /^(\s*class\s*~=\s*["']?)([^"'\s]+)/i.exec(inside);
      if (match === null) continue;
      const start = from + match[1]!.length;
      found.push({ name: match[2]!, range: { start, end: start + match[2]!.length } });
    }
  }
  return found;
}

/** Ranges of one class's name. */
export function rangesOfClass(text: string, name: string): SourceRange[] {
  return writtenClasses(text)
    .filter((one) => one.name === name)
    .map(({ range }) => range);
}

function decoded(name: string): string {
  return name.includes('\\') ? ident.decode(name) : name;
}
