// A class where neither markup, sheets nor scripts of a page are: in sheets inside `<template>`, in attributes that scripts
// read, in files that are fetched or made into pages by something else.

import { rangesOfClass, type SiteModel } from '../../cascade/index.js';
import type { Edit } from '../../edits/index.js';
import type { Page } from '../../markup/index.js';
import { parseSheet } from '../../sheets/index.js';
import { placeIn } from '../../source.js';
import { lineAt } from './in-scripts.js';
import type { RenameInput, UnsurePlace } from './input.js';

/** Style blocks inside `<template>` go where its markup goes. */
export function inertSelectors(
  model: SiteModel,
  from: string,
  to: string,
): (Edit & { readonly path: string })[] {
  return model.pages.flatMap((page) =>
    page.inertBlocks.flatMap(({ start, end }) => {
      const text = page.text.slice(start, end);
      const seen = new Set<number>();
      return parseSheet(text).rules.flatMap(({ selectorRange }) =>
        rangesOfClass(text.slice(selectorRange.start, selectorRange.end), from).flatMap((one) => {
          const at = start + selectorRange.start + one.start;
          if (seen.has(at)) return [];
          seen.add(at);
          return [{ path: page.path, start: at, end: at + one.end - one.start, text: to }];
        }),
      );
    }),
  );
}

/** Attributes, beside `class` and those that `markupTokens` looks at, that say the name and that a script of the page reads. */
export function attributesThatCount({ model, scripts, isLibrary, from }: RenameInput): UnsurePlace[] {
  const own = [...scripts].flatMap(([path, text]) => (isLibrary(path) ? [] : [text]));
  return model.pages.flatMap((page) => {
    if (page.scripts.length === 0) return [];
    const texts = [...own, ...page.scripts.flatMap((one) => (one.kind === 'inline' ? [one.text] : []))];
    return saying(page, from).flatMap(({ name, start }) => {
      // `htmlFor` and `ariaLabel` are `for` and `aria-label`.
      const asked = new RegExp(`(?<![\\w-])(?:html-?)?${name.replaceAll('-', '-?')}(?![\\w-])`, 'i');
      return texts.some((text) => asked.test(text))
        ? [{ place: placeIn(page.path, page.text, start), what: lineAt(page.text, start), editable: false }]
        : [];
    });
  });
}

function saying(page: Page, word: string): { name: string; start: number }[] {
  return page.elements.flatMap(({ attributes, tag }) =>
    attributes.flatMap(({ name, value }) => {
      if (/^(class|style|id|href|src)$|^data-|^on/.test(name) || !value.split(/\s+/).includes(word))
        return [];
      const range = tag?.attributes.get(name);
      return range === undefined ? [] : [{ name, start: range.start }];
    }),
  );
}

/** What is like markup says the name in a class attribute; what is like a script says it in a string. */
const IN_CLASS = /class(?:name)?\s*[=:]\s*[{(]?\s*(["'`])([\s\S]*?)\1/gi;
const IN_STRING = /(["'`])((?:(?!\1)[^\\\n]|\\.)*)\1/g;
const SCRIPT = /\.(m?[jt]sx?|c[jt]s|json|vue|svelte)$/i;

/** The first place in each file that is not read and says the name. */
export function placesUnread({ others, from }: RenameInput): UnsurePlace[] {
  const word = new RegExp(`(?<![\\w-])${from.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`);
  return [...others].flatMap(([path, text]) => {
    const patterns = SCRIPT.test(path) ? [IN_CLASS, IN_STRING] : [IN_CLASS];
    const at = patterns
      .flatMap((pattern) => [...text.matchAll(pattern)])
      .find((match) => word.test(match[2] ?? ''))?.index;
    return at === undefined
      ? []
      : [{ place: placeIn(path, text, at), what: lineAt(text, at), editable: false }];
  });
}
