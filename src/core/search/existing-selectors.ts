// Selectors made of what the markup has already: names, classes, and the scopes around an element.

import { BoundedMap } from '../base/bounded.js';
import { type ComplexSelector, compileSelectorList } from '../cascade/index.js';
import { type ElementGroup, idOf } from './census.js';
import { hookAttributes } from './element-names.js';
import { saysLittle } from './look-names.js';

/** A selector that needs nothing added to the markup. */
export interface ExistingSelector {
  readonly text: string;
  readonly selector: ComplexSelector;
  /** Fewer is simpler: names and scopes it mentions. */
  readonly parts: number;
}

const IDENTIFIER = /^-?[a-zA-Z_][\w-]*$/;
/** Around an element, at most so many scopes are tried; beyond them it gets guesswork. */
const MOST_SCOPES = 12;

const compiled = new BoundedMap<string, ExistingSelector | 'doubtful'>(20_000);

/** In: a selector's text. Out: the existing selector, `undefined` for what no browser would certainly take. */
export function existingSelectorOf(text: string): ExistingSelector | undefined {
  const existingSelector = compiled.get(text, () => {
    const list = compileSelectorList(text);
    const [selector] = list.kind === 'list' && !list.unsure ? list.selectors : [];
    return selector === undefined ? 'doubtful' : { text, selector, parts: partsOf(text) };
  });
  return existingSelector === 'doubtful' ? undefined : existingSelector;
}

/**
 * Whether a selector asks its element for a class or an id. What a template engine prints, and no file shows, would have to bear
 * that name too; a bare `p` would be every paragraph that somebody wrote into the database.
 */
export function asksForName(text: string): boolean {
  const last = existingSelectorOf(text)?.selector.compounds.at(-1);
  if (last === undefined) return false;
  return last.id !== undefined || last.classes.length > 0;
}

/**
 * How much an existing selector's text asks to be read: one for each name in it, two for an id, one for each step down and half a one for
 * a step to a child.
 */
