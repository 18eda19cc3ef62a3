// The entry of a worker thread: runs its part of a job and sends back what it found.

import { parentPort, workerData } from 'node:worker_threads';
import { UsageError } from '../../core/usage-error.js';
import { type LeftOut, noticeLeftOut } from '../files/left-out.js';
import type { Job } from './job-model.js';
import { runJob } from './jobs.js';
import type { WorkerMessage } from './pool.js';

const { job, cells } = workerData as { job: Job; cells: Int32Array };
const send = (message: WorkerMessage): void => parentPort?.postMessage(message);
try {
  const leftOut: LeftOut = new Map();
  const result = await noticeLeftOut(leftOut, () => runJob(job, cells));
  send({ kind: 'done', result, leftOut });
} catch (error) {
  if (!(error instanceof UsageError)) throw error;
  send({ kind: 'refused', code: error.code, values: error.values });
}
