// A home for everything that is written in the wrong place, in order of preference: already given, an existing class,
// existing hooks, a position, a new class; what is left stays, with the reason.

import { getOrInsert, newMap } from '../base/get-or-insert.js';
import { groupBy } from '../base/group-by.js';
import { type KeptReason, keptText } from '../base/reasons/index.js';
import type { SiteModel } from '../cascade/index.js';
import { inStandardWords } from '../read/hints/index.js';
import { type CarriedUnit, type Carrier, type SiteScripts, tagsOf } from '../stock/index.js';
import type { Trace } from '../stock/trace.js';
import { type ClassOptions, type ScopeTaste, takeClasses } from './by-classes.js';
import { type HookOptions, type HookRule, takeHooks } from './by-hooks.js';
import { takeKinds } from './by-kinds.js';
import { type Census, type ElementGroup, pagesHolding, takeCensus } from './census.js';
import type { Taste } from './cost.js';
import { takeExisting } from './existing.js';
import { takeGiven, takeNames } from './given.js';
import { type Home, type Kept, type Member, pagesOf, partOf, RuleOrder, type Style } from './home.js';
import { whyNoHook } from './instead.js';
import { mayMatchIn, mayMatchMade } from './made.js';
import { takePositions } from './positions.js';
import { ruleItem, unitItem } from './refusals.js';
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
  readonly strangers: readonly string[];
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
  carriers: readonly Carrier[],
  options: SearchOptions,
): Search {
  const { trace } = options;
  if (trace !== undefined)
    for (const carrier of carriers)
      for (const unit of carrier.units) if (trace.follows(carrier, unit)) trace.learn(unit.key);
  const banned = carriers.map((carrier) => withRefusals(carrier, options.refused));
  if (banned.every(({ units }) => units.every(({ objection }) => objection !== undefined)))
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
  readonly banned: readonly Carrier[];
  readonly census: Census;
  readonly options: SearchOptions;
  readonly trials: Trials;
  readonly order: RuleOrder;
  readonly hookOptions: HookOptions;
}

/** What the passes have found so far. */
interface FoundHomes {
  readonly given: ReturnType<typeof takeGiven>;
  readonly existing: ReturnType<typeof takeExisting>;
  readonly selectors: HookRule[];
  readonly positions: HookRule[];
  readonly classes: ReturnType<typeof takeClasses>;
  /** Why a class was not made. */
  readonly refused: Map<ElementGroup, Map<CarriedUnit, KeptReason>>;
}

type Pass = (task: Task, found: FoundHomes) => void;

/** In order of preference: each leaves less to the next. */
const PASSES: readonly Pass[] = [
  ({ census }, { given }) => given.push(...takeGiven(census)),
  ({ census, model, scripts, options }, { given, existing }) => {
    existing.push(...takeExisting(census, model, scripts, options.themes));
    // The parts of what wears a class now may have their styles by it.
    if (existing.length > 0) given.push(...takeGiven(census));
  },
  ({ census, hookOptions }, { selectors }) => selectors.push(...takeHooks(census, hookOptions)),
  ({ census, hookOptions }, { selectors, positions }) => {
    positions.push(...takePositions(census, hookOptions));
    // What a position sets apart is no obstacle any more.
    if (positions.length > 0) selectors.push(...takeHooks(census, hookOptions));
  },
  ({ census, hookOptions }, { selectors }) => selectors.push(...takeKinds(census, hookOptions)),
  (task, found) => found.classes.push(...takeClasses(task.census, classOptions(task, found))),
  (task, found) => {
    const { census, options, hookOptions, banned } = task;
    if (!options.outdated) return;
    const once = { atLeast: 1, keys: oldKeys(banned) };
    found.selectors.push(...takeHooks(census, { ...hookOptions, ...once }));
    found.classes.push(...takeClasses(census, { ...classOptions(task, found), ...once }));
  },
  ({ census }, { given }) => given.push(...takeNames(census)),
];

