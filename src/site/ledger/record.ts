// The record of a change, written before the change: what to put back, byte for byte. Lives in `.acervus/`.

import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { z } from 'zod';
import { UsageError } from '../../core/base/usage-error.js';
import { changeablePath, insideSite } from '../files/inside.js';

const editSchema = z.strictObject({ start: z.int().min(0), end: z.int().min(0), text: z.string() });

const recordSchema = z.strictObject({
  format: z.literal(1),
  command: z.string(),
  time: z.string(),
  /** `writing` until every file is written, `undoing` while they are put back: found so, it was cut short. */
  state: z.enum(['writing', 'done', 'undoing']),
  files: z.array(
    z.strictObject({
      path: changeablePath,
      encoding: z.strictObject({
        name: z.string(),
        mark: z.boolean(),
      }),
      /** SHA-256 of the bytes before, `null` for a file that did not exist. */
      before: z.string().nullable(),
      after: z.string(),
      /** Turn the text after into the text before. */
      back: z.array(editSchema),
    }),
  ),
  /** Folders that the change made, deepest last. */
  folders: z.array(changeablePath),
});

export type ChangeRecord = z.infer<typeof recordSchema>;

export interface FiledRecord {
  readonly file: string;
  readonly record: ChangeRecord;
}

const FOLDER = path.join('.acervus', 'ledger');

export function sha256(bytes: Buffer): string {
  return createHash('sha256').update(bytes).digest('hex');
}

/** The newest record, `undefined` when there is none. Throws `UsageError` for one that cannot be read. */
export function lastRecord(root: string): FiledRecord | undefined {
  const folder = insideSite(root, FOLDER);
  if (!existsSync(folder)) return undefined;
  const name = readdirSync(folder)
    .filter((file) => /^\d{4,}\.json$/.test(file))
    .sort((a, b) => Number.parseInt(a, 10) - Number.parseInt(b, 10))
    .at(-1);
  if (name === undefined) return undefined;
  const file = path.join(folder, name);
  const parsed = recordSchema.safeParse(readJson(file));
  if (!parsed.success) throw new UsageError('not-a-record', { file: path.join(FOLDER, name) });
  return { file, record: parsed.data };
}

export function saveRecord(root: string, record: ChangeRecord, file?: string): string {
  const target =
    file ?? path.join(insideSite(root, FOLDER), `${String(nextNumber(root)).padStart(4, '0')}.json`);
  mkdirSync(path.dirname(target), { recursive: true });
  writeFileAtomic.sync(target, `${JSON.stringify(record, null, 1)}\n`);
  return target;
}

/** Removes a record, and the folders that hold nothing more. */
export function dropRecord(root: string, file: string): void {
  rmSync(file, { force: true });
  for (const folder of [path.join(root, FOLDER), path.join(root, '.acervus')]) {
    if (existsSync(folder) && readdirSync(folder).length === 0) rmdirSync(folder);
  }
}

function nextNumber(root: string): number {
  const last = lastRecord(root);
  return last === undefined ? 1 : Number.parseInt(path.basename(last.file), 10) + 1;
}

function readJson(file: string): unknown {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return undefined;
  }
}
