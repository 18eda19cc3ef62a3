// Work that is shared out to several machines: what one of them found in its part of the pages, as a file, and the files put
// together again. What they come to is what one machine finds in all pages.

import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { UsageError } from '../../core/base/usage-error.js';
import { fromPlain, toPlain } from '../plain.js';
import { programVersion } from '../version.js';
import type { Share } from './shares.js';

const count = z.int().min(1);

/** A part as it is written: plain JSON. What it found is opaque to others, and sealed. */
export const partDocument = z.strictObject({
  format: z.literal(1),
  command: z.enum(['survey', 'prove']),
  part: count,
  of: count,
  program: z.string().describe('The version that wrote it: another one may count otherwise.'),
  state: z.string().describe('SHA-256 of the pages of the part, and of what they were read with.'),
  seal: z.string().describe('SHA-256 of what was found.'),
  found: z.string().describe('What was found: for the same version of the program to join.'),
});

export type PartDocument = Readonly<z.infer<typeof partDocument>>;

/** In: what was found, of maps, sets and plain data. */
export function partOf(
  command: PartDocument['command'],
  { number, of }: Share,
  state: string,
  found: unknown,
): PartDocument {
  const text = toPlain(found);
  return {
    format: 1,
    command,
    part: number,
    of,
    program: programVersion(),
    state,
    seal: sealOf(text),
    found: text,
  };
}

/**
 * Reads all parts of one piece of work, in order.
 * In: `stateOf`, what a part was made of, as the site is now. Throws `UsageError` for what is no part, is missing, or was
 * made of something else.
 */
export function readParts(
  command: PartDocument['command'],
  files: readonly string[],
  stateOf: (share: Share) => string,
): unknown[] {
  const parts = files.map((file) => ({ file, part: readPart(command, file) }));
  const of = parts[0]?.part.of ?? 1;
  const found = new Map<number, unknown>();
  for (const { file, part } of parts) {
    if (part.of !== of || found.has(part.part))
      throw new UsageError('part-twice', { file, part: part.part, of });
    if (part.program !== programVersion() || part.state !== stateOf({ number: part.part, of }))
      throw new UsageError('part-outdated', { file });
    found.set(part.part, fromPlain(part.found));
  }
  const missing = Array.from({ length: of }, (_, at) => at + 1).filter((number) => !found.has(number));
  if (missing.length > 0) throw new UsageError('part-missing', { parts: missing.join(', '), of });
  return [...found].sort(([a], [b]) => a - b).map(([, one]) => one);
}

function readPart(command: PartDocument['command'], file: string): PartDocument {
  const parsed = partDocument.safeParse(readJson(file));
  const isWhole =
    parsed.success && parsed.data.command === command && sealOf(parsed.data.found) === parsed.data.seal;
  if (!isWhole) throw new UsageError('part-unreadable', { file, command });
  return parsed.data;
}

function readJson(file: string): unknown {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return undefined;
  }
}

function sealOf(text: string): string {
  return createHash('sha256').update(text).digest('hex');
}
