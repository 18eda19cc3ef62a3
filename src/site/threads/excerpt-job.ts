// One thread's pages of a site that is searched by excerpts: each is read once, and what the search needs of it is kept.

import { SiteModel } from '../../core/cascade/index.js';
import { ExcerptTaker } from '../../core/change/excerpt/index.js';
import type { Page } from '../../core/read/markup/index.js';
import { openState } from '../files/state.js';
import { parseAlone, standingOf } from '../rendering/placing.js';
import { SourceFinder } from '../rendering/source-finder.js';
import { SheetUses } from '../rendering/uses.js';
import type { ExcerptResult, Job } from './job-model.js';

type ExcerptJob = Extract<Job, { kind: 'excerpt' }>;

export function excerptShare(job: ExcerptJob, cells: Int32Array): ExcerptResult {
  const found = new SourceFinder(openState(job.state), job.paths);
  return takePart(job, cells, found, stylesOf(found, job.paths));
}

/** The styles of pages that come one by one, over what was found so far. */
export function stylesOf({ sources, reader, table }: SourceFinder, paths: readonly string[]): SiteModel {
  return new SiteModel(
    { ...sources, pages: new Map(), components: new Set(paths.filter((file) => reader.isComponent(file))) },
    table,
  );
}

/** What the thread that searches wants to know of its own part. */
interface Listener {
  /** How many pages all threads have read. */
  readonly onPage: (done: number) => void;
  /** A page that was kept, or an excerpt, as it was read. */
  readonly onKept: (page: Page) => void;
}

export function takePart(
  job: ExcerptJob,
  cells: Int32Array,
  found: SourceFinder,
  styles: SiteModel,
  listener?: Listener,
): ExcerptResult {
  const { reader } = found;
  const taker = new ExcerptTaker(styles, {
    site: job.site,
    isWhole: (path) => job.whole.has(path),
    onKept: listener?.onKept,
  });
  const uses = new SheetUses();
  const part = Atomics.add(cells, 0, 1);
  const [from, to] = [job.begins[part] ?? 0, job.begins[part + 1] ?? 0];
  for (const path of job.paths.slice(from, to)) {
    const text = reader.page(path);
    const done = Atomics.add(cells, 1, 1) + 1;
    if (text === undefined) continue;
    const page = standingOf(reader).bring(parseAlone(reader, path, text));
    found.follow(page, styles);
    taker.add(page);
    uses.note(page, styles, { copies: reader.copies, link: reader.config.link });
    listener?.onPage(done);
  }
  const { sheets, scripts } = found.sources;
  return {
    kind: 'excerpt',
    part,
    excerpts: taker.excerpts,
    uses: uses.counts,
    links: uses.links,
    sheets: [...sheets.keys()],
    scripts: [...scripts.keys()],
    timings: new Map(),
  };
}
