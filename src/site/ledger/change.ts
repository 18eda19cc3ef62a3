// Writing a planned change, all or nothing, with its record first; and taking the last one back.

import {
  accessSync,
  constants,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmdirSync,
  rmSync,
  statSync,
} from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { applyEdits, type Edit, reverseEdits } from '../../core/edits/edit.js';
import { UsageError } from '../../core/usage-error.js';
import { decodeAs, type Encoding, encodeFile } from '../files/encoding.js';
import { insideSite } from '../files/inside.js';
import type { Site } from '../rendering/load.js';
import { type ChangeRecord, dropRecord, lastRecord, saveRecord, sha256 } from './record.js';

export interface FileChange {
  readonly path: string;
  /** The decoded text the edits belong to; empty for a new file. */
  readonly text: string;
  readonly encoding: Encoding;
  readonly edits: readonly Edit[];
}

/** In: edits by path, on the texts of a loaded site; a path that it does not hold is a new file. */
export function fileChanges(
  { model, encodings, scriptTexts }: Pick<Site, 'model' | 'encodings' | 'scriptTexts'>,
  edits: ReadonlyMap<string, readonly Edit[]>,
): FileChange[] {
  return [...edits]
    .map(
      ([file, own]): FileChange => ({
        path: file,
        text: model.sources.pages.get(file) ?? model.sources.sheets.get(file) ?? scriptTexts.get(file) ?? '',
        encoding: encodings.get(file) ?? { name: 'utf-8', mark: false },
        edits: own,
      }),
    )
    .sort((a, b) => (a.path < b.path ? -1 : 1));
}

/**
 * Writes changes to the site's files. Every file is checked before the first is written; a failure on the way puts
 * back what was written. Throws `UsageError`.
 */
export function writeChange(root: string, command: string, changes: readonly FileChange[]): void {
  refuseUnfinished(root);
  const planned = changes.map((change) => planFile(root, change));
  const folders = missingFolders(
    root,
    planned.map(({ file }) => file),
  );
  const record: ChangeRecord = {
    format: 1,
    command,
    time: new Date().toISOString(),
    state: 'writing',
    files: planned.map(({ entry }) => entry),
    folders,
  };
  const file = saveRecord(root, record);
  try {
    for (const folder of folders) mkdirSync(path.join(root, folder), { recursive: true });
    for (const { full, bytes } of planned) writeFileAtomic.sync(full, bytes);
  } catch (error) {
    takeBack(root, record);
    dropRecord(root, file);
    throw new UsageError('writing-failed', { problem: (error as Error).message });
  }
  saveRecord(root, { ...record, state: 'done' }, file);
}

/** A change that was cut short must be put right before the next one. */
export function refuseUnfinished(root: string): void {
  if (lastRecord(root)?.record.state === 'writing') {
    throw new UsageError('change-unfinished', {});
  }
}

function planFile(
  root: string,
  { path: file, text, encoding, edits }: FileChange,
): { file: string; full: string; bytes: Buffer; entry: ChangeRecord['files'][number] } {
  const full = insideSite(root, file);
  const existed = existsSync(full);
  const before = existed ? readFileSync(full) : undefined;
  if (before !== undefined) {
    if ((statSync(full).mode & 0o222) === 0 || !isWritable(full)) throw new UsageError('read-only', { file });
    if (!encodeFile(text, encoding).equals(before)) throw new UsageError('file-changed', { file });
  }
  const bytes = encodeFile(applyEdits(text, edits), encoding);
  const entry = {
    path: file,
    encoding,
    before: before === undefined ? null : sha256(before),
    after: sha256(bytes),
    back: reverseEdits(text, edits),
  };
  return { file, full, bytes, entry };
}

function isWritable(full: string): boolean {
  try {
    accessSync(full, constants.W_OK);
    return true;
  } catch {
    return false;
  }
}

function missingFolders(root: string, files: readonly string[]): string[] {
  const missing = new Set<string>();
  for (const file of files) {
    for (
      let folder = path.posix.dirname(file);
      folder !== '.' && !existsSync(path.join(root, folder));
      folder = path.posix.dirname(folder)
    )
      missing.add(folder);
  }
  return [...missing].sort();
}

export interface Undone {
  readonly command: string;
  readonly time: string;
  readonly restored: readonly string[];
  readonly removed: readonly string[];
  /** The change had been cut short while writing. */
  readonly unfinished: boolean;
}

/** Takes the last change back, byte for byte. Out: `undefined` when there is none. Throws `UsageError`. */
export function undoLast(root: string): Undone | undefined {
  const last = lastRecord(root);
  if (last === undefined) return undefined;
  const { record, file } = last;
  const changed = record.files.filter((entry) => !isAsLeft(root, entry));
  if (changed.length > 0) {
    const names = changed
      .slice(0, 3)
      .map((entry) => entry.path)
      .join(', ');
    const more = changed.length > 3 ? ` and ${changed.length - 3} more` : '';
    throw new UsageError('changed-since', { files: names + more, command: record.command });
  }
  takeBack(root, record);
  dropRecord(root, file);
  return {
    command: record.command,
    time: record.time,
    restored: record.files.filter(({ before }) => before !== null).map((entry) => entry.path),
    removed: record.files.filter(({ before }) => before === null).map((entry) => entry.path),
    unfinished: record.state === 'writing',
  };
}

function isAsLeft(root: string, { path: file, before, after }: ChangeRecord['files'][number]): boolean {
  const full = insideSite(root, file);
  if (!existsSync(full)) return before === null;
  const now = sha256(readFileSync(full));
  return now === after || now === before;
}

/** Restores every file that the change has reached; those it has not are as they were. */
function takeBack(root: string, record: ChangeRecord): void {
  for (const { path: file, encoding, before, after, back } of record.files) {
    const full = insideSite(root, file);
    if (!existsSync(full)) continue;
    const bytes = readFileSync(full);
    if (sha256(bytes) !== after) continue;
    if (before === null) {
      rmSync(full);
      continue;
    }
    const text = decodeAs(bytes, encoding);
    const restored = text === undefined ? undefined : encodeFile(applyEdits(text, back), encoding);
    if (restored === undefined || sha256(restored) !== before)
      throw new UsageError('record-broken', { file });
    writeFileAtomic.sync(full, restored);
  }
  for (const folder of [...record.folders].reverse()) {
    const full = path.join(root, folder);
    if (existsSync(full) && readdirSync(full).length === 0) rmdirSync(full);
  }
}
