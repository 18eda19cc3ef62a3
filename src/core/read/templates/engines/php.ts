// PHP in `<?php ?>`, `<?= ?>` and `<? ?>`, as themes of many systems are written.

import { withoutEnd } from '../../../base/phrases.js';
import {
  extending,
  fileIn,
  included,
  isWordCharacter,
  methodCall,
  stringEnd,
  usesWord,
  wordEnd,
} from './code.js';
import {
  type EngineSource,
  type FoundPiece,
  type NamedFile,
  type Role,
  type TemplateEngine,
  words,
} from './engine.js';
import { codeRole, wrapsCode } from './erb.js';

/** `<?xml` is a declaration of its document. */
function read({ text }: EngineSource, start: number): FoundPiece | undefined {
  const word = text.slice(start + 2, wordEnd(text, start + 2)).toLowerCase();
  if (word === 'xml') return undefined;
  const isPrinted = text[start + 2] === '=';
  const from = start + 2 + (isPrinted ? 1 : word === 'php' ? 3 : 0);
  const end = codeEnd(text, from);
  const inner = text.slice(from, end);
  const code = (inner.endsWith('?>') ? inner.slice(0, -2) : inner).trim();
  const role = isPrinted ? 'none' : codeRole(code, false);
  return { start, end, role, prints: isPrinted || mayPrint(code), code };
}

/** Behind `?>`: one in a string ends nothing, one in a comment of a line does. */
function codeEnd(text: string, from: number): number {
  const marks = /["'?/#]/g;
  marks.lastIndex = from;
  for (let mark = marks.exec(text); mark !== null; mark = marks.exec(text)) {
    const { 0: char, index: at } = mark;
    const next = text[at + 1];
    if (char === '?' && next === '>') return at + 2;
    if (char === '"' || char === "'") marks.lastIndex = stringEnd(text, at);
    else if (char === '/' && next === '*') marks.lastIndex = behind(text, '*/', at + 2);
    else if ((char === '/' && next === '/') || char === '#') marks.lastIndex = lineEnd(text, at);
  }
  return text.length;
}

function behind(text: string, part: string, from: number): number {
  const at = text.indexOf(part, from);
  return at < 0 ? text.length : at + part.length;
}

/** The end of the line, or the `?>` that comes before it. */
function lineEnd(text: string, from: number): number {
  let at = from;
  while (at < text.length && text[at] !== '\n' && !(text[at] === '?' && text[at + 1] === '>')) at++;
  return at;
}

/** A function that is called may print. */
function mayPrint(code: string): boolean {
  if (usesWord(code, [], words('echo print include include_once require require_once print_once echo_once')))
    return true;
  for (let at = code.indexOf('('); at >= 0; at = code.indexOf('(', at + 1)) {
    const before = code.slice(0, at).trimEnd();
    if (isWordCharacter(before.at(-1))) return true;
  }
  return false;
}

const EXTENDING = words('extend layout setLayout');
const FILLING = words('start block section fetch');
const SHOWING = words('render partial insert element view load fetch include import');
const INCLUDES = ['include', 'require', 'render', 'partial'];
const INCLUDING = words('embed template get_template_part locate_template section');
const CONTENT = words('$content $body $this->content $this->content() yield body content');

function names(code: string, role: Role): NamedFile | undefined {
  const layout = methodCall(code, EXTENDING, '->');
  if (layout !== undefined && isString(layout)) return extending(layout);
  if (/^(?:extends|layout)\b\s*\(?\s*["']/.test(code)) return extending(code);
  const filled = methodCall(code, FILLING, '->');
  const block = filled === undefined ? undefined : /^\s*['"]([\w.-]+)['"]\s*\)/.exec(filled)?.[1];
  if (block !== undefined) return { kind: 'block', names: [block] };
  if (CONTENT.has(withoutEnd(code.replace(/^echo\s+/, ''), ';').trim())) return { kind: 'yield', names: [] };
  const shown = themePart(code);
  if (shown !== undefined) return { kind: 'include', names: shown };
  const isMeant = role === 'none' || usesWord(code, [], words('render'));
  const isIncluding = usesWord(code, INCLUDES, INCLUDING) || methodCall(code, SHOWING, '->') !== undefined;
  return isMeant && isIncluding ? included(code) : undefined;
}

function isString(code: string): boolean {
  return '"\''.includes(code.trimStart()[0] ?? ' ') && fileIn(code) !== undefined;
}

/** Parts that one system calls by names of its own: `get_header('ferry')`, `get_template_part('card', 'wide')`. */
function themePart(code: string): string[] | undefined {
  const part = /\bget_(header|footer|sidebar)\(\s*(?:['"]([\w-]+)['"]|\$|[a-z])?/.exec(code);
  if (part !== null) {
    const [, kind, own] = part;
    return own === undefined ? [kind!] : [`${kind}-${own}`, kind!];
  }
  const [, first, comma, second] =
    /\bget_template_part\(\s*['"]([\w./-]+)['"]\s*(,)?\s*(?:['"]([\w./-]+)['"])?/.exec(code) ?? [];
  if (first === undefined) return undefined;
  if (second !== undefined) return [`${first}-${second}`, first];
  return comma === undefined ? [first] : [`${first}-*`, first];
}

export const php: TemplateEngine = {
  name: 'php',
  endings: ['php', 'phtml'],
  marks: [{ open: '<?', close: '?>', read }],
  comments: [],
  always: words('section define fill slot capture'),
  names,
  wraps: wrapsCode,
  looksFromTop: false,
  isServedInPlace: true,
};
