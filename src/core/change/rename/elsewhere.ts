// A class where neither markup, sheets nor scripts of a page are: in sheets inside `<template>`, in attributes that scripts
// read, in files that are fetched or made into pages by something else.

import { placeIn } from '../../base/source.js';
import { rangesOfClass, type SiteModel } from '../../cascade/index.js';
import type { Edit } from '../../edit/text/index.js';
import { isModule, isScriptText } from '../../read/kinds/index.js';
import type { Page } from '../../read/markup/index.js';
import { parseSheet } from '../../read/sheets/index.js';
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

/** Attributes, beside `class` and those that `markupTokens` looks at, that declare the name and that a script of the page reads. */
export function attributesThatCount({ model, scripts, isLibrary, from }: RenameInput): UnsurePlace[] {
  const own = [...scripts].flatMap(([path, text]) => (isLibrary(path) ? [] : [text]));
  return model.pages.flatMap((page) => {
    if (page.scripts.length === 0) return [];
    const texts = [...own, ...page.scripts.flatMap((one) => (one.kind === 'inline' ? [one.text] : []))];
    return saying(page, from).flatMap(({ name, start }) => {
      // `htmlFor` and `ariaLabel` are `for` and `aria-label`.
      const asked =
        name === 'id'
          ? /\.id\b(?!\s*=(?!=))|(["'])id\1/
          : new RegExp(`(?<![\\w-])(?:html-?)?${name.replaceAll('-', '-?')}(?![\\w-])`, 'i');
      return texts.some((text) => asked.test(text))
        ? [{ place: placeIn(page.path, page.text, start), what: lineAt(page.text, start), editable: false }]
        : [];
    });
  });
}

function saying(page: Page, word: string): { name: string; start: number }[] {
  return page.elements.flatMap(({ attributes, tag }) =>
    attributes.flatMap(({ name, value }) => {
      if (/^(class|style|href|src)$|^data-|^on/.test(name) || !value.split(/\s+/).includes(word)) return [];
      const range = tag?.attributes.get(name);
      return range === undefined ? [] : [{ name, start: range.start }];
    }),
  );
}

/** Documents in frames that are written out in the page, as far as they say the name. */
export function placesInFrames({ model, from }: RenameInput): UnsurePlace[] {
  const word = wordOf(from);
  return model.pages.flatMap((page) =>
    page.elements.flatMap(({ attributes, tag }) => {
      const range = tag?.attributes.get('srcdoc');
      const says = attributes.some(({ name, value }) => name === 'srcdoc' && word.test(value));
      if (!says || range === undefined) return [];
      return [
        {
          place: placeIn(page.path, page.text, range.start),
          what: lineAt(page.text, range.start),
          editable: false,
        },
      ];
    }),
  );
}

function wordOf(name: string): RegExp {
  return new RegExp(`(?<![\\w-])${name.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`);
}

/** `@scope (.name) to (.name)`: what stands in front of a group, not of a rule. */
export function scopesNamed(text: string, from: string): { start: number; end: number }[] {
  return [...text.matchAll(/@scope\s*([^{;]*)\{/gi)].flatMap((match) => {
    const at = match.index + match[0].length - 1 - (match[1] ?? '').length;
    return [...(match[1] ?? '').matchAll(/\(((?:[^()]|\([^()]*\))*)\)/g)].flatMap((inside) =>
      rangesOfClass(inside[1] ?? '', from).map(({ start, end }) => ({
        start: at + inside.index + 1 + start,
        end: at + inside.index + 1 + end,
      })),
    );
  });
}

/** What is like markup says the name in a class attribute; what is like a script says it in a string. */
const IN_CLASS = /class(?:name)?\s*[=:]\s*[{(]?\s*(["'`])([\s\S]*?)\1/gi;
const IN_STRING = /(["'`])((?:(?!\1)[^\\\n]|\\.)*)\1/g;

/** The first place in each file that is not read and declares the name. */
export function placesUnread({ others, from }: RenameInput): UnsurePlace[] {
  const word = wordOf(from);
  return [...others].flatMap(([path, text]) => {
    const patterns = isModule(path) || isScriptText(path) ? [IN_CLASS, IN_STRING] : [IN_CLASS];
    const at = patterns
      .flatMap((pattern) => [...text.matchAll(pattern)])
      .find((match) => word.test(match[2] ?? ''))?.index;
    return at === undefined
      ? []
      : [{ place: placeIn(path, text, at), what: lineAt(text, at), editable: false }];
  });
}
