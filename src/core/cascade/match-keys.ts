// Short names for what matches an element: a name is asked for every element of a site, and most match alike.

export class MatchKeys {
  readonly #next = new Map<string, Map<string, Map<number, string>>>();
  #count = 0;

  /**
   * The name of what is named so far and the matches of one more sheet; equal names for equal matches of equal sheets.
   * In: the key of the sheet's use; the number of its matches.
   */
  with(before: string, use: string, matches: number): string {
    let byUse = this.#next.get(before);
    if (byUse === undefined) {
      byUse = new Map();
      this.#next.set(before, byUse);
    }
    let byMatches = byUse.get(use);
    if (byMatches === undefined) {
      byMatches = new Map();
      byUse.set(use, byMatches);
    }
    let name = byMatches.get(matches);
    if (name === undefined) {
      name = `m${++this.#count}`;
      byMatches.set(matches, name);
    }
    return name;
  }
}
