// Class names that the next person understands: what the elements are, then what the style does to them.

import { DIGIT, hasOneOf } from '../base/characters.js';
import { attributeOf, type Page, type PageElement } from '../read/markup/index.js';
import type { Declaration } from '../read/sheets/index.js';
import { type Convention, conventional } from './convention.js';
import type { Style } from './home.js';
import { isLookName, saysLittle } from './look-names.js';
import { amountsOf, traitsOf } from './traits.js';

const KINDS: ReadonlyMap<string, string> = new Map(
  (
    'td=cell th=head-cell tr=row p=text span=words img=image a=link li=item ul=list ol=list div=block h1=title ' +
    'h2=heading h3=heading h4=heading h5=heading h6=heading input=field select=field textarea=field dl=list dt=term ' +
    'dd=detail hr=rule font=words center=block svg=icon b=strong i=em'
  )
    .split(' ')
    .map((pair) => pair.split('=') as [string, string]),
);

export interface NameRules {
  /** Classes of platform sheets: their common prefix is the platform's, not ours to put before a name. */
  readonly platform: ReadonlySet<string>;
  /** Names in use anywhere on the site, lower case. */
  readonly taken: ReadonlySet<string>;
  /** How the house builds names. */
  readonly convention: Convention;
  /** Texts that attribute selectors look for in `class`: a name must not make them match. */
  readonly sensitive: readonly { readonly operator: string; readonly value: string }[];
}

/** What is to have a name. */
export interface Unnamed {
  readonly declarations: readonly Declaration[];
  readonly wearers: readonly { readonly page: Page; readonly element: PageElement }[];
  /** The selector of what is around all of them, which need not be repeated. */
  readonly scope?: string | undefined;
  /** What these are called already, in one word, where they are. */
  readonly word?: string | undefined;
}

/** A style as something that is to have a name. */
export function unnamed({ home, movables, members }: Style): Unnamed {
  const own = movables.flatMap(({ declarations }) => declarations);
  return {
    scope: home.kind === 'new class' ? home.scope : undefined,
    // A table that says how its cells look is called by what they look like.
    declarations: own.length > 0 ? own : movables.flatMap(({ cells = [] }) => cells),
    wearers: members.flatMap(({ styledTag: { page, element } }) =>
      element === undefined ? [] : { page, element },
    ),
  };
}

/** Names of places that hold everything, and so declare nothing. */
const GENERIC = new Set([
  'main',
  'page',
  'body',
  'content',
  'wrapper',
  'container',
  'container-fluid',
  'inner',
  'outer',
  'row',
  'col',
  'section',
  'content-wrapper',
  'site',
  'app',
]);
const BLOCKS = new Set([
  'div',
  'section',
  'aside',
  'article',
  'p',
  'form',
  'fieldset',
  'blockquote',
  'nav',
  'ul',
  'ol',
  'dl',
  'figure',
]);

/** A valid class name as people write them: starts with a letter, then letters, digits, `-`, `_`. */
export const CLASS_NAME = /^-?[a-zA-Z_][a-zA-Z0-9_-]*$/;

/** Names for styles, in their order; stable for equal input. */
export function nameStyles(styles: readonly Unnamed[], rules: NameRules): string[] {
  const used = new Set(rules.taken);
  const prefix = commonPrefix(rules.platform);
  const bare = (name: string): string =>
    prefix !== '' && name.startsWith(prefix) ? name.slice(prefix.length) : name;
  return styles.map((style) => {
    const shown = (name: string): string => conventional(name, rules.convention);
    const name = shown(nameStyle(style, (candidate) => isFree(shown(candidate), used, rules), bare, used));
    used.add(name.toLowerCase());
    return name;
  });
}

function nameStyle(
  style: Unnamed,
  free: (name: string) => boolean,
  bare: (name: string) => string,
  used: ReadonlySet<string>,
): string {
  const { declarations } = style;
  const elements = style.wearers.map(({ element }) => element);
  const blocks = elements.every(({ name }) => BLOCKS.has(name));
  const traits = [...new Set(lookWords(declarations, blocks))];
  // `panel-right`, not `block-panel-right`.
  const stems = stemsOf(style, elements, bare).map((stem) =>
    stem === 'block' && traits[0] === 'panel' ? '' : stem,
  );
  const amounts = amountsOf(declarations);
  const role = style.word ?? (isCurrent(style) ? CURRENT : undefined);
  if (role !== undefined && free(role)) return role;
  for (const stem of stems) {
    // A look by itself needs two words to be one: `small-grey`.
    for (
      let count = stem === '' ? Math.min(2, traits.length) : 1;
      count <= Math.min(3, traits.length);
      count++
    ) {
      const name = joinWords(stem, ...traits.slice(0, count));
      if (free(name)) return name;
    }
  }
  const stem = stems[0] ?? '';
  for (const amount of amounts) {
    const name = joinWords(stem, ...traits.slice(0, 2), amount);
    if (free(name)) return name;
  }
  // Alike in all that words can tell: the whole list of traits and amounts, then a letter.
  const long = joinWords(stem, ...traits.slice(0, 4), ...amounts.slice(0, 3));
  for (const base of [
    long,
    joinWords('shared', long),
    joinWords(...traits.slice(0, 3)),
    joinWords(long, 'shared'),
  ]) {
    for (let number = -1; number < 100; number++) {
      const name = number < 0 ? base : joinWords(base, letters(number));
      if (free(name)) return name;
    }
  }
  // Attribute selectors on class rule every name out: take one, and the proof keeps what it would change.
  return `${long}-${declarations.length}${elements.length}-${letters(used.size)}`;
}

