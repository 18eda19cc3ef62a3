// What a thread does with its share of the pages: takes stock of them, or compares them with another state.

import { OutcomeTable, SiteStyles, TruthTable } from '../core/cascade/index.js';
import { type Page, parsePage } from '../core/markup/index.js';
import { type ProofPart, Prover } from '../core/proof/index.js';
import { type StockData, StockTaker } from '../core/stock/index.js';
import { takeShares } from './pool.js';
import { SiteReader } from './reader.js';
import { openState, type StateName } from './state.js';
import { Timings } from './timings.js';

/** `paths` are all pages, in order: threads name a page by its number. */
export type Job =
  | { readonly kind: 'survey'; readonly state: StateName; readonly paths: readonly string[] }
  | {
      readonly kind: 'prove';
      readonly before: StateName;
      readonly after: StateName;
      readonly paths: readonly string[];
    };

export interface SurveyResult {
  readonly kind: 'survey';
  readonly stock: StockData;
  readonly timings: ReadonlyMap<string, number>;
}

export interface ProveResult {
  readonly kind: 'prove';
  readonly part: ProofPart;
  /** What pages that depend on the whole site still need; see `Prover`. */
  readonly late: readonly string[];
  readonly known: ReadonlySet<string>;
  readonly contextPages: readonly string[];
  readonly timings: ReadonlyMap<string, number>;
}

export type JobResult = SurveyResult | ProveResult;

/** One thread's part of a job, everything opened anew. */
export function runJob(job: Job, cells: Int32Array): JobResult {
  if (job.kind === 'survey') {
    const reader = new SiteReader(openState(job.state), job.paths);
    return takeStockOfPages(reader, takeShares(cells, job.paths.length));
  }
  const [before, after] = [openState(job.before), openState(job.after)].map(
    (files) => new SiteReader(files, job.paths),
  ) as [SiteReader, SiteReader];
  return new PageComparer(before, after).compare(job.paths, takeShares(cells, job.paths.length));
}

/** In: the pages' numbers. `onFirst` is called behind the first page, whose links most others share. */
export function takeStockOfPages(
  reader: SiteReader,
  numbers: Iterable<number>,
  onFirst?: (stock: StockData) => void,
): SurveyResult {
  const timings = new Timings();
  const taker = new StockTaker((address) => reader.copyOf(address));
  let first = true;
  for (const number of numbers) {
    const page = readPage(reader, reader.pagePaths[number]!, timings);
    if (page === undefined) continue;
    timings.measure('pages, stock', () => taker.addPage(page, number));
    if (first) onFirst?.(taker.data);
    first = false;
  }
  return { kind: 'survey', stock: taker.data, timings: timings.parts };
}

/** Two states of a site, page by page. */
export class PageComparer {
  readonly prover: Prover;
  readonly timings = new Timings();
  readonly #before: SiteReader;
  readonly #after: SiteReader;

  constructor(before: SiteReader, after: SiteReader) {
    this.#before = before;
    this.#after = after;
    const table = new OutcomeTable(new TruthTable());
    const styles = new SiteStyles(textsOf(before), table);
    this.prover = new Prover(styles, new SiteStyles(textsOf(after), table, styles));
  }

  compare(paths: readonly string[], numbers: Iterable<number>): ProveResult {
    const late: string[] = [];
    for (const number of numbers) {
      const path = paths[number]!;
      const [before, after] = this.pagePair(path);
      if (before === undefined && after === undefined) continue;
      const done = this.timings.measure('pages, comparing', () => this.prover.add(path, before, after));
      if (!done) late.push(path);
    }
    const { part, known, contextPages } = this.prover;
    return { kind: 'prove', part, late, known, contextPages, timings: this.timings.parts };
  }

  /** A page in both states; one page when its text is the same. */
  pagePair(path: string): [Page | undefined, Page | undefined] {
    const before = readPage(this.#before, path, this.timings);
    const text = this.timings.measure('pages, reading', () => this.#after.page(path));
    if (text === undefined) return [before, undefined];
    const isComponent = this.#after.isComponent(path);
    if (before?.text === text && (before.kind === 'component') === isComponent) return [before, before];
    return [before, this.timings.measure('pages, parsing', () => parsePage(path, text, isComponent))];
  }
}

function readPage(reader: SiteReader, path: string, timings: Timings): Page | undefined {
  const text = timings.measure('pages, reading', () => reader.page(path));
  if (text === undefined) return undefined;
  return timings.measure('pages, parsing', () => parsePage(path, text, reader.isComponent(path)));
}

function textsOf(reader: SiteReader): ConstructorParameters<typeof SiteStyles>[0] {
  return {
    sheetText: (path) => reader.textAt(path),
    copyOf: (address) => reader.copyOf(address),
  };
}