/** How a rule is tried, and which are not to be. */
function howToTry(
  model: SiteModel,
  scripts: SiteScripts,
  census: Census,
  { atLeast, shared, refused, strangers, trace }: SearchOptions,
): Pick<Task, 'trials' | 'order' | 'hookOptions'> {
  const trials = new Trials(model.table.truths, shared);
  const order = new RuleOrder();
  const made = scripts.madeOn(model.pages);
  const isUnseen = reachesUnseen(model, census);
  const hookOptions: HookOptions = {
    ...{ atLeast, trials, order, trace },
    isRefused: (selector, key) =>
      refused.has(ruleItem(selector, key)) ||
      isUnseen(selector) ||
      mayMatchMade(selector, made) ||
      strangers.some((text) => mayMatchIn(selector, text)),
    isMoved: (group) => [...pagesHolding(group, census)].some((page) => scripts.movesOn(page)),
  };
  return { trials, order, hookOptions };
}

function classOptions({ options, trials, order }: Task, { refused }: FoundHomes): ClassOptions {
  const { atLeast, taste, scope } = options;
  return {
    ...{ atLeast, taste, scope, trials, order },
    partOf: (units) => partOf(units.flatMap(({ declarations }) => declarations)),
    refuse: (group, units, reason) => {
      const known = getOrInsert(refused, group, newMap<CarriedUnit, KeptReason>);
      for (const unit of units) known.set(unit, reason);
    },
  };
}

/** What was found, as styles: their rules in the order in which they are to stand. */
function stylesOf({ census, trials, order }: Task, found: FoundHomes): Style[] {
  const selectors = grouped(found.selectors);
  const positions = grouped(found.positions);
  const given = [...groupBy(found.given, ({ unit }) => `${unit.from.kind} ${unit.key}`).values()].map(
    (group) => styleOf({ kind: 'already given' }, group, order.next('elements')),
  );
  const existing = [...groupBy(found.existing, ({ name }) => name).values()].map((uses) => {
    const [{ name, because, units }] = uses as [(typeof uses)[number]];
    const pairs = uses.flatMap(({ group, units: own }) => own.map((unit) => ({ group, unit })));
    return styleOf({ kind: 'existing class', name, because }, pairs, order.next('components'), units);
  });
  const classes = found.classes.map((rule): Style => {
    const pairs = rule.members.flatMap((group) =>
      rule.units.flatMap((unit) => unitsLike(group, unit).map((own) => ({ group, unit: own }))),
    );
    const style = styleOf({ kind: 'new class', scope: rule.scope }, pairs, rule.order, rule.units);
    const { strength, part, beats } = rule;
    return { ...style, strength, part, beats, instead: whyNoHook(census, rule, trials, order) };
  });
  return [...given, ...existing, ...[...selectors, ...positions].map(hookStyle), ...classes];
}

