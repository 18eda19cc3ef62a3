// A survey of a site on the disk: its pages spread over threads, its sheets and scripts read on this one. Threads start
// before this one loads what it needs itself.

import { readConfig } from '../files/pages.js';
import { openState, type StateName } from '../files/state.js';
import { SiteReader } from '../rendering/reader.js';
import { inThreads, threadCount } from './pool.js';
import { takeShares } from './shares.js';
import type { SurveyedSite } from './survey-end.js';
import { takeStockOfPages } from './survey-job.js';
import { Timings } from './timings.js';

export interface SurveyingOptions {
  /** How many threads, from 1 to 64; as the size of the site calls for without. */
  readonly jobs?: number | undefined;
  readonly onPage?: ((done: number, of: number) => void) | undefined;
}

/** Throws `UsageError` for what cannot be a site. */
export async function surveySite(folder: string, options: SurveyingOptions = {}): Promise<SurveyedSite> {
  const timings = new Timings();
  const state: StateName = { kind: 'folder', folder };
  const files = openState(state);
  const config = await readConfig(files);
  const reader = timings.measure('finding files', () => new SiteReader(files, config));
  const paths = reader.pagePaths;
  const jobs = threadCount(options.jobs, paths, state);
  timings.add('starting', performance.now());
  const results = await inThreads(
    { kind: 'survey', state, pages: reader.pageData() },
    jobs,
    async (cells) => {
      const { readLinked } = await timings.wait('loading', () => import('./survey-end.js'));
      return takeStockOfPages(
        reader,
        takeShares(cells, paths.length, (done) => options.onPage?.(done, paths.length)),
        // What the first page links, most pages link: read while other threads go on with the pages.
        (stock) => timings.measure('sheets and scripts', () => readLinked(reader, stock)),
      );
    },
  );
  const { finishSurvey } = await import('./survey-end.js');
  return finishSurvey(reader, results, timings);
}
