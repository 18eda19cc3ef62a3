// Excerpts of a large site, its pages spread over threads: each takes as many that follow each other, so that which parts of
// which page are kept does not depend on who is faster.

import type { SiteModel } from '../../core/cascade/index.js';
import { type Excerpts, joinExcerpts, type Overview } from '../../core/change/excerpt/index.js';
import type { Page } from '../../core/read/markup/index.js';
import { tellRead } from '../files/watch.js';
import type { SourceFinder } from '../rendering/source-finder.js';
import { SheetUses } from '../rendering/uses.js';
import { stylesOf, takePart } from './excerpt-job.js';
import type { ExcerptResult } from './job-model.js';
import { inThreads, threadCount } from './pool.js';

export interface ExcerptedPages {
  readonly excerpts: Excerpts;
  /** Those that this thread has read. */
  readonly parsed: ReadonlyMap<string, Page>;
  /** What is known of the sheets by now. */
  readonly styles: SiteModel;
  readonly uses: SheetUses;
}

/**
 * In: what pages lead to, filled as they are read; the site's folder; the pages with their characters, in order; what these
 * have in common; pages that are kept as they are; how many threads, as the size of the site calls for without.
 */
export async function takeExcerpts(
  found: SourceFinder,
  site: {
    readonly folder: string;
    readonly sizes: ReadonlyMap<string, number>;
    readonly overview: Overview;
    readonly whole: ReadonlySet<string>;
    readonly jobs?: number | undefined;
  },
): Promise<ExcerptedPages> {
  const { folder, sizes, overview, whole } = site;
  const state = { kind: 'folder', folder } as const;
  const paths = [...sizes.keys()];
  const jobs = threadCount(site.jobs, paths, state);
  const begins = beginsOf([...sizes.values()], jobs);
  const job = { kind: 'excerpt', state, paths, begins, site: overview, whole } as const;
  const styles = stylesOf(found, paths);
  const parsed = new Map<string, Page>();
  const results = await inThreads(job, jobs, async (cells) =>
    takePart(job, cells, found, styles, {
      onPage: (done) => tellRead(done, paths.length),
      onKept: (page) => parsed.set(page.path, page),
    }),
  );
  const parts = results
    .filter((result): result is ExcerptResult => result.kind === 'excerpt')
    .sort((a, b) => a.part - b.part);
  found.takeOver(
    parts.flatMap(({ sheets }) => sheets),
    parts.flatMap(({ scripts }) => scripts),
  );
  const uses = new SheetUses();
  for (const { uses: counts, links } of parts) uses.add(counts, links);
  return { excerpts: joinExcerpts(parts.map(({ excerpts }) => excerpts)), parsed, styles, uses };
}

/** Numbers of the pages with which each part begins, and the one behind the last: as many characters to each. */
function beginsOf(sizes: readonly number[], parts: number): number[] {
  const all = sizes.reduce((sum, one) => sum + one, 0);
  const begins = [0];
  let read = 0;
  for (const [at, size] of sizes.entries()) {
    if (begins.length < parts && read >= (all * begins.length) / parts) begins.push(at);
    read += size;
  }
  while (begins.length <= parts) begins.push(sizes.length);
  return begins;
}
