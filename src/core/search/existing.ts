// The second home: a class that a sheet of the site or of the platform defines, and that declares the same.

import { hasOneOf } from '../base/characters.js';
import {
  ALWAYS,
  asksMoreThanNames,
  eachCompound,
  onlyClass,
  type Program,
  type SiteModel,
  StyleReader,
} from '../cascade/index.js';
import { readComponent } from '../read/components/index.js';
import { hintDeclarations } from '../read/hints/index.js';
import type { Page } from '../read/markup/index.js';
import { type MovableDeclaration, movablesOf, type SiteScripts } from '../stock/index.js';
import { alteredElement, type Census, type ElementGroup, pagesHolding } from './census.js';
import { isLookName } from './look-names.js';
import { freeMovable } from './reach.js';

export interface ExistingClass {
  readonly group: ElementGroup;
  readonly name: string;
  /** Why the class was thought to mean the elements. */
  readonly because: string;
  readonly movables: readonly MovableDeclaration[];
}

/** Puts classes that exist on groups whose movable declarations they say. */
export function takeExisting(
  census: Census,
  model: SiteModel,
  scripts: SiteScripts,
  themes: readonly string[],
): ExistingClass[] {
  const isModule = (path: string): boolean => model.sources.isModule?.(path) === true;
  const isOwn = ({ holder }: Program): boolean =>
    themes.includes(holder) || model.sources.pages.has(holder) || isModule(holder);
  const taken: ExistingClass[] = [];
  const known = new Map<Program, Map<string, string[]>>();
  for (const group of census.groups) {
    if (group.left.size === 0) continue;
    const free = new Set(
      [...group.left].filter(({ objection }) => objection === undefined).map(({ key }) => key),
    );
    if (free.size === 0) continue;
    const fitting = new Map<string, { keys: string[]; program: Program }>();
    for (const reader of group.readers) {
      for (const { program, condition } of reader.sheetOrder.uses) {
        if (condition !== ALWAYS) continue;
        let classes = known.get(program);
        if (classes === undefined) {
          classes = classesOf(program);
          known.set(program, classes);
        }
        for (const [name, keys] of classes) {
          if (keys.every((key) => free.has(key)) && !group.element.classes.includes(name))
            fitting.set(name, { keys, program });
        }
      }
    }
    const inOrder = [...fitting].sort(([a, x], [b, y]) => y.keys.length - x.keys.length || (a < b ? -1 : 1));
    for (const [name, { keys, program }] of inOrder) {
      const movables = keys.flatMap((key) => freeMovable(group, key) ?? []);
      if (movables.length < keys.length) continue;
      if (isModule(program.holder) && !pagesIn(group, census).every((page) => asksFor(page, program.holder)))
        continue;
      if (!isEverywhere(program, pagesIn(group, census), model)) continue;
      const because = whyMeant(name, group.element.name, isOwn(program), census);
      if (because === undefined) continue;
      const role = structuralClasses(model, group).get(name);
      if (role === 'other') continue;
      if (pagesIn(group, census).some((page) => scripts.mentions(page, name))) continue;
      if (wear(group, name, movables, role === 'around')) taken.push({ group, name, because, movables });
    }
  }
  return taken;
}

function pagesIn(group: ElementGroup, census: Census): Page[] {
  return [...pagesHolding(group, census)];
}

/** Whether the code of a component can ask a sheet for the names that a build gives its classes. */
function asksFor({ path, text }: Page, sheet: string): boolean {
  return [...(readComponent(path, text)?.modules?.values() ?? [])].includes(sheet);
}

/**
 * Whether a class means an element: one of the house's own that nobody has yet, that such elements wear, or that is named
 * after a look; of the platform's those of a look that such elements wear. Others are parts of something.
 */
function whyMeant(name: string, element: string, isOwn: boolean, { byClass }: Census): string | undefined {
  const wearers = byClass.get(name) ?? [];
  const alike = wearers.filter((group) => group.element.name === element);
  const count = alike.reduce((sum, group) => sum + group.count, 0);
  if (!isOwn && !isLookName(name)) return undefined;
  if (count > 0) return `${count} other <${element}> ${count === 1 ? 'wears' : 'wear'} it already`;
  if (!isOwn) return undefined;
  if (wearers.length === 0) return 'a sheet of yours has it, and nothing wears it yet';
  return isLookName(name) ? 'it is named after what it does' : undefined;
}

/** Whether all pages that hold a group use the sheet: what does not match leaves no trace in a group. */
function isEverywhere(program: Program, pages: readonly Page[], model: SiteModel): boolean {
  return pages.every((page) =>
    model
      .sheetOrdersOf(page)
      .every(({ uses }) => uses.some((use) => use.program === program && use.condition === ALWAYS)),
  );
}

