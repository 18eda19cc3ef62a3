// ERB, EJS, JSP, Underscore and others with code in `<% %>`: Ruby, JavaScript or Java.

import { startsWithOneOf, WORD } from '../../../base/characters.js';
import { withoutEnd } from '../../../base/phrases.js';
import {
  braceDepth,
  comment,
  extending,
  fileIn,
  firstWord,
  included,
  methodCall,
  nameBehind,
  usesWord,
  withoutStrings,
} from './code.js';
import {
  type EngineSource,
  type FoundPiece,
  type NamedFile,
  type Role,
  type TemplateEngine,
  type Wrapping,
  words,
} from './engine.js';

const SIGNS = '-=#@!_:';

function read(source: EngineSource, start: number): FoundPiece | undefined {
  const { text } = source;
  // `<%%` is printed as `<%`.
  if (text.startsWith('<%%', start)) return { start, end: start + 3, role: 'none', prints: true, code: '' };
  const isComment = text.startsWith('<%--', start);
  const closer = isComment ? '--%>' : '%>';
  const at = source.find(closer, start + 2);
  const end = at < 0 ? text.length : at + closer.length;
  const inner = text.slice(start + 2, at < 0 ? text.length : at);
  let signs = 0;
  while (signs < inner.length && SIGNS.includes(inner[signs]!)) signs++;
  const sign = inner.slice(0, signs);
  if (isComment || sign.startsWith('#')) return comment(start, end);
  const last = inner.at(-1);
  const code = inner.slice(signs, last === '-' || last === '_' ? -1 : undefined).trim();
  const role = codeRole(code, true);
  const prints = sign.includes('=') || sign === ':' || (sign === '-' && role === 'none');
  return { start, end, role, prints, code };
}

const RUBY_OPENS = words('if unless case while until for begin');
const RUBY_ELSE = words('else elsif when in rescue ensure');
const PHP_LOOPS = words('if for foreach while switch');
const PHP_ENDS = words('endif endfor endforeach endwhile endswitch');

/** In: code as it stands in `<% %>` or `<?php ?>`; whether it may be Ruby, whose branches have no braces. */
export function codeRole(code: string, isMaybeRuby: boolean): Role {
  const bare = withoutStrings(code);
  const word = firstWord(bare);
  const lower = word.toLowerCase();
  if (PHP_ENDS.has(lower) && bare.slice(word.length).replace(';', '').trim() === '') return 'close';
  if (bare.endsWith(':')) {
    if (lower === 'elseif' || lower === 'case') return 'else';
    if ((lower === 'else' || lower === 'default') && bare.slice(word.length, -1).trim() === '') return 'else';
    if (PHP_LOOPS.has(lower) && bare.slice(0, -1).trimEnd().endsWith(')')) return 'open';
  }
  const depth = braceDepth(bare);
  if (depth.lowest < 0) return depth.open > 0 ? 'else' : 'close';
  if (depth.open > 0) return 'open';
  if (!isMaybeRuby || '{};'.includes(bare.at(-1) ?? ' ')) return 'none';
  if (word === 'end') return 'close';
  if (RUBY_ELSE.has(word)) return 'else';
  // `if x then y end` ends what it opened.
  const opens = RUBY_OPENS.has(word) || endsInDo(bare);
  return opens && !/\bend$/.test(bare) ? 'open' : 'none';
}

/** `crew.each do |one|` */
function endsInDo(bare: string): boolean {
  const head = bare.endsWith('|') ? bare.slice(0, bare.lastIndexOf('|', bare.length - 2)).trimEnd() : bare;
  return /\bdo$/.test(head);
}

const BLOCKS = words('block define yield content_for');
const YIELDS = words('yield body content content_for_layout slot');
const INCLUDES = ['include', 'require', 'render', 'partial'];
const INCLUDING = words('embed template section');
const SHOWING = words('render partial insert element view load fetch include import');

function names(code: string, role: Role): NamedFile | undefined {
  const word = firstWord(code);
  if ((word === 'extends' || word === 'layout') && fileIn(code) !== undefined) return extending(code);
  if (BLOCKS.has(word)) {
    const name = nameBehind(code.replace(/^content_for\?/, 'content_for'), word);
    if (name !== undefined) return { kind: 'block', names: [name] };
  }
  if (YIELDS.has(withoutEnd(code, ';').trim())) return { kind: 'yield', names: [] };
  const isMeant = role === 'none' || word === 'embed' || usesWord(code, [], words('render'));
  const isIncluding =
    usesWord(code, INCLUDES, INCLUDING) ||
    word === 'component' ||
    methodCall(code, SHOWING, '->') !== undefined ||
    usesHtmlPartial(code);
  return isMeant && isIncluding ? included(code) : undefined;
}

