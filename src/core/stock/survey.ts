// The stock-taking of a site: how much is written, where, how often the same, and what is broken.

import type { SiteModel } from '../cascade/index.js';
import type { Place } from '../source.js';
import { brokenThings, type Finding } from './broken.js';
import { type ColourUse, colourUses, type NearMiss, nearMisses } from './colour-uses.js';
import { inlineCarriers } from './inline.js';
import type { SiteScripts } from './site-scripts.js';
import { everythingWritten, Places, styleBlocks, type Written, type WrittenIn } from './written.js';

export interface Tally {
  /** Declarations, or old attributes. */
  readonly written: number;
  readonly distinct: number;
  /** How many of them say what another of the same kind says too. */
  readonly repeated: number;
  /** How many style attributes, blocks, sheets or elements hold them. */
  readonly holders: number;
  /** Holders whose whole content stands elsewhere too. */
  readonly alike: number;
}

export interface RepeatedSet {
  readonly declarations: readonly string[];
  readonly times: number;
  readonly pages: number;
  readonly examples: readonly Place[];
}

export interface Survey {
  readonly pages: number;
  readonly components: number;
  readonly elements: number;
  readonly inline: Tally;
  readonly blocks: Tally;
  readonly oldAttributes: Tally;
  readonly themeSheets: Tally;
  readonly upkeep: { readonly now: number; readonly least: number };
  /** Style attributes that stand alike at least twice, most declarations first. */
  readonly repeatedSets: readonly RepeatedSet[];
  /** Equal declaration lists of different rules of theme sheets and blocks. */
  readonly repeatedRules: readonly RepeatedSet[];
  readonly colours: readonly ColourUse[];
  readonly nearMisses: readonly NearMiss[];
  readonly broken: readonly Finding[];
  readonly unread: readonly {
    readonly address: string;
    readonly why: 'elsewhere' | 'missing';
    readonly pages: number;
  }[];
}

/** In: the model, its scripts, the paths of theme sheets. */
export function takeStock(model: SiteModel, scripts: SiteScripts, themes: readonly string[]): Survey {
  const places = new Places(model);
  const carriers = inlineCarriers(model, scripts);
  const blocks = styleBlocks(model);
  const written = everythingWritten(model, carriers, blocks, themes);
  const attributeSets = carriers.map(({ page, range, units, declarations }) => ({
    key: units
      .map(({ key }) => key)
      .sort()
      .join('; '),
    path: page.path,
    offset: range.start,
    declarations: declarations.map(
      ({ property, value, important }) => `${property}: ${value}${important ? ' !important' : ''}`,
    ),
  }));
  const themeSheets = themes.flatMap((path) => model.sheetAt(path) ?? []);
  const ruleSets = [
    ...blocks.flatMap(({ page, offset, sheet }) =>
      sheet.rules.map((rule) => ({ rule, path: page.path, offset })),
    ),
    ...themeSheets.flatMap(({ holder, sheet }) =>
      sheet.rules.map((rule) => ({ rule, path: holder, offset: 0 })),
    ),
  ].map(({ rule, path, offset }) => ({
    key: rule.declarations
      .map(({ property, value }) => `${property}:${value}`)
      .sort()
      .join('; '),
    path,
    offset: offset + rule.selectorRange.start,
    declarations: rule.declarations.map(
      ({ property, value }) => `${property}: ${value.replace(/\s+/g, ' ')}`,
    ),
  }));
  const alikeBlocks = groupBy(blocks, ({ sheet }) => sheet.text.replace(/\s+/g, ' '));
  return {
    pages: model.pages.filter(({ kind }) => kind === 'page').length,
    components: model.pages.filter(({ kind }) => kind === 'component').length,
    elements: model.pages.reduce((sum, { elements }) => sum + elements.length, 0),
    inline: tally(
      written,
      'style attribute',
      carriers.length,
      countAlike(groupBy(attributeSets, ({ key }) => key)),
    ),
    blocks: tally(written, 'style block', blocks.length, countAlike(alikeBlocks)),
    oldAttributes: tally(
      written,
      'old attribute',
      new Set(
        written
          .filter(({ where }) => where === 'old attribute')
          .map(({ path, offset }) => `${path}:${offset}`),
      ).size,
      0,
    ),
    themeSheets: tally(written, 'theme sheet', themeSheets.length, 0),
    upkeep: { now: written.length, least: new Set(written.map(({ key }) => key)).size },
    repeatedSets: repeatedSets(attributeSets, places),
    repeatedRules: repeatedSets(ruleSets, places).filter(({ declarations }) => declarations.length > 1),
    colours: colourUses(written),
    nearMisses: nearMisses(colourUses(written)),
    broken: brokenThings({ model, scripts, themes, blocks, carriers, places }),
    unread: unreadSheets(model),
  };
}

function tally(written: readonly Written[], where: WrittenIn, holders: number, alike: number): Tally {
  const own = written.filter((one) => one.where === where);
  const groups = groupBy(own, ({ key }) => key);
  return { written: own.length, distinct: groups.size, repeated: countAlike(groups), holders, alike };
}

function countAlike(groups: ReadonlyMap<string, readonly unknown[]>): number {
  let number = 0;
  for (const group of groups.values()) if (group.length > 1) number += group.length;
  return number;
}

interface WrittenSet {
  readonly key: string;
  readonly path: string;
  readonly offset: number;
  readonly declarations: readonly string[];
}

function repeatedSets(sets: readonly WrittenSet[], places: Places): RepeatedSet[] {
  const found: RepeatedSet[] = [];
  for (const group of groupBy(
    sets.filter(({ key }) => key !== ''),
    ({ key }) => key,
  ).values()) {
    if (group.length < 2) continue;
    found.push({
      declarations: group[0]!.declarations,
      times: group.length,
      pages: new Set(group.map(({ path }) => path)).size,
      examples: group.slice(0, 2).map(({ path, offset }) => places.at(path, offset)),
    });
  }
  return found.sort(
    (a, b) =>
      b.times * b.declarations.length - a.times * a.declarations.length ||
      (a.declarations.join() < b.declarations.join() ? -1 : 1),
  );
}

function unreadSheets(model: SiteModel): Survey['unread'] {
  const found = new Map<string, { address: string; why: 'elsewhere' | 'missing'; pages: number }>();
  for (const page of model.pages) {
    if (page.kind !== 'page') continue;
    for (const { address, why } of model.stackOf(page).unread) {
      const known = found.get(address);
      if (known === undefined) found.set(address, { address, why, pages: 1 });
      else known.pages++;
    }
  }
  return [...found.values()].sort((a, b) => b.pages - a.pages || (a.address < b.address ? -1 : 1));
}

export function groupBy<T>(items: readonly T[], keyOf: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [item]);
    else group.push(item);
  }
  return groups;
}
