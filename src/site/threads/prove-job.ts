// One thread's share of a proof: compares pages in both states, and keeps none.

import { OutcomeTable, SiteStyles, TruthTable } from '../../core/cascade/index.js';
import { emptyPart, mergeProofs, type PagePair, Prover } from '../../core/proof/index.js';
import { type Page, parseUnplaced } from '../../core/read/markup/index.js';
import { openState } from '../files/state.js';
import { toPlain } from '../plain.js';
import { parseAlone, standingOf } from '../rendering/placing.js';
import { SiteReader } from '../rendering/reader.js';
import type { Job, ProveResult, ProveSide } from './job-model.js';
import { takeShares } from './shares.js';
import { Timings } from './timings.js';

export function proveShare(job: Extract<Job, { kind: 'prove' }>, cells: Int32Array): ProveResult {
  const open = ({ state, config }: ProveSide): SiteReader =>
    new SiteReader(openState(state), config, job.paths);
  const comparer = new PageComparer(open(job.before), open(job.after), job.perPage);
  const { paths, numbers, share } = job;
  return numbers === undefined
    ? comparer.compare(paths, takeShares(cells, paths.length, { share }))
    : comparer.compareEach(paths, numbers, takeShares(cells, numbers.length));
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
    // One by one: who asks for a number takes the page.
    for (const number of numbers) if (!this.#add(paths[number]!)) late.push(paths[number]!);
    const { part, known, contextPages } = this.prover;
    return { kind: 'prove', part, late, known, contextPages, timings: this.timings.parts };
  }

  /** Each page for itself, to be remembered. In: the numbers of all of them, and which of these this thread takes. */
  compareEach(paths: readonly string[], numbers: readonly number[], taken: Iterable<number>): ProveResult {
    const late: string[] = [];
    const all = emptyPart();
    const each = new Map<number, string>();
    for (const at of taken) {
      const number = numbers[at]!;
      const isDone = this.#add(paths[number]!);
      const part = this.prover.take();
      if (!isDone) late.push(paths[number]!);
      else if (part.differences.length === 0) each.set(number, toPlain(part));
      mergeProofs(all, part);
    }
    const { known, contextPages } = this.prover;
    const asked = [this.#before.asked, this.#after.asked];
    return { kind: 'prove', part: all, late, known, contextPages, each, asked, timings: this.timings.parts };
  }

  /** Out: whether a page is done; see `Prover.add`. */
  #add(path: string): boolean {
    const [before, after, placed] = this.#quickPair(path);
    if (before === undefined && after === undefined) return true;
    return this.timings.measure('pages, comparing', () => this.prover.add(path, before, after, placed));
  }

  /** A page in both states; one page when its text is the same. */
  readonly pagePair = (path: string): MaybePair => this.#placedPair(path, this.#textsOf(path));

  /** The same without offsets, where that is enough; and how to have them with offsets then. */
  #quickPair(path: string): readonly [...MaybePair, (() => PagePair)?] {
    const texts = this.#textsOf(path);
    const [was, is] = texts;
    const isPlain = [this.#before, this.#after].every(
      (reader) =>
        !reader.isComponent(path) &&
        reader.sheetsFor(path) === undefined &&
        !reader.mentions.targets.has(path),
    );
    if (was === undefined || is === undefined || !isPlain) return this.#placedPair(path, texts);
    const [before, after] = this.timings.measure('pages, parsing', () => {
      const one = parseUnplaced(path, was);
      return [one, one === undefined || was === is ? one : parseUnplaced(path, is)];
    });
    if (before === undefined || after === undefined) return this.#placedPair(path, texts);
    return [before, after, () => this.#placedPair(path, texts) as PagePair];
  }

  #textsOf(path: string): Texts {
    return this.timings.measure('pages, reading', () => [this.#before.page(path), this.#after.page(path)]);
  }

  #placedPair(path: string, [was, is]: Texts): MaybePair {
    return this.timings.measure('pages, parsing', () => {
      const before = was === undefined ? undefined : parseAlone(this.#before, path, was);
      const placed = before && standingOf(this.#before).place(before);
      if (is === undefined) return [placed, undefined];
      const isSame = was === is && this.#before.isComponent(path) === this.#after.isComponent(path);
      const after = isSame && before !== undefined ? before : parseAlone(this.#after, path, is);
      return [placed, standingOf(this.#after).place(after)];
    });
  }
}

type Texts = readonly [string | undefined, string | undefined];
type MaybePair = readonly [Page | undefined, Page | undefined];
