// What a later visit found otherwise: pages, markup, sheets, and names that are gone; and which names a build makes up.

import { DIGIT, hasOneOf, isMadeOf, LETTER, not, SPACE } from '../../base/characters.js';
import { comparePaths } from '../../base/source.js';

/** What is compared of one state. */
export interface VisitedState {
  /** File of a page or sheet to the digest of its text. */
  readonly pages: ReadonlyMap<string, string>;
  readonly sheets: ReadonlyMap<string, string>;
  /** Classes and ids that stand in its pages, as in a selector. */
  readonly names: ReadonlySet<string>;
}

export interface VisitChanges {
  readonly pages: Moved;
  readonly sheets: Moved;
  /** Classes and ids that stand on no page any more. */
  readonly namesGone: readonly string[];
  readonly namesNew: number;
}

interface Moved {
  readonly fresh: readonly string[];
  readonly gone: readonly string[];
  readonly changed: readonly string[];
}

export function changesBetween(before: VisitedState, after: VisitedState): VisitChanges {
  const namesGone = [...before.names].filter((name) => !after.names.has(name)).sort(comparePaths);
  return {
    pages: movedIn(before.pages, after.pages),
    sheets: movedIn(before.sheets, after.sheets),
    namesGone,
    namesNew: [...after.names].filter((name) => !before.names.has(name)).length,
  };
}

function movedIn(before: ReadonlyMap<string, string>, after: ReadonlyMap<string, string>): Moved {
  const fresh = [...after.keys()].filter((file) => !before.has(file));
  const gone = [...before.keys()].filter((file) => !after.has(file));
  const changed = [...after].flatMap(([file, digest]) => {
    const old = before.get(file);
    return old !== undefined && old !== digest ? [file] : [];
  });
  return {
    fresh: fresh.sort(comparePaths),
    gone: gone.sort(comparePaths),
    changed: changed.sort(comparePaths),
  };
}

const NAMES = /\s(class|id)\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'>]+))/gi;

/** Adds every class and id of a page's text, as in a selector. */
export function collectNames(text: string, into: Set<string>): void {
  for (const [, kind = '', double, single, bare] of text.matchAll(NAMES)) {
    const value = double ?? single ?? bare ?? '';
    if (kind.toLowerCase() === 'id') {
      if (isMadeOf(value, not(SPACE))) into.add(`#${value}`);
    } else for (const name of value.split(/\s+/)) if (name !== '') into.add(`.${name}`);
  }
}

/**
 * Names that a build or an editor makes up, as `.blk-7f3a91`: letters and digits in turns, or one of many of the same form
 * of which some are like that. In: names as in a selector; those that a visit before found gone, where there was one.
 */
export function madeUpNames(names: Iterable<string>, gone: readonly string[] = []): string[] {
  const goneStems = new Set(gone.map(stemOf));
  const all = [...names];
  const forms = new Map<string, { count: number; sure: number }>();
  for (const name of all) {
    const known = forms.get(formOf(name)) ?? { count: 0, sure: 0 };
    known.count++;
    if (isMadeUp(name)) known.sure++;
    forms.set(formOf(name), known);
  }
  const isOneOfMany = (name: string): boolean => {
    const { count, sure } = forms.get(formOf(name))!;
    return count >= 3 && sure * 4 >= count;
  };
  return all
    .filter(
      (name) => isMadeUp(name) || isOneOfMany(name) || (stemOf(name) !== name && goneStems.has(stemOf(name))),
    )
    .sort(comparePaths);
}

/** So many letters in a row somebody has written. */
const WORD = /[a-z]{5}/i;

/** Whether the shape of a name says that nobody thought of it. */
function isMadeUp(name: string): boolean {
  return name
    .slice(1)
    .split(/[-_]+/)
    .some((part) => part.length >= 5 && turns(part) >= 3 && !WORD.test(part));
}

/** How often letters and digits take turns. */
function turns(part: string): number {
  const kinds = [...part].map((char) =>
    hasOneOf(char, DIGIT) ? 'digit' : hasOneOf(char, LETTER) ? 'letter' : '',
  );
  return kinds.filter((kind, at) => at > 0 && kind !== kinds[at - 1]).length;
}

function stemOf(name: string): string {
  return name.replace(/[-_][a-z\d]*\d[a-z\d]*$/i, '');
}

/** The stem, and how long the rest is. */
function formOf(name: string): string {
  const stem = stemOf(name);
  return `${stem} ${name.length - stem.length}`;
}
