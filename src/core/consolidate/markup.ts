// Styling out of the markup: homes are searched, planned and proven; what the proof does not vouch for is searched again
// without it, and at last left where it is.

import { SiteModel } from '../cascade/index.js';
import { type NamedStyle, type PartNames, planEdits, type SitePlan, selectorsOf } from '../edits/index.js';
import type { SourceTag } from '../markup/index.js';
import { type Difference, differenceText, type Proof } from '../proof/index.js';
import {
  type Bans,
  findHomes,
  type Kept,
  type Member,
  type ScopeTaste,
  type Style,
  type Taste,
} from '../search/index.js';
import type { Carrier, KeptReason, SiteScripts } from '../stock/index.js';
import type { Judge } from './changes.js';

export interface MarkupOptions {
  /** Site path of the shared sheet. */
  readonly shared: string;
  readonly atLeast: number;
  readonly taste: Taste;
  readonly scope: ScopeTaste;
  readonly partNames: PartNames;
  /** Pages that must not link the shared sheet. */
  readonly apart: ReadonlySet<string>;
  /** Gives names to new classes, and takes out what a person has refused. */
  readonly decide: (styles: readonly Style[]) => Decided;
  readonly judge: Judge;
  readonly onRound?: (round: number) => void;
}

export interface Decided {
  readonly styles: readonly NamedStyle[];
  readonly kept: readonly Kept[];
}

export interface MarkupResult {
  readonly styles: readonly NamedStyle[];
  readonly kept: readonly Kept[];
  readonly plan: SitePlan;
  readonly after: SiteModel;
  /** Of the plan as it stands: without differences. */
  readonly proof: Proof;
}

/** So often the whole search is done again; after that, what differs is left where it is. */
const MOST_SEARCHES = 3;

export function consolidateMarkup(
  model: SiteModel,
  scripts: SiteScripts,
  carriers: readonly Carrier[],
  options: MarkupOptions,
): MarkupResult {
  const hooks = new Set<string>();
  const units = new Map<SourceTag, Map<string, KeptReason>>();
  const bans: Bans = { hooks, units };
  for (const { page, tag, units: own } of carriers) {
    if (!options.apart.has(page.path) || tag === undefined) continue;
    units.set(tag, new Map(own.map(({ key }) => [key, { kind: 'sheet kept out' }])));
  }
  const { atLeast, taste, scope } = options;
  let decided: Decided | undefined;
  let searched: readonly Kept[] = [];
  let last: SiteModel | undefined;
  for (let round = 1; ; round++) {
    options.onRound?.(round);
    if (decided === undefined || round <= MOST_SEARCHES) {
      const search = findHomes(model, scripts, carriers, { atLeast, taste, scope, bans });
      decided = options.decide(search.styles);
      searched = search.kept;
    } else decided = withoutBanned(decided, bans);
    const plan = planEdits(model, decided.styles, options.shared, options.partNames);
    const ban = ({ carrier, units: own }: Member, reason: KeptReason): void => {
      if (carrier.tag === undefined) return;
      const known = units.get(carrier.tag) ?? new Map<string, KeptReason>();
      units.set(carrier.tag, known);
      for (const { key } of own) known.set(key, reason);
    };
    for (const { member, reason } of plan.unwritten) ban(member, reason);
    if (plan.unwritten.length > 0) continue;
    const after = new SiteModel(plan.after, model.table, ...(last === undefined ? [model] : [model, last]));
    last = after;
    const proof = options.judge(model, after);
    if (proof.differences.length === 0)
      return { styles: decided.styles, kept: [...searched, ...decided.kept], plan, after, proof };
    const blamed = proof.differences.map((one) => blame(one, after, decided!.styles, ban, hooks));
    if (blamed.includes(true)) continue;
    // The plan differs where nothing was moved: nothing of it can be kept.
    const reason: KeptReason = { kind: 'proof', detail: differenceText(proof.differences[0]!) };
    for (const { members } of decided.styles) for (const member of members) ban(member, reason);
  }
}

/** What is left of the styles without what was banned. */
function withoutBanned({ styles, kept }: Decided, { hooks, units }: Bans): Decided {
  const gone: Kept[] = [];
  const left = styles.flatMap((style): NamedStyle[] => {
    const refused = selectorsOf(style).some((selector) =>
      style.keys.some((key) => hooks.has(`${selector}\0${key}`)),
    );
    const members = style.members.filter((member) => {
      const own = member.carrier.tag && units.get(member.carrier.tag);
      const banned = member.units.some(({ key }) => own?.has(key));
      if (!banned && !refused) return true;
      for (const unit of member.units) {
        const reason = own?.get(unit.key) ?? { kind: 'proof', detail: 'the selector would reach further' };
        gone.push({ carrier: member.carrier, unit, reason });
      }
      return false;
    });
    return members.length === 0
      ? []
      : [members.length === style.members.length ? style : { ...style, members }];
  });
  return { styles: left, kept: [...kept, ...gone] };
}

/** Finds what could have made the difference, and bans it. Out: whether anything was found. */
function blame(
  difference: Difference,
  after: SiteModel,
  styles: readonly NamedStyle[],
  ban: (member: Member, reason: KeptReason) => void,
  hooks: Set<string>,
): boolean {
  const reason: KeptReason = { kind: 'proof', detail: differenceText(difference) };
  const onPage = styles.flatMap(({ members }) =>
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
    for (const member of meant.length > 0 ? meant : own) ban(member, reason);
    if (own.length > 0) return true;
    const rules = new Set(difference.after.map(({ from }) => from));
    const reaching = styles.filter((style) => selectorsOf(style).some((selector) => rules.has(selector)));
    for (const style of reaching)
      for (const selector of selectorsOf(style))
        for (const key of style.keys) hooks.add(`${selector}\0${key}`);
    const asHooks = reaching.some(({ home }) => home.kind === 'existing hooks' || home.kind === 'position');
    for (const { home, members } of reaching)
      if (home.kind === 'new class') for (const member of members) ban(member, reason);
    if (asHooks || reaching.length > 0) return true;
  }
  // On a page where nothing moved, only the link to the shared sheet is new: components ask for it everywhere.
  const inComponents = styles.flatMap(({ members }) =>
    members.filter(({ carrier }) => carrier.page.kind === 'component'),
  );
  const meant = onPage.length > 0 ? onPage : inComponents;
  for (const member of meant) ban(member, reason);
  return meant.length > 0;
}
