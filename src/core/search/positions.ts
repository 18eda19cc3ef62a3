// The fourth home: a position among siblings. Period and offset are found in where the elements stand.

import { ONE_CLASS } from '../cascade/index.js';
import type { Page, PageElement } from '../markup/index.js';
import type { CarriedUnit } from '../stock/index.js';
import { type HookOptions, type HookRule, selectorText, sizeOf } from './by-hooks.js';
import type { Census, ElementGroup } from './census.js';
import { type Hook, hookOf, hooksOf, partsOf } from './hooks.js';
import { freeUnit, isFree, looksTheSame, reachOf, rulesFor, settle, sum } from './reach.js';
import { areRivals } from './rivals.js';

/** Numbers among the siblings, from both ends, from 1. */
type Place = readonly [fromStart: number, fromEnd: number];

/** A pseudo-class on the element itself or on its parent, and which numbers it takes. */
interface Pattern {
  readonly text: string;
  readonly takes: (place: Place) => boolean;
}

const LONGEST_PERIOD = 8;

/** The simplest first. */
const PATTERNS: readonly Pattern[] = [
  { text: ':first-child', takes: ([start]) => start === 1 },
  { text: ':last-child', takes: ([, end]) => end === 1 },
  { text: ':nth-child(odd)', takes: ([start]) => start % 2 === 1 },
  { text: ':nth-child(even)', takes: ([start]) => start % 2 === 0 },
  ...[2, 3].map((from) => ({ text: `:nth-child(n+${from})`, takes: ([start]: Place) => start >= from })),
  ...[2, 3, 4].map((at) => ({ text: `:nth-child(${at})`, takes: ([start]: Place) => start === at })),
  ...[2].map((at) => ({ text: `:nth-last-child(${at})`, takes: ([, end]: Place) => end === at })),
  ...periods(),
];

function periods(): Pattern[] {
  const found: Pattern[] = [];
  for (let period = 3; period <= LONGEST_PERIOD; period++) {
    for (let offset = 1; offset <= period; offset++)
      found.push({
        text: `:nth-child(${period}n${offset === period ? '' : `+${offset}`})`,
        takes: ([start]) => start % period === offset % period,
      });
  }
  return found;
}

/** Where one element stands: its own place, and its parent's. */
interface SiblingPlace {
  readonly group: ElementGroup;
  readonly own: Place;
  readonly above: Place;
  /** Whether all siblings have one name, or are cells. */
  readonly even: { readonly own: boolean; readonly above: boolean };
  /** Names the row of siblings. */
  readonly row: number;
}

const MOST_BASES = 12;

