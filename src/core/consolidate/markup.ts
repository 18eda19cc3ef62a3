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
    const blame = new Blame(decided.styles, after, ban, hooks);
    if (proof.differences.filter((one) => blame.assign(one)).length > 0) continue;
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

/** Finds what could have made each difference, and bans it. */
class Blame {
  readonly #byPage = new Map<string, Member[]>();
  readonly #byTag = new Map<SourceTag, Member[]>();
  readonly #bySelector = new Map<string, NamedStyle[]>();
  readonly #inComponents: Member[] = [];
  readonly #done = new Set<string>();
  readonly #after: SiteModel;
  readonly #ban: (member: Member, reason: KeptReason) => void;
  readonly #hooks: Set<string>;

  constructor(
    styles: readonly NamedStyle[],
    after: SiteModel,
    ban: (member: Member, reason: KeptReason) => void,
    hooks: Set<string>,
  ) {
    this.#after = after;
    this.#ban = ban;
    this.#hooks = hooks;
    for (const style of styles) {
      for (const selector of selectorsOf(style)) note(this.#bySelector, selector, style);
      for (const member of style.members) {
        const { page, tag } = member.carrier;
        note(this.#byPage, page.path, member);
        if (tag !== undefined) note(this.#byTag, tag, member);
        if (page.kind === 'component') this.#inComponents.push(member);
      }
    }
  }

  /** Out: whether anything was found. */
  assign(difference: Difference): boolean {
    const reason: KeptReason = { kind: 'proof', detail: differenceText(difference) };
    const onPage = this.#byPage.get(difference.page) ?? [];
    const page = this.#after.page(difference.page);
    if (difference.kind === 'style' && page !== undefined) {
      const tag = this.#tagOf(onPage, page.elements.length - difference.element);
      const own = tag === undefined ? [] : (this.#byTag.get(tag) ?? []);
      const meant = own.filter(({ units }) =>
        units.some(({ declarations }) =>
          declarations.some(({ property }) => difference.property.startsWith(property)),
        ),
      );
      for (const member of meant.length > 0 ? meant : own) this.#ban(member, reason);
      if (own.length > 0 || this.#banRules(difference, reason)) return true;
    }
    // On a page where nothing moved, only the link to the shared sheet is new: components ask for it everywhere.
    const meant = onPage.length > 0 ? onPage : this.#inComponents;
    const key = onPage.length > 0 ? difference.page : '';
    if (!this.#done.has(key)) for (const member of meant) this.#ban(member, reason);
    this.#done.add(key);
    return meant.length > 0;
  }

  /** Elements keep their order; only links in the head shift them, so the tag is found by its number from the end. */
  #tagOf([first]: readonly Member[], fromEnd: number): SourceTag | undefined {
    const elements = first?.carrier.page.elements;
    return elements?.[elements.length - fromEnd]?.tag;
  }

  /** Bans the rules of ours that decide. */
  #banRules({ after }: Extract<Difference, { kind: 'style' }>, reason: KeptReason): boolean {
    const reaching = after.flatMap(({ from }) => this.#bySelector.get(from) ?? []);
    for (const style of reaching) {
      for (const selector of selectorsOf(style))
        for (const key of style.keys) this.#hooks.add(`${selector}\0${key}`);
      if (style.home.kind === 'new class') for (const member of style.members) this.#ban(member, reason);
    }
    return reaching.length > 0;
  }
}

function note<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const known = map.get(key);
  if (known === undefined) map.set(key, [value]);
  else known.push(value);
}
