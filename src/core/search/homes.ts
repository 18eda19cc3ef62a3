// A home for everything that is written in the wrong place, in order of preference: already given, an existing class,
// existing hooks, a position, a new class; what is left stays, with the reason.

import type { SiteModel } from '../cascade/index.js';
import type { SourceTag } from '../markup/index.js';
import type { CarriedUnit, Carrier, KeptReason, SiteScripts } from '../stock/index.js';
import { type ScopeTaste, takeClasses } from './by-classes.js';
import { type HookRule, takeHooks } from './by-hooks.js';
import { type Kind, takeCensus } from './census.js';
import type { Taste } from './cost.js';
import { takeExisting } from './existing.js';
import { takeGiven, takeNames } from './given.js';
import { type Home, type Kept, type Member, partOf, RuleOrder, type Style } from './home.js';
import { whyNoHook } from './instead.js';
import { takePositions } from './positions.js';
import { Trials } from './trial.js';

/** What the proof has refused, or a person: not to be proposed again. */
export interface Bans {
  /** `selector` and unit key of rules on hooks. */
  readonly hooks: ReadonlySet<string>;
  /** Units that must stay on their tag, with the reason. */
  readonly units: ReadonlyMap<SourceTag, ReadonlyMap<string, KeptReason>>;
}

export interface SearchOptions {
  readonly atLeast: number;
  readonly taste: Taste;
  readonly scope: ScopeTaste;
  readonly bans: Bans;
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
  const banned = carriers.map((carrier) => withBans(carrier, options.bans));
  const census = takeCensus(model, banned);
  const trials = new Trials(model.table.truths);
  const order = new RuleOrder();
  const kept: Kept[] = [];
  const refused = new Map<Kind, Map<CarriedUnit, KeptReason>>();
  const styles: Style[] = [];
  const given = takeGiven(census);
  const existing = takeExisting(census, model, scripts);
  const hookOptions = {
    atLeast: options.atLeast,
    trials,
    order,
    isBanned: (selector: string, key: string) => options.bans.hooks.has(`${selector}\0${key}`),
  };
  const hooks = grouped(takeHooks(census, hookOptions));
  const positions = grouped(takePositions(census, hookOptions));
  const classes = takeClasses(census, {
    atLeast: options.atLeast,
    taste: options.taste,
    scope: options.scope,
    trials,
    order,
    partOf: (units) => partOf(units.flatMap(({ declarations }) => declarations)),
    refuse: (kind, units, reason) => {
      const known = refused.get(kind) ?? new Map<CarriedUnit, KeptReason>();
      for (const unit of units) known.set(unit, reason);
      refused.set(kind, known);
    },
  });
  given.push(...takeNames(census));
  for (const group of byKey(given, ({ unit }) => `${unit.from.kind} ${unit.key}`))
    styles.push(styleOf({ kind: 'already given' }, group, order.next('elements')));
  for (const group of byKey(existing, ({ name }) => name)) {
    const units = group[0]!.units;
    styles.push(
      styleOf(
        { kind: 'existing class', name: group[0]!.name },
        group.flatMap(({ kind, units: own }) => own.map((unit) => ({ kind, unit }))),
        order.next('components'),
        units,
      ),
    );
  }
  for (const rules of [...hooks, ...positions]) styles.push(hookStyle(rules));
  for (const rule of classes) {
    const pairs = rule.members.flatMap((kind) =>
      rule.units.flatMap((unit) => unitsLike(kind, unit).map((own) => ({ kind, unit: own }))),
    );
    const style = styleOf({ kind: 'new class', scope: rule.scope }, pairs, rule.order, rule.units);
    const { strength, part, beats } = rule;
    styles.push({ ...style, strength, part, beats, instead: whyNoHook(census, rule, trials, order) });
  }
  for (const kind of census.kinds) {
    const reasons = refused.get(kind);
    for (const carrier of kind.carriers) {
      kind.units.forEach((unit, at) => {
        if (!kind.left.has(unit)) return;
        const reason = unit.objection ?? reasons?.get(unit) ?? { kind: 'left over' };
        kept.push({ carrier, unit: carrier.units[at]!, reason });
      });
    }
  }
  const counted = new Set(census.kinds.flatMap((kind) => kind.carriers));
  for (const carrier of banned) {
    if (counted.has(carrier)) continue;
    for (const unit of carrier.units)
      kept.push({ carrier, unit, reason: unit.objection ?? { kind: 'no tag of its own' } });
  }
  if (options.scope === 'page') for (const [at, style] of styles.entries()) styles[at] = onItsPage(style);
  const taken = new Map(styles.map((style) => [style, takenOut(style.members)]));
  const bySaving = (a: Style, b: Style): number =>
    taken.get(b)! - taken.get(a)! || (a.keys.join() < b.keys.join() ? -1 : 1);
  return { styles: styles.filter(({ members }) => members.length > 0).sort(bySaving), kept };
}

