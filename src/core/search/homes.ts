// A home for everything that is written in the wrong place, in order of preference: already given, an existing class,
// existing selectors, a position, a new class; what is left stays, with the reason.

import { getOrInsert, newMap } from '../base/get-or-insert.js';
import { groupBy } from '../base/group-by.js';
import { type KeptReason, keptText } from '../base/reasons/index.js';
import type { SiteModel } from '../cascade/index.js';
import { inStandardWords } from '../read/hints/index.js';
import { type MovableDeclaration, type SiteScripts, type StyledTag, tagsOf } from '../stock/index.js';
import type { Trace } from '../stock/trace.js';
import { type ClassOptions, type ScopeTaste, takeClasses } from './by-classes.js';
import { takeKinds } from './by-kinds.js';
import { type SelectorOptions, type SelectorRule, takeSelectors } from './by-selectors.js';
import { type Census, type ElementGroup, pagesHolding, takeCensus } from './census.js';
import type { Taste } from './cost.js';
import { takeExisting } from './existing.js';
import { takeGiven, takeNames } from './given.js';
import { type Home, type Kept, type Member, pagesOf, partOf, RuleOrder, type Style } from './home.js';
import { whyNoSelector } from './instead.js';
import { mayMatchIn, mayMatchMade } from './made.js';
import { takePositions } from './positions.js';
import { movableItem, ruleItem } from './refusals.js';
import { Trials } from './trial.js';
import { reachesUnseen } from './unseen.js';
import { writtenCount } from './written-count.js';

export interface SearchOptions {
  /** Sheets that a developer owns. */
  readonly themes: readonly string[];
  /** Site path of the sheet that new rules go into. */
  readonly shared: string;
  readonly atLeast: number;
  /** Whether old attributes go at any count. */
  readonly outdated: boolean;
  readonly taste: Taste;
  readonly scope: ScopeTaste;
  /** What the proof has taken back: not to be proposed again. See `refusals.ts`. */
  readonly refused: ReadonlyMap<string, KeptReason>;
  /** Texts of documents that load the shared sheet and were not read. */
  readonly unreadDocuments: readonly string[];
  readonly trace?: Trace | undefined;
}

export interface Search {
  /** Most declarations taken out first. */
  readonly styles: readonly Style[];
  readonly kept: readonly Kept[];
}

/** In: a site, its scripts, and all tags that carry styling. Out: the same for the same input on any machine. */
export function findHomes(
  model: SiteModel,
  scripts: SiteScripts,
  styledTags: readonly StyledTag[],
  options: SearchOptions,
): Search {
  const { trace } = options;
  if (trace !== undefined)
    for (const styledTag of styledTags)
      for (const movable of styledTag.movables)
        if (trace.follows(styledTag, movable)) trace.learn(movable.key);
  const banned = styledTags.map((styledTag) => withRefusals(styledTag, options.refused));
  if (banned.every(({ movables }) => movables.every(({ objection }) => objection !== undefined)))
    return { styles: [], kept: banned.flatMap(keptWith) };
  const census = takeCensus(model, banned);
  const task: Task = {
    model,
    scripts,
    banned,
    census,
    options,
    ...howToTry(model, scripts, census, options),
  };
  const found: FoundHomes = {
    given: [],
    existing: [],
    selectors: [],
    positions: [],
    classes: [],
    refused: new Map(),
  };
  for (const pass of PASSES) pass(task, found);
  const styles = stylesOf(task, found)
    .map((style) => inPlainWords(style, model))
    .map((style) => (options.scope === 'page' ? onItsPage(style) : style));
  const kept = keptOf(task, found);
  if (trace !== undefined) tellSearch(styles, kept, trace);
  return {
    styles: mostFirst(styles.filter(({ members }) => members.length > 0)),
    kept: kept.filter(isWritten),
  };
}

interface Task {
  readonly model: SiteModel;
  readonly scripts: SiteScripts;
  /** Tags with what the proof has taken back refused. */
  readonly banned: readonly StyledTag[];
  readonly census: Census;
  readonly options: SearchOptions;
  readonly trials: Trials;
  readonly order: RuleOrder;
  readonly selectorOptions: SelectorOptions;
}

