// The entry of a worker thread: runs its part of a job and sends back what it found.

import { parentPort, workerData } from 'node:worker_threads';
import { UsageError } from '../../core/base/usage-error.js';
import { noNotices, withNotices } from '../files/notices.js';
import type { Job } from './job-model.js';
import { runJob } from './jobs.js';
import type { WorkerMessage } from './pool.js';

const { job, cells } = workerData as { job: Job; cells: Int32Array };
const send = (message: WorkerMessage): void => parentPort?.postMessage(message);
try {
  const notices = noNotices();
  const result = await withNotices(notices, () => runJob(job, cells));
  send({ kind: 'done', result, leftOut: notices.leftOut });
} catch (error) {
  if (!(error instanceof UsageError)) throw error;
  send({ kind: 'refused', code: error.code, values: error.values });
}
