// Tags of an engine's own, told by a prefix: `<c:if>`, `<f:for>`, `<quay:else />`. A prefix is an engine's where it stands in front
// of a word that no markup language has.

import type { DialectPiece } from './dialects.js';
import type { Role } from './roles.js';

const BRANCHES = 'if|unless|for|foreach|each|loop|choose|switch|when|case|otherwise|then';
const TELLING =
  /<([a-z][\w-]*):(?:if|unless|foreach|each|loop|choose|endif|else|exp|object|container|label|include|out|print|param)\b/i;

/** Whether tags of an engine's own may stand in a text. */
export function mayHoldPrefixed(text: string): boolean {
  return TELLING.test(text);
}

/** In: a text. Out: the tags in it that an engine reads, in order: branches, and what stands for something printed. */
export function prefixedPieces(text: string): DialectPiece[] {
  const prefixes = new Set(
    [...text.matchAll(new RegExp(TELLING, 'gi'))].map(([, prefix]) => prefix!.toLowerCase()),
  );
  const found: DialectPiece[] = [];
  for (const prefix of prefixes) {
    const tags = new RegExp(String.raw`<(/?)${prefix}:([\w.-]+)((?:\s(?:"[^"]*"|'[^']*'|[^>"'])*)?)>`, 'gi');
    const isEnded = (word: string): boolean => new RegExp(`</${prefix}:${word}\\s*>`, 'i').test(text);
    for (const { 0: whole, 1: slash, 2: word = '', 3: rest = '', index } of text.matchAll(tags)) {
      const role = roleOf(word.toLowerCase(), slash !== '', rest.trimEnd().endsWith('/'), isEnded);
      // What an engine puts around something is an element that nobody knows: it stays one.
      if (role === undefined) continue;
      found.push({
        start: index,
        end: index + whole.length,
        role,
        prints: role === 'none',
        code: `${word} ${rest.replace(/\/$/, '').trim()}`.trim(),
      });
    }
  }
  return found.sort((a, b) => a.start - b.start);
}

function roleOf(
  word: string,
  isEnd: boolean,
  isAlone: boolean,
  isEnded: (word: string) => boolean,
): Role | undefined {
  const isBranch = new RegExp(`^(?:${BRANCHES})$`).test(word);
  if (/^end(?:if|for|foreach|unless|switch|each|loop)$/.test(word)) return 'close';
  if (/^(?:else|elseif|elsif)$/.test(word)) {
    if (isEnd) return 'close';
    return isAlone || !isEnded(word) ? 'else' : 'open';
  }
  if (isBranch) return isEnd ? 'close' : isAlone && isEnded(word) ? 'none' : 'open';
  return !isEnd && (isAlone || !isEnded(word)) ? 'none' : undefined;
}