/** Classes of plain rules `.name { … }`, with the keys of what they say. */
function classesOf({ rules, holder }: Program): Map<string, string[]> {
  const found = new Map<string, string[]>();
  const doubtful = new Set<string>();
  for (const { selector, scope, rule, condition } of rules) {
    const name = onlyClass(selector);
    if (name === undefined) continue;
    if (scope !== undefined || condition !== ALWAYS || rule.layer !== undefined || found.has(name)) {
      doubtful.add(name);
      continue;
    }
    const movables = movablesOf(rule.declarations, holder);
    if (movables.length > 0)
      found.set(
        name,
        movables.map(({ key }) => key),
      );
  }
  for (const name of doubtful) found.delete(name);
  return found;
}

/** What a class does for other elements: those below one that has it, or any. */
type Role = 'around' | 'other';

const structural = new WeakMap<SiteModel, Map<Program, Map<string, Role>>>();

/** Classes by which sheets find other elements: to wear one could change those. */
function structuralClasses(model: SiteModel, group: ElementGroup): Map<string, Role> {
  let byProgram = structural.get(model);
  if (byProgram === undefined) {
    byProgram = new Map();
    structural.set(model, byProgram);
  }
  const all = new Map<string, Role>();
  for (const reader of group.readers) {
    for (const { program } of reader.sheetOrder.uses) {
      let own = byProgram.get(program);
      if (own === undefined) {
        own = new Map();
        for (const { selector } of program.rules) {
          const all = asksMoreThanNames(selector) || hasOneOf(selector.combinators.join(''), '+~');
          eachCompound(selector, ({ classes }, place) => {
            if (!all && place === 'subject') return;
            for (const name of classes)
              if (own!.get(name) !== 'other') own!.set(name, all ? 'other' : 'around');
          });
        }
        byProgram.set(program, own);
      }
      for (const [name, role] of own) if (all.get(name) !== 'other') all.set(name, role);
    }
  }
  return all;
}

/** Puts the class on in place of the movable declarations, if the group looks the same with it. */
function wear(
  group: ElementGroup,
  name: string,
  movables: readonly MovableDeclaration[],
  isAround: boolean,
): boolean {
  const own = worn(group, group, 0, name, movables);
  if (own === undefined) return false;
  const all = [own];
  if (isAround) {
    const inside = belowIn(group);
    if (inside === undefined) return false;
    for (const { below, depth } of inside) {
      const one = worn(below, group, depth, name, []);
      if (one === undefined) return false;
      all.push(one);
    }
  }
  for (const { group: changed, ...state } of all) Object.assign(changed, state);
  for (const movable of movables) group.left.delete(movable);
  return true;
}

interface Worn extends Pick<ElementGroup, 'page' | 'element' | 'readers' | 'matchedSheets'> {
  readonly group: ElementGroup;
}

/** A group as it is once what stands `depth` steps above it has a class; `undefined` where it would look different. */
function worn(
  group: ElementGroup,
  wearer: ElementGroup,
  depth: number,
  name: string,
  movables: readonly MovableDeclaration[],
): Worn | undefined {
  const { index } = group.element;
  let above = group.page.elements[index]!;
  for (let up = 0; up < depth; up++) above = group.page.elements[above.parent]!;
  const changed = { ...(depth === 0 ? wearer.element : above), classes: [...above.classes, name] };
  const page: Page = { ...group.page, elements: replaced(group.page.elements, above.index, changed) };
  const element = depth === 0 ? changed : group.element;
  const readers = group.readers.map(({ sheetOrder, table }) => new StyleReader(page, sheetOrder, table));
  const matchedSheets = readers.map((reader) => reader.matchedSheets(index));
  const after = alteredElement({ ...group, element }, movables);
  const own = { style: after.style, hints: hintDeclarations(page, after) };
  const same = readers.every(
    (reader, at) => reader.trialNumber(matchedSheets[at]!, own, group.trials) === group.original[at],
  );
  return same ? { group, page, element, readers, matchedSheets } : undefined;
}

/** Beyond so many groups below it, an element is a part of the page, and has what it has. */
const MOST_BELOW = 60;

function belowIn(group: ElementGroup): { below: ElementGroup; depth: number }[] | undefined {
  const found: { below: ElementGroup; depth: number }[] = [];
  const add = (parent: ElementGroup, depth: number): void => {
    for (const below of parent.children) {
      if (found.length > MOST_BELOW) return;
      found.push({ below, depth });
      add(below, depth + 1);
    }
  };
  add(group, 1);
  return found.length > MOST_BELOW ? undefined : found;
}

function replaced<T>(items: readonly T[], index: number, item: T): T[] {
  const copy = [...items];
  copy[index] = item;
  return copy;
}
