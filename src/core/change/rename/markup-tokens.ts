// Where a page carries a class: in class attributes, also of inert content; and in template text, where nobody is sure.

import type { SourceRange } from '../../base/source.js';
import type { Edit } from '../../edit/text/index.js';
import { hasTemplateText, maskTemplateText, type Page } from '../../read/markup/index.js';

export interface MarkupTokens {
  readonly edits: readonly Edit[];
  /** Inside `<template>`, which the proof reads as text. */
  readonly inert: readonly Edit[];
  /** Offsets of the new name, where it stands already. */
  readonly taken: readonly number[];
  readonly unsure: readonly (SourceRange & { readonly what: string })[];
}

export function markupTokens(page: Page, from: string, to: string): MarkupTokens {
  const edits: Edit[] = [];
  const inert: Edit[] = [];
  const taken: number[] = [];
  const unsure: (SourceRange & { what: string })[] = [];
  const inside = new Set<SourceRange>(page.inertClasses);
  const ranges = new Set<SourceRange>(inside);
  for (const { tag } of page.elements) {
    const own = tag?.attributes.get('class');
    if (own !== undefined) ranges.add(own);
    for (const [name, range] of tag?.attributes ?? [])
      if (name.startsWith('data-') || /[:.[]class\]?$/.test(name))
        unsure.push(
          ...wordsIn(
            page.text.slice(range.start + name.length, range.end),
            range.start + name.length,
            from,
            name,
          ),
        );
  }
  for (const range of ranges) {
    const { start, end } = range;
    const source = page.text.slice(start, end);
    const value = source.search(/=/) + 1;
    if (value === 0) continue;
    const written = source.slice(value);
    const masked = maskTemplateText(written);
    const names = namesIn(masked, written);
    const both = names.some(({ name }) => name === to);
    for (const { name, at } of names) {
      const offset = start + value + at;
      if (name === to) taken.push(offset);
      if (name !== from) continue;
      // Two that become one leave one, and the space in front of it goes.
      const space = both ? (/\s*$/.exec(written.slice(0, at))?.[0].length ?? 0) : 0;
      (inside.has(range) ? inert : edits).push({
        start: offset - space,
        end: offset + from.length,
        text: both ? '' : to,
      });
    }
    if (hasTemplateText(written)) unsure.push(...hiddenWords(written, masked, start + value, from));
  }
  return { edits, inert, taken, unsure };
}

/** Names that stand in the attribute itself, whatever template text stands around them. */
function namesIn(masked: string, written: string): { name: string; at: number }[] {
  return [...masked.matchAll(/[^\s"'=]+/g)].flatMap(({ 0: word, index }) => {
    const own = written.slice(index, index + word.length);
    if (own === word) return [{ name: word, at: index }];
    // `{% if x %}name{% else %}other{% endif %}`: pieces between the markers.
    return [...own.matchAll(/(?<=\}|%>|\?>)[\w-]+(?=\{|<)/g)].map((piece) => ({
      name: piece[0],
      at: index + piece.index,
    }));
  });
}

/** Words inside template text. */
function hiddenWords(
  written: string,
  masked: string,
  offset: number,
  from: string,
): (SourceRange & { what: string })[] {
  return wordsIn(written, offset, from, 'template text').filter(
    ({ start }) => masked[start - offset] !== written[start - offset],
  );
}

function wordsIn(
  text: string,
  offset: number,
  word: string,
  what: string,
): (SourceRange & { what: string })[] {
  const found: (SourceRange & { what: string })[] = [];
  for (const match of text.matchAll(
    new RegExp(`(?<![\\w-])${word.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`, 'g'),
  ))
    found.push({
      start: offset + match.index,
      end: offset + match.index + word.length,
      what: `${what}: ${text
        .replace(/^=?["']?/, '')
        .trim()
        .slice(0, 60)}`,
    });
  return found;
}
