// Values in the sheets that a developer owns: where each stands, and in which spellings.

import { startsWithAny } from '../base/phrases.js';
import type { SourceRange } from '../base/source.js';
import type { SiteModel } from '../cascade/index.js';
import { type Declaration, normalColour, normalValue } from '../read/sheets/index.js';
import { coloursIn } from '../stock/index.js';

export type ValueKind = 'colour' | 'font' | 'shadow' | 'space' | 'size' | 'corner';

/** One value as it stands in a sheet. */
export interface ValuePlace {
  readonly path: string;
  /** Of the value itself. */
  readonly range: SourceRange;
  readonly text: string;
  readonly property: string;
}

/** Equal values, in whatever spelling. */
export interface SheetValue {
  readonly kind: ValueKind;
  /** Normal form. */
  readonly form: string;
  readonly places: readonly ValuePlace[];
}

/** In: sheets that may be edited. Out: every value worth a name, most used first. */
export function sheetValues(model: SiteModel, paths: readonly string[]): SheetValue[] {
  const found = new Map<string, { kind: ValueKind; form: string; places: ValuePlace[] }>();
  const add = (kind: ValueKind, form: string, place: ValuePlace): void => {
    const key = `${kind} ${form}`;
    const known = found.get(key);
    if (known === undefined) found.set(key, { kind, form, places: [place] });
    else known.places.push(place);
  };
  for (const path of paths) {
    const sheet = model.sheetAt(path)?.sheet;
    for (const { declarations } of sheet?.rules ?? []) {
      for (const declaration of declarations) {
        const { property, value, range } = declaration;
        if (property.startsWith('--') || value.includes('var(')) continue;
        const start = valueStart(sheet!.text, declaration);
        if (start === undefined) continue;
        const kind = wholeKind(property, value);
        if (kind !== undefined) {
          const place = { path, range: { start, end: start + value.length }, text: value, property };
          add(kind, normalValue(property, value, path), place);
          if (kind !== 'shadow') continue;
        }
        for (const { text, at } of coloursIn(property, value)) {
          const form = normalColour(text);
          if (form === undefined || form === '#000000/0' || start + at > range.end) continue;
          const place = { path, range: { start: start + at, end: start + at + text.length }, text, property };
          add('colour', form, place);
        }
      }
    }
  }
  return [...found.values()].sort(
    (a, b) => b.places.length - a.places.length || (`${a.kind} ${a.form}` < `${b.kind} ${b.form}` ? -1 : 1),
  );
}

/** Where the value begins in the sheet; `undefined` where comments stand in it. */
function valueStart(text: string, { property, value, range }: Declaration): number | undefined {
  const source = text.slice(range.start, range.end);
  const at = source.indexOf(value, property.length + 1);
  return at < 0 || source.includes('/*') ? undefined : range.start + at;
}

/** Values that are named as a whole. */
function wholeKind(property: string, value: string): ValueKind | undefined {
  if (['inherit', 'initial', 'unset', 'revert', 'none', 'normal', 'auto', '0'].includes(value.toLowerCase()))
    return undefined;
  if (property === 'font-family') return value.includes(',') ? 'font' : undefined;
  if (property === 'box-shadow' || property === 'text-shadow') return 'shadow';
  if (!/^[\d.]+(px|em|rem|%)( [\d.]+(px|em|rem|%)?)*$/i.test(value)) return undefined;
  if (startsWithAny(property, ['margin', 'padding', 'gap', 'row-gap', 'column-gap'])) return 'space';
  if (property === 'font-size') return 'size';
  return property.endsWith('radius') ? 'corner' : undefined;
}

/** A value with a name. */
export interface ValueToken extends SheetValue {
  /** With its two dashes. */
  readonly name: string;
  /** As it is written: the spelling most in use. */
  readonly text: string;
}

/** The spelling that stands most often, the shorter and then the first of equals. */
export function usualSpelling(places: readonly ValuePlace[]): string {
  const counts = new Map<string, number>();
  for (const { text } of places) counts.set(text, (counts.get(text) ?? 0) + 1);
  const [most] = [...counts].sort(
    ([a, x], [b, y]) =>
      y - x ||
      a.length - b.length ||
      (a.toLowerCase() === a ? -1 : b.toLowerCase() === b ? 1 : a < b ? -1 : 1),
  );
  return most?.[0] ?? '';
}
