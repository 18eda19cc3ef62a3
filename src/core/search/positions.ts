// The fourth home: a position among siblings. Period and offset are found in where the elements stand.

import { ONE_CLASS } from '../cascade/index.js';
import type { MovableDeclaration } from '../stock/index.js';
import { type SelectorOptions, type SelectorRule, selectorText, sizeOf } from './by-selectors.js';
import type { Census, ElementGroup } from './census.js';
import {
  type ExistingSelector,
  existingSelectorOf,
  existingSelectorsOf,
  partsOf,
} from './existing-selectors.js';
import { elementCount, freeMovable, isFree, looksTheSame, reachOf, rulesFor, settle } from './reach.js';
import { areRivals } from './rivals.js';
import { PATTERNS, type Pattern, type SiblingPlace, siblingPlaces } from './sibling-places.js';

const MOST_BASES = 12;
/** From so many elements on, a place is no chance by itself. */
const MANY = 3;

export function takePositions(census: Census, options: SelectorOptions): SelectorRule[] {
  const taken: SelectorRule[] = [];
  const least = Math.max(2, options.atLeast);
  for (const key of repeatedKeys(census, least)) {
    for (const base of basesFor(census, key, options)) {
      const carrying = elementCount(base.groups.filter((group) => freeMovable(group, key) !== undefined));
      if (carrying < least) continue;
      const rule = tryBase(census, base, key, options);
      if (rule !== undefined) taken.push(rule);
    }
  }
  return taken;
}

/** The movable declarations that still stand on most elements. */
function repeatedKeys(census: Census, least: number): string[] {
  const counts = new Map<string, number>();
  for (const group of census.groups)
    for (const movable of group.left)
      if (isFree(movable) && movable.cells === undefined)
        counts.set(movable.key, (counts.get(movable.key) ?? 0) + group.count * sizeOf(movable));
  return [...counts]
    .filter(([, count]) => count >= least)
    .sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1))
    .slice(0, 60)
    .map(([key]) => key);
}

interface Base {
  readonly existingSelector: ExistingSelector;
  readonly groups: readonly ElementGroup[];
}

