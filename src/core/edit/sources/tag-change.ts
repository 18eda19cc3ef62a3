// What edits make of one tag, told apart from how it is written.

import { html, parseFragment } from 'parse5';
import { inOneLine } from '../../base/phrases.js';
import type { SourceRange } from '../../base/source.js';
import { parseDeclarations } from '../../read/sheets/index.js';
import { applyEdits, type Edit } from '../text/index.js';

export interface TagChange {
  /** Declarations that leave the style attribute, each as `declarationKey` has it, in order. */
  readonly declarations: readonly string[];
  readonly added: readonly string[];
  readonly removed: readonly string[];
  /** Other attributes that go. */
  readonly gone: readonly string[];
}

/**
 * In: the text of a page, a tag in it, and the edits within that tag.
 * Out: what they come to; `undefined` where they do something else than taking styling away and changing classes.
 */
export function tagChange(
  text: string,
  { start, end }: SourceRange,
  edits: readonly Edit[],
): TagChange | undefined {
  const tag = text.slice(start, end);
  const own = edits.map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start }));
  const before = attributesOf(tag);
  const after = attributesOf(applyEdits(tag, own));
  if (before === undefined || after === undefined) return undefined;
  const gone = [...before.keys()].filter((name) => !after.has(name));
  const isElse = [...after].some(
    ([name, value]) => name !== 'class' && name !== 'style' && before.get(name) !== value,
  );
  if (isElse) return undefined;
  const kept = keysOf(after.get('style') ?? '');
  const declarations = keysOf(before.get('style') ?? '').filter((key) => {
    const at = kept.indexOf(key);
    if (at >= 0) kept.splice(at, 1);
    return at < 0;
  });
  if (kept.length > 0) return undefined;
  const [classes, words] = [wordsOf(before.get('class')), wordsOf(after.get('class'))];
  return {
    declarations,
    added: words.filter((name) => !classes.includes(name)),
    removed: classes.filter((name) => !words.includes(name)),
    gone: gone.filter((name) => name !== 'class' && name !== 'style'),
  };
}

export function isNothing({ declarations, added, removed, gone }: TagChange): boolean {
  return declarations.length + added.length + removed.length + gone.length === 0;
}

function keysOf(style: string): string[] {
  return parseDeclarations(style).declarations.map(declarationKey);
}

/** One text for all ways to write a declaration that differ in space only. */
export function declarationKey(one: {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
}): string {
  return `${one.property}:${inOneLine(one.value)}${one.important ? '!' : ''}`;
}

function wordsOf(value: string | undefined): string[] {
  return (value ?? '').split(/[\t\n\f\r ]+/).filter((word) => word !== '');
}

function attributesOf(tag: string): Map<string, string> | undefined {
  const [element] = parseFragment(tag.replace(/^<[^\s/>]+/, '<x-tag')).childNodes;
  if (element === undefined || !('attrs' in element) || element.namespaceURI !== html.NS.HTML)
    return undefined;
  return new Map(element.attrs.map(({ name, value }) => [name, value]));
}
