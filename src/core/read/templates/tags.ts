// A start tag with engine text in it: what all tags that can come of it have, and what only some do.

import { html, parseFragment } from 'parse5';
import { alternativesOf } from './alternatives.js';
import type { EnginePiece } from './pieces.js';

/** What engine text makes of a tag. */
export interface EngineTag {
  /** Attributes that may be left out, or say something else than the file shows first. */
  readonly sometimes: ReadonlySet<string>;
  /** Whether attributes may be there that the file does not show. */
  readonly prints: boolean;
  /** Classes that it has in any case. */
  readonly classes: readonly string[];
  /** Classes that it may have besides; `undefined` where any could be among them. */
  readonly mayHave: readonly string[] | undefined;
}

/** A tag as it is written. */
export interface WrittenTag {
  readonly text: string;
  /** In the file. */
  readonly offset: number;
  /** Engine text in it. */
  readonly pieces: readonly EnginePiece[];
}

/** In: the tag, and those that stand in its place in other branches; the letter of no other use. */
export function readEngineTag(written: readonly WrittenTag[], letter: string): EngineTag {
  const word = letter.repeat(3);
  const each = written.map(({ text, offset, pieces }) => alternativesOf(text, offset, pieces, () => word));
  const all = each.flatMap((one) => one ?? []);
  if (each.includes(undefined)) return UNKNOWN;
  const tags = all.map(attributesOf);
  const names = new Set(tags.flatMap((tag) => [...tag.keys()]));
  const prints = [...names].some((name) => name.includes(letter));
  const sometimes = new Set<string>();
  for (const name of names)
    if (name !== 'class' && new Set(tags.map((tag) => tag.get(name))).size > 1) sometimes.add(name);
  if (tags.some((tag) => tag.has('class') !== names.has('class'))) sometimes.add('class');
  const lists = tags.map(
    (tag) =>
      tag
        .get('class')
        ?.split(/[\t\n\f\r ]+/)
        .filter((one) => one !== '') ?? [],
  );
  const known = new Set(lists.flat().filter((name) => !name.includes(letter)));
  const classes = [...known].filter((name) => lists.every((list) => list.includes(name)));
  const isOpen = prints || lists.some((list) => list.some((name) => name.includes(letter)));
  return {
    sometimes,
    prints,
    classes,
    mayHave: isOpen ? undefined : [...known].filter((name) => !classes.includes(name)),
  };
}

const UNKNOWN: EngineTag = { sometimes: new Set(), prints: true, classes: [], mayHave: undefined };

/** The attributes of a start tag, whatever element it is of. */
function attributesOf(tag: string): Map<string, string> {
  const [element] = parseFragment(tag.replace(/^<[^\s/>]+/, '<x-tag')).childNodes;
  if (element === undefined || !('attrs' in element) || element.namespaceURI !== html.NS.HTML)
    return new Map();
  return new Map(element.attrs.map(({ name, value }) => [name, value]));
}
