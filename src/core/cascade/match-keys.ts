// Short names for what matches an element: a name is asked for every element of a site, and most match alike.

import { getOrInsert, newMap } from '../base/get-or-insert.js';

export class MatchKeys {
  readonly #next = new Map<string, Map<string, Map<number, string>>>();
  #count = 0;
  readonly #newName = (): string => `m${++this.#count}`;

  /**
   * The name of what is named so far and the matches of one more sheet; equal names for equal matches of equal sheets.
   * In: the key of the sheet's use; the number of its matches.
   */
  with(before: string, use: string, matches: number): string {
    const byUse = getOrInsert(this.#next, before, newMap<string, Map<number, string>>);
    const byMatches = getOrInsert(byUse, use, newMap<number, string>);
    return getOrInsert(byMatches, matches, this.#newName);
  }
}
