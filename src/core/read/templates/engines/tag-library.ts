// Tags of an engine's own, told by a prefix: `<c:if>`, `<f:for>`, `<quay:else />`. A prefix is an engine's where it stands in front
// of a word that no markup language has.

import { withoutEnd } from '../../../base/phrases.js';
import { extending, fileIn, included, isWordCharacter, nameBehind } from './code.js';
import { type FoundPiece, type NamedFile, type Role, type TemplateEngine, words } from './engine.js';
import { wrapsCode } from './erb.js';

const TELLING = words(
  'if unless foreach each loop choose endif else exp object container label include out print param',
);
const BRANCHES = words('if unless for foreach each loop choose switch when case otherwise then');
const ENDS = words('endif endfor endforeach endunless endswitch endeach endloop');
const ELSE = words('else elseif elsif');

interface PrefixedTag {
  readonly start: number;
  readonly end: number;
  readonly prefix: string;
  readonly word: string;
  readonly rest: string;
  readonly closes: boolean;
}

function mayHold(text: string): boolean {
  for (let at = text.indexOf(':'); at >= 0; at = text.indexOf(':', at + 1)) {
    let open = at - 1;
    while (open >= 0 && (isWordCharacter(text[open]) || text[open] === '-')) open--;
    if (text[open] !== '<' || !isLetter(text[open + 1])) continue;
    if (TELLING.has((/^\w+/.exec(text.slice(at + 1, at + 20))?.[0] ?? '').toLowerCase())) return true;
  }
  return false;
}

function isLetter(char: string | undefined): boolean {
  return char !== undefined && char.toLowerCase() !== char.toUpperCase();
}

function read(text: string): FoundPiece[] {
  const all = tagsIn(text);
  const prefixes = new Set(
    all.flatMap(({ prefix, word, closes }) =>
      !closes && TELLING.has((/^\w+/.exec(word)?.[0] ?? '').toLowerCase()) ? [prefix] : [],
    ),
  );
  const own = all.filter(({ prefix }) => prefixes.has(prefix));
  const ended = new Set(
    own.flatMap(({ prefix, word, closes }) => (closes ? [`${prefix}:${word.toLowerCase()}`] : [])),
  );
  return own.flatMap(({ start, end, prefix, word, rest, closes }): FoundPiece[] => {
    const isAlone = rest.trimEnd().endsWith('/');
    const role = roleOf(word.toLowerCase(), closes, isAlone, ended.has(`${prefix}:${word.toLowerCase()}`));
    // What an engine puts around something is an element that nobody knows: it stays one.
    if (role === undefined) return [];
    const code = `${word} ${withoutEnd(rest.trimEnd(), '/').trim()}`.trim();
    return [{ start, end, role, prints: role === 'none', code }];
  });
}

/** Tags with a prefix, wherever they stand, in values too. */
function tagsIn(text: string): PrefixedTag[] {
  const found: PrefixedTag[] = [];
  for (let start = text.indexOf('<'); start >= 0; start = text.indexOf('<', start + 1)) {
    const [name, slash, prefix, word] =
      /^<(\/?)([a-z][\w-]*):([\w.-]+)/i.exec(text.slice(start, start + 120)) ?? [];
    if (name === undefined) continue;
    const end = tagEnd(text, start + name.length);
    if (end === undefined) continue;
    const rest = text.slice(start + name.length, end - 1);
    if (rest !== '' && rest !== '/' && rest[0]!.trim() !== '') continue;
    found.push({ start, end, prefix: prefix!.toLowerCase(), word: word!, rest, closes: slash !== '' });
  }
  return found;
}

/** Behind the end of a tag: one in quotes ends nothing. */
function tagEnd(text: string, from: number): number | undefined {
  for (let at = from; at < text.length; at++) {
    const char = text[at]!;
    if (char === '>') return at + 1;
    if (char !== '"' && char !== "'") continue;
    const end = text.indexOf(char, at + 1);
    if (end < 0) return undefined;
    at = end;
  }
  return undefined;
}

function roleOf(word: string, closes: boolean, isAlone: boolean, isEnded: boolean): Role | undefined {
  if (ENDS.has(word)) return 'close';
  if (ELSE.has(word)) {
    if (closes) return 'close';
    return isAlone || !isEnded ? 'else' : 'open';
  }
  if (BRANCHES.has(word)) return closes ? 'close' : isAlone && isEnded ? 'none' : 'open';
  return !closes && (isAlone || !isEnded) ? 'none' : undefined;
}

function names(code: string, role: Role): NamedFile | undefined {
  const [word = ''] = code.split(/\s/);
  if (word === 'layout' || word === 'extends')
    return fileIn(code) === undefined ? undefined : extending(code);
  if (word === 'block' || word === 'define') {
    const name = nameBehind(code, word);
    if (name !== undefined) return { kind: 'block', names: [name] };
  }
  const isIncluding = ['include', 'require', 'render', 'partial', 'template', 'section'].some((one) =>
    word.startsWith(one),
  );
  return role === 'none' && isIncluding ? included(code) : undefined;
}

export const tagLibrary: TemplateEngine = {
  name: 'tag-library',
  endings: [],
  told: { by: 'text', mayHold, read, comesFirst: true },
  comments: [],
  always: words('section'),
  names,
  wraps: wrapsCode,
  looksFromTop: false,
  isServedInPlace: false,
};
