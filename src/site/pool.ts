// Spreads the pages of a site over threads. Each thread takes the next few pages from one shared counter, so that none
// waits for another, and keeps only what it found.

import { statSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Job, JobResult } from './jobs.js';
import type { StateName } from './state.js';
import { UsageError } from './usage-error.js';

/** Pages that a thread takes at once. */
const SHARE = 8;
/** Below this many bytes of pages a second thread costs more than it brings. */
const WORTH_A_THREAD = 3_000_000;
const MOST_THREADS = 4;

/** What the threads of one run share. */
export interface Counter {
  readonly cells: Int32Array;
}

export type WorkerMessage =
  | { readonly kind: 'done'; readonly result: JobResult }
  | { readonly kind: 'refused'; readonly message: string };

/** Hands out the numbers of the pages that this thread is to do, in order; `onPage` hears how many all have done. */
export function* takeShares(
  cells: Int32Array,
  count: number,
  onPage?: (done: number) => void,
): Generator<number> {
  for (;;) {
    const from = Atomics.add(cells, 0, SHARE);
    if (from >= count) return;
    for (let number = from; number < Math.min(count, from + SHARE); number++) {
      yield number;
      onPage?.(Atomics.add(cells, 1, 1) + 1);
    }
  }
}

/**
 * Runs a job on this thread and `jobs - 1` others.
 * In: `own`, which does this thread's part. Out: the results, this thread's first. Throws `UsageError` when a thread does.
 */
export async function inThreads(
  job: Job,
  jobs: number,
  own: (cells: Int32Array) => JobResult,
): Promise<JobResult[]> {
  const cells = new Int32Array(new SharedArrayBuffer(8));
  const others = Array.from({ length: jobs - 1 }, () => startWorker(job, cells));
  try {
    const first = own(cells);
    return [first, ...(await Promise.all(others.map(({ result }) => result)))];
  } finally {
    for (const { worker } of others) void worker.terminate();
  }
}

function startWorker(job: Job, cells: Int32Array): { worker: Worker; result: Promise<JobResult> } {
  const worker = new Worker(new URL('./worker.js', import.meta.url), {
    workerData: { job, cells },
    resourceLimits: { maxYoungGenerationSizeMb: 64 },
  });
  const result = new Promise<JobResult>((resolve, reject) => {
    worker.once('message', (message: WorkerMessage) => {
      if (message.kind === 'done') resolve(message.result);
      else reject(new UsageError(message.message));
    });
    worker.once('error', reject);
  });
  // A refusal of this thread's own part is told first; the others' must not be left unheard.
  result.catch(() => undefined);
  return { worker, result };
}

/**
 * How many threads to use.
 * In: what the user asked for; the pages; where they are. Out: at least 1. Throws `UsageError` for no whole number.
 */
export function threadCount(asked: string | undefined, pages: readonly string[], state: StateName): number {
  if (asked !== undefined) {
    const jobs = Number(asked);
    if (!Number.isInteger(jobs) || jobs < 1 || jobs > 64)
      throw new UsageError(`--jobs ${asked}: expected a whole number from 1 to 64`);
    return Math.min(jobs, Math.max(1, pages.length));
  }
  let bytes = 0;
  for (const file of pages) {
    bytes += statSync(path.join(state.folder, file), { throwIfNoEntry: false })?.size ?? 0;
    if (bytes > WORTH_A_THREAD) return Math.min(MOST_THREADS, availableParallelism());
  }
  return 1;
}