export function takePositions(census: Census, options: HookOptions): HookRule[] {
  const taken: HookRule[] = [];
  const least = Math.max(3, options.atLeast);
  for (const key of repeatedKeys(census, least)) {
    for (const base of basesFor(census, key, options)) {
      const carrying = sum(base.groups.filter((group) => freeUnit(group, key) !== undefined));
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
  return [...counts]
    .sort(([a, x], [b, y]) => y - x || partsOf(a) - partsOf(b) || (a < b ? -1 : 1))
    .slice(0, MOST_BASES)
    .flatMap(([text]): Base[] => {
      const hook = hookOf(text);
      const reached = hook === undefined ? [] : reachOf(hook, census);
      // Where a script puts elements in or in another order, a style goes with its element, and a position does not.
      if (hook === undefined || reached.some(({ group, unsure }) => unsure || isMoved(group))) return [];
      return [{ hook, groups: reached.map(({ group }) => group) }];
    });
}

function tryBase(census: Census, base: Base, key: string, options: HookOptions): HookRule | undefined {
  const first = base.groups.find((group) => freeUnit(group, key) !== undefined);
  if (first === undefined) return undefined;
  const specificity = base.hook.selector.specificity + ONE_CLASS;
  const asked = ask(base, key, specificity, options);
  if (asked === undefined || sum(asked.members) < Math.max(3, options.atLeast)) return undefined;
  const places = siblingPlaces(census, [...asked.members, ...asked.harmed]);
  if (places === undefined) return undefined;
  // A place that only one row of siblings shows is chance.
  const showing = new Set(places.filter(({ group }) => asked.members.includes(group)).map(({ row }) => row));
  if (showing.size < 2 && sum(asked.members) < 4) return undefined;
  for (const level of ['own', 'above'] as const) {
    const pattern = PATTERNS.find((one) => fits(one, level, asked, places));
    const text = pattern && positioned(base.hook.text, level, pattern.text, first);
    const hook = text === undefined ? undefined : hookOf(text);
    if (pattern === undefined || hook === undefined || options.isRefused(hook.text, key)) continue;
    return write(census, { base, hook, pattern, level }, asked, options);
  }
  return undefined;
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
    else if (!looksTheSame(group, [], rules)) harmed.push(group);
  }
  return { unit, members, harmed };
}

function fits(
  { text, takes }: Pattern,
  level: 'own' | 'above',
  { members, harmed }: Asked,
  places: readonly SiblingPlace[],
): boolean {
  const ends = /first|last/.test(text);
  return places.every((one) => {
    if (harmed.includes(one.group)) return !takes(one[level]);
    // Counting means something where things of one kind stand in a row.
    return !members.includes(one.group) || (takes(one[level]) && (ends || one.even[level]));
  });
}

/** One rule for all units that stand in the same places. */
/** A selector with a position in it, and what it was made of. */
interface Positioned {
  readonly base: Base;
  readonly hook: Hook;
  readonly pattern: Pattern;
  readonly level: 'own' | 'above';
}

function write(
  census: Census,
  { base, hook, pattern, level }: Positioned,
  found: Asked,
  options: HookOptions,
): HookRule | undefined {
  const { specificity } = hook.selector;
  const says: Asked[] = [];
  const keys = new Set(base.groups.flatMap(({ left }) => [...left].filter(isFree).map(({ key }) => key)));
  for (const key of [found.unit.key, ...[...keys].sort()]) {
    if (says.some(({ unit }) => unit.key === key) || options.isRefused(hook.text, key)) continue;
    const asked = ask(base, key, specificity, options);
    if (asked === undefined || sum(asked.members) < Math.max(3, options.atLeast)) continue;
    if (asked.unit.cells !== undefined || says.some(({ unit }) => areRivals(unit, asked.unit))) continue;
    const places = siblingPlaces(census, [...asked.members, ...asked.harmed]);
    if (places !== undefined && fits(pattern, level, asked, places)) says.push(asked);
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

/** `.list td` becomes `.list td:first-child`, or `.list tr:first-child > td`. */
function positioned(
  hook: string,
  level: 'own' | 'above',
  pattern: string,
  { parent }: ElementGroup,
): string | undefined {
  if (level === 'own') return `${hook}${pattern}`;
  const name = parent?.element.name;
  if (name === undefined || hook.includes('>')) return undefined;
  const at = hook.lastIndexOf(' ') + 1;
  return `${hook.slice(0, at)}${name}${pattern} > ${hook.slice(at)}`;
}

interface Rows {
  readonly ofGroup: Map<ElementGroup, readonly SiblingPlace[] | undefined>;
  /** By page number and parent. */
  readonly rows: Map<number, { readonly length: number; readonly even: boolean }>;
}

const known = new WeakMap<Census, Rows>();

/** Every element of the groups; `undefined` where template text may put others between them. */
function siblingPlaces(census: Census, groups: readonly ElementGroup[]): SiblingPlace[] | undefined {
  const rows: Rows = known.get(census) ?? { ofGroup: new Map(), rows: new Map() };
  known.set(census, rows);
  const found: SiblingPlace[] = [];
  for (const group of groups) {
    if (!rows.ofGroup.has(group)) rows.ofGroup.set(group, placesOfGroup(census, group, rows));
    const own = rows.ofGroup.get(group);
    if (own === undefined) return undefined;
    for (const one of own) found.push(one);
  }
  return found;
}

function placesOfGroup({ pages }: Census, group: ElementGroup, rows: Rows): SiblingPlace[] | undefined {
  const found: SiblingPlace[] = [];
  const parentName = group.parent?.element.name;
  for (let i = 0; i < group.members.length; i += 2) {
    const pageNumber = group.members[i]!;
    const page = pages[pageNumber]!;
    const element = page.elements[group.members[i + 1]!]!;
    const parent = page.elements[element.parent];
    const grand = parent && page.elements[parent.parent];
    if (parent === undefined || parent.hasTemplateText || grand?.hasTemplateText === true) return undefined;
    if (parent.name !== parentName) return undefined;
    const own = rowOf(page, pageNumber, element, rows);
    const above = rowOf(page, pageNumber, parent, rows);
    found.push({
      group,
      own: [element.position, own.length - element.position + 1],
      above: [parent.position, above.length - parent.position + 1],
      even: { own: own.even, above: above.even },
      row: pageNumber * MOST_ELEMENTS + element.parent,
    });
  }
  return found;
}

/** More than any page has: a page's number and an element's make one number. */
const MOST_ELEMENTS = 2 ** 26;

/** How many siblings stand in an element's row, and whether they are of one kind. */
function rowOf(
  page: Page,
  pageNumber: number,
  element: PageElement,
  { rows }: Rows,
): { readonly length: number; readonly even: boolean } {
  const key = pageNumber * MOST_ELEMENTS + element.parent + 1;
  let row = rows.get(key);
  if (row === undefined) {
    let name: string | undefined;
    let even = true;
    let length = 0;
    const first = element.parent < 0 ? element.index : page.elements[element.parent]!.firstChild;
    for (let at = first; at >= 0; at = page.elements[at]!.next) {
      length++;
      const own = page.elements[at]!.name === 'th' ? 'td' : page.elements[at]!.name;
      even &&= name === undefined || name === own;
      name = own;
    }
    row = { length, even };
    rows.set(key, row);
  }
  return row;
}
