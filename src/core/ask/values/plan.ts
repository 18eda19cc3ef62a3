// A change of values out of a token file: new custom properties, others for those that are there, and other names; with the
// proof that nothing but these properties declares something else.

import { addTo, groupBy } from '../../base/group-by.js';
import { refusalText } from '../../base/reasons/index.js';
import type { SiteModel } from '../../cascade/index.js';
import { type Edit, type Edits, push, stateAfter, writeRules } from '../../edit/text/index.js';
import { type Difference, prove } from '../../proof/index.js';
import { normalColour } from '../../read/sheets/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import type { SharedRule } from '../../search/index.js';
import { reachOf } from '../reach/index.js';
import type { NamedValue } from './collect.js';
import { valueForm } from './kinds.js';
import { beyondNames, type RenameTexts, type Renamings, renamedText, renameNames } from './rename.js';
import { jsonOf, type ReadToken } from './tokens.js';

export interface ValueChange {
  readonly property: string;
  /** The scheme, medium or section that the value is for; `undefined` at the root. */
  readonly where?: string | undefined;
  readonly before: string | undefined;
  readonly after: string;
  /** Elements on which something is set or used by this name, and their pages. */
  readonly elements: number;
  readonly pages: number;
}

export interface NameChange {
  readonly from: string;
  readonly to: string;
  /** How often the name is written. */
  readonly places: number;
}

export interface ValuesPlan {
  readonly edits: Edits;
  readonly changes: readonly ValueChange[];
  readonly renamed: readonly NameChange[];
  /** Tokens that say what is there. */
  readonly same: number;
  /** Values of the site that the file does not mention. */
  readonly unsaid: readonly string[];
  /** What else would differ: none, in a change that may be made. */
  readonly strays: readonly Difference[];
  /** Why a token cannot be written. */
  readonly refused: readonly { readonly property: string; readonly why: string }[];
}

export interface PlanInput {
  readonly model: SiteModel;
  readonly shared: SharedSheet;
  readonly named: readonly NamedValue[];
  readonly tokens: readonly ReadToken[];
  readonly texts: RenameTexts;
}

export function planValues({ model, shared, named: found, tokens: given, texts }: PlanInput): ValuesPlan {
  const names = renamingsOf(given, found);
  const renaming = renameNames(model, names, texts);
  const named = found.map((one) => underNewName(one, names));
  const tokens = given.map((one) => ({
    ...one,
    value: renamedText(one.value, names),
    sets: new Map([...one.sets].map(([where, value]) => [where, renamedText(value, names)])),
  }));
  const planning = new ValuesPlanning(model, shared, texts.isOwn, names);
  planning.refused.push(...renaming.refused, ...doubled(tokens, names));
  const known = new Map(named.map((one) => [one.name, one]));
  for (const token of tokens) {
    const old = known.get(token.property);
    planning.take({ ...token, ...asTheHouseDoes(token, old, named) }, old);
  }
  const { edits, changes, same, refused } = planning.finished(renaming.edits);
  const said = new Set(tokens.map(({ property }) => property));
  return {
    ...{ edits, changes, same, refused },
    renamed: [...names]
      .filter(([from]) => !renaming.refused.some(({ property }) => property === from))
      .map(([from, to]) => ({
        ...{ from, to },
        places: [...renaming.edits.values()].flat().filter(({ text }) => text === to).length,
      })),
    unsaid: named.map(({ name }) => name).filter((name) => !said.has(name)),
    strays: straysOf(model, edits, changes, names),
  };
}

/** What else would differ than what is meant to change. */
function straysOf(
  model: SiteModel,
  edits: Edits,
  changes: readonly ValueChange[],
  names: Renamings,
): Difference[] {
  const before = new Map([...names].map(([from, to]) => [to, from]));
  const meant = new Set(changes.flatMap(({ property }) => [property, before.get(property) ?? property]));
  const { differences } = prove(model, stateAfter(model, edits), {
    perPage: Number.POSITIVE_INFINITY,
    ...(names.size === 0
      ? {}
      : { scriptsChange: true, renamed: (value: string) => renamedText(value, names) }),
  });
  return beyondNames(differences, names).filter((one) => one.kind !== 'style' || !meant.has(one.property));
}

