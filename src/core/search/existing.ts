// The second home: a class that a sheet of the site or of the platform defines, and that says the same.

import { ALWAYS, hintDeclarations, type Program, type SiteModel, StyleReader } from '../cascade/index.js';
import type { Page } from '../markup/index.js';
import { type CarriedUnit, type SiteScripts, unitsOf } from '../stock/index.js';
import { alteredElement, type Census, type Kind } from './census.js';
import { freeUnit } from './reach.js';

export interface ExistingClass {
  readonly kind: Kind;
  readonly name: string;
  readonly units: readonly CarriedUnit[];
}

/** Puts classes that exist on kinds whose units they say. */
export function takeExisting(census: Census, model: SiteModel, scripts: SiteScripts): ExistingClass[] {
  const taken: ExistingClass[] = [];
  const known = new Map<Program, Map<string, string[]>>();
  for (const kind of census.kinds) {
    if (kind.left.size === 0) continue;
    const free = new Set(
      [...kind.left].filter(({ objection }) => objection === undefined).map(({ key }) => key),
    );
    if (free.size === 0) continue;
    const fitting = new Map<string, { keys: string[]; program: Program }>();
    for (const reader of kind.readers) {
      for (const { program, condition } of reader.stack.uses) {
        if (condition !== ALWAYS) continue;
        let classes = known.get(program);
        if (classes === undefined) {
          classes = classesOf(program);
          known.set(program, classes);
        }
        for (const [name, keys] of classes) {
          if (keys.every((key) => free.has(key)) && !kind.element.classes.includes(name))
            fitting.set(name, { keys, program });
        }
      }
    }
    const inOrder = [...fitting].sort(([a, x], [b, y]) => y.keys.length - x.keys.length || (a < b ? -1 : 1));
    for (const [name, { keys, program }] of inOrder) {
      const units = keys.flatMap((key) => freeUnit(kind, key) ?? []);
      if (units.length < keys.length) continue;
      if (!isEverywhere(program, kind, model)) continue;
      if (structuralClasses(model, kind).has(name)) continue;
      if ([...kind.onPages].some((page) => scripts.mentions(page, name))) continue;
      if (wear(kind, name, units)) taken.push({ kind, name, units });
    }
  }
  return taken;
}

/** Whether all pages that hold the kind use the sheet: what does not match leaves no trace in a kind. */
function isEverywhere(program: Program, kind: Kind, model: SiteModel): boolean {
  return [...kind.onPages].every((page) =>
    model
      .stacksOf(page)
      .every(({ uses }) => uses.some((use) => use.program === program && use.condition === ALWAYS)),
  );
}

/** Classes of plain rules `.name { … }`, with the keys of what they say. */
function classesOf({ rules, holder }: Program): Map<string, string[]> {
  const found = new Map<string, string[]>();
  const doubtful = new Set<string>();
  for (const { selector, scope, rule, condition } of rules) {
    const [only] = selector.compounds;
    const [name] = only?.classes ?? [];
    if (only === undefined || name === undefined || selector.compounds.length > 1) continue;
    if (only.classes.length > 1 || only.type !== undefined || only.id !== undefined) continue;
    if (only.rest.length > 0 || selector.pseudoElement !== '') continue;
    if (scope !== undefined || condition !== ALWAYS || rule.layer !== undefined || found.has(name)) {
      doubtful.add(name);
      continue;
    }
    const units = unitsOf(rule.declarations, holder);
    if (units.length > 0)
      found.set(
        name,
        units.map(({ key }) => key),
      );
  }
  for (const name of doubtful) found.delete(name);
  return found;
}

const structural = new WeakMap<SiteModel, Map<Program, Set<string>>>();

/** Classes by which sheets find other elements: to wear one could change those. */
function structuralClasses(model: SiteModel, kind: Kind): Set<string> {
  let byProgram = structural.get(model);
  if (byProgram === undefined) {
    byProgram = new Map();
    structural.set(model, byProgram);
  }
  const all = new Set<string>();
  for (const reader of kind.readers) {
    for (const { program } of reader.stack.uses) {
      let own = byProgram.get(program);
      if (own === undefined) {
        own = new Set();
        for (const { selector } of program.rules) {
          selector.compounds.forEach((compound, at) => {
            if (at < selector.compounds.length - 1) for (const name of compound.classes) own!.add(name);
          });
          if (/[:[]/.test(selector.text))
            for (const [, name] of selector.text.matchAll(/\.(-?[_a-zA-Z][\w-]*)/g)) own.add(name!);
        }
        byProgram.set(program, own);
      }
      for (const name of own) all.add(name);
    }
  }
  return all;
}

/** Puts the class on in place of the units, if the kind looks the same with it. */
function wear(kind: Kind, name: string, units: readonly CarriedUnit[]): boolean {
  const { index } = kind.element;
  const element = { ...kind.element, classes: [...kind.element.classes, name] };
  const page: Page = { ...kind.page, elements: replaced(kind.page.elements, index, element) };
  const readers = kind.readers.map(({ stack, table }) => new StyleReader(page, stack, table));
  const standings = readers.map((reader) => reader.standing(index));
  const after = alteredElement({ ...kind, element }, units);
  const own = { style: after.style, hints: hintDeclarations(page, after) };
  if (
    !readers.every((reader, at) => reader.trialNumber(standings[at]!, own, kind.trials) === kind.original[at])
  )
    return false;
  kind.page = page;
  kind.element = element;
  kind.readers = readers;
  kind.standings = standings;
  for (const unit of units) kind.left.delete(unit);
  return true;
}

function replaced<T>(items: readonly T[], index: number, item: T): T[] {
  const copy = [...items];
  copy[index] = item;
  return copy;
}
