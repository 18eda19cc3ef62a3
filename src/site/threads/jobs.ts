// What a thread does with its share of the pages. Each kind of job loads only what it needs.

import type { Config } from '../config.js';
import type { PageSourceData } from '../files/pages.js';
import type { ProveResult } from './prove-job.js';
import type { StateName } from '../files/state.js';
import type { SurveyResult } from './survey-job.js';

/** `paths` are all pages, in order: threads name a page by its number. */
export type Job =
  | { readonly kind: 'survey'; readonly state: StateName; readonly pages: PageSourceData }
  | {
      readonly kind: 'prove';
      readonly before: ProveSide;
      readonly after: ProveSide;
      readonly paths: readonly string[];
    };

export interface ProveSide {
  readonly state: StateName;
  readonly config: Config;
}

export type JobResult = SurveyResult | ProveResult;

/** One thread's part of a job, everything opened anew. */
export async function runJob(job: Job, cells: Int32Array): Promise<JobResult> {
  switch (job.kind) {
    case 'survey':
      return (await import('./survey-job.js')).surveyShare(job, cells);
    case 'prove':
      return (await import('./prove-job.js')).proveShare(job, cells);
  }
}