/** What only one page uses stands in that page's own block. */
function onItsPage(style: Style): Style {
  const pages = new Set(style.members.map(({ carrier }) => carrier.page));
  const [page] = pages;
  const own = style.home.kind !== 'already given' && style.home.kind !== 'existing class';
  return own && pages.size === 1 && page?.kind === 'page' ? { ...style, page: page.path } : style;
}

function withBans(carrier: Carrier, { units: bans }: Bans): Carrier {
  const own = carrier.tag && bans.get(carrier.tag);
  const partly =
    carrier.style !== undefined &&
    !carrier.style.literal &&
    carrier.units.some(({ from, objection }) => from.kind === 'style' && objection !== undefined);
  if (own === undefined && !partly) return carrier;
  const units = carrier.units.map((unit): CarriedUnit => {
    const reason =
      unit.objection ??
      own?.get(unit.key) ??
      // Without a one-to-one source text a style attribute goes whole or not at all.
      (partly && unit.from.kind === 'style' ? ({ kind: 'character references' } as const) : undefined);
    return reason === undefined ? unit : { ...unit, objection: reason };
  });
  return { ...carrier, units };
}

function byKey<T>(items: readonly T[], keyOf: (item: T) => string): T[][] {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const group = groups.get(keyOf(item));
    if (group === undefined) groups.set(keyOf(item), [item]);
    else group.push(item);
  }
  return [...groups.values()];
}

/** Rules that say the same at the same strength are one rule with several selectors, where the first of them stands. */
function grouped(rules: readonly HookRule[]): HookRule[][] {
  return byKey(
    rules,
    ({ says, part }) =>
      `${part}\0${says
        .map(({ unit }) => unit.key)
        .sort()
        .join('\n')}`,
  );
}

function hookStyle(rules: readonly HookRule[]): Style {
  const [first] = rules;
  const pairs = rules.flatMap(({ says }) =>
    says.flatMap(({ unit, members }) =>
      members.flatMap((kind) => unitsLike(kind, unit).map((own) => ({ kind, unit: own }))),
    ),
  );
  const kind = first!.part === 'positions' ? 'position' : 'existing hooks';
  const home: Home = { kind, selectors: rules.map(({ selector }) => selector) };
  const written = first!.says.map(({ unit }) => unit);
  return { ...styleOf(home, pairs, first!.order, written), strength: first!.strength, part: first!.part };
}

function unitsLike({ units }: Kind, { key }: CarriedUnit): CarriedUnit[] {
  return units.filter((unit) => unit.key === key && unit.objection === undefined).slice(0, 1);
}

function styleOf(
  home: Home,
  pairs: readonly { readonly kind: Kind; readonly unit: CarriedUnit }[],
  order: number,
  written: readonly CarriedUnit[] = [],
): Style {
  const members = new Map<Carrier, CarriedUnit[]>();
  for (const { kind, unit } of pairs) {
    const at = kind.units.indexOf(unit);
    for (const carrier of kind.carriers) {
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
    (all, { units }) => all + units.reduce((some, unit) => some + writtenCount(unit), 0),
    0,
  );
}

/** How many places of upkeep a unit is: declarations of a style, or the attributes that say them. */
export function writtenCount({ from, declarations }: CarriedUnit): number {
  return from.kind === 'style' ? declarations.length : from.kind === 'name' ? 1 : from.names.length;
}