/** What the passes have found so far. */
interface FoundHomes {
  readonly given: ReturnType<typeof takeGiven>;
  readonly existing: ReturnType<typeof takeExisting>;
  readonly selectors: SelectorRule[];
  readonly positions: SelectorRule[];
  readonly classes: ReturnType<typeof takeClasses>;
  /** Why a class was not made. */
  readonly refused: Map<ElementGroup, Map<MovableDeclaration, KeptReason>>;
}

type Pass = (task: Task, found: FoundHomes) => void;

/** In order of preference: each leaves less to the next. */
const PASSES: readonly Pass[] = [
  ({ census }, found) => found.given.push(...takeGiven(census, refuseIn(found))),
  ({ census, model, scripts, options }, found) => {
    found.existing.push(...takeExisting(census, model, scripts, options.themes));
    // The parts of what has a class now may have their styles by it.
    if (found.existing.length > 0) found.given.push(...takeGiven(census, refuseIn(found)));
  },
  ({ census, selectorOptions }, { selectors }) => selectors.push(...takeSelectors(census, selectorOptions)),
  ({ census, selectorOptions }, { selectors, positions }) => {
    positions.push(...takePositions(census, selectorOptions));
    // What a position sets apart is no obstacle any more.
    if (positions.length > 0) selectors.push(...takeSelectors(census, selectorOptions));
  },
  ({ census, selectorOptions }, { selectors }) => selectors.push(...takeKinds(census, selectorOptions)),
  (task, found) => found.classes.push(...takeClasses(task.census, classOptions(task, found))),
  (task, found) => {
    const { census, options, selectorOptions, banned } = task;
    if (!options.outdated) return;
    const once = { atLeast: 1, keys: oldKeys(banned) };
    found.selectors.push(...takeSelectors(census, { ...selectorOptions, ...once }));
    found.classes.push(...takeClasses(census, { ...classOptions(task, found), ...once }));
  },
  ({ census }, { given }) => given.push(...takeNames(census)),
];

/** How a rule is tried, and which are not to be. */
function howToTry(
  model: SiteModel,
  scripts: SiteScripts,
  census: Census,
  { atLeast, shared, refused, unreadDocuments, trace }: SearchOptions,
): Pick<Task, 'trials' | 'order' | 'selectorOptions'> {
  const trials = new Trials(model.table.truths, shared);
  const order = new RuleOrder();
  const made = scripts.madeOn(model.pages);
  const isUnseen = reachesUnseen(model, census);
  const selectorOptions: SelectorOptions = {
    ...{ atLeast, trials, order, trace },
    isRefused: (selector, key) =>
      refused.has(ruleItem(selector, key)) ||
      isUnseen(selector) ||
      mayMatchMade(selector, made) ||
      unreadDocuments.some((text) => mayMatchIn(selector, text)),
    isMoved: (group) => [...pagesHolding(group, census)].some((page) => scripts.movesOn(page)),
  };
  return { trials, order, selectorOptions };
}

function refuseIn({ refused }: FoundHomes) {
  return (group: ElementGroup, movable: MovableDeclaration, reason: KeptReason): void => {
    getOrInsert(refused, group, newMap<MovableDeclaration, KeptReason>).set(movable, reason);
  };
}

function classOptions({ options, trials, order }: Task, found: FoundHomes): ClassOptions {
  const { atLeast, taste, scope } = options;
  const refuse = refuseIn(found);
  return {
    ...{ atLeast, taste, scope, trials, order },
    partOf: (movables) => partOf(movables.flatMap(({ declarations }) => declarations)),
    refuse: (group, movables, reason) => {
      for (const movable of movables) refuse(group, movable, reason);
    },
  };
}

