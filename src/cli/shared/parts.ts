// Work shared out to several machines, as it is asked for: `--part 3/8`, and `--join` with the files of all parts.

import { UsageError } from '../../core/base/usage-error.js';
import type { PartDocument } from '../../site/threads/part-file.js';
import type { Share } from '../../site/threads/shares.js';
import type { Terminal } from './terminal.js';

export interface PartFlags {
  readonly part?: string;
  readonly join?: readonly string[];
}

/** Nobody has more machines. */
const MOST_PARTS = 100_000;

/** Throws `UsageError` for what is no part, and for one that is to be made and joined at once. */
export function readShare({ part, join }: PartFlags): Share | undefined {
  if (part === undefined) return undefined;
  if (join !== undefined) throw new UsageError('part-or-join', {});
  const match = /^(\d{1,6})\/(\d{1,6})$/.exec(part.trim());
  const [number, of] = [Number(match?.[1]), Number(match?.[2])];
  if (match === null || number < 1 || number > of || of > MOST_PARTS)
    throw new UsageError('part', { given: part });
  return { number, of };
}

/** A part is for a file: it is written as it is. */
export function writePart({ write }: Terminal, part: PartDocument): void {
  write(`${JSON.stringify(part)}\n`);
}
