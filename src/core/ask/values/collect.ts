// The values of a theme: those that have a name, and those that have none, by use.

import { hasOneOf } from '../../base/characters.js';
import { type Place, placeIn } from '../../base/source.js';
import { type Declaration, parseDeclarations, parseSheet, type Sheet } from '../../read/sheets/index.js';
import { variableAlone, variablesIn } from '../../read/sheets/variables.js';
import { kindFor, kindOf, type ValueKind, valueForm, valuesIn } from './kinds.js';

export interface ValueSheet {
  readonly path: string;
  readonly text: string;
  readonly sheet: Sheet;
}

export interface ValuesInput {
  /** The developer's sheets. */
  readonly sheets: readonly ValueSheet[];
  /** Style attributes and blocks of the pages, each with its place. */
  readonly styles: readonly { readonly css: string; readonly place: Place }[];
  readonly blocks: readonly {
    readonly css: string;
    readonly path: string;
    readonly text: string;
    readonly offset: number;
  }[];
}

export interface ValueSet {
  /** `dark`, `@media print`, `.night`. */
  readonly where: string;
  readonly value: string;
  readonly place: Place;
  readonly declaration: Declaration;
}

export interface NamedValue {
  /** With its dashes. */
  readonly name: string;
  readonly kind: ValueKind | undefined;
  readonly value: string;
  readonly place: Place;
  /** Where it is declared, in the text of its sheet or block. */
  readonly declaration: Declaration;
  /** What a comment behind it says of it. */
  readonly note: string | undefined;
  /** The property it says nothing but. */
  readonly alias: string | undefined;
  /** Other values it has: in a scheme, a section. */
  readonly sets: readonly ValueSet[];
  /** How often something declares `var()` of it. */
  readonly uses: number;
}

export interface UnnamedValue {
  readonly kind: ValueKind;
  /** As it is written most often. */
  readonly value: string;
  readonly times: number;
  readonly properties: readonly string[];
  readonly place: Place;
  /** The name that another declaration gives this value. */
  readonly named: string | undefined;
}

export interface Values {
  readonly named: readonly NamedValue[];
  readonly unnamed: readonly UnnamedValue[];
}

interface Said {
  readonly declaration: Declaration;
  readonly place: Place;
  readonly note: string | undefined;
  /** Empty at the root, at every moment. */
  readonly where: string;
}

export function valuesOf(input: ValuesInput): Values {
  const said = [...saidIn(input)];
  const uses = new Map<string, number>();
  for (const { declaration } of said)
    for (const name of variablesIn(declaration.value)) uses.set(name, (uses.get(name) ?? 0) + 1);
  const kinds = new Map<string, ValueKind>();
  for (const { declaration } of said) {
    const name = variableAlone(declaration.value);
    const kind = name === undefined ? undefined : kindFor(declaration.property);
    if (name !== undefined && kind !== undefined && !kinds.has(name)) kinds.set(name, kind);
  }
  const named = namedIn(said, uses, kinds);
  const names = new Map(
    named.flatMap(({ kind, value, name }) =>
      kind === undefined ? [] : [[`${kind} ${valueForm(kind, value)}`, name] as const],
    ),
  );
  return { named, unnamed: unnamedIn(said, names) };
}

function* saidIn({ sheets, styles, blocks }: ValuesInput): Generator<Said> {
  for (const { path, text, sheet } of sheets) yield* inSheet(sheet, (at) => placeIn(path, text, at));
  for (const { css, path, text, offset } of blocks)
    yield* inSheet(parseSheet(css), (at) => placeIn(path, text, offset + at));
  for (const { css, place } of styles)
    for (const declaration of parseDeclarations(css).declarations)
      yield { declaration, place, note: undefined, where: 'style attribute' };
}

function* inSheet(sheet: Sheet, placeAt: (at: number) => Place): Generator<Said> {
  for (const rule of sheet.rules) {
    const { selector, scope } = rule;
    const around = rule.conditions.map(({ kind, text }) => setName(kind, text));
    const where = [
      ...around,
      ...(scope === undefined && [':root', 'html'].includes(selector.toLowerCase()) ? [] : [selector]),
    ].join(' ');
    for (const declaration of rule.declarations)
      yield {
        ...{ declaration, where, place: placeAt(declaration.range.start) },
        note: noteBehind(sheet.text, declaration.range.end),
      };
  }
}

/** The comment that stands behind a declaration, on its line. */
function noteBehind(text: string, end: number): string | undefined {
  return /^[ \t]*;?[ \t]*\/\*[ \t]*([^\n]*?)[ \t]*\*\/[ \t]*(?:\r?\n|$)/.exec(
    text.slice(end, end + 300),
  )?.[1];
}

/** Schemes have names of their own. */
function setName(kind: string, text: string): string {
  const scheme = /^\(\s*prefers-color-scheme\s*:\s*(dark|light)\s*\)$/i.exec(text.trim())?.[1];
  return scheme?.toLowerCase() ?? `@${kind} ${text}`;
}

function namedIn(
  said: readonly Said[],
  uses: ReadonlyMap<string, number>,
  kinds: ReadonlyMap<string, ValueKind>,
): NamedValue[] {
  const found = new Map<string, Said[]>();
  for (const one of said) {
    const { property } = one.declaration;
    if (property.startsWith('--')) found.set(property, [...(found.get(property) ?? []), one]);
  }
  return [...found].map(([name, own]) => {
    // What is declared last at the root counts there.
    const base = own.findLast(({ where }) => where === '') ?? own[0]!;
    const { value } = base.declaration;
    return {
      name,
      kind: kindOf(name, value, kinds.get(name)),
      value: value.trim(),
      place: base.place,
      note: base.note,
      declaration: base.declaration,
      alias: variableAlone(value),
      sets: own
        .filter((one) => one !== base && one.where !== '')
        .map(({ where, declaration, place }) => ({
          ...{ where, value: declaration.value.trim() },
          ...{ place, declaration },
        })),
      uses: uses.get(name) ?? 0,
    };
  });
}

function unnamedIn(said: readonly Said[], names: ReadonlyMap<string, string>): UnnamedValue[] {
  const found = new Map<
    string,
    { kind: ValueKind; spellings: Map<string, number>; properties: Set<string>; place: Place }
  >();
  for (const { declaration, place } of said) {
    // What a preprocessor works out is no value yet.
    if (declaration.property.startsWith('--') || hasOneOf(declaration.value, '$@')) continue;
    for (const { kind, value } of valuesIn(declaration.property, declaration.value)) {
      const key = `${kind} ${valueForm(kind, value)}`;
      const own = found.get(key) ?? { kind, spellings: new Map(), properties: new Set(), place };
      own.spellings.set(value, (own.spellings.get(value) ?? 0) + 1);
      own.properties.add(declaration.property);
      found.set(key, own);
    }
  }
  return [...found]
    .map(([key, { kind, spellings, properties, place }]) => ({
      kind,
      value: [...spellings].reduce((a, b) => (b[1] > a[1] ? b : a))[0],
      times: [...spellings.values()].reduce((all, one) => all + one, 0),
      properties: [...properties].sort(),
      place,
      named: names.get(key),
    }))
    .sort((a, b) => b.times - a.times || (a.value < b.value ? -1 : 1));
}
