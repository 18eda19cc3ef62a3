// Where a selector names a class: `.name`, `[class~=name]`, also inside `:is()` and the like.

import { Token, tokenize, tokenText } from '../../sheets/index.js';
import type { SourceRange } from '../../source.js';

/** Ranges of the name alone, in the text. */
export function selectorTokens(text: string, name: string): SourceRange[] {
  const tokens = tokenize(text);
  const found: SourceRange[] = [];
  const at = (index: number): SourceRange => ({
    start: tokens.starts[index]!,
    end: tokens.starts[index + 1]!,
  });
  for (let i = 0; i < tokens.count; i++) {
    const type = tokens.types[i];
    const isDot = type === Token.Delim && tokenText(tokens, i) === '.';
    if (isDot && tokens.types[i + 1] === Token.Ident && tokenText(tokens, i + 1) === name)
      found.push(at(i + 1));
    if (type !== Token.LeftSquareBracket) continue;
    const close = indexOf(tokens.types, Token.RightSquareBracket, i, tokens.count);
    const inside = text.slice(tokens.starts[i]! + 1, tokens.starts[close]);
    const match = /^\s*class\s*~=\s*(["']?)([^"'\s]+)\1/i.exec(inside);
    if (match?.[2] !== name) continue;
    const start = tokens.starts[i]! + 1 + inside.indexOf(name, inside.indexOf('='));
    found.push({ start, end: start + name.length });
  }
  return found;
}

function indexOf(types: Uint8Array, wanted: number, from: number, count: number): number {
  for (let i = from; i < count; i++) if (types[i] === wanted) return i;
  return count;
}