export function partsOf(text: string): number {
  const weak = text.includes(':where(') ? 1 : 0;
  const names = text.match(/#|\.|\[|(?<![\w.#[="-])[a-z][\w-]*(?![\w-]*[="\]])/gi) ?? [];
  const ids = names.filter((name) => name === '#').length;
  const children = text.split(' > ').length - 1;
  const below = text.split(' ').length - 1 - 2 * children;
  return names.length + ids + below + children / 2 + weak;
}

/** What can stand for the group's elements, by itself: its name, its classes, or both. */
function ownParts(group: ElementGroup): string[] {
  const { element } = group;
  const classes = element.classes.filter((name) => IDENTIFIER.test(name) && !saysLittle(name));
  // On a list the type is styling itself, and may go.
  const attributes = ['ul', 'ol', 'li'].includes(element.name)
    ? []
    : hookAttributes(element)
        .filter(({ value }) => /^[a-zA-Z][\w-]*$/.test(value))
        .map(({ name, value }) => `[${name}="${value}"]`);
  const named = isPlainName(element.name) && !isPassing(group) ? [element.name] : [];
  return [
    ...named,
    ...classes.map((name) => `.${name}`),
    ...named.flatMap((text) => classes.map((name) => `${text}.${name}`)),
    ...named.flatMap((text) => attributes.map((one) => `${text}${one}`)),
  ];
}

/** An outdated element that may become another: no rule should be found by its name. */
export function isPassing({ movables }: ElementGroup): boolean {
  return movables.some(({ from, objection }) => from.kind === 'name' && objection === undefined);
}

function isPlainName(name: string): boolean {
  return /^[a-z][a-z0-9]*$/.test(name) && name !== 'html' && name !== 'body' && name !== 'head';
}

/** Around an element, these do not mention it. */
const VAGUE = new Set(['div', 'span', 'section', 'article']);

/** `main div`: every box of a page, whatever it is. */
const ANYTHING = new Set([
  'div',
  'span',
  'font',
  'main div',
  'main span',
  'main font',
  'header div',
  'header span',
  'header font',
  'footer div',
  'footer span',
  'footer font',
  'nav div',
  'nav span',
  'nav font',
  'aside div',
  'aside span',
  'aside font',
  'form div',
  'form span',
  'form font',
]);

export function saysNothing(text: string): boolean {
  return ANYTHING.has(text);
}

/** Elements that name a part of a page by themselves. */
const LANDMARK = new Set(['main', 'header', 'footer', 'nav', 'aside', 'form']);

interface Scope {
  readonly text: string;
  /** A class of the body. */
  readonly isSection: boolean;
}

/** Ids and classes of ancestors, the nearest first; those of the body name a section of the site. */
function scopesOf(group: ElementGroup): Scope[] {
  const scopes: Scope[] = [];
  for (let at = group.parent; at !== undefined && scopes.length < MOST_SCOPES; at = at.parent) {
    const { classes, name } = at.element;
    const id = idOf(at);
    if (id !== undefined && IDENTIFIER.test(id)) scopes.push({ text: `#${id}`, isSection: false });
    if (LANDMARK.has(name)) scopes.push({ text: name, isSection: false });
    for (const one of classes)
      if (IDENTIFIER.test(one) && !saysLittle(one))
        scopes.push({ text: `.${one}`, isSection: name === 'body' });
  }
  return scopes;
}

/** `ul ` in front of a list inside another, `ul ul ` in front of what stands in it. */
function levelOf(group: ElementGroup): string | undefined {
  const lists: string[] = [];
  for (let at = group.parent; at !== undefined; at = at.parent)
    if (['ul', 'ol'].includes(at.element.name)) lists.unshift(at.element.name);
  const isList = ['ul', 'ol'].includes(group.element.name);
  if (lists.length === 0 || (!isList && lists.length < 2)) return undefined;
  return `${lists.slice(isList ? -1 : -2).join(' ')} `;
}

/** All existing selectors that reach a group, the simplest first. */
export function existingSelectorsOf(group: ElementGroup): string[] {
  const own = ownParts(group);
  const scopes = scopesOf(group);
  const texts = new Set(own);
  const parent = group.parent?.element;
  if (parent !== undefined) {
    const around = [
      ...(isPlainName(parent.name) && !VAGUE.has(parent.name) && !isPassing(group.parent!)
        ? [parent.name]
        : []),
      ...parent.classes
        .filter((name) => IDENTIFIER.test(name) && !saysLittle(name))
        .map((name) => `.${name}`),
    ];
    for (const one of around) for (const text of own) texts.add(`${one} > ${text}`);
    const above = group.parent?.parent?.element;
    if (isPlainName(parent.name) && !VAGUE.has(parent.name) && !isPassing(group.parent!))
      for (const name of above?.classes ?? [])
        if (IDENTIFIER.test(name) && !saysLittle(name))
          for (const text of own.slice(0, 2)) texts.add(`.${name} > ${parent.name} > ${text}`);
  }
  const level = levelOf(group);
  if (level !== undefined)
    for (const scope of scopes.filter(({ text }) => text.startsWith('.')).slice(0, 3))
      for (const text of own.slice(0, 2)) texts.add(`${scope.text} ${level}${text}`);
  for (const scope of scopes) for (const text of own) texts.add(`${scope.text} ${text}`);
  const section = scopes.find(({ isSection }) => isSection);
  const landmark = scopes.find(({ text }) => LANDMARK.has(text));
  for (const scope of scopes.slice(0, landmark === undefined ? 0 : scopes.indexOf(landmark)))
    for (const text of own.slice(0, 3))
      if (scope.text.startsWith('.')) texts.add(`${landmark!.text} ${scope.text} ${text}`);
  if (section !== undefined) {
    for (const scope of scopes) {
      if (scope.isSection) continue;
      for (const text of own.slice(0, 3)) texts.add(`${section.text} ${scope.text} ${text}`);
    }
  }
  return [...texts];
}
