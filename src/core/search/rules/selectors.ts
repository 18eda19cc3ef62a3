// Selectors as texts: the part that picks an element out and the state that it is in, and what several have in common.

import { BoundedMap } from '../../base/bounded.js';
import { either, endsWithOneOf, hasOneOf, LETTER, SPACE, startsWithOneOf } from '../../base/characters.js';
import {
  type ComplexSelector,
  type Compound,
  compileSelector,
  compileSelectorList,
  writtenClasses,
} from '../../cascade/index.js';

/** Pseudo-classes that declare in which state an element is, not which one it is. */
const STATE =
  /:(?:hover|focus|focus-visible|focus-within|active|visited|link|any-link|target|checked|disabled|enabled|indeterminate|valid|invalid|user-valid|user-invalid|required|optional|read-only|read-write|placeholder-shown|default|in-range|out-of-range|autofill)(?![\w(-])/;
const SUFFIX = new RegExp(
  `((?:${STATE.source})*(?:::[\\w-]+(?:${STATE.source})*)?|(?:${STATE.source})*:(?:before|after|first-line|first-letter))$`,
);

/** `.field:focus::before` is `.field` in `:focus::before`. */
export function splitSuffix(text: string): { readonly base: string; readonly suffix: string } {
  const suffix = SUFFIX.exec(text)?.[0] ?? '';
  const base = text.slice(0, text.length - suffix.length);
  // `:hover` alone, or behind a combinator, is about every element.
  return base === '' || endsWithOneOf(base, either(SPACE, '>+~'))
    ? { base: text, suffix: '' }
    : { base, suffix };
}

/** What all of several selectors ask for, read from the element outwards; `undefined` where they ask for nothing in common. */
export function commonSelector(texts: readonly string[]): string | undefined {
  const parsed = texts.map((text) => simple(text));
  if (parsed.some((one) => one === undefined)) return undefined;
  const [first, ...others] = parsed as ComplexSelector[];
  let subject: Names | undefined = namesOf(first!.compounds.at(-1)!);
  for (const { compounds } of others) subject = subject && meet(subject, namesOf(compounds.at(-1)!));
  if (subject === undefined || isEmpty(subject)) return undefined;
  const parts = [textOf(subject)];
  // Around the element: what each asks for at any depth, the nearest of it.
  for (const compound of first!.compounds.slice(0, -1).reverse()) {
    let around: Names | undefined = namesOf(compound);
    for (const { compounds } of others) {
      const best = compounds
        .slice(0, -1)
        .map((one) => meet(around!, namesOf(one)))
        .sort((a, b) => size(b) - size(a))[0];
      around = best ?? { type: undefined, id: undefined, classes: [] };
    }
    if (!isEmpty(around)) parts.unshift(textOf(around));
  }
  // An element by its name alone is about every one of them.
  return hasOneOf(parts.join(' '), '.#') ? parts.join(' ') : undefined;
}

/** Whether `wide` matches whatever `narrow` matches, as far as their texts tell. */
export function covers(wide: string, narrow: string): boolean {
  const [a, b] = [simple(wide), simple(narrow)];
  if (a === undefined || b === undefined) return wide === narrow;
  let at = b.compounds.length - 1;
  for (let i = a.compounds.length - 1; i >= 0; i--) {
    const isSubject = i === a.compounds.length - 1;
    if (!isSubject && a.combinators[i] !== ' ') return wide === narrow;
    const wanted = namesOf(a.compounds[i]!);
    while (at >= 0 && !has(namesOf(b.compounds[at]!), wanted)) {
      if (isSubject) return false;
      at--;
    }
    if (at < 0) return false;
    at--;
  }
  return true;
}

/** Whether every class that `narrow` asks for is asked for by `wide`, too. */
export function hasClassesOf(wide: string, narrow: string): boolean {
  const there = new Set(writtenClasses(wide).map(({ name }) => name));
  return wide === narrow || writtenClasses(narrow).every(({ name }) => there.has(name));
}

interface Names {
  readonly type: string | undefined;
  readonly id: string | undefined;
  readonly classes: readonly string[];
}

const simples = new BoundedMap<string, ComplexSelector | 'none'>(20_000);

/** A selector of names alone, without siblings. */
function simple(text: string): ComplexSelector | undefined {
  const found = simples.get(text, () => readSimple(text) ?? 'none');
  return found === 'none' ? undefined : found;
}

function readSimple(text: string): ComplexSelector | undefined {
  const list = compileSelectorList(text);
  const [selector] =
    list.kind === 'list' && list.selectors.length === 1 && !list.unsure ? list.selectors : [];
  if (selector === undefined || selector.pseudoElement !== '') return undefined;
  const plain = selector.compounds.every(
    ({ rest, never, namespace }) => rest.length === 0 && !never && namespace === undefined,
  );
  return plain && selector.combinators.every((one) => one === ' ' || one === '>') ? selector : undefined;
}

function namesOf({ type, id, classes }: Compound): Names {
  return { type, id, classes };
}

function meet(a: Names, b: Names): Names {
  return {
    type: a.type === b.type ? a.type : undefined,
    id: a.id === b.id ? a.id : undefined,
    classes: a.classes.filter((name) => b.classes.includes(name)),
  };
}

function has(own: Names, wanted: Names): boolean {
  return (
    (wanted.type === undefined || wanted.type === own.type) &&
    (wanted.id === undefined || wanted.id === own.id) &&
    wanted.classes.every((name) => own.classes.includes(name))
  );
}

function size({ type, id, classes }: Names): number {
  return classes.length + (id === undefined ? 0 : 1) + (type === undefined ? 0 : 0.5);
}

function isEmpty(names: Names): boolean {
  return size(names) === 0;
}

function textOf({ type, id, classes }: Names): string {
  return `${type ?? ''}${id === undefined ? '' : `#${id}`}${classes.map((name) => `.${name}`).join('')}`;
}

/** The same element with less declared for it, the weakest first: without ids, steps and names that a class makes needless. */
export function weakerSelectors(text: string): string[] {
  const selector = compileSelector(text);
  if (selector === undefined || selector.combinators.some((one) => one !== ' ')) return [];
  const texts = compoundTexts(selector);
  const bare = texts.map((one, i) => {
    const { id, classes, type } = selector.compounds[i]!;
    const withoutId = id === undefined ? one : one.replace(`#${id}`, '');
    return classes.length > 0 && type !== undefined ? withoutId.replace(/^[a-z][\w-]*/i, '') : withoutId;
  });
  const last = texts.length - 1;
  // What the element itself is stays; of an id nothing may be left.
  const subject = bare[last] === '' ? texts[last]! : bare[last]!;
  const above = bare.slice(0, -1).filter((one) => one !== '' && !['html', 'body'].includes(one));
  const found: string[] = [];
  // An element by its name alone is about every one of them.
  if (hasOneOf(subject, '.#')) found.push(subject);
  for (let from = above.length - 1; from >= 0; from--) found.push([...above.slice(from), subject].join(' '));
  return [...new Set(found)].filter((one) => one !== text);
}

/** The text of each compound of a selector. */
export function compoundTexts({ leading, combinators }: ComplexSelector): string[] {
  return leading.map((text, i) => {
    if (i === 0) return text;
    const between = combinators[i - 1] === ' ' ? 1 : 3;
    return text.slice(leading[i - 1]!.length + between);
  });
}

/** A compound without a class of it; `undefined` where it does not ask for it. */
export function withoutClass(text: string, name: string): string | undefined {
  const pattern = new RegExp(`\\.${name.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`, 'g');
  return pattern.test(text) ? text.replace(pattern, '') : undefined;
}

/** `.odd a` on `.card` at `:nth-child(odd)` is `.card:nth-child(odd) a`; `undefined` where the class stands in brackets. */
export function withPosition(text: string, name: string, base: string, pattern: string): string | undefined {
  const selector = compileSelector(text);
  if (selector === undefined) return undefined;
  const texts = compoundTexts(selector);
  const at = base.lastIndexOf(' ') + 1;
  const [scope, own] = [base.slice(0, at), base.slice(at)];
  const changed = selector.compounds.map((compound, i) => {
    if (!compound.classes.includes(name)) return texts[i]!.includes(name) ? undefined : texts[i]!;
    const rest = withoutClass(texts[i]!, name);
    // Below the scope already.
    const isThere = i > 0 && `${selector.leading[i - 1]} ` === scope && selector.combinators[i - 1] === ' ';
    if (rest === undefined || (scope !== '' && i > 0 && !isThere)) return undefined;
    return `${i === 0 ? scope : ''}${joined(own, rest, pattern)}`;
  });
  if (changed.some((one) => one === undefined)) return undefined;
  return changed.reduce<string>((all, one, i) => {
    if (i === 0) return one!;
    const combinator = selector.combinators[i - 1]!;
    return `${all}${combinator === ' ' ? ' ' : ` ${combinator} `}${one}`;
  }, '');
}

/** Two compounds about one element, a type in front, with a position before the states. */
function joined(own: string, rest: string, pattern: string): string {
  const parts = (text: string): string[] =>
    text.match(/^[a-z][\w-]*|[.#][\w-]+|\[[^\]]*\]|::?[\w-]+(?:\([^)]*\))?/gi) ?? [];
  const [a, b] = [parts(own), parts(rest)];
  const names = [...new Set([...a, ...b.filter((one) => !one.startsWith(':'))])];
  const type = names.filter((one) => startsWithOneOf(one, LETTER)).slice(0, 1);
  return [
    ...type,
    ...names.filter((one) => !startsWithOneOf(one, LETTER)),
    pattern,
    ...b.filter((one) => one.startsWith(':')),
  ].join('');
}