/** `Html.Partial(…)`, `Html.RenderPartialAsync(…)`. */
export function usesHtmlPartial(code: string): boolean {
  const at = code.indexOf('Html.');
  return at >= 0 && ['Partial', 'RenderPartial'].some((one) => code.startsWith(one, at + 'Html.'.length));
}

const CHOOSES = words(
  'else if unless elsif elseif for foreach while until switch case begin try do loop cache',
);
const REPEATS = words(
  'each forEach map collect times upto downto step select reject filter find_each with_index sort_by reverse entries keys tap ' +
    'presence then',
);
const KEPT = words('content_for capture provide append_to prepend_to define_method');
const MODIFIERS = words('public private protected static abstract final async');

/** Whether the block of a helper prints around what it is given, or keeps it for another place. */
export function wrapsCode(code: string): Wrapping | undefined {
  const heads = headsOf(withoutStrings(code));
  if (heads.some((head) => isNamedThing(head) || keeps(head))) return 'elsewhere';
  return heads.every((head) => head === '' || chooses(head) || repeats(head)) ? undefined : 'within';
}

/** Of code that is left open, the beginnings of what it leaves open. */
function headsOf(code: string): string[] {
  const heads: { readonly text: string; readonly parens: number }[] = [];
  let [from, parens] = [0, 0];
  for (const [at, char] of [...code].entries()) {
    if (char === '(') parens++;
    else if (char === ')') parens--;
    else if (char === '{') {
      heads.push({ text: code.slice(from, at).trim(), parens });
      from = at + 1;
    } else if (char === '}') {
      heads.pop();
      from = at + 1;
    } else if (char === ';' && parens <= (heads.at(-1)?.parens ?? 0)) from = at + 1;
  }
  const texts = heads.map(({ text }) => text);
  // `foreach (…):`, `form_for do |f|`
  const rest = code.slice(from).trim();
  return /:$|\bdo\b[^;]*$/.test(rest) ? [...texts, rest] : texts;
}

function chooses(head: string): boolean {
  const own = head.replace(/^\}\s*/, '');
  const word = firstWord(own).toLowerCase();
  return CHOOSES.has(word) || word.endsWith('fields_for');
}

/** A call of something that gives each of a collection: `crew.each`, `_.map`, `$list->filter`. */
function repeats(head: string): boolean {
  for (const { 0: word, index } of head.matchAll(/\w+/g)) {
    const before = head.slice(0, index).trimEnd();
    if (!before.endsWith('.') && !before.endsWith('->')) continue;
    if (
      REPEATS.has(word) ||
      word.startsWith('each') ||
      word.startsWith('map') ||
      word.startsWith('in_groups')
    )
      return true;
  }
  return false;
}

/** A function or a class, or one that is given a name: `const card = (x) =>`, `x = capture`. */
function isNamedThing(head: string): boolean {
  const own = head.split(/\s+/);
  while (own.length > 0 && MODIFIERS.has(own[0]!)) own.shift();
  const [first = '', second = ''] = own;
  if (
    (first === 'function' && startsWithOneOf(second, WORD)) ||
    first === 'class' ||
    firstWord(own.join(' ')) === 'define'
  )
    return true;
  return /^(?:const|let|var)?\s*[\w$.[\]'"]+\s*=\s*(?:async\s*)?(?:function\b|\([^)]*\)\s*=>|\w+\s*=>|capture\b|->|lambda\b|proc\b)/.test(
    head,
  );
}

function keeps(head: string): boolean {
  const path = /^[\w.]*/.exec(head)![0];
  return path.split('.').some((word) => KEPT.has(word));
}

export const erb: TemplateEngine = {
  name: 'erb',
  endings: ['erb', 'ejs'],
  buildEndings: ['eta'],
  marks: [{ open: '<%', close: '%>', read }],
  comments: [
    ['<%--', '--%>'],
    ['<%#', '%>'],
  ],
  always: words('content_for capture form_for form_tag form_with cache section define fill slot'),
  names,
  wraps: wrapsCode,
  looksFromTop: false,
  isServedInPlace: false,
};