/** Hooks around the elements that declare it: those that take in most of them, then the simplest. */
function basesFor(census: Census, key: string, { isMoved }: SelectorOptions): Base[] {
  const counts = new Map<string, number>();
  for (const group of census.groups) {
    if (freeMovable(group, key) === undefined) continue;
    for (const text of existingSelectorsOf(group)) counts.set(text, (counts.get(text) ?? 0) + group.count);
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
        const existingSelector = existingSelectorOf(text);
        const reached = existingSelector === undefined ? [] : reachOf(existingSelector, census);
        // Where a script puts elements in or in another order, a style goes with its element, and a position does not.
        if (existingSelector === undefined || reached.some(({ group, unsure }) => unsure || isMoved(group)))
          return [];
        return [{ existingSelector, groups: reached.map(({ group }) => group) }];
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

function levelsOf({ existingSelector, groups }: Base, { parent }: ElementGroup): Level[] {
  const { text } = existingSelector;
  const levels: Level[] = [{ depth: 0, selector: (pattern) => `${text}${pattern}` }];
  const name = parent?.element.name;
  const at = text.lastIndexOf(' ') + 1;
  // `.list td` becomes `.list tr:first-child > td`.
  if (name !== undefined && ['tr', 'li', 'ul', 'ol', 'dl'].includes(name) && !text.includes('>'))
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

function tryBase(
  census: Census,
  base: Base,
  key: string,
  options: SelectorOptions,
): SelectorRule | undefined {
  const first = base.groups.find((group) => freeMovable(group, key) !== undefined);
  if (first === undefined) return undefined;
  const specificity = base.existingSelector.selector.specificity + ONE_CLASS;
  const asked = ask(base, key, specificity, options);
  if (asked === undefined || elementCount(asked.members) < Math.max(2, options.atLeast)) return undefined;
  for (const level of levelsOf(base, first)) {
    const places = siblingPlaces(census, [...asked.members, ...asked.harmed], level.depth);
    if (places === undefined) continue;
    const pattern = PATTERNS.find(
      (one) => (isTelling(one) || !isBare(base.existingSelector.text)) && fits([one], asked, [places]),
    );
    const text = pattern && level.selector(pattern.text);
    const existingSelector = text === undefined ? undefined : existingSelectorOf(text);
    if (
      pattern === undefined ||
      existingSelector === undefined ||
      options.isRefused(existingSelector.text, key)
    )
      continue;
    if (!isNoChance(pattern, asked, base, places)) continue;
    return write(
      census,
      { base, existingSelector, spots: [{ pattern, depth: level.depth }] },
      asked,
      options,
    );
  }
  return inRowAndPlace(census, base, asked, options);
}

/** `.list tr:last-child > td:nth-child(odd)`: a place in a row that has a place itself. */
function inRowAndPlace(
  census: Census,
  base: Base,
  asked: Asked,
  options: SelectorOptions,
): SelectorRule | undefined {
  const name = asked.members[0]?.parent?.element.name;
  const { text } = base.existingSelector;
  if (name === undefined || !['tr', 'li', 'ul', 'ol'].includes(name) || text.includes('>') || isBare(text))
    return undefined;
  const groups = [...asked.members, ...asked.harmed];
  const [own, around] = [siblingPlaces(census, groups, 0), siblingPlaces(census, groups, 1)];
  if (own === undefined || around === undefined) return undefined;
  const at = text.lastIndexOf(' ') + 1;
  for (const outer of PATTERNS.filter(isTelling))
    for (const inner of PATTERNS.filter(isTelling)) {
      if (!fits([outer, inner], asked, [around, own]) || !isNoChance(inner, asked, base, own)) continue;
      const existingSelector = existingSelectorOf(
        `${text.slice(0, at)}${name}${outer.text} > ${text.slice(at)}${inner.text}`,
      );
      if (existingSelector === undefined || options.isRefused(existingSelector.text, asked.movable.key))
        continue;
      const spots = [
        { pattern: outer, depth: 1 },
        { pattern: inner, depth: 0 },
      ];
      return write(census, { base, existingSelector, spots }, asked, options);
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
  { members, movable }: Asked,
  { groups }: Base,
  places: readonly SiblingPlace[],
): boolean {
  const own = places.filter(({ group }) => members.includes(group));
  const rows = new Set(own.map(({ row }) => row));
  const count = elementCount(members);
  if (count > MANY || (count === MANY && rows.size > 1)) return true;
  const properties = propertiesOf(movable);
  const allTell =
    groups.every(({ movables }) => movables.some((one) => propertiesOf(one) === properties)) ||
    groups.every((group) => members.includes(group) || saysItsOwn(group, members));
  return period > 0 && allTell && own.every(({ length }) => length >= 2 * period);
}

/** Whether a group declares something that those of the position do not. */
function saysItsOwn({ movables }: ElementGroup, members: readonly ElementGroup[]): boolean {
  const theirs = new Set(members.flatMap((member) => member.movables.map(({ key }) => key)));
  return movables.some(({ key }) => !theirs.has(key));
}

function propertiesOf({ declarations }: MovableDeclaration): string {
  return declarations.map(({ property }) => property).join();
}

/** What a rule on one movable declaration would come to, wherever it stood. */
interface Asked {
  readonly movable: MovableDeclaration;
  readonly members: readonly ElementGroup[];
  readonly harmed: readonly ElementGroup[];
}

function ask(base: Base, key: string, specificity: number, options: SelectorOptions): Asked | undefined {
  const movable = base.groups.flatMap((group) => freeMovable(group, key) ?? [])[0];
  if (movable === undefined) return undefined;
  const rules = rulesFor([movable], specificity, options.order.peek('positions'), options.trials);
  const members: ElementGroup[] = [];
  const harmed: ElementGroup[] = [];
  for (const group of base.groups) {
    const mine = freeMovable(group, key);
    if (mine !== undefined && looksTheSame(group, [mine], rules)) members.push(group);
    else if (!looksTheSame(group, [], rules) || isAlike(group, movable)) harmed.push(group);
  }
  return { movable, members, harmed };
}

/** Whether a group declares something else of the same: its own would have to stay to shield it. */
function isAlike({ left }: ElementGroup, movable: MovableDeclaration): boolean {
  return [...left].some(
    (one) => isFree(one) && one.key !== movable.key && propertiesOf(one) === propertiesOf(movable),
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
  readonly existingSelector: ExistingSelector;
  /** What is counted, and how many steps above the elements. */
  readonly spots: readonly { readonly pattern: Pattern; readonly depth: number }[];
}

/** One rule for all movable declarations that stand in the same places. */
function write(
  census: Census,
  { base, existingSelector, spots }: Positioned,
  found: Asked,
  options: SelectorOptions,
): SelectorRule | undefined {
  const { specificity } = existingSelector.selector;
  const says: Asked[] = [];
  const keys = new Set(base.groups.flatMap(({ left }) => [...left].filter(isFree).map(({ key }) => key)));
  for (const key of [found.movable.key, ...[...keys].sort()]) {
    if (says.some(({ movable }) => movable.key === key) || options.isRefused(existingSelector.text, key))
      continue;
    const asked = ask(base, key, specificity, options);
    if (asked === undefined || elementCount(asked.members) < Math.max(2, options.atLeast)) continue;
    if (asked.movable.cells !== undefined || says.some(({ movable }) => areRivals(movable, asked.movable)))
      continue;
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
  for (const { movable, members, harmed } of says) {
    const rules = rulesFor([movable], specificity, order, options.trials);
    for (const group of base.groups) {
      const mine = members.includes(group) ? freeMovable(group, movable.key) : undefined;
      if (mine !== undefined) settle(group, [mine], rules);
      else if (!harmed.includes(group)) settle(group, [], rules);
    }
  }
  return {
    selector: selectorText(existingSelector.text, 'plain'),
    strength: 'plain',
    says: says.map(({ movable, members }) => ({ movable, strength: 'plain', members })),
    part: 'positions',
    order,
  };
}
