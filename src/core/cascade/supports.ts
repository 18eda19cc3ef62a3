// `@supports` conditions, decided where every browser in use gives the same answer (CSS Conditional 3 §6).

import { either, hasOneOf, SPACE } from '../base/characters.js';
import { withSingleSpaces } from '../base/phrases.js';
import { declarationValidity } from '../read/sheets/index.js';
import { ALWAYS, type Truth, type TruthTable } from './truth.js';

/** In: the condition as written. Out: `ALWAYS` or `NEVER` where it is certain, else a condition that names what is open. */
export function supportsTruth(text: string, table: TruthTable): Truth {
  const trimmed = text.trim();
  const negated = /^not(?=[\s(])\s*/i.exec(trimmed);
  if (negated !== null) return table.not(supportsTruth(trimmed.slice(negated[0].length), table));
  const parts = splitAtWords(trimmed);
  if (parts.words.length > 0) {
    const [word] = parts.words;
    if (parts.words.some((one) => one !== word)) return open(trimmed, table);
    const members = parts.members.map((member) => supportsTruth(member, table));
    return word === 'and' ? table.and(...members) : table.or(...members);
  }
  const inside = /^\(([\s\S]*)\)$/.exec(trimmed)?.[1]?.trim();
  if (inside === undefined) return open(trimmed, table);
  if (/^(\(|not[\s(])/i.test(inside)) return supportsTruth(inside, table);
  const declaration = /^(-{0,2}[a-z][\w-]*)\s*:\s*([\s\S]+)$/i.exec(inside);
  if (declaration === null) return open(trimmed, table);
  const property = declaration[1]!;
  const name = property.startsWith('--') ? property : property.toLowerCase();
  const value = declaration[2]!.replace(/\s*!\s*important\s*$/i, '');
  return declarationValidity(name, value).validity === 'certain' ? ALWAYS : open(trimmed, table);
}

function open(text: string, table: TruthTable): Truth {
  return table.literal(`@supports ${withSingleSpaces(text)}`);
}

/** Splits `(a) and (b)` at the words between its brackets. */
function splitAtWords(text: string): { members: string[]; words: string[] } {
  const members: string[] = [];
  const words: string[] = [];
  let depth = 0;
  let start = 0;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '(') depth++;
    else if (text[at] === ')') depth--;
    else if (depth === 0) {
      const word = /^(and|or)(?=[\s(])/i.exec(text.slice(at, at + 4));
      if (word === null || at === 0 || !hasOneOf(text[at - 1]!, either(SPACE, ')'))) continue;
      members.push(text.slice(start, at).trim());
      words.push(word[1]!.toLowerCase());
      at += word[1]!.length - 1;
      start = at + 1;
    }
  }
  members.push(text.slice(start).trim());
  return { members, words };
}
