// Selectors made of what the markup has already: names, classes, and the scopes around an element.

import { type ComplexSelector, compileSelectorList } from '../cascade/index.js';
import { hookAttributes, idOf, type Kind } from './census.js';

/** A selector that needs nothing added to the markup. */
export interface Hook {
  readonly text: string;
  readonly selector: ComplexSelector;
  /** Fewer is simpler: names and scopes it mentions. */
  readonly parts: number;
}

const IDENTIFIER = /^-?[a-zA-Z_][\w-]*$/;
/** Around an element, at most so many scopes are tried; beyond them it gets guesswork. */
const MOST_SCOPES = 12;

const compiled = new Map<string, Hook | undefined>();

/** In: a selector's text. Out: the hook, `undefined` for what no browser would surely take. */
export function hookOf(text: string, parts: number): Hook | undefined {
  let hook = compiled.get(text);
  if (hook === undefined && !compiled.has(text)) {
    const list = compileSelectorList(text);
    const [selector] = list.kind === 'list' && !list.unsure ? list.selectors : [];
    hook = selector && { text, selector, parts };
    compiled.set(text, hook);
  }
  return hook;
}

/** What can stand for the kind's elements, by itself: its name, its classes, or both. */
function ownParts(kind: Kind): { text: string; parts: number }[] {
  const { element } = kind;
  const classes = element.classes.filter((name) => IDENTIFIER.test(name));
  // On a list the type is styling itself, and may go.
  const attributes = /^(ul|ol|li)$/.test(element.name)
    ? []
    : hookAttributes(element)
        .filter(({ value }) => /^[a-zA-Z][\w-]*$/.test(value))
        .map(({ name, value }) => `[${name}="${value}"]`);
  const named = isPlainName(element.name) && !isPassing(kind) ? [{ text: element.name, parts: 1 }] : [];
  return [
    ...named,
    ...classes.map((name) => ({ text: `.${name}`, parts: 1 })),
    ...named.flatMap(({ text }) => classes.map((name) => ({ text: `${text}.${name}`, parts: 2 }))),
    ...named.flatMap(({ text }) => attributes.map((one) => ({ text: `${text}${one}`, parts: 2 }))),
  ];
}

/** An outdated element that may become another: no rule should be found by its name. */
export function isPassing({ units }: Kind): boolean {
  return units.some(({ from, objection }) => from.kind === 'name' && objection === undefined);
}

function isPlainName(name: string): boolean {
  return /^[a-z][a-z0-9]*$/.test(name) && name !== 'html' && name !== 'body' && name !== 'head';
}

interface Scope {
  readonly text: string;
  readonly parts: number;
  readonly own: boolean;
}

/** Ids and classes of ancestors, the nearest first; those of the body name a section of the site. */
function scopesOf(kind: Kind): Scope[] {
  const scopes: Scope[] = [];
  for (let at = kind.parent; at !== undefined && scopes.length < MOST_SCOPES; at = at.parent) {
    const { classes, name } = at.element;
    const id = idOf(at);
    if (id !== undefined && IDENTIFIER.test(id)) scopes.push({ text: `#${id}`, parts: 2, own: false });
    for (const one of classes)
      if (IDENTIFIER.test(one)) scopes.push({ text: `.${one}`, parts: 1, own: name === 'body' });
  }
  return scopes;
}

/** All hooks that reach a kind, the simplest first. */
export function hooksOf(kind: Kind): string[] {
  const texts = new Map<string, number>();
  const own = ownParts(kind);
  const scopes = scopesOf(kind);
  const add = (text: string, parts: number): void => {
    if (!texts.has(text)) texts.set(text, parts);
  };
  for (const { text, parts } of own) add(text, parts);
  const parent = kind.parent?.element;
  if (parent !== undefined) {
    const around = [
      ...(isPlainName(parent.name) && !isPassing(kind.parent!) ? [{ text: parent.name, parts: 1 }] : []),
      ...parent.classes
        .filter((name) => IDENTIFIER.test(name))
        .map((name) => ({ text: `.${name}`, parts: 1 })),
    ];
    for (const one of around)
      for (const { text, parts } of own) add(`${one.text} > ${text}`, parts + one.parts + 0.5);
  }
  for (const scope of scopes) {
    for (const { text, parts } of own) add(`${scope.text} ${text}`, parts + scope.parts + 1);
  }
  const section = scopes.find((scope) => scope.own);
  if (section !== undefined) {
    for (const scope of scopes) {
      if (scope.own) continue;
      for (const { text, parts } of own.slice(0, 3))
        add(`${section.text} ${scope.text} ${text}`, parts + scope.parts + section.parts + 2);
    }
  }
  for (const [text, parts] of texts) hookParts.set(text, parts);
  return [...texts.keys()];
}

const hookParts = new Map<string, number>();

/** How simple a hook's text is, as `hooksOf` found it. */
export function partsOf(text: string): number {
  return hookParts.get(text) ?? 9;
}
