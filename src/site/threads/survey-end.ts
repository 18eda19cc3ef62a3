// The part of a survey that looks at the whole site: joins what the threads found, and reads sheets and scripts.

import { UsageError } from '../../core/base/usage-error.js';
import { mergeStock, reachSheets, type StockData, type Survey, takeStock } from '../../core/stock/index.js';
import { emptyStock } from '../../core/stock/statistics.js';
import type { Config } from '../config.js';
import { type StylingInCode, stylingInCode } from '../files/code-strings.js';
import { unreadEndings } from '../files/templates.js';
import { ownSources } from '../rendering/compiled-sheets.js';
import type { SheetOwner, SiteReader } from '../rendering/reader.js';
import { suggestedSheets } from '../rendering/suggestion.js';
import { writtenInSources } from '../rendering/written-sheets.js';
import type { JobResult } from './job-model.js';
import type { Timings } from './timings.js';

export interface SurveyedSite {
  readonly survey: Survey;
  /** What is written in the sources of sheets that a preprocessor makes. */
  readonly sources: Survey['themeSheets'];
  /** Linked and imported sheets, most used first. */
  readonly sheets: readonly SheetOwner[];
  /** Site path of the shared sheet, whether or not it exists. */
  readonly shared: string;
  /** Upkeep once the draft that lies in the site is adopted; `undefined` without one for the site as it is. */
  readonly drafted: number | undefined;
  readonly platformPages: readonly string[];
  /** How many templates and components of each ending are not read. */
  readonly unreadEndings: ReadonlyMap<string, number>;
  /** What code writes into markup. */
  readonly inCode: StylingInCode;
  /** What "sheets" in the configuration could say, where nothing tells which sheets style the templates. */
  readonly suggested: NonNullable<Config['sheets']> | undefined;
  readonly timings: Timings;
}

/** Throws `UsageError` when there is no page that holds anything. */
export function finishSurvey(
  reader: SiteReader,
  results: readonly JobResult[],
  timings: Timings,
): SurveyedSite {
  const stock = mergeResults(results, timings);
  if (stock.pages + stock.components === 0) throw new UsageError('pages-empty', { site: reader.files.label });
  const uses = timings.measure('sheets and scripts', () => readLinked(reader, stock));
  const sheets = reader.owners(uses);
  const themes = sheets.filter(({ owner }) => owner === 'theme').map((sheet) => sheet.path);
  const survey = timings.measure('counting up', () =>
    takeStock({
      stock,
      shelf: reader,
      themes,
      scriptWords: (file) => reader.scriptWords(file),
      scriptText: (file) => (reader.isPlatform(file) ? undefined : reader.textAt(file)),
    }),
  );
  const written = timings.measure('sheets and scripts', () => {
    const isOwn = ownSources(reader.config, reader.files);
    const sourceOf = (sheet: string) => reader.compiled.sourceOf(sheet, isOwn);
    const all = writtenInSources({ files: reader.files, config: reader.config, sheets, sourceOf });
    return new Map([...all].filter(([, { rules }]) => rules.length > 0));
  });
  return {
    survey,
    sources: takeStock({
      stock: emptyStock(),
      shelf: { sheetAt: (file) => written.get(file), copyOf: () => undefined },
      themes: [...written.keys()],
      scriptWords: () => undefined,
      scriptText: () => undefined,
    }).themeSheets,
    sheets,
    shared: reader.shared(sheets, plainLinks(stock)),
    drafted: draftedUpkeep(reader, survey.upkeep.now),
    platformPages: reader.platformPages,
    unreadEndings: unreadEndings(reader.files.list().filter((file) => !reader.pagePaths.includes(file))),
    inCode: timings.measure('strings of code', () =>
      stylingInCode(reader.files, (file) => reader.isPlatform(file)),
    ),
    suggested: suggestion(stock, sheets, reader),
    timings,
  };
}

/** What a person could name for templates that no sheet is known for: where most pages link none, and the likeliest is linked by none. */
function suggestion(
  stock: StockData,
  sheets: readonly SheetOwner[],
  reader: SiteReader,
): ReturnType<typeof suggestedSheets> {
  if (stock.components === 0) return undefined;
  if (!sheets.some(({ owner }) => owner === 'theme')) return suggestedSheets(reader);
  const made = [...stock.links.values()].filter(({ kind, filled }) => kind === 'page' && filled);
  const count = (links: typeof made): number => links.reduce((sum, { pages }) => sum + pages, 0);
  if (count(made.filter((one) => one.sheets.length > 0)) >= count(made) / 2) return undefined;
  const suggested = suggestedSheets(reader);
  const [likeliest, own] = Object.values(suggested ?? {})[0] ?? [];
  return own === undefined || sheets.some(({ path }) => path === likeliest) ? undefined : suggested;
}

/** Read without its parser, which takes longer to load than a small site to survey. */
function draftedUpkeep({ files }: SiteReader, now: number): number | undefined {
  const text = files.read('acervus-draft.yaml')?.toString('utf8') ?? '';
  const match = /^upkeep:\r?\n {2}now: (\d+)\r?\n {2}after: (\d+)/m.exec(text);
  return match !== null && Number(match[1]) === now ? Number(match[2]) : undefined;
}

export function mergeResults(results: readonly JobResult[], timings: Timings): StockData {
  const stocks = results.flatMap((result) => {
    timings.merge(result.timings);
    return result.kind === 'survey' ? [result.stock] : [];
  });
  return timings.measure('counting up', () => stocks.reduce(mergeStock));
}

/** By pages that link alike, the sheets that they link plainly, in order. */
function plainLinks({ links }: StockData): string[][] {
  return [...links.values()]
    .filter(({ kind }) => kind === 'page')
    .map(({ sheets }) => sheets.flatMap(({ path, plain }) => (plain ? (path ?? []) : [])));
}

/** Reads every sheet and script that the pages link. Out: how many pages use each sheet. */
export function readLinked(reader: SiteReader, stock: StockData): Map<string, number> {
  const uses = new Map<string, number>();
  for (const links of stock.links.values()) {
    for (const file of links.scripts) reader.scriptWords(file);
    if (links.kind !== 'page' && !links.sheets.some(({ given }) => given)) continue;
    for (const file of reachSheets(links, reader).paths) uses.set(file, (uses.get(file) ?? 0) + links.pages);
  }
  return uses;
}