/** What was found, as styles: their rules in the order in which they are to stand. */
function stylesOf({ census, trials, order }: Task, found: FoundHomes): Style[] {
  const selectors = grouped(found.selectors);
  const positions = grouped(found.positions);
  const given = [
    ...groupBy(found.given, ({ movable }) => `${movable.from.kind} ${movable.key}`).values(),
  ].map((group) => styleOf({ kind: 'already given' }, group, order.next('elements')));
  const existing = [...groupBy(found.existing, ({ name }) => name).values()].map((uses) => {
    const [{ name, because, movables }] = uses as [(typeof uses)[number]];
    const pairs = uses.flatMap(({ group, movables: own }) => own.map((movable) => ({ group, movable })));
    return styleOf({ kind: 'existing class', name, because }, pairs, order.next('components'), movables);
  });
  const classes = found.classes.map((rule): Style => {
    const pairs = rule.members.flatMap((group) =>
      rule.movables.flatMap((movable) =>
        movablesLike(group, movable).map((own) => ({ group, movable: own })),
      ),
    );
    const style = styleOf({ kind: 'new class', scope: rule.scope }, pairs, rule.order, rule.movables);
    const { strength, part, beats } = rule;
    return { ...style, strength, part, beats, instead: whyNoSelector(census, rule, trials, order) };
  });
  return [...given, ...existing, ...[...selectors, ...positions].map(selectorStyle), ...classes];
}

/** What stays where it is, with its reason. */
function keptOf({ census, banned }: Task, { refused }: FoundHomes): Kept[] {
  const left = census.groups.flatMap((group) =>
    group.styledTags.flatMap((styledTag) =>
      group.movables.flatMap((movable, at): Kept[] => {
        if (!group.left.has(movable)) return [];
        const reason = movable.objection ?? refused.get(group)?.get(movable) ?? { kind: 'left over' };
        return [{ styledTag, movable: styledTag.movables[at]!, reason }];
      }),
    ),
  );
  const counted = new Set(census.groups.flatMap((group) => group.styledTags));
  return [...left, ...banned.filter((styledTag) => !counted.has(styledTag)).flatMap(keptWith)];
}

function mostFirst(styles: readonly Style[]): Style[] {
  const taken = new Map(styles.map((style) => [style, takenOut(style.members)]));
  return [...styles].sort(
    (a, b) => taken.get(b)! - taken.get(a)! || (a.keys.join() < b.keys.join() ? -1 : 1),
  );
}

function isWritten({ reason }: Kept): boolean {
  return reason.kind !== 'said by code';
}

function keptWith(styledTag: StyledTag): Kept[] {
  return styledTag.movables.map((movable) => ({
    styledTag,
    movable,
    reason: movable.objection ?? { kind: 'no tag of its own' },
  }));
}

function tellSearch(styles: readonly Style[], kept: readonly Kept[], trace: Trace): void {
  for (const { home, members } of styles)
    for (const { styledTag, movables } of members)
      if (movables.some((movable) => trace.follows(styledTag, movable)))
        trace.say(
          'search',
          `found a home: ${home.kind}${'selectors' in home ? ` ${home.selectors.join(', ')}` : ''}`,
        );
  for (const { styledTag, movable, reason } of kept)
    if (trace.follows(styledTag, movable)) trace.say('search', `stays: ${keptText(reason)}`);
}

/** What old attributes declare. */
function oldKeys(styledTags: readonly StyledTag[]): Set<string> {
  const movables = styledTags.flatMap((styledTag) => styledTag.movables);
  return new Set(movables.flatMap(({ from, key }) => (from.kind === 'attributes' ? key : [])));
}

/** What only one page uses stands in that page's own block. */
function onItsPage(style: Style): Style {
  const pages = pagesOf(style.members.map(({ styledTag }) => styledTag));
  const page = style.members[0]?.styledTag.page;
  const own = style.home.kind !== 'already given' && style.home.kind !== 'existing class';
  return own && pages.size === 1 && page?.kind === 'page' ? { ...style, page: page.path } : style;
}