/** A background colour and padding make a panel; otherwise the traits stand for themselves. */
function lookWords(declarations: readonly Declaration[], blocks: boolean): string[] {
  const words = traitsOf(declarations).map(({ word }) => word);
  const has = (pattern: RegExp): boolean => declarations.some(({ property }) => pattern.test(property));
  const panel =
    blocks && declarations.length >= 3 && has(/^padding/) && (has(/^background/) || has(/^border/));
  return panel
    ? ['panel', ...words.filter((word) => word !== 'padded')]
    : words.length > 0
      ? words
      : ['look'];
}

function stemsOf(style: Unnamed, elements: readonly PageElement[], bare: (name: string) => string): string[] {
  const stems: string[] = [];
  const add = (stem: string | undefined): void => {
    if (stem !== undefined && CLASS_NAME.test(stem) && !stems.includes(stem)) stems.push(stem);
  };
  add(style.word);
  if (isCurrent(style)) add(CURRENT);
  const [first] = elements;
  if (first === undefined) return [''];
  const shared = first.classes.filter((name) => elements.every(({ classes }) => classes.includes(name)));
  const own = shared
    .filter((name) => !saysLittle(name) && !isLookName(name))
    .map(bare)
    .filter((name) => name.length <= 24 && !hasOneOf(name, DIGIT));
  add(own.sort((a, b) => b.length - a.length)[0]);
  const kinds = new Set(elements.map(({ name }) => KINDS.get(name) ?? name));
  const kind = kinds.size === 1 ? [...kinds][0] : undefined;
  const around = nearestCommonClass(style, bare);
  const isSaid = around !== undefined && bare(style.scope?.slice(1) ?? '') === around;
  if (around !== undefined && kind !== undefined && !isSaid) add(joinWords(around, kind));
  add(kind);
  // Elements of several kinds have only the look in common: `wide-100`.
  return kind === undefined && stems.length === 0 ? [''] : stems;
}

const CURRENT = 'current-link';

function isCurrent({ wearers }: Unnamed): boolean {
  return wearers.length > 1 && wearers.every(isLinkToItself);
}

/** The link of a page to itself, in a list of links that all pages have. */
function isLinkToItself({ page, element }: Unnamed['wearers'][number]): boolean {
  const address = element.name === 'a' ? attributeOf(element.attributes, 'href') : undefined;
  const file = page.path.split('/').at(-1);
  return (
    address !== undefined &&
    address
      .replace(/[?#].*$/, '')
      .split('/')
      .at(-1) === file
  );
}

/** A class that every element finds on an ancestor, the nearest to the first. */
function nearestCommonClass({ wearers }: Unnamed, bare: (name: string) => string): string | undefined {
  let common: string[] | undefined;
  for (const { page, element } of wearers) {
    const around: string[] = [];
    for (let at = element.parent; at >= 0; at = page.elements[at]!.parent) {
      const { name, classes } = page.elements[at]!;
      if (name !== 'body' && name !== 'html') around.push(...classes.filter((one) => !saysLittle(one)));
    }
    common = common === undefined ? around : common.filter((name) => around.includes(name));
  }
  return common
    ?.map(bare)
    .find(
      (name) => name.length <= 20 && !hasOneOf(name, DIGIT) && CLASS_NAME.test(name) && !GENERIC.has(name),
    );
}

function joinWords(...words: readonly string[]): string {
  const parts: string[] = [];
  for (const word of words) if (word !== '' && !parts.at(-1)?.endsWith(word)) parts.push(word);
  return parts.join('-').replace(/-{2,}/g, '-');
}

function letters(number: number): string {
  return number < 26
    ? String.fromCharCode(97 + number)
    : `${letters(Math.floor(number / 26) - 1)}${letters(number % 26)}`;
}

function isFree(name: string, used: ReadonlySet<string>, rules: NameRules): boolean {
  if (used.has(name.toLowerCase()) || !CLASS_NAME.test(name)) return false;
  return !rules.sensitive.some(({ operator, value }) => {
    if (operator === '*=') return name.includes(value);
    if (operator === '^=') return name.startsWith(value);
    if (operator === '$=') return name.endsWith(value);
    return operator === '|=' && name.startsWith(`${value}-`);
  });
}

/** `kw-` where most platform classes start so. */
function commonPrefix(names: ReadonlySet<string>): string {
  const counts = new Map<string, number>();
  for (const name of names) {
    const prefix = /^[a-z]{1,6}[-_]/.exec(name)?.[0];
    if (prefix !== undefined) counts.set(prefix, (counts.get(prefix) ?? 0) + 1);
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1]);
  return most !== undefined && most[1] > names.size * 0.6 ? most[0] : '';
}
