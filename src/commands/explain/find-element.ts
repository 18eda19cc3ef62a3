// Which element of a page is meant: by a selector, the place of its tag, a path through the tree, or its start tag as it reads
// in a browser's inspector.

import { parseFragment } from 'parse5';
import { DIGIT, isMadeOf } from '../../core/base/characters.js';
import { lineStart, offsetAt } from '../../core/base/source.js';
import { UsageError } from '../../core/base/usage-error.js';
import { ALWAYS, compileSelectorList, NEVER, type StyleReader } from '../../core/cascade/index.js';
import type { Page, PageElement } from '../../core/read/markup/index.js';

interface FoundElement {
  readonly index: number;
  /** How many elements of the page are meant as much. */
  readonly of: number;
}

/** Throws `UsageError` for what points at nothing. */
export function findElement(reader: StyleReader, asked: string): FoundElement {
  const { page } = reader;
  const text = asked.trim();
  if (/^\d+(?::\d+)?$/.test(text)) return atPlace(page, text);
  if (text.startsWith('/')) return firstOf(byPath(page, text), text, page);
  if (text.startsWith('<')) return firstOf(byTag(page, text), text, page);
  const list = compileSelectorList(text);
  if (list.kind === 'invalid') throw new UsageError('explain-selector', { text, reason: list.reason });
  const matched = page.elements.filter(({ index }) =>
    list.selectors.some((one) => reader.matches(one, index) !== NEVER),
  );
  const sure = matched.find(({ index }) =>
    list.selectors.some((one) => reader.matches(one, index) === ALWAYS),
  );
  return firstOf(sure === undefined ? matched : [sure, ...matched.filter((one) => one !== sure)], text, page);
}

function firstOf([first, ...others]: readonly PageElement[], text: string, page: Page): FoundElement {
  if (first === undefined) throw new UsageError('explain-nothing', { text, page: page.path });
  return { index: first.index, of: others.length + 1 };
}

function atPlace(page: Page, text: string): FoundElement {
  const [line = '', column] = text.split(':');
  const offset = offsetOf(page.text, Number(line), column);
  let found = -1;
  for (const { index, tag } of page.elements)
    if (tag !== undefined && tag.range.start <= offset) found = index;
  if (found >= 0) return { index: found, of: 1 };
  throw new UsageError('no-element-there', { place: `${page.path}:${text}` });
}

/** A line alone stands for the first tag on it: its last character. */
function offsetOf(text: string, line: number, column: string | undefined): number {
  if (column !== undefined) return offsetAt(text, line, Number(column));
  const start = lineStart(text, line);
  return start + Math.max(0, text.slice(start, lineStart(text, line + 1)).search(/<[a-z]/i));
}

/**
 * The part of XPath that an inspector copies: steps of names, each with a number or an id, from the top or from anywhere.
 * What is more than that points at nothing.
 */
function byPath(page: Page, text: string): PageElement[] {
  const steps = [...text.matchAll(/(\/{1,2})([^/[\]]+)((?:\[[^\]]*\])*)/g)];
  if (steps.map(([whole]) => whole).join('') !== text) return [];
  let found: readonly PageElement[] | undefined;
  for (const [, slashes, name = '', filters = ''] of steps) {
    const isUnder = (element: PageElement): boolean => {
      if (found === undefined) return slashes === '//' || element.parent < 0;
      const from = new Set(found.map(({ index }) => index));
      if (slashes === '/') return from.has(element.parent);
      for (let at = element.parent; at >= 0; at = page.elements[at]!.parent) if (from.has(at)) return true;
      return false;
    };
    const isNamed = (element: PageElement): boolean =>
      name === '*' || name === `*[name()='${element.name}']` || element.name === name.toLowerCase();
    let next = page.elements.filter((element) => isNamed(element) && isUnder(element));
    for (const [, filter = ''] of filters.matchAll(/\[([^\]]*)\]/g)) next = filtered(page, next, filter);
    found = next;
  }
  return [...(found ?? [])];
}

function filtered(page: Page, elements: readonly PageElement[], filter: string): PageElement[] {
  if (isMadeOf(filter, DIGIT)) return elements.filter((one) => numberOf(page, one) === Number(filter));
  const [, name = '', double, single] = /^@([\w-]+)=(?:"([^"]*)"|'([^']*)')$/.exec(filter) ?? [];
  return elements.filter((one) =>
    one.attributes.some((own) => own.name === name && own.value === (double ?? single)),
  );
}

/** Its number among the siblings of its name, from 1. */
function numberOf(page: Page, { name, previous }: PageElement): number {
  let number = 1;
  for (let at = previous; at >= 0; at = page.elements[at]!.previous)
    if (page.elements[at]!.name === name) number++;
  return number;
}

/** Elements whose start tag says all that the one given says. */
function byTag(page: Page, text: string): PageElement[] {
  const { childNodes } = parseFragment(`<template>${text}</template>`);
  const [template] = childNodes;
  const inside = template !== undefined && 'content' in template ? template.content.childNodes : [];
  const tag = inside.find((node) => 'tagName' in node);
  if (tag === undefined || !('attrs' in tag)) return [];
  return page.elements.filter(
    ({ name, attributes }) =>
      name === tag.tagName &&
      tag.attrs.every((wanted) =>
        attributes.some((own) => own.name === wanted.name && sameValue(wanted.name, own.value, wanted.value)),
      ),
  );
}

function sameValue(name: string, own: string, wanted: string): boolean {
  if (name !== 'class') return own === wanted;
  const classes = new Set(own.split(/\s+/));
  return wanted.split(/\s+/).every((one) => one === '' || classes.has(one));
}
