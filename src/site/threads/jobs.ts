// What a thread does with its share of the pages. Each kind of job loads only what it needs.

import type { Job, JobResult } from './job-model.js';

/** One thread's part of a job, everything opened anew. */
export async function runJob(job: Job, cells: Int32Array): Promise<JobResult> {
  switch (job.kind) {
    case 'survey':
      return (await import('./survey-job.js')).surveyShare(job, cells);
    case 'prove':
      return (await import('./prove-job.js')).proveShare(job, cells);
    case 'excerpt':
      return (await import('./excerpt-job.js')).excerptShare(job, cells);
  }
}
