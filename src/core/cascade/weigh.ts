// Every declaration of a target and what became of it: which could win, and what each beaten one is beaten by.

import { type Contribution, inCascadeOrder } from './order.js';
import type { Outcome } from './outcome-model.js';
import { ALWAYS, type TruthTable } from './truth.js';

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

/** In: all that says something of one target. Out: longhand to every declaration of it, strongest first. */
export function weighEntries(
  contributions: readonly Contribution[],
  truths: TruthTable,
): Map<string, Weighed[]> {
  const lists = new Map<string, Weighed[]>();
  let rank = 0;
  for (const { contribution, important } of inCascadeOrder(contributions)) {
    const entries = important ? contribution.block.important : contribution.block.normal;
    for (const entry of [...entries].reverse()) {
      const condition = truths.and(contribution.truth, entry.kept);
      const list = lists.get(entry.longhand) ?? [];
      const hides = (one: Weighed): boolean =>
        one.value !== 'revert-layer' && (one.condition === ALWAYS || one.condition === condition);
      const winner = list.find((one) => one.beatenBy === undefined && hides(one));
      const one: Omit<Weighed, 'beatenBy'> = {
        longhand: entry.longhand,
        value: entry.value,
        important,
        condition,
        entry,
        origin: contribution.origin,
        rank: rank++,
        weight: contribution,
      };
      list.push({
        ...one,
        beatenBy: winner && { winner, edge: edgeBetween(winner, { important, weight: contribution }) },
      });
      lists.set(entry.longhand, list);
    }
  }
  return lists;
}

/** What decided for `winner`. */
export function edgeBetween(
  winner: Pick<Weighed, 'important' | 'weight'>,
  loser: Pick<Weighed, 'important' | 'weight'>,
): Edge {
  const [a, b] = [winner.weight, loser.weight];
  if (winner.important !== loser.important) return 'importance';
  if (a === b) return 'order in the rule';
  if (a.origin.kind === 'style attribute') return 'style attribute';
  if (b.origin.kind === 'old attribute') return 'old attribute';
  if (a.layer !== b.layer) return 'layer';
  if (a.specificity !== b.specificity) return 'specificity';
  if (a.hops !== b.hops) return 'nearness of its scope';
  return a.at === b.at ? 'order in the sheet' : 'order of the sheets';
}
