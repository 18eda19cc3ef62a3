// One thread's share of a proof: compares pages in both states, and keeps none.

import { OutcomeTable, SiteStyles, TruthTable } from '../../core/cascade/index.js';
import { type Page, parsePage } from '../../core/markup/index.js';
import { Prover } from '../../core/proof/index.js';
import { openState } from '../files/state.js';
import { SiteReader } from '../rendering/reader.js';
import type { Job, ProveResult, ProveSide } from './job-model.js';
import { takeShares } from './shares.js';
import { Timings } from './timings.js';

export function proveShare(job: Extract<Job, { kind: 'prove' }>, cells: Int32Array): ProveResult {
  const open = ({ state, config }: ProveSide): SiteReader =>
    new SiteReader(openState(state), config, job.paths);
  const comparer = new PageComparer(open(job.before), open(job.after), job.perPage);
  return comparer.compare(job.paths, takeShares(cells, job.paths.length, { share: job.share }));
}

/** Two states of a site, page by page. */
export class PageComparer {
  readonly prover: Prover;
  readonly timings = new Timings();
  readonly #before: SiteReader;
  readonly #after: SiteReader;

  constructor(before: SiteReader, after: SiteReader, perPage?: number) {
    this.#before = before;
    this.#after = after;
    const table = new OutcomeTable(new TruthTable());
    const styles = new SiteStyles(before, table);
    this.prover = new Prover(styles, new SiteStyles(after, table, styles), {
      ...(perPage === undefined ? {} : { perPage }),
    });
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
  readonly pagePair = (path: string): [Page | undefined, Page | undefined] => {
    const before = this.#page(this.#before, path);
    return [before, this.#page(this.#after, path, before)];
  };

  #page(reader: SiteReader, path: string, same?: Page): Page | undefined {
    const text = this.timings.measure('pages, reading', () => reader.page(path));
    if (text === undefined) return undefined;
    const isComponent = reader.isComponent(path);
    if (same?.text === text && (same.kind === 'component') === isComponent) return same;
    return this.timings.measure('pages, parsing', () => parsePage(path, text, isComponent));
  }
}
