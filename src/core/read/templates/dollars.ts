// Engine text between signs of money: `$title$`, `$if(toc)$`, `$endif$`. It is told by branches that end: money has none.

import type { DialectPiece } from './dialects.js';
import type { Role } from './roles.js';

const BEGINS = /\$(?:if|for)\([\w./-]+\)\$/;
const ENDS = /\$end(?:if|for)\$/;
const PIECES =
  /\$--[^\n]*|\$((?:if|elseif|for)\([\w./-]+\)|else|endif|endfor|sep|[a-zA-Z][\w.-]*(?:\(\))?(?:\/[\w-]+)*(?:\[[^\]$\n]*\])?)\$/g;

/** Whether such text may stand in a text. */
export function mayHoldDollars(text: string): boolean {
  return text.includes('$') && BEGINS.test(text) && ENDS.test(text);
}

/** In: a text. Out: its pieces, in order. */
export function dollarPieces(text: string): DialectPiece[] {
  return [...text.matchAll(PIECES)].map(({ 0: whole, 1: code = '', index }) => {
    const role = roleOf(code);
    const isQuiet = code === '' || code === 'sep';
    return {
      start: index,
      end: index + whole.length,
      role,
      prints: role === 'none' && !isQuiet,
      code: code.replace('(', ' ('),
    };
  });
}

function roleOf(code: string): Role {
  if (/^(?:if|for)\(/.test(code)) return 'open';
  if (/^else(?:if\(|$)/.test(code)) return 'else';
  return /^end(?:if|for)$/.test(code) ? 'close' : 'none';
}
