// What a later visit found otherwise: pages, markup, sheets, and names that are gone; and which names a build makes up.

import { comparePaths } from '../source.js';

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
      if (/^\S+$/.test(value)) into.add(`#${value}`);
    } else for (const name of value.split(/\s+/)) if (name !== '') into.add(`.${name}`);
  }
}

/**
 * Names that a build or an editor makes up, as `.blk-7f3a91`: a part of letters and digits mixed that is no word and no
 * number of steps. In: names as in a selector; those that a visit before found gone, where there was one.
 */
export function madeUpNames(names: Iterable<string>, gone: readonly string[] = []): string[] {
  const goneStems = new Set(gone.map(stemOf));
  return [...names]
    .filter((name) => isMadeUp(name) || (stemOf(name) !== name && goneStems.has(stemOf(name))))
    .sort(comparePaths);
}

/** Whether the shape of a name says that nobody thought of it. */
export function isMadeUp(name: string): boolean {
  return name
    .slice(1)
    .split(/[-_]+/)
    .some((part) => part.length >= 5 && turns(part) >= 3);
}

/** How often letters and digits take turns, or capitals stand among small letters and digits. */
function turns(part: string): number {
  const kinds = [...part].map((char) => (/\d/.test(char) ? 'digit' : /[a-z]/i.test(char) ? 'letter' : ''));
  return kinds.filter((kind, at) => at > 0 && kind !== kinds[at - 1]).length + (/\d/.test(part) ? 1 : 0);
}

function stemOf(name: string): string {
  return name.replace(/[-_][a-z\d]*\d[a-z\d]*$/i, '');
}
