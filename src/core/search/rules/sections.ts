// Sections of a site that declare the same in other colours: the rules once, over a few values that each section sets under its
// class of the body.

import { addTo, groupBy } from '../../base/group-by.js';
import { includesAny } from '../../base/phrases.js';
import type { SiteModel } from '../../cascade/index.js';
import { type Declaration, normalColour } from '../../read/sheets/index.js';
import { coloursIn } from '../../stock/index.js';
import { isLoadedBy, type OwnRule, type Said } from './own-rules.js';

/** One value that differs by section, and every rule that declares it. */
export interface SectionValue {
  /** Section to colour, as it is written. */
  readonly colours: ReadonlyMap<string, string>;
  /** The colour of pages of no section; `undefined` where there are none. */
  readonly otherwise: string | undefined;
  readonly rows: readonly SectionRow[];
  /** The sheet that the rules stand in. */
  readonly sheet: string;
}

/** With the name of its custom property. */
export interface NamedSection extends SectionValue {
  readonly name: string;
}

export interface SectionRow {
  /** Without the section. */
  readonly base: string;
  readonly suffix: string;
  readonly conditions: readonly string[];
  readonly declaration: Declaration;
  /** The value with `\0` for the colour. */
  readonly form: string;
  /** The rule for all sections, where there is one. */
  readonly own: OwnRule | undefined;
  /** Those whose place the row takes. */
  readonly said: readonly Said[];
}

interface Stated {
  readonly said: Said;
  readonly colour: string;
  readonly written: string;
  /** `undefined` for all. */
  readonly section: string | undefined;
}

interface Row {
  readonly base: string;
  readonly form: string;
  readonly stated: readonly Stated[];
}

export function sectionValues(
  model: SiteModel,
  rules: readonly OwnRule[],
  themes: readonly string[],
): SectionValue[] {
  const bodies = bodiesOf(model);
  const names = sectionsIn(rules, bodies);
  if (names.length < 2) return [];
  const known = new Set(names);
  const isWhole = model.pages.every(
    ({ path, kind }) => kind !== 'page' || (bodies.get(path) ?? []).some((name) => known.has(name)),
  );
  const found: SectionValue[] = [];
  const done = new Set<string>();
  for (const sheet of themes) {
    const mine = rules.filter((own) => own.sheet === sheet || own.sheet === undefined);
    const isHome = isLoadedBy(
      model,
      sheet,
      model.pages.filter(({ path }) => bodies.has(path)),
    );
    // What stands in blocks alone goes into a sheet that all pages load.
    const rows = rowsOf(mine, known, bodies).filter(
      (row) => !done.has(keyOf(row)) && (isHome || row.stated.some(({ said }) => said.own.sheet === sheet)),
    );
    const complete = rows.filter((row) => names.every((name) => colourFor(row, name) !== undefined));
    const alike = groupBy(complete, (row) => names.map((name) => colourFor(row, name)).join());
    const bySize = [...alike.values()].sort((a, b) => b.length - a.length);
    for (const group of bySize) {
      const colours = new Map(names.map((name) => [name, colourFor(group[0]!, name)!]));
      if (new Set(colours.values()).size < 2) continue;
      // Rows that some sections lack go along where they agree.
      const joining = rows.filter(
        (row) => !done.has(keyOf(row)) && agreeing(row, colours, isWhole).length > 1,
      );
      const value: SectionValue = {
        colours: writtenColours(colours, joining),
        otherwise: isWhole ? undefined : otherwiseOf(group),
        rows: joining.map((row) => rowOf(row, agreeing(row, colours, isWhole))),
        sheet,
      };
      if (!isWorthwhile(value)) continue;
      for (const row of joining) done.add(keyOf(row));
      found.push(value);
    }
  }
  return found;
}

/** Whether the rules lose more than the values cost, each with half a declaration for its selector. */
export function isWorthwhile({ rows, colours }: Pick<SectionValue, 'rows' | 'colours'>): boolean {
  const said = rows.flatMap((row) => row.said).reduce((all, { own }) => all + own.times, 0);
  return said - rows.length > 1.5 * colours.size;
}

