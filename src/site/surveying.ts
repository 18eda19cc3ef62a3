// A survey of a site on the disk: its pages spread over threads, its sheets and scripts read on this one.

import { mergeStock, reachSheets, type StockData, type Survey, takeStock } from '../core/stock/index.js';
import { type JobResult, takeStockOfPages } from './jobs.js';
import { inThreads, takeShares, threadCount } from './pool.js';
import { type SheetOwner, SiteReader } from './reader.js';
import { openState, type StateName } from './state.js';
import { Timings } from './timings.js';
import { UsageError } from './usage-error.js';

export interface SurveyedSite {
  readonly survey: Survey;
  /** Linked and imported sheets, most used first. */
  readonly sheets: readonly SheetOwner[];
  /** Site path of the shared sheet, whether or not it exists. */
  readonly shared: string;
  readonly timings: Timings;
}

export interface SurveyingOptions {
  /** How many threads, as the user wrote it. */
  readonly jobs?: string | undefined;
  readonly onPage?: (done: number, of: number) => void;
}

/** Throws `UsageError` for what cannot be a site. */
export async function surveySite(folder: string, options: SurveyingOptions = {}): Promise<SurveyedSite> {
  const timings = new Timings();
  const state: StateName = { kind: 'folder', folder };
  const reader = timings.measure('finding files', () => new SiteReader(openState(state)));
  const paths = reader.pagePaths;
  const jobs = threadCount(options.jobs, paths, state);
  const results = await inThreads({ kind: 'survey', state, paths }, jobs, (cells) =>
    takeStockOfPages(
      reader,
      takeShares(cells, paths.length, (done) => options.onPage?.(done, paths.length)),
      // What the first page links, most pages link: read while other threads go on with the pages.
      (stock) => timings.measure('sheets and scripts', () => readLinked(reader, stock)),
    ),
  );
  const stock = mergeResults(results, timings);
  if (stock.pages + stock.components === 0)
    throw new UsageError(`${folder}: all its pages are empty; there is nothing to read`);
  const uses = timings.measure('sheets and scripts', () => readLinked(reader, stock));
  const sheets = reader.owners(uses);
  const themes = sheets.filter(({ owner }) => owner === 'theme').map((sheet) => sheet.path);
  const survey = timings.measure('counting up', () =>
    takeStock({ stock, shelf: reader, themes, scriptWords: (file) => reader.scriptWords(file) }),
  );
  return { survey, sheets, shared: reader.shared(sheets), timings };
}

function mergeResults(results: readonly JobResult[], timings: Timings): StockData {
  const stocks = results.flatMap((result) => {
    timings.merge(result.timings);
    return result.kind === 'survey' ? [result.stock] : [];
  });
  return timings.measure('counting up', () => stocks.reduce(mergeStock));
}

/** Reads every sheet and script that the pages link. Out: how many pages use each sheet. */
function readLinked(reader: SiteReader, stock: StockData): Map<string, number> {
  const uses = new Map<string, number>();
  for (const links of stock.links.values()) {
    for (const file of links.scripts) reader.scriptWords(file);
    if (links.kind !== 'page') continue;
    for (const file of reachSheets(links, reader).paths) uses.set(file, (uses.get(file) ?? 0) + links.pages);
  }
  return uses;
}
