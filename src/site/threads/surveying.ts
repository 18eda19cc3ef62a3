// A survey of a site on the disk: its pages spread over threads, its sheets and scripts read on this one. Threads start
// before this one loads what it needs itself.

import { mergeStock, numbered } from '../../core/stock/merge-stock.js';
import { emptyStock, type StockData } from '../../core/stock/statistics.js';
import { keyOf, PageCache, WORTH_REMEMBERING } from '../cache/page-cache.js';
import { readConfig } from '../files/pages.js';
import { openState, type StateName } from '../files/state.js';
import { fromPlain } from '../plain.js';
import { takenIn } from '../rendering/blocks-of-sources.js';
import { SiteReader } from '../rendering/reader.js';
import type { JobResult, SurveyResult } from './job-model.js';
import { type PartDocument, partOf, readParts } from './part-file.js';
import { holdsAtLeast, inThreads, threadCount } from './pool.js';
import { printOf } from './print.js';
import { inShare, type Share, shareSize, takeShares } from './shares.js';
import type { SurveyedSite } from './survey-end.js';
import { takeStockOfEach, takeStockOfPages } from './survey-job.js';
import { Timings } from './timings.js';

export interface SurveyingOptions {
  /** How many threads, from 1 to 64; as the size of the site calls for without. */
  readonly jobs?: number | undefined;
  /** Whether what was found in a page is remembered, and believed while the page is the same; it is without. */
  readonly cache?: boolean | undefined;
  /** From so many bytes of pages on; a million without: below, reading takes no longer than remembering. */
  readonly rememberFrom?: number | undefined;
  readonly onPage?: ((done: number, of: number) => void) | undefined;
}

/** Throws `UsageError` for what cannot be a site. */
export async function surveySite(folder: string, options: SurveyingOptions = {}): Promise<SurveyedSite> {
  const timings = new Timings();
  const reader = await openReader(folder, timings);
  const results = await surveyPages(folder, reader, timings, options);
  const { finishSurvey } = await import('./survey-end.js');
  return finishSurvey(reader, results, timings);
}

/** What a part of the pages holds, for `joinSurvey`. Throws `UsageError` for what cannot be a site. */
export async function surveyPart(
  folder: string,
  share: Share,
  options: SurveyingOptions = {},
): Promise<PartDocument> {
  const timings = new Timings();
  const reader = await openReader(folder, timings);
  const results = await surveyPages(folder, reader, timings, { ...options, share });
  const { mergeResults } = await import('./survey-end.js');
  return partOf(
    'survey',
    share,
    printOf([reader], inShare(reader.pagePaths, share)),
    mergeResults(results, timings),
  );
}

/** The survey of a site whose parts were surveyed before. In: the files of all of them. Throws `UsageError`. */
export async function joinSurvey(folder: string, files: readonly string[]): Promise<SurveyedSite> {
  const timings = new Timings();
  const reader = await openReader(folder, timings);
  const parts = readParts('survey', files, (share) =>
    printOf([reader], inShare(reader.pagePaths, share)),
  ) as StockData[];
  const { finishSurvey } = await import('./survey-end.js');
  return finishSurvey(
    reader,
    parts.map((stock) => ({ kind: 'survey', stock, timings: new Map() })),
    timings,
  );
}

async function openReader(folder: string, timings: Timings): Promise<SiteReader> {
  const files = openState({ kind: 'folder', folder });
  const config = await readConfig(files);
  return timings.measure('finding files', () => new SiteReader(files, config));
}

/** Reads all pages, or a part of them. */
async function surveyPages(
  folder: string,
  reader: SiteReader,
  timings: Timings,
  options: SurveyingOptions & { readonly share?: Share },
): Promise<JobResult[]> {
  const state: StateName = { kind: 'folder', folder };
  const { share } = options;
  const paths = reader.pagePaths;
  // What a page has of its parts is not told by its own text.
  const isRemembered = options.cache !== false && reader.mentions.targets.size === 0;
  if (isRemembered && holdsAtLeast(options.rememberFrom ?? WORTH_REMEMBERING, paths, state))
    return [await surveyAnew(folder, reader, timings, options)];
  const own = shareSize(paths.length, share);
  const jobs = threadCount(options.jobs, paths, state);
  timings.add('starting', performance.now());
  return inThreads({ kind: 'survey', state, pages: reader.pageData(), share }, jobs, async (cells) => {
    const { readLinked } = await timings.wait('loading', () => import('./survey-end.js'));
    return takeStockOfPages(
      reader,
      takeShares(cells, paths.length, { share, onPage: (done) => options.onPage?.(done, own) }),
      // What the first page links, most pages link: read while other threads go on with the pages.
      (stock) => timings.measure('sheets and scripts', () => readLinked(reader, stock)),
    );
  });
}

/** Reads the pages that are not as they were when they were last read; of the others, what was found is remembered. */
async function surveyAnew(
  folder: string,
  reader: SiteReader,
  timings: Timings,
  options: SurveyingOptions & { readonly share?: Share },
): Promise<SurveyResult> {
  const state: StateName = { kind: 'folder', folder };
  const { pagePaths: paths, files } = reader;
  const copies = JSON.stringify([...reader.copies]);
  const cache = new PageCache(folder, 'survey');
  const each = new Map<number, string>();
  const keys = new Map<number, string>();
  timings.measure('what is remembered', () => {
    for (const number of inShare([...paths.keys()], options.share)) {
      const path = paths[number]!;
      // A box is there or not, whatever the page itself says.
      const bytes = (reader.visited === undefined ? files.read(path) : reader.page(path)) ?? '';
      const key = keyOf(
        'survey',
        path,
        String(reader.isComponent(path)),
        JSON.stringify(reader.sheetsFor(path) ?? null),
        copies,
        bytes,
        takenIn(path, bytes, reader.compileBlock),
      );
      const known = cache.get(key);
      if (known === undefined) keys.set(number, key);
      else each.set(number, known);
    }
  });
  const numbers = [...keys.keys()];
  if (numbers.length > 0) {
    const jobs = threadCount(
      options.jobs,
      numbers.map((number) => paths[number]!),
      state,
    );
    const job = { kind: 'survey', state, pages: reader.pageData(), numbers } as const;
    const results = await inThreads(job, jobs, async (cells) =>
      takeStockOfEach(
        reader,
        numbers,
        takeShares(cells, numbers.length, { onPage: (done) => options.onPage?.(done, numbers.length) }),
      ),
    );
    for (const result of results) {
      timings.merge(result.timings);
      for (const [number, found] of (result.kind === 'survey' && result.each) || []) {
        each.set(number, found);
        cache.set(keys.get(number)!, found);
      }
    }
  }
  cache.save();
  const stock = timings.measure('counting up', () => {
    const all = emptyStock();
    for (const [number, found] of [...each].sort(([a], [b]) => a - b))
      mergeStock(all, numbered(fromPlain(found) as StockData, number));
    return all;
  });
  return { kind: 'survey', stock, timings: new Map() };
}