/** By page, the classes of its body. */
function bodiesOf(model: SiteModel): Map<string, readonly string[]> {
  const found = new Map<string, readonly string[]>();
  for (const page of model.pages) {
    const body = page.elements.find(({ name }) => name === 'body');
    if (page.kind === 'page' && body !== undefined) found.set(page.path, body.classes);
  }
  return found;
}

/** Classes of the body that rules begin with, no page with two of them. */
function sectionsIn(rules: readonly OwnRule[], bodies: ReadonlyMap<string, readonly string[]>): string[] {
  const onBodies = new Set([...bodies.values()].flat());
  const found = new Set<string>();
  for (const { bases } of rules)
    for (const base of bases) {
      const name = /^\.([\w-]+) [^>+~]/.exec(base)?.[1];
      if (name !== undefined && onBodies.has(name)) found.add(name);
    }
  if (found.size === 0) for (const name of stemSections(bodies)) found.add(name);
  const all = new Set([...bodies.values()].flat());
  // Of classes that stand on all pages alike none is a section; of the others those that share the pages among them.
  const names = [...all].filter((name) => {
    const pages = [...bodies.values()].filter((own) => own.includes(name)).length;
    return pages < bodies.size && (found.has(name) || [...found].some((one) => isSibling(name, one)));
  });
  return [...bodies.values()].every((own) => own.filter((name) => names.includes(name)).length < 2)
    ? names.sort()
    : [];
}

/** Classes of one stem, of which every page has one: `sec-fares`, `sec-crew`. */
function stemSections(bodies: ReadonlyMap<string, readonly string[]>): readonly string[] {
  const byStem = groupBy(new Set([...bodies.values()].flat()), (name) => /^.*[-_]/.exec(name)?.[0] ?? '');
  for (const [stem, names] of byStem)
    if (
      stem !== '' &&
      names.length > 1 &&
      [...bodies.values()].every((own) => own.filter((one) => names.includes(one)).length === 1)
    )
      return names;
  return [];
}

/** `sec-fares` is one of those that `sec-crew` is. */
function isSibling(a: string, b: string): boolean {
  const stem = /^.*[-_]/.exec(b)?.[0];
  return stem !== undefined && a.startsWith(stem);
}

function rowsOf(
  rules: readonly OwnRule[],
  names: ReadonlySet<string>,
  bodies: ReadonlyMap<string, readonly string[]>,
): Row[] {
  const found = new Map<string, { base: string; form: string; stated: Stated[] }>();
  for (const own of rules) {
    if (own.bases.length !== 1) continue;
    const split = sectionOf(own, names, bodies);
    if (split === undefined) continue;
    for (const said of own.said) {
      const [declaration, ...more] = said.movable.declarations;
      if (declaration === undefined || more.length > 0) continue;
      const colours = coloursIn(declaration.property, declaration.value).filter(
        ({ text }) => normalColour(text) !== undefined,
      );
      const [first] = colours;
      const colour = first && normalColour(first.text);
      if (first === undefined || colour === undefined || colours.length > 1) continue;
      const { value, property, important } = declaration;
      const form = `${value.slice(0, first.at)}\0${value.slice(first.at + first.text.length)}`;
      const key = `${own.context}|${split.base}|${property}|${form}|${important}`;
      const row = found.get(key) ?? { base: split.base, form, stated: [] };
      found.set(key, row);
      row.stated.push({ said, colour, written: first.text, section: split.section });
    }
  }
  return [...found.values()];
}

/** The section that a rule is for: by its selector, or by the pages that its block is pasted into. */
function sectionOf(
  { bases, sheet, places }: OwnRule,
  names: ReadonlySet<string>,
  bodies: ReadonlyMap<string, readonly string[]>,
): { readonly base: string; readonly section: string | undefined } | undefined {
  const base = bases[0]!;
  const match = /^\.([\w-]+) ([^>+~].*)$/.exec(base);
  const named = match !== null && names.has(match[1]!) ? match[1]! : undefined;
  if (sheet !== undefined)
    return named === undefined ? { base, section: undefined } : { base: match![2]!, section: named };
  const sections = new Set(
    places.map(({ page }) => (bodies.get(page.path) ?? []).find((name) => names.has(name))),
  );
  const [section] = sections;
  return sections.size === 1 && section !== undefined
    ? { base: named === undefined ? base : match![2]!, section }
    : undefined;
}