/** Where no box stands in any of the elements, aligned text is written in the standard's words. */
function inPlainWords(style: Style, model: SiteModel): Style {
  const movables = style.movables.map((movable) => ({
    ...movable,
    declarations: inStandardWords(movable.declarations),
  }));
  if (movables.every((movable, at) => movable.declarations === style.movables[at]!.declarations))
    return style;
  const plain = style.members.every(
    ({ styledTag: { page, element } }) =>
      element !== undefined && model.readersOf(page).every((reader) => reader.holdsTextOnly(element.index)),
  );
  return plain ? { ...style, movables } : style;
}

function withRefusals(styledTag: StyledTag, refused: ReadonlyMap<string, KeptReason>): StyledTag {
  const own = styledTag.tag === undefined || refused.size === 0 ? undefined : refused;
  const partly =
    styledTag.style !== undefined &&
    !styledTag.style.literal &&
    styledTag.movables.some(({ from, objection }) => from.kind === 'style' && objection !== undefined);
  const touched =
    own !== undefined && styledTag.movables.some(({ key }) => own.has(movableItem(styledTag, key)));
  if (!touched && !partly) return styledTag;
  const movables = styledTag.movables.map((movable): MovableDeclaration => {
    const reason =
      movable.objection ??
      own?.get(movableItem(styledTag, movable.key)) ??
      // Without a one-to-one source text a style attribute goes whole or not at all.
      (partly && movable.from.kind === 'style' ? ({ kind: 'character references' } as const) : undefined);
    return reason === undefined ? movable : { ...movable, objection: reason };
  });
  return { ...styledTag, movables };
}

/** Rules that declare the same at the same strength are one rule with several selectors, where the first of them stands. */
function grouped(rules: readonly SelectorRule[]): SelectorRule[][] {
  const form = ({ says, part }: SelectorRule): string =>
    `${part}\0${says
      .map(({ movable }) => movable.key)
      .sort()
      .join('\n')}`;
  return [...groupBy(rules, form).values()];
}

function selectorStyle(rules: readonly SelectorRule[]): Style {
  const [first] = rules;
  const pairs = rules.flatMap(({ says }) =>
    says.flatMap(({ movable, members }) =>
      members.flatMap((group) => movablesLike(group, movable).map((own) => ({ group, movable: own }))),
    ),
  );
  const kind = first!.part === 'positions' ? 'position' : 'existing selector';
  const home: Home = { kind, selectors: rules.map(({ selector }) => selector) };
  const written = first!.says.map(({ movable }) => movable);
  return { ...styleOf(home, pairs, first!.order, written), strength: first!.strength, part: first!.part };
}

function movablesLike({ movables }: ElementGroup, { key }: MovableDeclaration): MovableDeclaration[] {
  return movables.filter((movable) => movable.key === key && movable.objection === undefined).slice(0, 1);
}

function styleOf(
  home: Home,
  pairs: readonly { readonly group: ElementGroup; readonly movable: MovableDeclaration }[],
  order: number,
  written: readonly MovableDeclaration[] = [],
): Style {
  const members = new Map<StyledTag, MovableDeclaration[]>();
  for (const { group, movable } of pairs) {
    const at = group.movables.indexOf(movable);
    for (const styledTag of group.styledTags) {
      const own = members.get(styledTag) ?? [];
      members.set(styledTag, own);
      if (!own.includes(styledTag.movables[at]!)) own.push(styledTag.movables[at]!);
    }
  }
  const movables = written.length > 0 ? written : pairs.slice(0, 1).map(({ movable }) => movable);
  return {
    home,
    strength: 'plain',
    keys: movables.map(({ key }) => key).sort(),
    movables,
    members: [...members].map(([styledTag, own]) => ({ styledTag, movables: own })),
    part: 'components',
    page: undefined,
    order,
    instead: undefined,
    beats: undefined,
  };
}

/** Declarations, or old attributes, that one style takes out of the markup. */
export function takenOut(members: readonly Member[]): number {
  return members.reduce(
    (all, { styledTag, movables }) =>
      all + tagsOf(styledTag) * movables.reduce((some, movable) => some + writtenCount(movable), 0),
    0,
  );
}
