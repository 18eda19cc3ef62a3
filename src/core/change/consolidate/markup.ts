// Styling out of the markup: homes are searched, planned and proven; what the proof does not vouch for is searched again
// without it, and at last left where it is.

import { addTo } from '../../base/group-by.js';
import { type KeptReason, keptText } from '../../base/reasons/index.js';
import { compileSelectorList, SiteModel } from '../../cascade/index.js';
import { planEdits, type SitePlan } from '../../edit/text/index.js';
import {
  type Difference,
  type Judge,
  type Planned,
  type Proof,
  proveAndTakeBack,
  type Refusals,
} from '../../proof/index.js';
import type { SourceTag } from '../../read/markup/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import { touches } from '../../read/sheets/touches.js';
import {
  type Decided,
  findHomes,
  type Kept,
  type Member,
  movableItem,
  type NamedStyle,
  ruleItem,
  rulesOf,
  type ScopeTaste,
  type Style,
  selectorsOf,
  type Taste,
} from '../../search/index.js';
import type { MovableDeclaration, SiteScripts, StyledTag } from '../../stock/index.js';
import type { Trace } from '../../stock/trace.js';
import { isInOwnBlock, OwnBlocks, ownBlockItem } from './own-blocks.js';

export interface MarkupOptions {
  /** Sheets that may be edited. */
  readonly themes: readonly string[];
  readonly shared: SharedSheet;
  readonly atLeast: number;
  /** Whether old attributes go at any count. */
  readonly outdated: boolean;
  readonly taste: Taste;
  readonly scope: ScopeTaste;
  /** Texts of documents that load the shared sheet and were not read. */
  readonly unreadDocuments: readonly string[];
  /** Gives names to new classes, and takes out what a person has refused. */
  readonly decide: (styles: readonly Style[]) => Decided;
  readonly judge: Judge;
  readonly onRound?: (round: number) => void;
  readonly trace?: Trace | undefined;
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

interface MarkupPlan extends Planned<string> {
  readonly decided: Decided;
  /** What the search itself left where it is. */
  readonly searched: readonly Kept[];
  readonly plan: SitePlan;
  readonly blame: () => Blame;
}

export function consolidateMarkup(
  model: SiteModel,
  scripts: SiteScripts,
  styledTags: readonly StyledTag[],
  options: MarkupOptions,
): MarkupResult {
  const { atLeast, outdated, taste, scope, trace, unreadDocuments } = options;
  const ownBlocks = new OwnBlocks(model);
  const searchOf = (refused: Refusals<string>): { decided: Decided; searched: readonly Kept[] } => {
    const search = findHomes(model, scripts, styledTags, {
      themes: [...options.themes, options.shared.path],
      shared: options.shared.path,
      atLeast,
      outdated,
      taste,
      scope,
      unreadDocuments,
      refused,
      trace,
    });
    return { decided: ownBlocks.placed(options.decide(search.styles), refused), searched: search.kept };
  };
  let found: { decided: Decided; searched: readonly Kept[] } | undefined;
  const { plan, proof } = proveAndTakeBack<string, MarkupPlan>({
    before: model,
    judge: options.judge,
    rounds: Number.POSITIVE_INFINITY,
    plan: (refused, last, round) => {
      options.onRound?.(round);
      found =
        found === undefined || round <= MOST_SEARCHES
          ? searchOf(refused)
          : { ...found, decided: ownBlocks.placed(withoutRefused(found.decided, refused), refused) };
      return planFound(model, found, options, last);
    },
    blame: (difference, { blame, decided }) => {
      if (isInOwnBlock(decided, difference.page)) return [ownBlockItem(difference.page)];
      const items = blame().of(difference);
      if (trace !== undefined)
        for (const { styledTag, movable } of blame().movablesOf(items))
          if (trace.follows(styledTag, movable)) trace.say('proof', `taken back: ${proofText(difference)}`);
      return items;
    },
  });
  const { decided, searched } = plan;
  return {
    styles: decided.styles,
    kept: [...searched, ...decided.kept],
    plan: plan.plan,
    after: plan.after,
    proof,
  };
}

function proofText(difference: Difference): string {
  return difference.kind === 'style'
    ? `${difference.property} of ${difference.shown} on ${difference.page} would change`
    : `${difference.page}: ${difference.what}`;
}

function planFound(
  model: SiteModel,
  { decided, searched }: { readonly decided: Decided; readonly searched: readonly Kept[] },
  { shared, trace }: MarkupOptions,
  last: SiteModel | undefined,
): MarkupPlan {
  const plan = planEdits(model, decided.styles, shared);
  const after = new SiteModel(plan.after, model.table, ...(last === undefined ? [model] : [model, last]));
  const items = decided.styles.flatMap(({ members }) => members.flatMap(itemsOf));
  const impossible = new Map<string, KeptReason>();
  for (const { member, reason } of plan.unwritten)
    for (const item of itemsOf(member)) impossible.set(item, reason);
  if (trace !== undefined) tellPlan(decided, plan, trace);
  let blame: Blame | undefined;
  const blameOnce = (): Blame => {
    blame ??= new Blame(decided.styles, after);
    return blame;
  };
  return { items, after, impossible, decided, searched, plan, blame: blameOnce };
}

function tellPlan({ styles, kept }: Decided, { edits }: SitePlan, trace: Trace): void {
  for (const style of styles)
    for (const { styledTag, movables } of style.members)
      for (const movable of movables)
        if (trace.follows(styledTag, movable))
          trace.say(
            'edits',
            `goes to ${selectorsOf(style).join(', ') || style.home.kind}; ${edits.get(styledTag.page.path)?.length ?? 0} edits in ${styledTag.page.path}`,
          );
  for (const { styledTag, movable, reason } of kept)
    if (trace.follows(styledTag, movable)) trace.say('draft', keptText(reason));
}

function itemsOf({ styledTag, movables }: Member): string[] {
  return styledTag.tag === undefined ? [] : movables.map(({ key }) => movableItem(styledTag, key));
}

/** What is left of the styles without what was refused. */
function withoutRefused({ styles, kept }: Decided, refused: Refusals<string>): Decided {
  const gone: Kept[] = [];
  const left = styles.flatMap((style): NamedStyle[] => {
    const reaches = selectorsOf(style).some((selector) =>
      style.keys.some((key) => refused.has(ruleItem(selector, key))),
    );
    const members = style.members.filter((member) => {
      const own = (key: string): KeptReason | undefined => refused.get(movableItem(member.styledTag, key));
      if (!reaches && !member.movables.some(({ key }) => own(key) !== undefined)) return true;
      for (const movable of member.movables) {
        const reason = own(movable.key) ?? { kind: 'proof', detail: 'the selector would reach further' };
        gone.push({ styledTag: member.styledTag, movable, reason });
      }
      return false;
    });
    if (members.length === 0) return [];
    return [members.length === style.members.length ? style : { ...style, members }];
  });
  return { styles: left, kept: [...kept, ...gone] };
}

/** Finds what could have made each difference. */
class Blame {
  readonly #byPage = new Map<string, Member[]>();
  readonly #byTag = new Map<SourceTag, Member[]>();
  readonly #bySelector = new Map<string, NamedStyle[]>();
  readonly #inComponents: Member[] = [];
  readonly #members = new Map<string, Member>();
  readonly #done = new Set<string>();
  readonly #after: SiteModel;

