// The stock-taking of a site: how much is written, where, how often the same, and what is broken.

import { INVISIBLE_MARK } from '../base/engine-marks.js';
import { groupBy } from '../base/group-by.js';
import { withSingleSpaces } from '../base/phrases.js';
import { comparePlaces, type Place, placeWithin } from '../base/source.js';
import { brokenThings } from './broken.js';
import { type ColourUse, colourUses, type NearMiss, nearMisses } from './colour-uses.js';
import type { Finding } from './findings.js';
import { type Reached, reachSheets } from './links.js';
import type { StockData } from './statistics.js';
import type { SurveyInput } from './survey-input.js';
import {
  type Everything,
  everythingWritten,
  type Written,
  type WrittenIn,
  type WrittenSheet,
} from './written.js';

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
  /** Pages that would pass a policy of `style-src 'self'`. */
  readonly stylesFromSelf: number;
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

/** In: what was kept of every page, and where sheets and scripts come from. Out: the survey, ordered for showing. */
export function takeStock(input: SurveyInput): Survey {
  const { stock, shelf } = input;
  const themes = input.themes.flatMap((path): WrittenSheet[] => {
    const sheet = shelf.sheetAt(path);
    return sheet === undefined ? [] : [{ path, sheet }];
  });
  const everything = everythingWritten(stock, themes);
  const { styles, blocks, written } = everything;
  const reached = new Map([...stock.links].map(([key, links]) => [key, reachSheets(links, shelf)]));
  const attributeSets = styles.map(
    ({ movables, declarations, times, pages, places }): WrittenSet => ({
      key: movables
        .map(({ key }) => key)
        .sort()
        .join('; '),
      declarations: declarations.map(
        ({ property, value, important }) =>
          `${property}: ${value.replaceAll(INVISIBLE_MARK, '')}${important ? ' !important' : ''}`,
      ),
      times,
      pages,
      places,
    }),
  );
  const alikeBlocks = countAlike(
    countBy(
      blocks,
      ({ text }) => withSingleSpaces(text),
      ({ times }) => times,
    ),
  );
  const colours = colourUses(written);
  return {
    pages: stock.pages,
    components: stock.components,
    elements: stock.elements,
    stylesFromSelf: stock.fromSelf,
    inline: tally(
      written,
      'style attribute',
      styles.reduce((sum, { times }) => sum + times, 0),
      countAlike(
        countBy(
          attributeSets,
          ({ key }) => key,
          ({ times }) => times,
        ),
      ),
    ),
    blocks: tally(
      written,
      'style block',
      blocks.reduce((sum, { times }) => sum + times, 0),
      alikeBlocks,
    ),
    oldAttributes: tally(written, 'old attribute', stock.hinted, 0),
    themeSheets: tally(written, 'theme sheet', themes.length, 0),
    upkeep: {
      now: written.reduce((sum, { times }) => sum + times, 0),
      least: new Set(written.map(({ key }) => key)).size,
    },
    repeatedSets: repeatedSets(attributeSets),
    repeatedRules: repeatedSets(ruleSets(everything)).filter(({ declarations }) => declarations.length > 1),
    colours,
    nearMisses: nearMisses(colours),
    broken: brokenThings({ ...input, ...everything, reached }),
    unread: unreadSheets(stock, reached),
  };
}

function tally(written: readonly Written[], where: WrittenIn, holders: number, alike: number): Tally {
  const counts = countBy(
    written.filter((one) => one.where === where),
    ({ key }) => key,
    ({ times }) => times,
  );
  const total = [...counts.values()].reduce((sum, times) => sum + times, 0);
  return { written: total, distinct: counts.size, repeated: countAlike(counts), holders, alike };
}

function countBy<T>(
  items: readonly T[],
  keyOf: (item: T) => string,
  timesOf: (item: T) => number,
): Map<string, number> {
  const counts = new Map<string, number>();
  for (const item of items) counts.set(keyOf(item), (counts.get(keyOf(item)) ?? 0) + timesOf(item));
  return counts;
}

function countAlike(counts: ReadonlyMap<string, number>): number {
  let number = 0;
  for (const times of counts.values()) if (times > 1) number += times;
  return number;
}

interface WrittenSet {
  readonly key: string;
  readonly declarations: readonly string[];
  readonly times: number;
  readonly pages: readonly (number | string)[];
  readonly places: readonly Place[];
}

/** The declaration lists of rules. A place in a block is that of its first page. */
function ruleSets({ blocks, themes }: Everything): WrittenSet[] {
  const sources = [
    ...blocks.map(({ sheet, times, pages, places }) => ({ sheet, times, pages, starts: places })),
    ...themes.map(({ path, sheet }) => ({
      sheet,
      times: 1,
      pages: [path],
      starts: [{ path, line: 1, column: 1 }],
    })),
  ];
  return sources.flatMap(({ sheet, times, pages, starts }) =>
    sheet.rules.map((rule) => ({
      key: rule.declarations
        .map(({ property, value }) => `${property}:${value}`)
        .sort()
        .join('; '),
      declarations: rule.declarations.map(({ property, value }) => `${property}: ${withSingleSpaces(value)}`),
      times,
      pages,
      places: starts.map((start) => placeWithin(start, sheet.text, rule.selectorRange.start)),
    })),
  );
}

function repeatedSets(sets: readonly WrittenSet[]): RepeatedSet[] {
  const found: RepeatedSet[] = [];
  for (const group of groupBy(
    sets.filter(({ key }) => key !== ''),
    ({ key }) => key,
  ).values()) {
    const times = group.reduce((sum, one) => sum + one.times, 0);
    if (times < 2) continue;
    const places = group.flatMap((one) => one.places).sort(comparePlaces);
    const first = group.find((one) => one.places.includes(places[0]!)) ?? group[0]!;
    found.push({
      declarations: first.declarations,
      times,
      pages: new Set(group.flatMap((one) => one.pages)).size,
      examples: places.slice(0, 2),
    });
  }
  return found.sort(
    (a, b) =>
      b.times * b.declarations.length - a.times * a.declarations.length ||
      (a.declarations.join() < b.declarations.join() ? -1 : 1),
  );
}

function unreadSheets(stock: StockData, reached: ReadonlyMap<string, Reached>): Survey['unread'] {
  const found = new Map<string, { address: string; why: 'elsewhere' | 'missing'; pages: number }>();
  for (const [key, { kind, pages }] of stock.links) {
    if (kind !== 'page') continue;
    for (const { address: marked, path } of reached.get(key)?.unread ?? []) {
      const address = marked.replaceAll(INVISIBLE_MARK, '');
      const known = found.get(address);
      if (known === undefined)
        found.set(address, { address, why: path === undefined ? 'elsewhere' : 'missing', pages });
      else known.pages += pages;
    }
  }
  return [...found.values()].sort((a, b) => b.pages - a.pages || (a.address < b.address ? -1 : 1));
}