function keyOf({ base, form, stated }: Row): string {
  const { own, movable } = stated[0]!.said;
  return `${own.context}|${base}|${movable.declarations[0]!.property}|${form}`;
}

/** What a row comes to in a section: what most declare there, else what is declared for all. */
function colourFor({ stated }: Row, name: string): string | undefined {
  const own = stated.filter(({ section }) => section === name);
  const counts = new Map<string, number>();
  for (const { colour, said } of own) counts.set(colour, (counts.get(colour) ?? 0) + said.own.times);
  const [most] = [...counts].sort((a, b) => b[1] - a[1]);
  return most?.[0] ?? stated.find(({ section }) => section === undefined)?.colour;
}

function agreeing({ stated }: Row, colours: ReadonlyMap<string, string>, isWhole: boolean): Said[] {
  const base = stated.find(({ section }) => section === undefined);
  const inSections = stated.filter(({ section }) => section !== undefined);
  if (inSections.length === 0) return [];
  // What a section declares otherwise in its sheet rule would stay beside it; so would what is for all.
  const misfit = inSections.some(
    ({ section, colour, said }) => said.own.sheet !== undefined && colours.get(section!) !== colour,
  );
  const lacking = [...colours].some(
    ([name, colour]) =>
      !inSections.some(({ section }) => section === name) && base !== undefined && base.colour !== colour,
  );
  if (misfit || lacking || (base === undefined && !isWhole)) return [];
  return stated
    .filter(({ section, colour }) => section === undefined || colours.get(section) === colour)
    .map(({ said }) => said);
}

function writtenColours(colours: ReadonlyMap<string, string>, rows: readonly Row[]): Map<string, string> {
  const all = rows.flatMap(({ stated }) => stated);
  return new Map(
    [...colours].map(([name, colour]) => {
      const spellings = all.filter((one) => one.colour === colour).map(({ written }) => written);
      return [
        name,
        spellings.sort((a, b) => a.length - b.length || (a === a.toLowerCase() ? -1 : 1))[0] ?? colour,
      ];
    }),
  );
}

function otherwiseOf([first]: readonly Row[]): string | undefined {
  return first?.stated.find(({ section }) => section === undefined)?.written;
}

function rowOf({ base, form, stated }: Row, said: readonly Said[]): SectionRow {
  const all = stated.find(({ section }) => section === undefined);
  const { own, movable } = (all ?? stated[0]!).said;
  return {
    base,
    suffix: own.suffix,
    conditions: own.conditions,
    declaration: movable.declarations[0]!,
    form,
    own: all?.said.own,
    said,
  };
}

/** What a value is for, from what it colours. */
export function sectionWord({ rows }: SectionValue): string {
  const properties = new Set(rows.map(({ declaration }) => declaration.property));
  if (properties.has('color')) return 'ink';
  if ([...properties].some((name) => name.startsWith('background'))) return 'wash';
  return [...properties].some((name) => includesAny(name, ['border', 'outline', 'rule'])) ? 'line' : 'accent';
}

export function sectionKey({ colours, rows }: SectionValue): string {
  const values = [...colours].map(([name, colour]) => `${name} ${normalColour(colour) ?? colour}`).join();
  return `section ${values} ${rows.map(({ base, suffix, declaration }) => `${base}${suffix} ${declaration.property}`).join('; ')}`;
}

/** By base, so that one rule is written for what several rows declare of it. */
export function rowsByRule(rows: readonly SectionRow[]): Map<string, SectionRow[]> {
  const found = new Map<string, SectionRow[]>();
  for (const row of rows) addTo(found, `${row.conditions.join()}|${row.base}${row.suffix}`, row);
  return found;
}
