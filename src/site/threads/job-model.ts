// What threads are told, and what they send back: plain data.

import type { Excerpts, Overview } from '../../core/change/excerpt/index.js';
import type { ProofPart } from '../../core/proof/index.js';
import type { StockData } from '../../core/stock/index.js';
import type { Config } from '../config.js';
import type { WhyLeftOut } from '../files/notices.js';
import type { PageSourceData } from '../files/pages.js';
import type { StateName } from '../files/state.js';
import type { Share } from './shares.js';

/** `paths` are all pages, in order: threads name a page by its number. */
export type Job =
  | {
      readonly kind: 'survey';
      readonly state: StateName;
      readonly pages: PageSourceData;
      readonly share?: Share | undefined;
      /** These pages, each for itself, in place of a share. */
      readonly numbers?: readonly number[] | undefined;
    }
  | {
      readonly kind: 'prove';
      readonly before: ProveSide;
      readonly after: ProveSide;
      readonly paths: readonly string[];
      /** Which of the pages; all without. */
      readonly share?: Share | undefined;
      /** These pages, each for itself, in place of a share. */
      readonly numbers?: readonly number[] | undefined;
      /** At most this many elements are described for one page. */
      readonly perPage?: number | undefined;
    }
  | {
      readonly kind: 'excerpt';
      readonly state: StateName;
      readonly paths: readonly string[];
      /** Numbers of the pages with which each thread's part begins, and the one behind the last. */
      readonly begins: readonly number[];
      readonly site: Overview;
      /** Pages that are kept as they are. */
      readonly whole: ReadonlySet<string>;
    };

export interface ProveSide {
  readonly state: StateName;
  readonly config: Config;
}

export type JobResult = SurveyResult | ProveResult | ExcerptResult;

/** What a thread sends back beside its result. */
export interface ThreadReport {
  readonly result: JobResult;
  readonly leftOut: ReadonlyMap<string, WhyLeftOut>;
}

export interface SurveyResult {
  readonly kind: 'survey';
  readonly stock: StockData;
  /** What single pages hold, as plain text, by number: of those that were asked for one by one. */
  readonly each?: ReadonlyMap<number, string>;
  readonly timings: ReadonlyMap<string, number>;
}

export interface ProveResult {
  readonly kind: 'prove';
  readonly part: ProofPart;
  /** What pages that depend on the whole site still need; see `Prover`. */
  readonly late: readonly string[];
  readonly known: ReadonlySet<string>;
  readonly contextPages: readonly string[];
  /** What single pages came to, as plain text, by number: of those that were asked for one by one and are equal. */
  readonly each?: ReadonlyMap<number, string>;
  /** Files that either state was asked for. */
  readonly asked?: readonly (readonly string[])[];
  readonly timings: ReadonlyMap<string, number>;
}

export interface ExcerptResult {
  readonly kind: 'excerpt';
  /** Which of the parts, from 0. */
  readonly part: number;
  readonly excerpts: Excerpts;
  /** How many of the pages use each sheet, and each list of sheets that some link plainly. */
  readonly uses: ReadonlyMap<string, number>;
  readonly links: readonly (readonly string[])[];
  /** Paths of what the pages lead to. */
  readonly sheets: readonly string[];
  readonly scripts: readonly string[];
  readonly timings: ReadonlyMap<string, number>;
}
