// Razor: `@if (x) {`, `@Model.Fare`, `@RenderBody()`, and the lines of code that end what such a line began; told by the ending.

import { DIGIT, startsWithOneOf } from '../../../base/characters.js';
import { withoutEnd } from '../../../base/phrases.js';
import {
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
import { usesHtmlPartial } from './erb.js';
import { type RawRanges, rawRanges } from './raw.js';

const BLOCKS = words('if else for foreach while switch using lock section');

function read(text: string): FoundPiece[] {
  const raw = rawRanges(text);
  const found: FoundPiece[] = [];
  for (let at = 0; at < text.length; ) {
    const end =
      text[at] === '@' ? atSign(text, at) : isLineStart(text, at) ? closingLine(text, at, raw) : undefined;
    if (end === undefined) {
      at++;
      continue;
    }
    found.push(pieceOf(text, at, end));
    at = end;
  }
  return found;
}

function pieceOf(text: string, start: number, end: number): FoundPiece {
  const whole = text.slice(start, end);
  const isComment = whole.startsWith('@*');
  const role = roleOf(whole);
  const code = whole.replace(/^@\(?/, '');
  return {
    start,
    end,
    role,
    prints: role === 'none' && !isComment,
    code: whole.startsWith('@(') && code.endsWith(')') ? code.slice(0, -1) : code,
  };
}

function isLineStart(text: string, at: number): boolean {
  return at === 0 || text[at - 1] === '\n';
}

/** The end of what an at sign begins. */
function atSign(text: string, start: number): number | undefined {
  const next = text[start + 1];
  if (next === '*') return behind(text, '*@', start + 2);
  if (next === '(') return callEnd(text, start + 1);
  if (next === '{') return codeBlockEnd(text, start + 2);
  const before = text[start - 1];
  if (isWordCharacter(before) || before === '@' || before === '.') return undefined;
  const word = text.slice(start + 1, wordEnd(text, start + 1));
  if (word === '' || startsWithOneOf(word, DIGIT)) return undefined;
  if (BLOCKS.has(word)) {
    let at = start + 1 + word.length;
    while (at < text.length && text[at] !== '{' && text[at] !== '\n') at++;
    if (text[at] === '{') return at + 1;
  }
  return expressionEnd(text, start + 1 + word.length);
}

/** `@Model.Lines(x).First().Fare` */
function expressionEnd(text: string, from: number): number {
  let at = from;
  for (;;) {
    if (text[at] === '(') at = callEnd(text, at) ?? at;
    const isMember = text[at] === '.' && isWordCharacter(text[at + 1]);
    if (!isMember) return at;
    at = wordEnd(text, at + 1);
  }
}

function behind(text: string, part: string, from: number): number | undefined {
  const at = text.indexOf(part, from);
  return at < 0 ? undefined : at + part.length;
}

/** A block of code goes to a brace on a line of its own. */
function codeBlockEnd(text: string, from: number): number | undefined {
  for (let line = text.indexOf('\n', from); line >= 0; line = text.indexOf('\n', line + 1)) {
    let at = line + 1;
    while (text[at]?.trim() === '') at++;
    if (text[at] === '}') return at + 1;
  }
  return undefined;
}

/** A line that is a brace alone, or `} else {`: a script has lines like that, too. */
function closingLine(text: string, start: number, raw: RawRanges): number | undefined {
  if (raw.holds(start)) return undefined;
  const line = text.indexOf('\n', start);
  const own = text.slice(start, line < 0 ? text.length : line);
  const code = own.trim();
  const isElse =
    code.endsWith('{') && code.startsWith('}') && firstWord(code.slice(1).trimStart()) === 'else';
  return code === '}' || isElse ? start + withoutEnd(own, '\r').length : undefined;
}

function roleOf(whole: string): Role {
  const code = whole.trimStart();
  if (code.startsWith('}')) return firstWord(code.slice(1).trimStart()) === 'else' ? 'else' : 'close';
  return whole.endsWith('{') ? 'open' : 'none';
}

function names(code: string, role: Role): NamedFile | undefined {
  const layout = /(?:^|\s)Layout\s*=\s*"~?\/?([\w./-]+)"/.exec(code)?.[1];
  if (layout !== undefined) return { kind: 'extends', names: [layout] };
  if (/^(?:extends|layout)\b/.test(code) && fileIn(code) !== undefined) return extending(code);
  const section =
    /^section\s+(\w+)\s*\{$/.exec(code)?.[1] ??
    /^(?:await\s+)?RenderSection(?:Async)?\(\s*"(\w+)"/.exec(code)?.[1] ??
    (/^(?:block|define)\b/.test(code) ? nameBehind(code, firstWord(code)) : undefined);
  if (section !== undefined) return { kind: 'block', names: [section] };
  if (code === 'RenderBody()') return { kind: 'yield', names: [] };
  const isIncluding =
    usesWord(code, ['include', 'require', 'render', 'partial'], words('embed template')) ||
    usesHtmlPartial(code);
  return role === 'none' && isIncluding ? included(code) : undefined;
}

function wraps(code: string): Wrapping | undefined {
  const word = firstWord(code);
  if (word === 'helper' || word === 'functions') return 'elsewhere';
  return word === 'using' ? 'within' : undefined;
}

export const razor: TemplateEngine = {
  name: 'razor',
  endings: ['cshtml', 'vbhtml'],
  told: { by: 'ending', mayHold: (text) => text.includes('@'), read },
  comments: [['@*', '*@']],
  always: words('section'),
  names,
  wraps,
  beginsBranch: (text) => {
    const word = text.startsWith('@') ? firstWord(text.slice(1)) : '';
    const isMember = text[1 + word.length] === '.';
    return !isMember && (BLOCKS.has(word) || word === 'functions' || word === 'code');
  },
  looksFromTop: false,
  isServedInPlace: false,
};
