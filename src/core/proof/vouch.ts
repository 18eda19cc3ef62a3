// From styles to a plan that the proof vouches for: plan the edits, prove them, leave out what differs, again.

import type { SiteModel } from '../cascade/index.js';
import { SiteModel as Model } from '../cascade/index.js';
import {
  commonScope,
  type Demand,
  demandOf,
  type Move,
  type Placed,
  planEdits,
  planLink,
  type SitePlan,
  type StrongerRule,
} from '../edits/index.js';
import type { Kept, Member } from '../search/index.js';
import type { KeptReason } from '../stock/index.js';
import type { Difference } from './describe.js';
import { type Proof, prove } from './prove.js';

/** A style as the draft has it. */
export interface NamedStyle {
  readonly name: string;
  /** The declarations as the rule will have them. */
  readonly written: readonly Placed[];
  readonly members: readonly Member[];
}

export interface Vouched {
  readonly moves: readonly Move[];
  readonly kept: readonly Kept[];
  readonly plan: SitePlan;
  /** Of the plan as it stands: without differences. */
  readonly proof: Proof;
}

export interface VouchOptions {
  /** Site path of the shared sheet. */
  readonly shared: string;
  /** Fewer members than this are no style any more. */
  readonly atLeast: number;
  readonly onRound?: (round: number) => void;
}

/**
 * Plans styles and proves the result, leaving out what the proof does not vouch for.
 * Out: moves whose edits are proven to change nothing, and every unit left out with its reason.
 */
export function vouch(model: SiteModel, styles: readonly NamedStyle[], options: VouchOptions): Vouched {
  const kept: Kept[] = [];
  const before = followsReferences(model, options.shared);
  let moves = styles.flatMap((style) => chooseSelector(style, model, before, options.atLeast, kept) ?? []);
  for (let round = 1; ; round++) {
    options.onRound?.(round);
    const plan = planEdits(model, moves, options.shared);
    const dropped = new Map<Member, KeptReason>();
    for (const { member, reason } of plan.unwritten) dropped.set(member, reason);
    if (dropped.size === 0) {
      const after = new Model(plan.after, model.table, model);
      const proof = prove(model, after, { perPage: 1000 });
      if (proof.differences.length === 0) return { moves, kept, plan, proof };
      for (const difference of proof.differences) blame(difference, after, moves, dropped);
      if (dropped.size === 0) {
        // The plan differs where nothing was moved: nothing of it can be kept.
        const [first] = proof.differences;
        for (const { members } of moves)
          for (const member of members)
            dropped.set(member, { kind: 'proof', detail: differenceText(first!) });
      }
    }
    moves = moves.flatMap((move) => withoutMembers(move, dropped, options.atLeast, kept) ?? []);
  }
}

/** How many sheet references of a page stand before the shared sheet. A component cannot tell: the proof will. */
function followsReferences(model: SiteModel, shared: string): (path: string) => number {
  const known = new Map<string, number>();
  return (path) => {
    const page = model.page(path);
    if (page === undefined || page.kind === 'component') return Number.POSITIVE_INFINITY;
    let before = known.get(path);
    if (before === undefined) {
      before = planLink(page, shared, (address) => model.copyOf(address)).before;
      known.set(path, before);
    }
    return before;
  };
}

/** The weakest selector that wins on all members; members that nothing allowed can serve are left out. */
function chooseSelector(
  style: NamedStyle,
  model: SiteModel,
  before: (path: string) => number,
  atLeast: number,
  kept: Kept[],
): Move | undefined {
  const demands = new Map<Member, Demand>(
    style.members.map((member) => [member, demandOf(member, model, before)]),
  );
  const dropped = new Map<Member, KeptReason>();
  const needsId = style.members.filter((member) => demands.get(member)?.kind === 'id');
  for (const [member, demand] of demands) if (demand.kind === 'beyond') dropped.set(member, demand.reason);
  const servable = style.members.filter((member) => !dropped.has(member));
  const scope = needsId.length > 0 ? commonScope(servable) : undefined;
  if (scope === undefined) {
    for (const [member, demand] of demands) if (demand.kind === 'id') dropped.set(member, demand.reason);
  }
  let classes = 1;
  let beats: StrongerRule | undefined;
  for (const [member, demand] of demands) {
    if (dropped.has(member) || demand.kind === 'beyond') continue;
    // With an id in front, members that only need classes are served by one.
    if (scope !== undefined && demand.kind !== 'id') continue;
    if (demand.classes > classes || (beats === undefined && demand.kind === 'id')) beats = demand.reason;
    classes = Math.max(classes, demand.classes);
  }
  const selector = `${scope === undefined ? '' : `#${scope} `}${`.${style.name}`.repeat(classes)}`;
  return withoutMembers({ ...style, selector, beats }, dropped, atLeast, kept);
}

function withoutMembers(
  move: Move,
  dropped: ReadonlyMap<Member, KeptReason>,
  atLeast: number,
  kept: Kept[],
): Move | undefined {
  const members = move.members.filter((member) => !dropped.has(member));
  const gone =
    members.length === move.members.length ? [] : move.members.filter((member) => dropped.has(member));
  for (const member of gone) keep(member, dropped.get(member)!, kept);
  if (members.length >= Math.max(1, atLeast))
    return members.length === move.members.length ? move : { ...move, members };
  for (const member of members)
    keep(member, { kind: 'written seldom', times: members.length, atLeast }, kept);
  return undefined;
}

function keep({ carrier, units }: Member, reason: KeptReason, kept: Kept[]): void {
  for (const unit of units) kept.push({ carrier, unit, reason });
}

/** Finds the members whose move could have made the difference: on the element itself, else on the whole page. */
function blame(
  difference: Difference,
  after: SiteModel,
  moves: readonly Move[],
  dropped: Map<Member, KeptReason>,
): void {
  const reason: KeptReason = { kind: 'proof', detail: differenceText(difference) };
  const onPage = moves.flatMap(({ members }) =>
    members.filter(({ carrier }) => carrier.page.path === difference.page),
  );
  const page = after.page(difference.page);
  if (difference.kind === 'style' && page !== undefined) {
    // Elements keep their order; only links in the head shift them, so the tag is found by its number from the end.
    const fromEnd = page.elements.length - difference.element;
    const own = onPage.filter(({ carrier }) => {
      const { elements } = carrier.page;
      return elements[elements.length - fromEnd]?.tag === carrier.tag;
    });
    const meant = own.filter(({ units }) =>
      units.some(({ declarations }) =>
        declarations.some(({ property }) => difference.property.startsWith(property)),
      ),
    );
    for (const member of meant.length > 0 ? meant : own) dropped.set(member, reason);
    if (own.length > 0) return;
  }
  for (const member of onPage) dropped.set(member, reason);
}

/** One line: what differs, where, and which declarations decide. */
export function differenceText(difference: Difference): string {
  switch (difference.kind) {
    case 'page':
      return `${difference.page}: ${difference.what}`;
    case 'markup':
      return `${difference.page}: ${difference.what}`;
    case 'style': {
      const top = difference.after[0];
      const decided =
        top === undefined
          ? 'nothing sets it any more'
          : `${top.from} sets ${top.value}${top.condition === '' ? '' : ` when ${top.condition}`}`;
      return `${difference.property} of ${difference.shown}${difference.target} would change: ${decided}`;
    }
  }
}
