// What an element comes to, in parts that do not tell each other: a trial that mentions one of them leaves the others as they
// are.

import { getOrInsert, newMap } from '../base/get-or-insert.js';
import { groupBy } from '../base/group-by.js';
import { type Declaration, interactionGroup } from '../read/sheets/index.js';
import { outcomesForm } from './outcome-form.js';
import type { Matched, Outcome, Outcomes, TakenOut, TrialRule } from './outcome-model.js';
import type { Block } from './rule-index.js';

/** By target and cluster, a number: equal numbers, equal outcomes. */
export type OutcomeParts = ReadonlyMap<string, number>;

/** What an element comes to, and the rules that bring it about. */
export interface Untried {
  readonly parts: OutcomeParts;
  readonly matched: MatchedByCluster;
}

/** `all` mentions everything: then there is one part. */
const ALL = 'all';

/** Names that may set one computed value, or are judged by each other, as a line's width is by its style. */
export function clusterOf(longhand: string): string {
  return longhand.startsWith('border-') ? 'border' : interactionGroup(longhand).name;
}

const clusters = new WeakMap<Block, ReadonlySet<string>>();
const ofDeclarations = new WeakMap<Declaration, ReadonlySet<string>>();

export function clustersOf(block: Block): ReadonlySet<string> {
  let found = clusters.get(block);
  if (found === undefined) {
    const entries = [...block.normal, ...block.important];
    found = new Set(entries.map(({ longhand }) => clusterOf(longhand)));
    for (const [declaration, own] of groupBy(entries, (entry) => entry.declaration))
      ofDeclarations.set(declaration, new Set(own.map(({ longhand }) => clusterOf(longhand))));
    clusters.set(block, found);
  }
  return found;
}

/** Clusters that are asked for, by target. */
export type Touched = ReadonlyMap<string, ReadonlySet<string>>;

/** The rules that match an element, by what they mention: target, then cluster. */
export type MatchedByCluster = ReadonlyMap<string, ReadonlyMap<string, readonly Matched[]>>;

export function byCluster(matched: readonly Matched[]): MatchedByCluster {
  const found = new Map<string, Map<string, Matched[]>>();
  for (const one of matched) {
    const own = getOrInsert(found, one.rule.selector.pseudoElement, newMap<string, Matched[]>);
    for (const name of clustersOf(one.rule.block())) getOrInsert(own, name, () => []).push(one);
  }
  return found;
}

/** What a trial mentions; `undefined` for everything. */
export function touchedBy(
  trials: readonly TrialRule[],
  gone: TakenOut | undefined,
  matched: MatchedByCluster,
): Touched | undefined {
  const found = new Map<string, Set<string>>();
  const add = (target: string, names: Iterable<string>): void => {
    const known = getOrInsert(found, target, () => new Set<string>());
    for (const name of names) known.add(name);
  };
  for (const { block, placed } of trials) add(placed?.pseudoElement ?? '', clustersOf(block));
  for (const declaration of gone?.declarations ?? [])
    for (const target of matched.keys()) add(target, ofDeclarations.get(declaration) ?? []);
  return [...found.values()].some((names) => names.has(ALL)) ? undefined : found;
}

/** The rules that mention what is touched. */
export function matchedIn(matched: MatchedByCluster, touched: Touched): Matched[] {
  const found = new Set<Matched>();
  for (const [target, names] of touched)
    for (const name of names) for (const one of matched.get(target)?.get(name) ?? []) found.add(one);
  return [...found];
}

/** In: by target, its outcomes; the number of a text. */
export function partsOf(
  lists: ReadonlyMap<string, Outcomes>,
  weightTells: boolean,
  numberOf: (text: string) => number,
): Map<string, number> {
  const parts = new Map<string, number>();
  for (const [target, outcomes] of lists) {
    const inClusters = new Map<string, Map<string, readonly Outcome[]>>();
    const isOne = outcomes.has(ALL);
    for (const [name, list] of outcomes) {
      const cluster = isOne ? ALL : clusterOf(name);
      const known = inClusters.get(cluster);
      if (known === undefined) inClusters.set(cluster, new Map([[name, list]]));
      else known.set(name, list);
    }
    for (const [cluster, own] of inClusters)
      parts.set(`${target}{${cluster}`, numberOf(outcomesForm(own, weightTells)));
  }
  return parts;
}

/** Whether what mentions one part mentions all of them. */
export function isUndivided(parts: OutcomeParts): boolean {
  for (const key of parts.keys()) if (key.endsWith(`{${ALL}`)) return true;
  return false;
}

/** In: what an element comes to; what a trial touches, and what that comes to then. */
export function partsWith(parts: OutcomeParts, touched: Touched, changed: OutcomeParts): Map<string, number> {
  const all = new Map(parts);
  for (const [target, names] of touched) for (const name of names) all.delete(`${target}{${name}`);
  for (const [key, number] of changed) all.set(key, number);
  return all;
}

export function partsForm(parts: OutcomeParts): string {
  return [...parts]
    .map(([key, number]) => `${key}=${number}`)
    .sort()
    .join('\n');
}
