// The fifth home: new classes, for what elements that nothing else tells apart have in common.

import type { KeptReason } from '../base/reasons/index.js';
import { ONE_CLASS, ONE_ID, placeInSource, specificityParts } from '../cascade/index.js';
import { expandDeclaration, interactionGroup } from '../read/sheets/index.js';
import type { Part } from '../read/sheets/shared-sheet.js';
import { type MovableDeclaration, tagsOf } from '../stock/index.js';
import { sizeOf } from './by-selectors.js';
import { type Census, type ElementGroup, idOf } from './census.js';
import type { Row, Taste } from './cost.js';
import { coverRows } from './cover.js';
import type { RuleOrder } from './home.js';
import { isLookName, saysLittle } from './look-names.js';
import { elementCount, freeMovable, isFree, looksTheSame, rulesFor, type Strength, settle } from './reach.js';
import type { Trials } from './trial.js';
import { writtenCount } from './written-count.js';

export interface ClassRule {
  readonly strength: Strength;
  /** A selector around all members: an id, where only an id is strong enough, or the body class of their section. */
  readonly scope: string | undefined;
  readonly movables: readonly MovableDeclaration[];
  readonly members: readonly ElementGroup[];
  readonly part: Part;
  readonly order: number;
  readonly beats: StrongerRule | undefined;
}

/** How far a rule should be written to reach: the site, the section of the site, the page that uses it. */
export type ScopeTaste = 'site' | 'section' | 'page';

export type StrongerRule = Extract<KeptReason, { kind: 'stronger rule' }>;

export interface ClassOptions {
  readonly atLeast: number;
  readonly taste: Taste;
  readonly scope: ScopeTaste;
  /** Only these are looked at. */
  readonly keys?: ReadonlySet<string> | undefined;
  readonly trials: Trials;
  readonly order: RuleOrder;
  /** The part of the sheet for a set of declarations. */
  readonly partOf: (movables: readonly MovableDeclaration[]) => Part;
  /** Tells why a group cannot wear a class. */
  readonly refuse: (group: ElementGroup, movables: readonly MovableDeclaration[], reason: KeptReason) => void;
}

export function takeClasses(census: Census, options: ClassOptions): ClassRule[] {
  const isMeant = (movable: MovableDeclaration): boolean =>
    isFree(movable) && (options.keys?.has(movable.key) ?? true);
  const groups = census.groups.filter(({ left }) => [...left].some(isMeant));
  const counts = new Map<string, number>();
  const everywhere = new Map<string, number>();
  for (const group of census.groups)
    for (const { key } of group.movables)
      everywhere.set(key, (everywhere.get(key) ?? 0) + styledTagsIn(group));
  const sizes = new Map<string, number>();
  const keysOf = new Map<ElementGroup, string[]>();
  for (const group of groups) {
    const keys = [...new Set([...group.left].filter(isMeant).map((movable) => movable.key))].sort();
    keysOf.set(group, keys);
    for (const key of keys) {
      counts.set(key, (counts.get(key) ?? 0) + styledTagsIn(group));
      sizes.set(key, sizeOf(freeMovable(group, key)!));
    }
  }
  const rows = new Map<string, { keys: string[]; count: number; groups: ElementGroup[] }>();
  for (const group of groups) {
    const keys = keysOf.get(group)!.filter((key) => counts.get(key)! >= options.atLeast);
    for (const key of keysOf.get(group)!) {
      if (keys.includes(key)) continue;
      const movable = freeMovable(group, key)!;
      options.refuse(group, [movable], whyNoClass(group, movable, everywhere.get(key)!, options.atLeast));
    }
    if (keys.length === 0) continue;
    const row = rows.get(keys.join('\n'));
    if (row === undefined) rows.set(keys.join('\n'), { keys, count: styledTagsIn(group), groups: [group] });
    else {
      row.count += styledTagsIn(group);
      row.groups.push(group);
    }
  }
  const list = [...rows.values()];
  const cover = coverRows(list, options.taste, (key) => sizes.get(key) ?? 1, options.atLeast);
  const wearers = cover.styles.map((): ElementGroup[] => []);
  cover.worn.forEach((styles, row) => {
    for (const style of styles) wearers[style]!.push(...list[row]!.groups);
    noteLeftOver(
      list[row]!,
      styles.map((style) => cover.styles[style]!),
      options,
    );
  });
  return cover.styles
    .map((keys, style) => ({ keys, groups: wearers[style]! }))
    .sort((a, b) => savingOf(b) - savingOf(a) || (a.keys.join() < b.keys.join() ? -1 : 1))
    .flatMap(({ keys, groups: own }) => settleClass([...keys], own, options) ?? []);
}