/** Collects what the tokens of a file change, one after the other. */
class ValuesPlanning {
  readonly edits = new Map<string, Edit[]>();
  readonly changes: ValueChange[] = [];
  readonly refused: { property: string; why: string }[] = [];
  same = 0;
  readonly #fresh: ReadToken[] = [];
  readonly #newSets = new Map<NamedValue, NewSet[]>();
  readonly #before: ReadonlyMap<string, string>;

  constructor(
    readonly model: SiteModel,
    readonly shared: SharedSheet,
    readonly isOwn: (path: string) => boolean,
    names: Renamings,
  ) {
    this.#before = new Map([...names].map(([from, to]) => [to, from]));
  }

  /** In: a token as the house writes values; what the site has by its name, if anything. */
  take(token: ReadToken, old: NamedValue | undefined): void {
    if (old === undefined) this.#takeNew(token);
    else {
      for (const [where, value] of token.sets) this.#takeSet(old, where, value);
      this.#takeValue(old, token.value);
    }
  }

  #takeNew(token: ReadToken): void {
    const { property, value, sets } = token;
    const unused = { before: undefined, elements: 0, pages: 0 };
    this.#fresh.push(token);
    this.changes.push({ property, after: value, ...unused });
    for (const [where, own] of sets) this.changes.push({ property, where, after: own, ...unused });
  }

  #takeSet(old: NamedValue, where: string, value: string): void {
    const property = old.name;
    const there = old.sets.find((one) => one.where === where);
    if (there !== undefined && isSame({ kind: old.kind, value: there.value }, value)) return;
    const { path } = (there ?? old).place;
    if (!this.#mayWrite(property, path)) return;
    if (there === undefined) addTo(this.#newSets, old, { where, property, value });
    else push(this.edits, path, [valueEdit(this.#textOf(path), there, value)]);
    this.changes.push({ property, where, before: there?.value, after: value, ...this.#reachOf(property) });
  }

  #takeValue(old: NamedValue, value: string): void {
    const { name: property, place } = old;
    if (isSame(old, value)) this.same++;
    else if (this.#mayWrite(property, place.path)) {
      push(this.edits, place.path, [valueEdit(this.#textOf(place.path), old, value)]);
      this.changes.push({ property, before: old.value, after: value, ...this.#reachOf(property) });
    }
  }

  /** In: edits that rename. A value that is written anew is written with the new names. */
  finished(renaming: Edits): this {
    const { path } = this.shared;
    if (this.#fresh.length > 0)
      push(this.edits, path, writeRules(this.#textOf(path), this.shared, freshRules(this.#fresh, path)));
    for (const [old, sets] of this.#newSets) {
      const edit = setsEdit(this.model, old, sets);
      if (edit !== undefined) push(this.edits, old.place.path, [edit]);
      else this.#refuse(old.name, refusalText('no rule for it', { path: old.place.path }));
    }
    for (const [file, own] of renaming) {
      const values = this.edits.get(file) ?? [];
      const isApart = ({ start, end }: Edit): boolean =>
        !values.some((one) => one.start <= start && end <= one.end);
      push(this.edits, file, own.filter(isApart));
    }
    return this;
  }

  #mayWrite(property: string, path: string): boolean {
    if (this.isOwn(path)) return true;
    this.#refuse(property, refusalText('file not yours', { path }));
    return false;
  }

  #refuse(property: string, why: string): void {
    this.refused.push({ property, why });
  }

  #textOf(path: string): string {
    return this.model.sources.sheets.get(path) ?? '';
  }

  /** Elements on which something is set or used by a name, and their pages. */
  #reachOf(property: string): { readonly elements: number; readonly pages: number } {
    const name = this.#before.get(property) ?? property;
    const { elements, pages } = reachOf(this.model, { kind: 'custom property', name }, () => false);
    return { elements, pages: pages.length };
  }
}

/** Rules for values that are new: at the root, and one for each set. */
function freshRules(fresh: readonly ReadToken[], holder: string): SharedRule[] {
  const rule = (
    where: string | undefined,
    own: readonly { property: string; value: string }[],
  ): SharedRule => {
    const condition = where === undefined ? undefined : conditionOf(where);
    return {
      selectors: [where === undefined || condition !== undefined ? ':root' : where],
      part: 'tokens',
      ...(condition === undefined ? {} : { conditions: [condition] }),
      declarations: own.map(({ property, value }) => ({
        declaration: { property, value, important: false, range: { start: 0, end: 0 } },
        holder,
      })),
    };
  };
  const inSets = groupBy(
    fresh.flatMap(({ property, sets }) => [...sets].map(([where, value]) => ({ where, property, value }))),
    ({ where }) => where,
  );
  return [rule(undefined, fresh), ...[...inSets].map(([where, own]) => rule(where, own))];
}

/** Sets that a value did not have, behind the rule that it stands in: what comes later wins. `undefined` where it stands in none. */
function setsEdit(
  model: SiteModel,
  { place, declaration }: NamedValue,
  sets: readonly NewSet[],
): Edit | undefined {
  const { start, end } = declaration.range;
  const rule = model
    .sheetAt(place.path)
    ?.sheet.rules.find(({ range }) => range.start <= start && end <= range.end);
  return rule && { start: rule.range.end, end: rule.range.end, text: setsText(sets) };
}

/** What the file calls otherwise than the site does; once it is done, nothing is. */
function renamingsOf(tokens: readonly ReadToken[], named: readonly NamedValue[]): Renamings {
  const known = new Set(named.map(({ name }) => name));
  return new Map(
    tokens.flatMap(({ property, was }) =>
      was !== undefined && was !== property && known.has(was) ? [[was, property] as const] : [],
    ),
  );
}

function underNewName(one: NamedValue, names: Renamings): NamedValue {
  return {
    ...one,
    name: names.get(one.name) ?? one.name,
    value: renamedText(one.value, names),
    alias: one.alias && (names.get(one.alias) ?? one.alias),
    sets: one.sets.map((set) => ({ ...set, value: renamedText(set.value, names) })),
  };
}

/** Names that a renaming would give to two. */
function doubled(
  tokens: readonly ReadToken[],
  names: Renamings,
): { readonly property: string; readonly why: string }[] {
  return [...groupBy(tokens, ({ property }) => property)].flatMap(([property, own]) =>
    own.length > 1 && own.some(({ was }) => was !== undefined && names.has(was))
      ? [{ property, why: refusalText('tokens of one name', { count: own.length }) }]
      : [],
  );
}

interface NewSet {
  readonly where: string;
  readonly property: string;
  readonly value: string;
}

/** Where other values declare two schemes in one, this one does too. */
function asTheHouseDoes(
  { value, sets }: ReadToken,
  old: NamedValue | undefined,
  named: readonly NamedValue[],
): Pick<ReadToken, 'value' | 'sets'> {
  const dark = sets.get('dark');
  const isHabit = named.some((one) => /\blight-dark\(/.test(one.value));
  const isApart = old?.sets.some(({ where }) => where === 'dark') === true;
  if (dark === undefined || !isHabit || isApart || normalColour(value) === undefined) return { value, sets };
  return {
    value: `light-dark(${value}, ${dark})`,
    sets: new Map([...sets].filter(([where]) => where !== 'dark')),
  };
}

/** The condition that a set stands under; `undefined` for a selector. */
function conditionOf(where: string): string | undefined {
  if (where === 'dark' || where === 'light') return `@media (prefers-color-scheme: ${where})`;
  return where.startsWith('@') ? where : undefined;
}

function setsText(sets: readonly NewSet[]): string {
  return sets
    .map(({ where, property, value }) => {
      const condition = conditionOf(where);
      return condition === undefined
        ? `\n\n${where} {\n  ${property}: ${value};\n}`
        : `\n\n${condition} {\n  :root {\n    ${property}: ${value};\n  }\n}`;
    })
    .join('');
}

function isSame({ kind, value }: Pick<NamedValue, 'kind' | 'value'>, other: string): boolean {
  if (value === other) return true;
  if (kind === undefined) return false;
  if (valueForm(kind, value) === valueForm(kind, other)) return true;
  // Spelled otherwise: what the format makes of both tells.
  const [one, two] = [jsonOf(kind, value), jsonOf(kind, other)];
  return one !== undefined && JSON.stringify(one) === JSON.stringify(two);
}

/** The value alone: how the declaration is written stays. */
function valueEdit(
  text: string,
  { declaration: { range } }: Pick<NamedValue, 'declaration'>,
  value: string,
): Edit {
  const written = text.slice(range.start, range.end);
  const [, lead = '', , tail = ''] =
    /^([^:]*:\s*)([\s\S]*?)(\s*(?:!\s*important\s*)?;?\s*)$/i.exec(written) ?? [];
  return { start: range.start + lead.length, end: range.end - tail.length, text: value };
}
