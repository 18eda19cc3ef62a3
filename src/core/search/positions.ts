// The fourth home: a position among siblings. Period and offset are found in where the elements stand.

import { ONE_CLASS } from '../cascade/index.js';
import type { CarriedUnit } from '../stock/index.js';
import { type HookOptions, type HookRule, selectorText, sizeOf } from './by-hooks.js';
import type { Census, ElementGroup } from './census.js';
import { type Hook, hookOf, hooksOf, partsOf } from './hooks.js';
import { elementCount, freeUnit, isFree, looksTheSame, reachOf, rulesFor, settle } from './reach.js';
import { areRivals } from './rivals.js';
import { PATTERNS, type Pattern, type SiblingPlace, siblingPlaces } from './sibling-places.js';

const MOST_BASES = 12;
/** From so many elements on, a place is no chance by itself. */
const MANY = 3;

export function takePositions(census: Census, options: HookOptions): HookRule[] {
  const taken: HookRule[] = [];
  const least = Math.max(2, options.atLeast);
  for (const key of repeatedKeys(census, least)) {
    for (const base of basesFor(census, key, options)) {
      const carrying = elementCount(base.groups.filter((group) => freeUnit(group, key) !== undefined));
      if (carrying < least) continue;
      const rule = tryBase(census, base, key, options);
      if (rule !== undefined) taken.push(rule);
    }
  }
  return taken;
}

/** The units that still stand on most elements. */
function repeatedKeys(census: Census, least: number): string[] {
  const counts = new Map<string, number>();
  for (const group of census.groups)
    for (const unit of group.left)
      if (isFree(unit) && unit.cells === undefined)
        counts.set(unit.key, (counts.get(unit.key) ?? 0) + group.count * sizeOf(unit));
  return [...counts]
    .filter(([, count]) => count >= least)
    .sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1))
    .slice(0, 60)
    .map(([key]) => key);
}

interface Base {
  readonly hook: Hook;
  readonly groups: readonly ElementGroup[];
}

/** Hooks around the elements that say it: those that take in most of them, then the simplest. */
function basesFor(census: Census, key: string, { isMoved }: HookOptions): Base[] {
  const counts = new Map<string, number>();
  for (const group of census.groups) {
    if (freeUnit(group, key) === undefined) continue;
    for (const text of hooksOf(group)) counts.set(text, (counts.get(text) ?? 0) + group.count);
  }
  return (
    [...counts]
      // The first box of a block is whatever stands there first.
      .filter(([text]) => !/(?:^|[ >])(?:div|span|section|article)(?![\w-])/.test(text))
      // A position is one in something; where nothing has a name, one among all will do.
      .sort(
        ([a, x], [b, y]) =>
          Number(isBare(a)) - Number(isBare(b)) || y - x || partsOf(a) - partsOf(b) || (a < b ? -1 : 1),
      )
      .slice(0, MOST_BASES)
      .flatMap(([text]): Base[] => {
        const hook = hookOf(text);
        const reached = hook === undefined ? [] : reachOf(hook, census);
        // Where a script puts elements in or in another order, a style goes with its element, and a position does not.
        if (hook === undefined || reached.some(({ group, unsure }) => unsure || isMoved(group))) return [];
        return [{ hook, groups: reached.map(({ group }) => group) }];
      })
  );
}

