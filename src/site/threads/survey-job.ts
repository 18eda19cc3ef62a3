// One thread's share of a survey: takes stock of pages, and loads nothing that reads sheets.

import { emptyStock, type StockData, StockTaker } from '../../core/stock/statistics.js';
import { type PageSource, pageSource } from '../files/pages.js';
import { openState } from '../files/state.js';
import { toPlain } from '../plain.js';
import { parseAlone, standingOf } from '../rendering/placing.js';
import type { Job, SurveyResult } from './job-model.js';
import { takeShares } from './shares.js';
import { Timings } from './timings.js';

export function surveyShare(job: Extract<Job, { kind: 'survey' }>, cells: Int32Array): SurveyResult {
  const source = pageSource(openState(job.state), job.pages);
  if (job.numbers !== undefined)
    return takeStockOfEach(source, job.numbers, takeShares(cells, job.numbers.length));
  return takeStockOfPages(source, takeShares(cells, source.pagePaths.length, { share: job.share }));
}

/** In: the numbers of the pages. `onFirst` is called behind the first page, whose links most others share. */
export function takeStockOfPages(
  source: PageSource,
  numbers: Iterable<number>,
  onFirst?: (stock: StockData) => void,
): SurveyResult {
  const reader = new StockReader(source);
  let first = true;
  for (const number of numbers) {
    if (!reader.add(number, number)) continue;
    if (first) onFirst?.(reader.taker.data);
    first = false;
  }
  return { kind: 'survey', stock: reader.taker.data, timings: reader.timings.parts };
}

/** Each page for itself, to be remembered. In: the numbers of all of them, and which of these this thread takes. */
export function takeStockOfEach(
  source: PageSource,
  numbers: readonly number[],
  taken: Iterable<number>,
): SurveyResult {
  const reader = new StockReader(source);
  const each = new Map<number, string>();
  for (const at of taken)
    if (reader.add(numbers[at]!, 0)) each.set(numbers[at]!, toPlain(reader.taker.take()));
  return { kind: 'survey', stock: emptyStock(), each, timings: reader.timings.parts };
}

class StockReader {
  readonly timings = new Timings();
  readonly taker: StockTaker;
  readonly #source: PageSource;

  constructor(source: PageSource) {
    this.#source = source;
    this.taker = new StockTaker((address) => source.copyOf(address));
  }

  /** In: a page's number, and the one that it is noted under. Out: whether there is such a page. */
  add(number: number, as: number): boolean {
    const path = this.#source.pagePaths[number]!;
    const text = this.timings.measure('pages, reading', () => this.#source.page(path));
    if (text === undefined) return false;
    const page = this.timings.measure('pages, parsing', () =>
      standingOf(this.#source).bring(parseAlone(this.#source, path, text)),
    );
    this.timings.measure('pages, stock', () => this.taker.addPage(page, as));
    return true;
  }
}
