// The sets of declarations that are worth a name: each is declared once where it was declared in rule after rule.

import { getOrInsert } from '../../base/get-or-insert.js';
import { shortHash } from '../../base/short-hash.js';
import { nameSets, patternOf } from './names.js';
import type { Run, Written } from './runs.js';

export interface FoundMixin {
  /** By which it is found again. */
  readonly id: string;
  readonly name: string;
  /** As they are written. */
  readonly declarations: readonly string[];
  /** Where each of the sets stands. */
  readonly places: readonly Run[];
  /** Declarations less to keep up; what asks for the set is half of one. */
  readonly saves: number;
}

export interface FactorOptions {
  /** Names that are in use, lower case. */
  readonly taken: ReadonlySet<string>;
  /** Names that a person has given, by id. */
  readonly given: ReadonlyMap<string, string>;
}

/** Asking for a set, and its name, cost half a declaration each. */
const ASKED = 0.5;
/** What saves less is no reason for a name, unless people have one. */
const LEAST = 5;
const LEAST_NAMED = 3;
/** A longer row is looked at from its beginning. */
const LONGEST = 30;

/** Those that save most first; no declaration is in two of them. */
export function findMixins(runs: readonly Run[], { taken, given }: FactorOptions): FoundMixin[] {
  const sets = new Map<string, Run[]>();
  for (const run of runs)
    for (let from = 0; from < run.length - 1; from++)
      for (let to = from + 2; to <= Math.min(run.length, from + LONGEST); to++) {
        const part = run.slice(from, to);
        getOrInsert(sets, part.map(({ said }) => said).join('\n'), () => []).push(part);
      }
  let left = [...sets.values()].filter(isWorth);
  const used = new Set<Written>();
  const chosen: Run[][] = [];
  while (left.length > 0) {
    left = left
      .map((places) => apart(places.filter((place) => !place.some((one) => used.has(one)))))
      .filter(isWorth)
      .sort(
        (a, b) => savedBy(b) - savedBy(a) || b[0]!.length - a[0]!.length || (keyOf(a) < keyOf(b) ? -1 : 1),
      );
    const [best] = left;
    if (best === undefined) break;
    // The same in another order is left to a person.
    if (!chosen.some((one) => orderless(one) === orderless(best))) chosen.push(best);
    for (const one of best.flat()) used.add(one);
  }
  return named(chosen, taken, given);
}

function orderless([first = []]: readonly Run[]): string {
  return first
    .map(({ said }) => said)
    .sort()
    .join('\n');
}

/** Of places that share declarations the first. */
function apart(places: readonly Run[]): Run[] {
  const seen = new Set<Written>();
  return places.filter((place) => {
    const isFree = !place.some((one) => seen.has(one));
    if (isFree) for (const one of place) seen.add(one);
    return isFree;
  });
}

function savedBy(places: readonly Run[]): number {
  const length = places[0]?.length ?? 0;
  if (places.length < 2 || !isOneThing(places[0]!)) return 0;
  return length * places.length - (length + ASKED) - ASKED * places.length;
}

/** Where something stands, and how large it is: by itself that is one thing only where people have a word for it. */
const PLACES =
  /^(?:position|top|right|bottom|left|inset|width|height|z-index|margin.*|padding.*|display|cursor)$/;

function isOneThing(run: Run): boolean {
  if (patternOf(run) !== undefined) return true;
  return run.length > 2 && !run.every(({ made }) => PLACES.test(made.property));
}

function isWorth(places: readonly Run[]): boolean {
  const [first] = places;
  return first !== undefined && savedBy(places) >= (patternOf(first) === undefined ? LEAST : LEAST_NAMED);
}

function keyOf([first = []]: readonly Run[]): string {
  return first.map(({ said }) => said).join('\n');
}

function named(
  chosen: readonly Run[][],
  taken: ReadonlySet<string>,
  given: ReadonlyMap<string, string>,
): FoundMixin[] {
  const names = nameSets(chosen, new Set([...taken, ...[...given.values()].map((one) => one.toLowerCase())]));
  return chosen.map((places, at) => {
    const id = shortHash(`mixin ${keyOf(places)}`);
    return {
      id,
      name: given.get(id) ?? names[at]!,
      declarations: places[0]!.map(({ said }) => said),
      places,
      saves: savedBy(places),
    };
  });
}