  constructor(styles: readonly NamedStyle[], after: SiteModel) {
    this.#after = after;
    for (const style of styles) {
      for (const { selectors } of rulesOf(style))
        for (const selector of selectors.flatMap(asRead)) addTo(this.#bySelector, selector, style);
      for (const member of style.members) {
        const { page, tag } = member.styledTag;
        addTo(this.#byPage, page.path, member);
        if (tag !== undefined) addTo(this.#byTag, tag, member);
        if (page.kind === 'component') this.#inComponents.push(member);
        for (const item of itemsOf(member)) this.#members.set(item, member);
      }
    }
  }

  /** The movable declarations behind items. */
  movablesOf(items: readonly string[]): { styledTag: StyledTag; movable: Member['movables'][number] }[] {
    return items.flatMap((item) => {
      const member = this.#members.get(item);
      return (member?.movables ?? []).map((movable) => ({ styledTag: member!.styledTag, movable }));
    });
  }

  /** The items to take back; empty where none is known, or a page was blamed as a whole already. */
  of(difference: Difference): string[] {
    const onPage = this.#byPage.get(difference.page) ?? [];
    const page = this.#after.page(difference.page);
    if (difference.kind === 'style' && page !== undefined) {
      const tag = this.#tagOf(onPage, page.elements.length - difference.element);
      const own = tag === undefined ? [] : (this.#byTag.get(tag) ?? []);
      const meant = own.filter(({ movables }) =>
        movables.some((movable) => says(movable, difference.property)),
      );
      if (meant.length > 0) return meant.flatMap(itemsOf);
      const rules = this.#rulesOf(difference);
      if (rules.length > 0) return rules;
      if (own.length > 0) return own.flatMap(itemsOf);
    }
    // On a page where nothing moved, only the link to the shared sheet is new: components ask for it everywhere.
    const meant = onPage.length > 0 ? onPage : this.#inComponents;
    const key = onPage.length > 0 ? difference.page : '';
    if (this.#done.has(key)) return [];
    this.#done.add(key);
    return meant.flatMap(itemsOf);
  }

  /** Elements keep their order; only links in the head shift them, so the tag is found by its number from the end. */
  #tagOf([first]: readonly Member[], fromEnd: number): SourceTag | undefined {
    const elements = first?.styledTag.page.elements;
    return elements?.[elements.length - fromEnd]?.tag;
  }

  /** The rules of ours that decide. */
  #rulesOf({ after, property }: Extract<Difference, { kind: 'style' }>): string[] {
    return after
      .flatMap(({ from }) => this.#bySelector.get(from) ?? [])
      .flatMap((style) => {
        const meant = style.movables.filter((movable) => says(movable, property)).map(({ key }) => key);
        const keys = meant.length > 0 ? meant : style.keys;
        const members = style.home.kind === 'new class' ? style.members : [];
        return [
          ...selectorsOf(style).flatMap((selector) => keys.map((key) => ruleItem(selector, key))),
          ...members.flatMap(({ styledTag, movables }) =>
            itemsOf({ styledTag, movables: movables.filter(({ key }) => keys.includes(key)) }),
          ),
        ];
      });
  }
}

/** A selector in the words in which a difference names it. */
function asRead(selector: string): string[] {
  const list = compileSelectorList(selector);
  return list.kind === 'list' ? list.selectors.map(({ text }) => text) : [selector];
}

/** Whether a movable declaration affects a property of its element, or of the cells of its table. */
function says({ declarations, cells = [] }: MovableDeclaration, property: string): boolean {
  return [...declarations, ...cells].some((one) => touches(property, one.property));
}
