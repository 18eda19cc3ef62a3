// Values that are all but the same as another, which is in much wider use.

import { groupBy } from '../base/group-by.js';
import { type Place, placeIn } from '../base/source.js';
import type { SiteModel } from '../cascade/index.js';
import { valueOffset } from '../read/markup/index.js';
import { type Declaration, normalColour } from '../read/sheets/index.js';
import { coloursIn, nearMisses, readStyle } from '../stock/index.js';

/** A value, and the one in much wider use that it nearly is. */
export interface NearValue {
  readonly kind: 'colour' | 'length';
  readonly from: string;
  readonly to: string;
  readonly times: number;
  readonly toTimes: number;
  /** CIEDE2000 for colours, pixels for lengths. */
  readonly apart: number;
  readonly places: readonly Place[];
}

export interface WrittenValue {
  readonly kind: NearValue['kind'];
  /** Normal form; of a length its property in front. */
  readonly form: string;
  readonly text: string;
  readonly path: string;
  readonly start: number;
}

/** A length has to be so much rarer than the one beside it to be a slip. */
const RARER = 5;

/** Every colour and length that stands in style attributes, blocks and sheets that may be edited. */
export function writtenValues(model: SiteModel, themes: readonly string[]): WrittenValue[] {
  const found: WrittenValue[] = [];
  const add = (path: string, text: string, offset: number, one: Declaration): void => {
    const source = text.slice(one.range.start, one.range.end);
    const at = source.indexOf(one.value, one.property.length + 1);
    if (at < 0) return;
    const start = offset + one.range.start + at;
    for (const colour of coloursIn(one.property, one.value)) {
      const form = normalColour(colour.text);
      if (form !== undefined)
        found.push({ kind: 'colour', form, text: colour.text, path, start: start + colour.at });
    }
    if (/^\d+px$/i.test(one.value) && one.value !== '0px')
      found.push({
        kind: 'length',
        form: `${one.property} ${one.value.toLowerCase()}`,
        text: one.value,
        path,
        start,
      });
  };
  for (const page of model.pages) {
    for (const element of page.elements) {
      const { style, tag } = element;
      const range = style === undefined ? undefined : tag?.attributes.get('style');
      const offset = range === undefined ? undefined : valueOffset(page, range, style!);
      if (offset !== undefined)
        for (const one of readStyle(style!, page.path).declarations)
          for (let times = model.alsoAt(page, element).length; times >= 0; times--)
            add(page.path, style!, offset, one);
    }
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || reference.offset === undefined) continue;
      for (const { declarations } of model.block(reference.text, page).sheet.rules)
        for (const one of declarations)
          for (let times = model.pagesLike(page); times > 0; times--)
            add(page.path, reference.text, reference.offset, one);
    }
  }
  for (const path of themes) {
    const sheet = model.sheetAt(path)?.sheet;
    for (const { declarations } of sheet?.rules ?? [])
      for (const one of declarations) add(path, sheet!.text, 0, one);
  }
  return found;
}

export function findNearMisses(model: SiteModel, themes: readonly string[]): NearValue[] {
  const values = writtenValues(model, themes);
  const byForm = groupBy(values, ({ kind, form }) => `${kind} ${form}`);
  const placesOf = (own: readonly WrittenValue[]): Place[] =>
    own.map(({ path, start }) => placeIn(path, textOf(model, path), start));
  const colours = [...byForm.values()].filter(([first]) => first!.kind === 'colour');
  const uses = colours
    .map((own) => ({ colour: own[0]!.form, times: own.length, spellings: [] }))
    .sort((a, b) => b.times - a.times || (a.colour < b.colour ? -1 : 1));
  const near = nearMisses(uses).map(({ colour, near: to, times, nearTimes, distance }): NearValue => {
    const own = byForm.get(`colour ${colour}`)!;
    return {
      kind: 'colour',
      from: colour,
      to,
      times,
      toTimes: nearTimes,
      apart: distance,
      places: placesOf(own),
    };
  });
  for (const [key, own] of byForm) {
    const match = /^length (\S+) (\d+)px$/.exec(key);
    if (match === null) continue;
    for (const step of [1, -1]) {
      const to = `${Number(match[2]) + step}px`;
      const others = byForm.get(`length ${match[1]} ${to}`);
      if (others === undefined || others.length < own.length * RARER) continue;
      const from = `${match[2]}px`;
      near.push({
        kind: 'length',
        from: `${match[1]}: ${from}`,
        to: `${match[1]}: ${to}`,
        times: own.length,
        toTimes: others.length,
        apart: 1,
        places: placesOf(own),
      });
    }
  }
  return [...inFamilies(near), ...near.filter(({ kind }) => kind === 'length')];
}

/** Each colour once, with the one of its family that is written most. */
function inFamilies(near: readonly NearValue[]): NearValue[] {
  const best = new Map<string, NearValue>();
  for (const one of near) {
    const known = best.get(one.from);
    if (one.kind === 'colour' && (known === undefined || one.toTimes > known.toTimes))
      best.set(one.from, one);
  }
  return [...best.values()]
    .map((one): NearValue => {
      let head = one;
      for (let hops = 0; hops < 5 && best.has(head.to); hops++) head = best.get(head.to)!;
      return { ...one, to: head.to, toTimes: head.toTimes };
    })
    .sort((a, b) => b.toTimes - a.toTimes || (a.to < b.to ? -1 : a.to > b.to ? 1 : b.times - a.times));
}

function textOf({ sources }: SiteModel, path: string): string {
  return sources.pages.get(path) ?? sources.sheets.get(path) ?? '';
}

/** A change of looks that a person asked for: every `from` becomes `to`. */
export interface ValueChange {
  readonly from: string;
  readonly to: string;
}
