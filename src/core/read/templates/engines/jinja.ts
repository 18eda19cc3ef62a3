// Jinja, Twig, Nunjucks, Liquid: `{% if paid %}`, `{# a note #}`. What they print is read as Handlebars' is.

import { DIGIT, startsWithOneOf } from '../../../base/characters.js';
import { getOrInsert } from '../../../base/get-or-insert.js';
import { withoutStart } from '../../../base/phrases.js';
import {
  between,
  comment,
  extending,
  fileIn,
  firstWord,
  included,
  nameBehind,
  usesWord,
  withoutTrim,
  wordEnd,
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

const ELSE = words('else elif elsif elseif when empty plural');

/** In: whether an end of a word follows. */
function roleOf(code: string, isEnded: (word: string) => boolean): Role {
  const word = firstWord(code);
  if (word.startsWith('end')) return 'close';
  if (ELSE.has(word)) return 'else';
  // `{% set x = 1 %}` ends itself.
  if (word === '' || startsWithOneOf(word, DIGIT) || (word === 'set' && code.includes('='))) return 'none';
  return isEnded(word) ? 'open' : 'none';
}

const SILENT = words('set load assign import from extends use with csrf_token');
const TRIM = '-+~';

function readStatement(source: EngineSource, start: number): FoundPiece | undefined {
  const found = between(source, start, '{%', '%}');
  if (found === undefined) return undefined;
  const code = withoutTrim(found.code, TRIM);
  const ends = getOrInsert(endsOf, source, () => findEnds(source.text));
  if (firstWord(code) === 'comment') {
    const end = ends.get('comment')?.find((one) => one > found.end);
    if (end !== undefined) return comment(start, source.find('%}', end) + 2);
  }
  const role = roleOf(code, (word) => (ends.get(word)?.at(-1) ?? -1) > found.end);
  return { ...found, code, role, prints: role === 'none' && !SILENT.has(firstWord(code)) };
}

const endsOf = new WeakMap<EngineSource, ReadonlyMap<string, readonly number[]>>();

/** By word, where `{% endWORD %}` or `{% end_WORD %}` stand. */
function findEnds(text: string): ReadonlyMap<string, readonly number[]> {
  const ends = new Map<string, number[]>();
  for (let at = text.indexOf('{%'); at >= 0; at = text.indexOf('{%', at + 2)) {
    let start = at + 2;
    if (TRIM.includes(text[start] ?? ' ')) start++;
    while (text[start]?.trim() === '') start++;
    const word = text.slice(start, wordEnd(text, start));
    if (!word.startsWith('end')) continue;
    for (const name of [word.slice(3), withoutStart(word.slice(3), '_')])
      getOrInsert(ends, name, () => []).push(at + 2);
  }
  return ends;
}

/** Where no statement stands in the file, `{#` is a fragment in a sheet or a script, unless it is a note on one line. */
function readComment(source: EngineSource, start: number): FoundPiece | undefined {
  const isMeant = source.lastOf('{%') >= 0 || isNote(source.text.slice(start, start + 500));
  const end = isMeant ? source.find('#}', start) : -1;
  return end < 0 ? undefined : comment(start, end + 2);
}

function isNote(text: string): boolean {
  const end = text.indexOf(' #}');
  return text[2]?.trim() === '' && text[2] !== '\n' && end > 2 && !text.slice(0, end).includes('\n');
}

const INCLUDES = ['include', 'require', 'render', 'partial'];
const INCLUDING = words('embed template section');
const YIELDS = words('yield body content content_for_layout slot');

function names(code: string, role: Role): NamedFile | undefined {
  const word = firstWord(code);
  if (word === 'extends' || word === 'layout') {
    if (/^(?:extends|layout)\b\s*\(?\s*(?:file\s*=\s*)?["']/.test(code)) return extending(code);
    if (/^extends\s+[a-z_$]/.test(code)) return extending(code);
  }
  if (word === 'block' || word === 'define' || word === 'yield' || word === 'content_for') {
    const name = nameBehind(code, word);
    if (name !== undefined) return { kind: 'block', names: [name] };
  }
  if (YIELDS.has(code)) return { kind: 'yield', names: [] };
  const isMeant = role === 'none' || word === 'embed' || usesWord(code, [], words('render'));
  const isIncluding = usesWord(code, INCLUDES, INCLUDING) || word === 'component';
  return isMeant && isIncluding && (word !== 'section' || fileIn(code) !== undefined)
    ? included(code)
    : undefined;
}

const PLAIN = words(
  'elif for foreach block with autoescape spaceless strip nocache literal cache unless case paginate trans translate compress ' +
    'filter apply verbatim raw language localize localtime timezone comment while switch section sandbox guard permission style ' +
    'stylesheet schema javascript script',
);
const ELSEWHERE = words(
  'macro call set capture function embed define fill slot component partial contentfor content_for',
);

export function wraps(code: string): Wrapping | undefined {
  const word = firstWord(code);
  if (ELSEWHERE.has(word.toLowerCase())) return 'elsewhere';
  return PLAIN.has(word) || word.startsWith('if') || word.startsWith('blocktrans') ? undefined : 'within';
}

export const jinja: TemplateEngine = {
  name: 'jinja',
  endings: ['twig', 'njk', 'jinja', 'jinja2', 'j2', 'liquid'],
  buildEndings: ['nunjucks', 'tera', 'swig'],
  marks: [
    { open: '{%', close: '%}', read: readStatement },
    { open: '{#', close: '#}', read: readComment },
  ],
  comments: [['{#', '#}']],
  always: words(
    'block content_for capture compress spaceless autoescape with section filter trans blocktrans blocktranslate cache define fill ' +
      'slot embed javascript macro call set component push prepend inline strip literal nocache',
  ),
  names,
  wraps,
  looksFromTop: true,
  isServedInPlace: false,
};
