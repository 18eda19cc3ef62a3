// Carries out what the proof vouches for, and takes back the rest, each with its reason: the one loop for markup, rules,
// values and mends.

import type { KeptReason } from '../base/reasons/index.js';
import type { SiteModel } from '../cascade/index.js';

import { type Difference, differenceText } from './describe.js';
import { type Proof, prove } from './prove.js';

/** Proves a step, or trusts it until the whole is proven. */
export type Judge = (before: SiteModel, after: SiteModel) => Proof;

export const PROVE: Judge = (before, after) => prove(before, after, { perPage: 200, keepsUnseen: true });

/** Finds no difference: for steps that are proven together afterwards. */
export const TRUST: Judge = () => ({
  differences: [],
  pages: 0,
  components: 0,
  elements: 0,
  assumptions: [],
});

export type Refusals<Item> = ReadonlyMap<Item, KeptReason>;

/** What is to be done, planned as far as nothing of it is refused. */
export interface Planned<Item> {
  readonly items: readonly Item[];
  readonly after: SiteModel;
  /** Items that turned out to be impossible. The plan is made again without them. */
  readonly impossible?: Refusals<Item>;
}

export interface Attempt<Item, Plan extends Planned<Item>> {
  readonly before: SiteModel;
  /** In: what is refused so far; the state of the plan before, whose pages may be taken over; the round, from 1. */
  readonly plan: (refused: Refusals<Item>, last: SiteModel | undefined, round: number) => Plan;
  readonly judge: Judge;
  /** The items that brought a difference about; none where nobody can tell. */
  readonly blame: (difference: Difference, plan: Plan) => readonly Item[];
  /** So often single items are taken back; after that all of them. */
  readonly rounds: number;
  /** Refused from the start. */
  readonly refused?: Refusals<Item>;
}

export interface Carried<Item, Plan> {
  /** Proven: it has no difference. */
  readonly plan: Plan;
  readonly proof: Proof;
  readonly refused: Refusals<Item>;
}

export function proveAndTakeBack<Item, Plan extends Planned<Item>>(
  attempt: Attempt<Item, Plan>,
): Carried<Item, Plan> {
  const { before, judge, blame, rounds } = attempt;
  const refused = new Map(attempt.refused);
  let last: SiteModel | undefined;
  for (let round = 1; ; round++) {
    const plan = attempt.plan(refused, last, round);
    if (plan.impossible !== undefined && plan.impossible.size > 0) {
      for (const [item, reason] of plan.impossible) refused.set(item, reason);
      continue;
    }
    last = plan.after;
    const proof = plan.after === before ? TRUST(before, before) : judge(before, plan.after);
    const [first] = proof.differences;
    if (first === undefined) return { plan, proof, refused };
    if (plan.items.length === 0)
      throw new Error(`a plan of nothing makes a difference: ${differenceText(first)}`);
    const known = refused.size;
    if (round < rounds)
      for (const difference of proof.differences)
        for (const item of blame(difference, plan)) refused.set(item, reasonOf(difference));
    // The plan differs where none of its items is known to act: nothing of it can be kept.
    if (refused.size === known) for (const item of plan.items) refused.set(item, reasonOf(first));
  }
}

function reasonOf(difference: Difference): KeptReason {
  return { kind: 'proof', detail: differenceText(difference) };
}
