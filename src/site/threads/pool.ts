// Runs a job over the pages of a site on several threads.

import { statSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { Worker } from 'node:worker_threads';
import type { MessageCode, MessageValues } from '../../core/base/messages/index.js';
import { UsageError } from '../../core/base/usage-error.js';
import { leaveOut } from '../files/notices.js';
import type { StateName } from '../files/state.js';
import type { Job, JobResult, ThreadReport } from './job-model.js';
import { newCells } from './shares.js';

/** Below this many bytes of pages a second thread costs more than it brings. */
const WORTH_A_THREAD = 3_000_000;
const MOST_THREADS = 4;

export type WorkerMessage =
  | ({ readonly kind: 'done' } & ThreadReport)
  | { readonly kind: 'refused'; readonly code: MessageCode; readonly values: MessageValues<MessageCode> };

/**
 * Runs a job on this thread and `jobs - 1` others.
 * In: `own`, which does this thread's part. Out: the results, this thread's first. Throws `UsageError` when a thread does.
 */
export async function inThreads(
  job: Job,
  jobs: number,
  own: (cells: Int32Array) => Promise<JobResult>,
): Promise<JobResult[]> {
  const cells = newCells();
  const others = Array.from({ length: jobs - 1 }, () => startWorker(job, cells));
  try {
    const first = await own(cells);
    return [first, ...resultsOf(await Promise.all(others.map(({ report }) => report)))];
  } finally {
    for (const { worker } of others) void worker.terminate();
  }
}

/** How often it is told how far other threads are, in milliseconds. */
const TELL_EVERY = 200;

/**
 * Runs a job on `jobs` other threads: this one holds so much that what comes and goes beside it would make it hold more.
 * In: `onPage`, which hears how many pages all have done. Throws `UsageError` when a thread does.
 */
export async function inOtherThreads(
  job: Job,
  jobs: number,
  onPage: (done: number) => void = () => {},
): Promise<JobResult[]> {
  const cells = newCells();
  const others = Array.from({ length: jobs }, () => startWorker(job, cells));
  const telling = setInterval(() => onPage(Atomics.load(cells, 1)), TELL_EVERY);
  try {
    return resultsOf(await Promise.all(others.map(({ report }) => report)));
  } finally {
    clearInterval(telling);
    for (const { worker } of others) void worker.terminate();
  }
}

function resultsOf(reports: readonly ThreadReport[]): JobResult[] {
  for (const { leftOut } of reports) for (const [file, why] of leftOut) leaveOut(file, why);
  return reports.map(({ result }) => result);
}

/** Megabytes of a worker's nursery: it holds a page. The thread that plans has a larger one, which each worker would take after. */
const NURSERY = 32;

function startWorker(job: Job, cells: Int32Array): { worker: Worker; report: Promise<ThreadReport> } {
  setFlagsFromString(`--max-semi-space-size=${NURSERY}`);
  const worker = new Worker(new URL('./worker.js', import.meta.url), {
    workerData: { job, cells },
  });
  const report = new Promise<ThreadReport>((resolve, reject) => {
    worker.once('message', (message: WorkerMessage) => {
      if (message.kind === 'done') resolve(message);
      else reject(new UsageError(message.code, message.values));
    });
    worker.once('error', reject);
  });
  // A refusal of this thread's own part is told first; the others' must not be left unheard.
  report.catch(() => undefined);
  return { worker, report };
}

/**
 * How many threads to use.
 * In: what the user asked for; the pages; where they are. Out: at least 1. Throws `UsageError` for no whole number.
 */
export function threadCount(asked: number | undefined, pages: readonly string[], state: StateName): number {
  if (asked !== undefined) {
    if (!Number.isInteger(asked) || asked < 1 || asked > 64) throw new UsageError('jobs', { given: asked });
    return Math.min(asked, Math.max(1, pages.length));
  }
  return holdsAtLeast(WORTH_A_THREAD, pages, state) ? Math.min(MOST_THREADS, availableParallelism()) : 1;
}

/** Whether pages come to so many bytes. */
export function holdsAtLeast(least: number, pages: readonly string[], state: StateName): boolean {
  let bytes = 0;
  for (const file of pages) {
    bytes += statSync(path.join(state.folder, file), { throwIfNoEntry: false })?.size ?? 0;
    if (bytes > least) return true;
  }
  return false;
}