/** What stands on its own has no class; what others declare too has lost them to a rule that is too weak here. */
function whyNoClass(
  group: ElementGroup,
  movable: MovableDeclaration,
  tags: number,
  atLeast: number,
): KeptReason {
  // Parts of tags, where a build makes several of one.
  const times = Math.max(1, Math.round(tags));
  if (times < atLeast && times === 1) return { kind: 'written once' };
  if (times < atLeast) return { kind: 'written seldom', times, atLeast };
  return strongerRule(group, [movable], ONE_CLASS) ?? { kind: 'left over' };
}

/** Tags that carry it: a group of elements that were made from another's tag has none. */
function styledTagsIn({ styledTags }: ElementGroup): number {
  return styledTags.reduce((all, styledTag) => all + tagsOf(styledTag), 0);
}

function savingOf({
  keys,
  groups,
}: {
  readonly keys: readonly string[];
  readonly groups: readonly ElementGroup[];
}): number {
  return keys.length * elementCount(groups);
}

function noteLeftOver(
  { keys, groups }: Row & { readonly groups: readonly ElementGroup[] },
  styles: readonly (readonly string[])[],
  { refuse }: ClassOptions,
): void {
  const bare = keys.filter((key) => !styles.some((style) => style.includes(key)));
  if (bare.length === 0) return;
  for (const group of groups)
    refuse(
      group,
      bare.flatMap((key) => freeMovable(group, key) ?? []),
      { kind: 'left over' },
    );
}

/** Finds the weakest selector that wins on most members, and settles it there. */
function settleClass(
  keys: readonly string[],
  groups: readonly ElementGroup[],
  options: ClassOptions,
): ClassRule | undefined {
  const [first] = groups;
  if (first === undefined) return undefined;
  const movables = keys.flatMap((key) => freeMovable(first, key) ?? []);
  const part = options.partOf(movables);
  const scope = commonScope(groups);
  const onlyHints = groups.every((group) =>
    keys.every((key) => freeMovable(group, key)?.from.kind !== 'style'),
  );
  let best: { choice: Choice; prefix: string; served: ElementGroup[] } | undefined;
  const section = options.scope === 'site' ? undefined : commonSection(groups);
  const prefixes = { none: '', id: scope, section, around: commonAround(groups) };
  const choices = section === undefined ? CHOICES : [IN_SECTION, ...CHOICES];
  for (const choice of choices) {
    const prefix = prefixes[choice.prefix];
    if (prefix === undefined || (choice.strength === 'weak' && !onlyHints)) continue;
    const { specificity } = choice;
    const order = options.order.peek(isOverride(choice) ? 'overrides' : part);
    const rules = rulesFor(movables, specificity, order, options.trials);
    const served = groups.filter((group) => looksTheSame(group, movablesIn(group, keys), rules));
    if (best === undefined || elementCount(served) > elementCount(best.served))
      best = { choice, prefix, served };
    if (served.length === groups.length) break;
  }
  const wearers = best === undefined ? 0 : best.served.reduce((all, group) => all + styledTagsIn(group), 0);
  const enough =
    best !== undefined &&
    wearers >= options.atLeast &&
    (options.atLeast === 1 || saves(movables, wearers, best.choice));
  const members = enough ? best!.served : [];
  for (const group of groups) {
    if (members.includes(group)) continue;
    const reason: KeptReason = best?.served.includes(group)
      ? wearers < options.atLeast
        ? { kind: 'written seldom', times: elementCount(best.served), atLeast: options.atLeast }
        : { kind: 'costs more' }
      : (strongerRule(group, movables, ONE_CLASS) ?? { kind: 'too weak or too strong' });
    options.refuse(group, movablesIn(group, keys), reason);
  }
  if (best === undefined || members.length === 0) return undefined;
  const { choice, prefix } = best;
  const plain = choice.strength === 'plain' && choice.prefix !== 'id' && choice.prefix !== 'around';
  const finalPart = isOverride(choice) ? 'overrides' : part;
  const order = options.order.next(finalPart);
  const rules = rulesFor(movables, choice.specificity, order, options.trials);
  for (const group of members) settle(group, movablesIn(group, keys), rules);
  const beats = plain
    ? undefined
    : members.flatMap((group) => strongerRule(group, movables, ONE_CLASS) ?? [])[0];
  const around = prefix === '' ? undefined : prefix;
  return { strength: choice.strength, scope: around, movables, members, part: finalPart, order, beats };
}