/** What stays where it is, with its reason. */
function keptOf({ census, banned }: Task, { refused }: FoundHomes): Kept[] {
  const left = census.groups.flatMap((group) =>
    group.carriers.flatMap((carrier) =>
      group.units.flatMap((unit, at): Kept[] => {
        if (!group.left.has(unit)) return [];
        const reason = unit.objection ?? refused.get(group)?.get(unit) ?? { kind: 'left over' };
        return [{ carrier, unit: carrier.units[at]!, reason }];
      }),
    ),
  );
  const counted = new Set(census.groups.flatMap((group) => group.carriers));
  return [...left, ...banned.filter((carrier) => !counted.has(carrier)).flatMap(keptWith)];
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

function keptWith(carrier: Carrier): Kept[] {
  return carrier.units.map((unit) => ({
    carrier,
    unit,
    reason: unit.objection ?? { kind: 'no tag of its own' },
  }));
}

function tellSearch(styles: readonly Style[], kept: readonly Kept[], trace: Trace): void {
  for (const { home, members } of styles)
    for (const { carrier, units } of members)
      if (units.some((unit) => trace.follows(carrier, unit)))
        trace.say(
          'search',
          `found a home: ${home.kind}${'selectors' in home ? ` ${home.selectors.join(', ')}` : ''}`,
        );
  for (const { carrier, unit, reason } of kept)
    if (trace.follows(carrier, unit)) trace.say('search', `stays: ${keptText(reason)}`);
}

/** What old attributes say. */
function oldKeys(carriers: readonly Carrier[]): Set<string> {
  const units = carriers.flatMap((carrier) => carrier.units);
  return new Set(units.flatMap(({ from, key }) => (from.kind === 'attributes' ? key : [])));
}

/** What only one page uses stands in that page's own block. */
function onItsPage(style: Style): Style {
  const pages = pagesOf(style.members.map(({ carrier }) => carrier));
  const page = style.members[0]?.carrier.page;
  const own = style.home.kind !== 'already given' && style.home.kind !== 'existing class';
  return own && pages.size === 1 && page?.kind === 'page' ? { ...style, page: page.path } : style;
}

/** Where no box stands in any of the elements, aligned text is written in the standard's words. */
function inPlainWords(style: Style, model: SiteModel): Style {
  const units = style.units.map((unit) => ({ ...unit, declarations: inStandardWords(unit.declarations) }));
  if (units.every((unit, at) => unit.declarations === style.units[at]!.declarations)) return style;
  const plain = style.members.every(
    ({ carrier: { page, element } }) =>
      element !== undefined && model.readersOf(page).every((reader) => reader.holdsTextOnly(element.index)),
  );
  return plain ? { ...style, units } : style;
}

function withRefusals(carrier: Carrier, refused: ReadonlyMap<string, KeptReason>): Carrier {
  const own = carrier.tag === undefined || refused.size === 0 ? undefined : refused;
  const partly =
    carrier.style !== undefined &&
    !carrier.style.literal &&
    carrier.units.some(({ from, objection }) => from.kind === 'style' && objection !== undefined);
  const touched = own !== undefined && carrier.units.some(({ key }) => own.has(unitItem(carrier, key)));
  if (!touched && !partly) return carrier;
  const units = carrier.units.map((unit): CarriedUnit => {
    const reason =
      unit.objection ??
      own?.get(unitItem(carrier, unit.key)) ??
      // Without a one-to-one source text a style attribute goes whole or not at all.
      (partly && unit.from.kind === 'style' ? ({ kind: 'character references' } as const) : undefined);
    return reason === undefined ? unit : { ...unit, objection: reason };
  });
  return { ...carrier, units };
}

/** Rules that say the same at the same strength are one rule with several selectors, where the first of them stands. */
function grouped(rules: readonly HookRule[]): HookRule[][] {
  const form = ({ says, part }: HookRule): string =>
    `${part}\0${says
      .map(({ unit }) => unit.key)
      .sort()
      .join('\n')}`;
  return [...groupBy(rules, form).values()];
}

function hookStyle(rules: readonly HookRule[]): Style {
  const [first] = rules;
  const pairs = rules.flatMap(({ says }) =>
    says.flatMap(({ unit, members }) =>
      members.flatMap((group) => unitsLike(group, unit).map((own) => ({ group, unit: own }))),
    ),
  );
  const kind = first!.part === 'positions' ? 'position' : 'existing hooks';
  const home: Home = { kind, selectors: rules.map(({ selector }) => selector) };
  const written = first!.says.map(({ unit }) => unit);
  return { ...styleOf(home, pairs, first!.order, written), strength: first!.strength, part: first!.part };
}

function unitsLike({ units }: ElementGroup, { key }: CarriedUnit): CarriedUnit[] {
  return units.filter((unit) => unit.key === key && unit.objection === undefined).slice(0, 1);
}

function styleOf(
  home: Home,
  pairs: readonly { readonly group: ElementGroup; readonly unit: CarriedUnit }[],
  order: number,
  written: readonly CarriedUnit[] = [],
): Style {
  const members = new Map<Carrier, CarriedUnit[]>();
  for (const { group, unit } of pairs) {
    const at = group.units.indexOf(unit);
    for (const carrier of group.carriers) {
      const own = members.get(carrier) ?? [];
      members.set(carrier, own);
      if (!own.includes(carrier.units[at]!)) own.push(carrier.units[at]!);
    }
  }
  const units = written.length > 0 ? written : pairs.slice(0, 1).map(({ unit }) => unit);
  return {
    home,
    strength: 'plain',
    keys: units.map(({ key }) => key).sort(),
    units,
    members: [...members].map(([carrier, own]) => ({ carrier, units: own })),
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
    (all, { carrier, units }) =>
      all + tagsOf(carrier) * units.reduce((some, unit) => some + writtenCount(unit), 0),
    0,
  );
}
