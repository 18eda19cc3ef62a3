// Handlebars, Mustache and Go's templates; and what Twig, Jinja, Liquid and Blade print: `{{ fare }}`, `{{#if paid}}`.

import { either, hasOneOf, LOWER, SPACE, WORD } from '../../../base/characters.js';
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

const OPENS = words('if range with each block define iter');

/** `{{#if}}`, `{{^x}}`, `{{else}}`, `{{/if}}`; `{{ if }}`, `{{ range }}`, `{{ end }}`. */
function roleOf(code: string): Role {
  const [first = ''] = code;
  const word = firstWord(code);
  if (first === '#' || first === '^') {
    const own = code.slice(1).trimStart().replace(/^[>*]/, '').trimStart();
    if (own !== '' && hasOneOf(own[0]!, either(WORD, '.@\'"(['))) return 'open';
    return code === '^' ? 'else' : 'none';
  }
  if (word === 'else') return 'else';
  if (word === 'end' || (first === '/' && !'*/'.includes(code[1] ?? ' '))) return 'close';
  const isCalled = code.length > word.length && code[word.length]!.trim() === '';
  return OPENS.has(word) && isCalled ? 'open' : 'none';
}

/** `{{!-- … --}}` and `{{-- … --}}` may hold braces. */
function read(source: EngineSource, start: number): FoundPiece | undefined {
  const isLong = ['{{!--', '{{~!--', '{{--'].some((one) => source.text.startsWith(one, start));
  const found = between(source, start, '{{', isLong ? '--}}' : '}}');
  if (found === undefined) return undefined;
  if (isLong) return { ...found, role: 'none', prints: false };
  const code = withoutTrim(found.code, '~-');
  if (code.startsWith('!') || code.startsWith('/*')) {
    // A note in a layout's name for itself is read: `{{!< default}}`.
    return { ...comment(found.start, found.end), code };
  }
  const role = roleOf(code);
  return { ...found, code, role, prints: role === 'none' };
}

const YIELDS = words('yield body content content_for_layout slot $slot $content $body RenderBody()');
const INCLUDES = ['include', 'require', 'render', 'partial'];
const INCLUDING = words('embed template section');

function names(code: string, role: Role): NamedFile | undefined {
  const layout = /^!<\s*([\w./-]+)/.exec(code)?.[1];
  if (layout !== undefined) return { kind: 'extends', names: [layout] };
  const word = firstWord(withoutStart(code, '#'));
  if (word === 'extends' || word === 'layout' || code.startsWith('#extend')) {
    if (fileIn(code) !== undefined) return extending(code);
    if (/^extends\s+[a-z_$]/.test(code)) return { kind: 'extends', names: [] };
  }
  if (word === 'block' || word === 'define' || word === 'yield' || word === 'content_for') {
    const name = nameBehind(withoutStart(code, '#'), word);
    if (name !== undefined) return { kind: 'block', names: [name] };
  }
  if (YIELDS.has(code.split('|')[0]!.trim())) return { kind: 'yield', names: [] };
  if (/^#?>/.test(code)) {
    const partial = /^#?>\s*["']?([\w./-]+)["']?/.exec(code)?.[1];
    return { kind: 'include', names: partial === undefined ? [] : [partial] };
  }
  const isMeant = role === 'none' || word === 'embed' || usesWord(code, [], words('render'));
  const isIncluding = usesWord(code, INCLUDES, INCLUDING) || word === 'each' || word === 'component';
  return isMeant && isIncluding ? included(code, true) : undefined;
}

const PLAIN = words(
  'if unless each with for foreach range let in get has is match compare lookup block eq ne and or not gt lt gte lte iter',
);

/** `{{#if x}}`, `{{#items}}`; what has a name of its own and is given something may print around what it is given. */
function wraps(code: string): Wrapping | undefined {
  const own = code.replace(/^[#^]/, '').trim();
  const word = firstWord(own);
  const beginsLike = (start: string): boolean => word.startsWith(start);
  if (
    own.startsWith('>') ||
    own.startsWith('*') ||
    word === 'define' ||
    word === 'extend' ||
    word === 'embed'
  )
    return 'elsewhere';
  if (beginsLike('content') || beginsLike('layout')) return 'elsewhere';
  const next = own[word.length];
  if (PLAIN.has(word) && (next === undefined || !hasOneOf(next, either(LOWER, '-')))) return undefined;
  // `{{#ifEquals a b}}`, `{{#each_with_index x}}`
  if (/^(?:if|unless|each|for|when)[A-Z_]\w*/.test(own)) return undefined;
  return hasOneOf(own, SPACE) ? 'within' : undefined;
}

export const handlebars: TemplateEngine = {
  name: 'handlebars',
  endings: ['hbs', 'handlebars', 'mustache'],
  buildEndings: ['tmpl', 'gohtml'],
  marks: [
    { open: '{{{', close: '}}}', read: (source, start) => between(source, start, '{{{', '}}}', roleOf) },
    { open: '{{', close: '}}', read },
  ],
  comments: [
    ['{{!--', '--}}'],
    ['{{!', '}}'],
  ],
  always: words('block content_for with define inline slot embed section'),
  names,
  wraps,
  looksFromTop: false,
  isServedInPlace: false,
};