/** Whether the hand has less to keep up: a selector counts half a declaration, a word in a tag a quarter of one. */
function saves(movables: readonly MovableDeclaration[], wearers: number, { strength }: Choice): boolean {
  const written = movables.reduce(
    (all, { declarations, cells }) => all + declarations.length + (cells?.length ?? 0),
    0,
  );
  const taken = movables.reduce((all, movable) => all + writtenCount(movable), 0);
  const again = strength === 'twice' ? 0.5 : strength === 'thrice' ? 1 : 0;
  return wearers * taken >= written + 0.5 + again + wearers / 4;
}

interface Choice {
  readonly strength: Strength;
  /** Of the whole selector. */
  readonly specificity: number;
  readonly prefix: 'none' | 'around' | 'id' | 'section';
}

const CHOICES: readonly Choice[] = [
  { strength: 'plain', specificity: ONE_CLASS, prefix: 'none' },
  { strength: 'weak', specificity: 0, prefix: 'none' },
  { strength: 'plain', specificity: 2 * ONE_CLASS, prefix: 'around' },
  { strength: 'twice', specificity: 2 * ONE_CLASS, prefix: 'none' },
  { strength: 'thrice', specificity: 3 * ONE_CLASS, prefix: 'none' },
  { strength: 'plain', specificity: ONE_ID + ONE_CLASS, prefix: 'id' },
  { strength: 'twice', specificity: ONE_ID + 2 * ONE_CLASS, prefix: 'id' },
];
const IN_SECTION: Choice = { strength: 'plain', specificity: 2 * ONE_CLASS, prefix: 'section' };

function isOverride({ strength, prefix }: Choice): boolean {
  return prefix === 'id' || strength === 'twice' || strength === 'thrice';
}

/** The nearest class that every group stands under, where it says what is there. */
function commonAround(groups: readonly ElementGroup[]): string | undefined {
  let common: string[] | undefined;
  for (const group of groups) {
    const around: string[] = [];
    for (let at = group.parent; at !== undefined && at.element.name !== 'body'; at = at.parent)
      for (const name of at.element.classes)
        if (/^[a-zA-Z_][\w-]*$/.test(name) && !saysLittle(name) && !isLookName(name)) around.push(`.${name}`);
    common = common === undefined ? around : common.filter((name) => around.includes(name));
  }
  return common?.[0];
}

/** `.fares`: a class of the body that all groups stand under, where there is one on no more pages than needed. */
function commonSection(groups: readonly ElementGroup[]): string | undefined {
  let common: string[] | undefined;
  for (const group of groups) {
    let root: ElementGroup | undefined = group;
    while (root !== undefined && root.element.name !== 'body') root = root.parent;
    const own = root?.element.classes ?? [];
    common = common === undefined ? [...own] : common.filter((name) => own.includes(name));
  }
  const name = common?.find((one) => /^[a-zA-Z_][\w-]*$/.test(one));
  return name === undefined ? undefined : `.${name}`;
}

function movablesIn(group: ElementGroup, keys: readonly string[]): MovableDeclaration[] {
  return keys.flatMap((key) => freeMovable(group, key) ?? []);
}

/** The rule that a class is too weak against, for telling. */
function strongerRule(
  group: ElementGroup,
  movables: readonly MovableDeclaration[],
  specificity: number,
): StrongerRule | undefined {
  const own = new Map<string, string>();
  for (const { declarations } of movables)
    for (const { property, value } of declarations)
      for (const part of expandDeclaration(property, value, group.page.path))
        own.set(part.longhand, part.value);
  const groups = new Set([...own.keys()].map((name) => interactionGroup(name).name));
  for (const reader of group.readers) {
    for (const { use, rule } of reader.matched(group.element.index)) {
      if (rule.selector.pseudoElement !== '') continue;
      const [ids, classes, types] = specificityParts(rule.selector.specificity);
      const stronger = ids * ONE_ID + classes * ONE_CLASS + types > specificity;
      const { normal, important } = rule.block();
      const competes = [...(stronger ? normal : []), ...important].some(({ longhand, value }) =>
        own.has(longhand) ? own.get(longhand) !== value : groups.has(interactionGroup(longhand).name),
      );
      if (!competes) continue;
      const place = placeInSource(use.source, rule.rule.selectorRange.start);
      return { kind: 'stronger rule', selector: rule.selector.text, place };
    }
  }
  return undefined;
}

/** An id that an ancestor of every group has, on every page: a scope that exists already. */
function commonScope(groups: readonly ElementGroup[]): string | undefined {
  let common: string[] | undefined;
  for (const group of groups) {
    const around: string[] = [];
    for (let at = group.parent; at !== undefined; at = at.parent) {
      const id = idOf(at);
      if (id !== undefined && /^[a-zA-Z_][\w-]*$/.test(id)) around.push(`#${id}`);
    }
    common = common === undefined ? around : common.filter((id) => around.includes(id));
  }
  return common?.[0];
}