function isBare(text: string): boolean {
  return !/[.#]|^(main|header|footer|nav|aside|form) /.test(text);
}

/** What is counted: the elements themselves, or something around each of them. */
interface Level {
  readonly depth: number;
  readonly selector: (pattern: string) => string;
}

function levelsOf({ hook, groups }: Base, { parent }: ElementGroup): Level[] {
  const { text } = hook;
  const levels: Level[] = [{ depth: 0, selector: (pattern) => `${text}${pattern}` }];
  const name = parent?.element.name;
  const at = text.lastIndexOf(' ') + 1;
  // `.list td` becomes `.list tr:first-child > td`.
  if (name !== undefined && /^(tr|li|ul|ol|dl)$/.test(name) && !text.includes('>'))
    levels.push({
      depth: 1,
      selector: (pattern) => `${text.slice(0, at)}${name}${pattern} > ${text.slice(at)}`,
    });
  // `.tile .dot` becomes `.tile:nth-child(odd) .dot`.
  const scope = /^\.([\w-]+) [^ ]+$/.exec(text)?.[1];
  const depth = scope === undefined ? undefined : commonDepth(groups, scope);
  if (scope !== undefined && depth !== undefined)
    levels.push({ depth, selector: (pattern) => `.${scope}${pattern} ${text.slice(at)}` });
  return levels;
}

/** How many steps above each of the elements the class stands, where that is the same for all. */
function commonDepth(groups: readonly ElementGroup[], name: string): number | undefined {
  let common: number | undefined;
  for (const group of groups) {
    let depth = 1;
    let around = group.parent;
    while (around !== undefined && !around.element.classes.includes(name)) {
      depth++;
      around = around.parent;
    }
    if (around === undefined || (common !== undefined && common !== depth)) return undefined;
    common = depth;
  }
  return common;
}

function tryBase(census: Census, base: Base, key: string, options: HookOptions): HookRule | undefined {
  const first = base.groups.find((group) => freeUnit(group, key) !== undefined);
  if (first === undefined) return undefined;
  const specificity = base.hook.selector.specificity + ONE_CLASS;
  const asked = ask(base, key, specificity, options);
  if (asked === undefined || elementCount(asked.members) < Math.max(2, options.atLeast)) return undefined;
  for (const level of levelsOf(base, first)) {
    const places = siblingPlaces(census, [...asked.members, ...asked.harmed], level.depth);
    if (places === undefined) continue;
    const pattern = PATTERNS.find(
      (one) => (isTelling(one) || !isBare(base.hook.text)) && fits([one], asked, [places]),
    );
    const text = pattern && level.selector(pattern.text);
    const hook = text === undefined ? undefined : hookOf(text);
    if (pattern === undefined || hook === undefined || options.isRefused(hook.text, key)) continue;
    if (!isNoChance(pattern, asked, base, places)) continue;
    return write(census, { base, hook, spots: [{ pattern, depth: level.depth }] }, asked, options);
  }
  return inRowAndPlace(census, base, asked, options);
}

/** `.list tr:last-child > td:nth-child(odd)`: a place in a row that has a place itself. */
function inRowAndPlace(census: Census, base: Base, asked: Asked, options: HookOptions): HookRule | undefined {
  const name = asked.members[0]?.parent?.element.name;
  const { text } = base.hook;
  if (name === undefined || !/^(tr|li|ul|ol)$/.test(name) || text.includes('>') || isBare(text))
    return undefined;
  const groups = [...asked.members, ...asked.harmed];
  const [own, around] = [siblingPlaces(census, groups, 0), siblingPlaces(census, groups, 1)];
  if (own === undefined || around === undefined) return undefined;
  const at = text.lastIndexOf(' ') + 1;
  for (const outer of PATTERNS.filter(isTelling))
    for (const inner of PATTERNS.filter(isTelling)) {
      if (!fits([outer, inner], asked, [around, own]) || !isNoChance(inner, asked, base, own)) continue;
      const hook = hookOf(`${text.slice(0, at)}${name}${outer.text} > ${text.slice(at)}${inner.text}`);
      if (hook === undefined || options.isRefused(hook.text, asked.unit.key)) continue;
      const spots = [
        { pattern: outer, depth: 1 },
        { pattern: inner, depth: 0 },
      ];
      return write(census, { base, hook, spots }, asked, options);
    }
  return undefined;
}

/** Stripes, turns and ends: those say what they mean. */
function isTelling({ period, countsAll }: Pattern): boolean {
  return period > 0 || !countsAll;
}

/** A place that only one row of siblings shows is chance; where all of a row stand in turn, twice round is enough. */
function isNoChance(
  { period }: Pattern,
  { members, unit }: Asked,
  { groups }: Base,
  places: readonly SiblingPlace[],
): boolean {
  const own = places.filter(({ group }) => members.includes(group));
  const rows = new Set(own.map(({ row }) => row));
  const count = elementCount(members);
  if (count > MANY || (count === MANY && rows.size > 1)) return true;
  const properties = propertiesOf(unit);
  const allTell =
    groups.every(({ units }) => units.some((one) => propertiesOf(one) === properties)) ||
    groups.every((group) => members.includes(group) || saysItsOwn(group, members));
  return period > 0 && allTell && own.every(({ length }) => length >= 2 * period);
}

/** Whether a group says something that those of the position do not. */
function saysItsOwn({ units }: ElementGroup, members: readonly ElementGroup[]): boolean {
  const theirs = new Set(members.flatMap((member) => member.units.map(({ key }) => key)));
  return units.some(({ key }) => !theirs.has(key));
}

function propertiesOf({ declarations }: CarriedUnit): string {
  return declarations.map(({ property }) => property).join();
}

/** What a rule on one unit would come to, wherever it stood. */
interface Asked {
  readonly unit: CarriedUnit;
  readonly members: readonly ElementGroup[];
  readonly harmed: readonly ElementGroup[];
}

function ask(base: Base, key: string, specificity: number, options: HookOptions): Asked | undefined {
  const unit = base.groups.flatMap((group) => freeUnit(group, key) ?? [])[0];
  if (unit === undefined) return undefined;
  const rules = rulesFor([unit], specificity, options.order.peek('positions'), options.trials);
  const members: ElementGroup[] = [];
  const harmed: ElementGroup[] = [];
  for (const group of base.groups) {
    const mine = freeUnit(group, key);
    if (mine !== undefined && looksTheSame(group, [mine], rules)) members.push(group);
    else if (!looksTheSame(group, [], rules) || isAlike(group, unit)) harmed.push(group);
  }
  return { unit, members, harmed };
}

/** Whether a group says something else of the same: its own would have to stay to shield it. */
function isAlike({ left }: ElementGroup, unit: CarriedUnit): boolean {
  return [...left].some(
    (one) => isFree(one) && one.key !== unit.key && propertiesOf(one) === propertiesOf(unit),
  );
}

/** In: for each pattern where the same elements stand, in the same order. */
function fits(
  patterns: readonly Pattern[],
  { members, harmed }: Asked,
  places: readonly (readonly SiblingPlace[])[],
): boolean {
  const isTaken = (at: number): boolean => patterns.every(({ takes }, i) => takes(places[i]![at]!.place));
  return places[0]!.every(({ group }, at) => {
    if (harmed.includes(group)) return !isTaken(at);
    if (!members.includes(group)) return true;
    return isTaken(at) && patterns.every(({ countsAll }, i) => !countsAll || places[i]![at]!.even);
  });
}

/** A selector with a position in it, and what it was made of. */
interface Positioned {
  readonly base: Base;
  readonly hook: Hook;
  /** What is counted, and how many steps above the elements. */
  readonly spots: readonly { readonly pattern: Pattern; readonly depth: number }[];
}

/** One rule for all units that stand in the same places. */
function write(
  census: Census,
  { base, hook, spots }: Positioned,
  found: Asked,
  options: HookOptions,
): HookRule | undefined {
  const { specificity } = hook.selector;
  const says: Asked[] = [];
  const keys = new Set(base.groups.flatMap(({ left }) => [...left].filter(isFree).map(({ key }) => key)));
  for (const key of [found.unit.key, ...[...keys].sort()]) {
    if (says.some(({ unit }) => unit.key === key) || options.isRefused(hook.text, key)) continue;
    const asked = ask(base, key, specificity, options);
    if (asked === undefined || elementCount(asked.members) < Math.max(2, options.atLeast)) continue;
    if (asked.unit.cells !== undefined || says.some(({ unit }) => areRivals(unit, asked.unit))) continue;
    const groups = [...asked.members, ...asked.harmed];
    const places = spots.flatMap(({ depth }) => {
      const found = siblingPlaces(census, groups, depth);
      return found === undefined ? [] : [found];
    });
    const patterns = spots.map(({ pattern }) => pattern);
    if (places.length === spots.length && fits(patterns, asked, places)) says.push(asked);
  }
  if (says.length === 0) return undefined;
  const order = options.order.next('positions');
  for (const { unit, members, harmed } of says) {
    const rules = rulesFor([unit], specificity, order, options.trials);
    for (const group of base.groups) {
      const mine = members.includes(group) ? freeUnit(group, unit.key) : undefined;
      if (mine !== undefined) settle(group, [mine], rules);
      else if (!harmed.includes(group)) settle(group, [], rules);
    }
  }
  return {
    selector: selectorText(hook.text, 'plain'),
    strength: 'plain',
    says: says.map(({ unit, members }) => ({ unit, strength: 'plain', members })),
    part: 'positions',
    order,
  };
}
