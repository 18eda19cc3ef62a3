// One thread's share of a survey: takes stock of pages, and loads nothing that reads sheets.

import { parsePage } from '../../core/markup/index.js';
import { type StockData, StockTaker } from '../../core/stock/book.js';
import { type PageSource, pageSource } from '../files/pages.js';
import { openState } from '../files/state.js';
import type { Job, SurveyResult } from './job-model.js';
import { takeShares } from './shares.js';
import { Timings } from './timings.js';

export function surveyShare(job: Extract<Job, { kind: 'survey' }>, cells: Int32Array): SurveyResult {
  const source = pageSource(openState(job.state), job.pages);
  return takeStockOfPages(source, takeShares(cells, source.pagePaths.length, { share: job.share }));
}

/** In: the numbers of the pages. `onFirst` is called behind the first page, whose links most others share. */
export function takeStockOfPages(
  source: PageSource,
  numbers: Iterable<number>,
  onFirst?: (stock: StockData) => void,
): SurveyResult {
  const timings = new Timings();
  const taker = new StockTaker((address) => source.copyOf(address));
  let first = true;
  for (const number of numbers) {
    const path = source.pagePaths[number]!;
    const text = timings.measure('pages, reading', () => source.page(path));
    if (text === undefined) continue;
    const page = timings.measure('pages, parsing', () => parsePage(path, text, source.isComponent(path)));
    timings.measure('pages, stock', () => taker.addPage(page, number));
    if (first) onFirst?.(taker.data);
    first = false;
  }
  return { kind: 'survey', stock: taker.data, timings: timings.parts };
}
