// Pandoc's templates: `$title$`, `$if(toc)$`, `$endif$`. Told by branches that end: money has none.

import { hasOneOf, LETTER } from '../../../base/characters.js';
import { callEnd, isWordCharacter, wordEnd } from './code.js';
import { type FoundPiece, type Role, type TemplateEngine, words } from './engine.js';
import { jinja } from './jinja.js';

function mayHold(text: string): boolean {
  const begins = text.includes('$if(') || text.includes('$for(');
  return begins && (text.includes('$endif$') || text.includes('$endfor$'));
}

function read(text: string): FoundPiece[] {
  const found: FoundPiece[] = [];
  for (let start = text.indexOf('$'); start >= 0; start = text.indexOf('$', start + 1)) {
    if (text.startsWith('$--', start)) {
      const line = text.indexOf('\n', start);
      const end = line < 0 ? text.length : line;
      found.push({ start, end, role: 'none', prints: false, code: '' });
      start = end - 1;
      continue;
    }
    const end = pieceEnd(text, start);
    if (end === undefined) continue;
    const code = text.slice(start + 1, end - 1);
    const role = roleOf(code);
    found.push({
      start,
      end,
      role,
      prints: role === 'none' && code !== 'sep',
      code: code.replace('(', ' ('),
    });
    start = end - 1;
  }
  return found;
}

/** Behind `$if(x)$`, `$else$`, `$title.main()/uppercase[, ]$`; `undefined` for money. */
function pieceEnd(text: string, start: number): number | undefined {
  if (!hasOneOf(text[start + 1] ?? ' ', LETTER)) return undefined;
  let at = nameEnd(text, start + 1);
  if (text[at] === '(') {
    const close = callEnd(text, at);
    if (close === undefined || text.slice(at, close).includes('\n')) return undefined;
    at = close;
  }
  while (text[at] === '/' && isWordCharacter(text[at + 1])) at = nameEnd(text, at + 1);
  if (text[at] === '[') {
    const close = text.indexOf(']', at);
    const inner = text.slice(at, close);
    if (close < 0 || inner.includes('$') || inner.includes('\n')) return undefined;
    at = close + 1;
  }
  return text[at] === '$' ? at + 1 : undefined;
}

function nameEnd(text: string, from: number): number {
  let at = wordEnd(text, from);
  while ('.-'.includes(text[at] ?? ' ')) at = wordEnd(text, at + 1);
  return at;
}

function roleOf(code: string): Role {
  const word = code.slice(0, wordEnd(code, 0));
  const isCall = code[word.length] === '(';
  if ((word === 'if' || word === 'for') && isCall) return 'open';
  if (word === 'else' || (word === 'elseif' && isCall)) return 'else';
  return word === 'endif' || word === 'endfor' ? 'close' : 'none';
}

export const pandoc: TemplateEngine = {
  name: 'pandoc',
  endings: [],
  told: { by: 'text', mayHold, read },
  comments: [],
  always: words(''),
  names: jinja.names,
  wraps: jinja.wraps,
  looksFromTop: false,
  isServedInPlace: false,
};
