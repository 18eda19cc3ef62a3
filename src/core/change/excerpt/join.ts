// Excerpts that several threads took, each from its own pages. What two of them hold alike stands for itself in each.

import type { Excerpts } from './taker.js';

/** In: in the order of the pages. */
export function joinExcerpts(parts: readonly Excerpts[]): Excerpts {
  const [only] = parts;
  if (only !== undefined && parts.length === 1) return only;
  const joined = <Key, Value>(of: (part: Excerpts) => ReadonlyMap<Key, Value>): Map<Key, Value> =>
    new Map(parts.flatMap((part) => [...of(part)]));
  return {
    pages: joined(({ pages }) => pages),
    cuts: joined(({ cuts }) => cuts),
    alike: joined(({ alike }) => alike),
    copies: joined(({ copies }) => copies),
    likeTags: joined(({ likeTags }) => likeTags),
    placeIds: new Set(parts.flatMap(({ placeIds }) => [...placeIds])),
    size: parts.reduce((all, { size }) => all + size, 0),
    leftOut: joined(({ leftOut }) => leftOut),
  };
}
