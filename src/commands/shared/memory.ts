// A site that would not fit into memory is refused before, not after minutes of work.

import { getHeapStatistics } from 'node:v8';
import { UsageError } from '../../core/base/usage-error.js';

/** Measured: what a draft takes for each character of its pages. */
const PER_CHARACTER = 62;
const MEGABYTE = 1_000_000;

/** In: characters of all pages; what the process may take, in bytes. Throws `UsageError` where a draft would not fit. */
export function refuseTooLarge(characters: number, limit = getHeapStatistics().heap_size_limit): void {
  const need = characters * PER_CHARACTER;
  if (need <= limit) return;
  const inMegabytes = (bytes: number): number => Math.ceil(bytes / MEGABYTE);
  throw new UsageError('too-large', {
    size: inMegabytes(characters),
    need: inMegabytes(need),
    limit: inMegabytes(limit),
    asked: Math.ceil(inMegabytes(need) / 1000) * 1000,
  });
}
