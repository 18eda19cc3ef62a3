// Blade: `@if ($paid)`, `@yield('main')`, told by the ending of the file; and `{!! $html !!}` anywhere.

import { isMadeOf, LETTER } from '../../../base/characters.js';
import {
  between,
  callEnd,
  extending,
  fileIn,
  firstWord,
  included,
  isWordCharacter,
  nameBehind,
  usesWord,
  wordEnd,
} from './code.js';
import {
  type FoundPiece,
  type NamedFile,
  type Role,
  type TemplateEngine,
  type Wrapping,
  words,
} from './engine.js';
import { rawRanges } from './raw.js';

function read(text: string): FoundPiece[] {
  const found: FoundPiece[] = [];
  const raw = rawRanges(text);
  for (let start = text.indexOf('@'); start >= 0; start = text.indexOf('@', start + 1)) {
    // `mate@skerrin.example`, `@@`, and `@media` of a style block are text.
    const before = text[start - 1];
    if (isWordCharacter(before) || before === '@' || before === '.' || raw.holds(start)) continue;
    const named = wordEnd(text, start + 1);
    const word = text.slice(start + 1, named);
    if (!isMadeOf(word, LETTER)) continue;
    let open = named;
    while (text[open]?.trim() === '') open++;
    const end = text[open] === '(' ? (callEnd(text, open) ?? named) : named;
    const whole = text.slice(start, end);
    const role = roleOf(word, whole);
    found.push({ start, end, role, prints: role === 'none' && !SILENT.has(word), code: whole.slice(1) });
  }
  return found;
}

const OPENS = words(
  'if unless isset empty auth guest for foreach forelse while switch can cannot error once env production push prepend component ' +
    'componentFirst slot fragment verbatim hasSection sectionMissing',
);
const ELSE = words('else elseif elsecan empty');
const SILENT = words('extends php endphp csrf method props vite use break continue parent case default');

function roleOf(word: string, whole: string): Role {
  if (word.startsWith('end') || word === 'stop' || word === 'show') return 'close';
  if (ELSE.has(word)) return word === 'empty' && whole.includes('(') ? 'open' : 'else';
  // `@section('title', 'Fares')` ends itself.
  if (word === 'section') return whole.includes(',') ? 'none' : 'open';
  return OPENS.has(word) ? 'open' : 'none';
}

const BLOCKS = words('block define yield section sectionMissing hasSection content_for');

function names(code: string, role: Role): NamedFile | undefined {
  const word = firstWord(code);
  if ((word === 'extends' || word === 'layout') && fileIn(code) !== undefined) return extending(code);
  // `@section('main')` opens a block; with its text beside the name, it is one line.
  if (BLOCKS.has(word) && (word !== 'section' || /^section\s*\(\s*['"][\w.-]+['"]\s*\)$/.test(code))) {
    const name = nameBehind(code, word);
    if (name !== undefined) return { kind: 'block', names: [name] };
  }
  const isMeant = role === 'none' || word === 'embed';
  const isIncluding =
    usesWord(code, ['include', 'require', 'render', 'partial'], words('embed template section')) ||
    word === 'each' ||
    word === 'component';
  return isMeant && isIncluding ? included(code) : undefined;
}

const ELSEWHERE = words('push prepend slot helper functions');

function wraps(code: string): Wrapping | undefined {
  const word = firstWord(code);
  return ELSEWHERE.has(word) || word.startsWith('component') ? 'elsewhere' : undefined;
}

const BRANCHES = words(
  'if else elseif elif switch case default for foreach forelse while section block capture function include unless isset empty ' +
    'auth guest php',
);

export const blade: TemplateEngine = {
  name: 'blade',
  endings: ['blade.php'],
  marks: [
    {
      open: '{!!',
      close: '!!}',
      read: (source, start) => between(source, start, '{!!', '!!}'),
    },
  ],
  told: { by: 'ending', mayHold: (text) => text.includes('@'), read },
  comments: [['{{--', '--}}']],
  always: words('section component push prepend slot verbatim fragment'),
  names,
  wraps,
  beginsBranch: (text) => {
    const word = text.startsWith('@') ? firstWord(text.slice(1)).toLowerCase() : '';
    const next = text[1 + word.length];
    return (BRANCHES.has(word) || word.startsWith('end')) && next !== '.' && word !== '';
  },
  looksFromTop: false,
  isServedInPlace: true,
  isOwnTag: (name) => name.startsWith('x-'),
};
