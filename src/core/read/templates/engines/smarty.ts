// Smarty and Latte: `{$fare}`, `{if $paid}`, told by the ending of the file. A brace with a space behind it is text.

import { DIGIT, either, hasOneOf, SPACE, startsWithOneOf } from '../../../base/characters.js';
import { extending, fileIn, firstWord, included, isWordCharacter, nameBehind, usesWord } from './code.js';
import { type FoundPiece, type NamedFile, type Role, type TemplateEngine, words } from './engine.js';
import { wraps } from './jinja.js';

function read(text: string): FoundPiece[] {
  const found: FoundPiece[] = [];
  for (let start = text.indexOf('{'); start >= 0; start = text.indexOf('{', start + 1)) {
    const end = pieceEnd(text, start);
    if (end === undefined) continue;
    const code = text.slice(start + 1, end - 1);
    const role = roleOf(code, (name) => text.includes(`{/${name}}`));
    found.push({ start, end, role, prints: role === 'none', code });
  }
  return found;
}

/** Behind the brace that closes a piece; `undefined` for what is none, such as a rule in a style block: that has a colon. */
function pieceEnd(text: string, start: number): number | undefined {
  let at = start + 1;
  if ('$/@.#'.includes(text[at] ?? ' ')) at++;
  if (!isWordCharacter(text[at])) return undefined;
  while (at < text.length && !hasOneOf(text[at]!, either(SPACE, '{}:;'))) at++;
  if (text[at] !== '}' && text[at]?.trim() === '')
    while (at < text.length && !'{}\n;'.includes(text[at]!)) at++;
  return text[at] === '}' ? at + 1 : undefined;
}

const ELSE = words('else elseif elsif foreachelse sectionelse');

function roleOf(code: string, isEnded: (name: string) => boolean): Role {
  if (code.startsWith('/')) return 'close';
  const name = firstWord(code);
  if (ELSE.has(name) || name.startsWith('else')) return 'else';
  const isWhole = name !== '' && (name.length === code.length || code[name.length]!.trim() === '');
  return isWhole && !startsWithOneOf(name, DIGIT) && isEnded(name) ? 'open' : 'none';
}

const BRANCHES = words(
  'if else elseif elif switch case default for foreach forelse foreachelse while section sectionelse block capture strip literal ' +
    'nocache function include assign call unless isset empty auth guest php code functions using',
);

function names(code: string, role: Role): NamedFile | undefined {
  const word = firstWord(code);
  if ((word === 'extends' || word === 'layout') && fileIn(code) !== undefined) return extending(code);
  if (word === 'block' || word === 'define') {
    const name = nameBehind(code, word);
    if (name !== undefined) return { kind: 'block', names: [name] };
  }
  const isMeant = role === 'none' || word === 'embed';
  const isIncluding = usesWord(code, ['include', 'require', 'render', 'partial'], words('embed template'));
  return isMeant && isIncluding ? included(code) : undefined;
}

export const smarty: TemplateEngine = {
  name: 'smarty',
  endings: ['tpl'],
  told: { by: 'ending', mayHold: (text) => text.includes('{'), read },
  comments: [['{*', '*}']],
  always: words('block capture strip literal nocache function'),
  names,
  wraps,
  beginsBranch: (text) => {
    const code = text.startsWith('{') ? text.slice(1).trimStart() : '';
    return code !== '' && ('#:/@!'.includes(code[0]!) || BRANCHES.has(firstWord(code).toLowerCase()));
  },
  looksFromTop: true,
  isServedInPlace: false,
};
