// Every declaration of a target and what became of it: which could win, and what each beaten one is beaten by.

import { competesWith } from '../read/sheets/index.js';
import { beaterOf, canWin } from './can-win.js';
import { type Contribution, inCascadeOrder } from './order.js';
import type { Outcome } from './outcome-model.js';
import type { Entry } from './rule-index.js';
import type { TruthTable } from './truth.js';

/** What decided between two declarations, in the order in which the cascade asks. */
export type Edge =
  | 'importance'
  | 'style attribute'
  | 'layer'
  | 'specificity'
  | 'nearness of its scope'
  | 'old attribute'
  | 'order of the sheets'
  | 'order in the sheet'
  | 'order in the rule';

export interface Weighed extends Outcome {
  /** Layer, specificity, nearness and order: what the cascade weighs. */
  readonly weight: Contribution;
  /** `undefined` for one that wins, or could under a condition. */
  readonly beatenBy: { readonly winner: Weighed; readonly edge: Edge } | undefined;
}

/** In: all that declares something of one target. Out: longhand to every declaration of it, strongest first. */
export function weighEntries(
  contributions: readonly Contribution[],
  truths: TruthTable,
): Map<string, Weighed[]> {
  const lists = new Map<string, Weighed[]>();
  const others = longhandsBeside(contributions);
  let rank = 0;
  for (const { contribution, important } of inCascadeOrder(contributions)) {
    const entries = important ? contribution.block.important : contribution.block.normal;
    for (const { entry, longhand } of [...entries].reverse().flatMap((one) => alsoFor(one, others))) {
      const condition = truths.and(contribution.truth, entry.supported);
      const list = lists.get(longhand) ?? [];
      const undefeated = list.filter(({ beatenBy }) => beatenBy === undefined);
      const winner = beaterOf(condition, undefeated, truths);
      const one: Omit<Weighed, 'beatenBy'> = {
        longhand,
        value: entry.value,
        important,
        condition,
        entry,
        writtenIn: contribution.writtenIn,
        rank: rank++,
        weight: contribution,
      };
      list.push({
        ...one,
        beatenBy: winner && { winner, edge: edgeBetween(winner, { important, weight: contribution }) },
      });
      lists.set(longhand, list);
    }
  }
  return lists;
}

/** The longhands that `all` competes with (CSS Cascade 5 §3.2): none of its own, every other that is declared here. */
function longhandsBeside(contributions: readonly Contribution[]): string[] {
  const names = new Set(
    contributions.flatMap(({ block }) =>
      [...block.normal, ...block.important].map(({ longhand }) => longhand),
    ),
  );
  if (!names.has('all')) return [];
  return [...names].filter(
    (name) => !name.startsWith('--') && !['all', 'direction', 'unicode-bidi'].includes(name),
  );
}

function alsoFor(entry: Entry, others: readonly string[]): { entry: Entry; longhand: string }[] {
  if (entry.longhand !== 'all') return [{ entry, longhand: entry.longhand }];
  return ['all', ...others].map((longhand) => ({ entry, longhand }));
}

/** What decided for `winner`. */
export function edgeBetween(
  winner: Pick<Weighed, 'important' | 'weight'>,
  loser: Pick<Weighed, 'important' | 'weight'>,
): Edge {
  const [a, b] = [winner.weight, loser.weight];
  if (winner.important !== loser.important) return 'importance';
  if (a === b) return 'order in the rule';
  if (a.writtenIn.kind === 'style attribute') return 'style attribute';
  if (b.writtenIn.kind === 'old attribute') return 'old attribute';
  if (a.layer !== b.layer) return 'layer';
  if (a.specificity !== b.specificity) return 'specificity';
  if (a.scopeDistance !== b.scopeDistance) return 'nearness of its scope';
  return a.at === b.at ? 'order in the sheet' : 'order of the sheets';
}

/**
 * What stands for one longhand under any of its names (CSS Logical Properties §4, vendor names, `all`), strongest first:
 * what can never win is left out.
 */
export function undefeatedFor(
  lists: ReadonlyMap<string, readonly Weighed[]> | undefined,
  longhand: string,
  truths: TruthTable,
): Weighed[] {
  if (lists === undefined) return [];
  const found = [...(lists.get(longhand) ?? lists.get('all') ?? [])];
  for (const [name, list] of lists) {
    if (name === longhand || name === 'all') continue;
    if (competesWith(name, longhand)) found.push(...list);
  }
  const undefeated: Weighed[] = [];
  for (const one of found.sort((a, b) => a.rank - b.rank))
    if (canWin(one, undefeated, truths)) undefeated.push(one);
  return undefeated;
}
