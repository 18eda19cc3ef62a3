// Taking the last change back, byte for byte, all or nothing.

import { existsSync, readdirSync, readFileSync, rmdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { UsageError } from '../../core/base/usage-error.js';
import { applyEdits } from '../../core/edit/text/edit.js';
import { isStyleSheet } from '../../core/read/kinds/index.js';
import { type Config, parseConfig } from '../config.js';
import { decodeAs, encodeFile } from '../files/encoding.js';
import { CONFIG_FILE } from '../files/files.js';
import { insideSite, readPlain } from '../files/inside.js';
import { ownerByName } from '../files/owner.js';
import { alone } from './lock.js';
import { type ChangeRecord, dropRecord, type FiledRecord, lastRecord, saveRecord, sha256 } from './record.js';
import { sweepChange, sweepOwn } from './sweep.js';

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
  if (lastRecord(root) === undefined) return undefined;
  return alone(root, () => undo(root));
}

function undo(root: string): Undone | undefined {
  const last = lastRecord(root);
  if (last === undefined) return undefined;
  sweepOwn(root);
  const { record, file } = last;
  refusePlatform(root, last);
  const changed = record.files.filter((entry) => !isAsLeft(root, entry));
  if (changed.length > 0) {
    const names = changed
      .slice(0, 3)
      .map((entry) => entry.path)
      .join(', ');
    const more = changed.length > 3 ? ` and ${changed.length - 3} more` : '';
    throw new UsageError('changed-since', { files: names + more, command: record.command });
  }
  if (record.state !== 'done') sweepChange(root, record);
  // Recorded like a change: cut short, the next command says so, and the next undo goes on with it.
  saveRecord(root, { ...record, state: 'undoing' }, file);
  try {
    takeBack(root, record);
  } catch (error) {
    saveRecord(root, record, file);
    throw error instanceof UsageError
      ? error
      : new UsageError('undo-failed', { problem: (error as Error).message });
  }
  dropRecord(root, file);
  return {
    command: record.command,
    time: record.time,
    restored: record.files.filter(({ before }) => before !== null).map((entry) => entry.path),
    removed: record.files.filter(({ before }) => before === null).map((entry) => entry.path),
    unfinished: record.state !== 'done',
  };
}

/** No change writes what is the platform's: a record that names it was made by somebody else. */
function refusePlatform(root: string, { record, file }: FiledRecord): void {
  const config = configOf(root);
  const named = record.files.some(
    ({ path: one }) => isStyleSheet(one) && ownerByName(config, one)?.owner === 'platform',
  );
  if (named) throw new UsageError('not-a-record', { file: path.relative(root, file) });
}

/** A configuration that cannot be read is no reason not to take a change back. */
function configOf(root: string): Config {
  const full = path.join(root, CONFIG_FILE);
  try {
    return parseConfig(existsSync(full) ? readFileSync(full, 'utf8') : undefined);
  } catch {
    return {};
  }
}

function isAsLeft(root: string, { path: file, before, after }: ChangeRecord['files'][number]): boolean {
  const full = insideSite(root, file);
  if (!existsSync(full)) return before === null;
  const now = sha256(readPlain(full, file));
  return now === after || now === before;
}

/**
 * Restores every file that the change has reached; those it has not are as they were. All or none: a failure on the way puts
 * back what was restored.
 */
export function takeBack(root: string, record: ChangeRecord): void {
  const planned = record.files.flatMap((entry) => restored(root, entry) ?? []);
  const done: typeof planned = [];
  try {
    for (const one of planned) {
      done.push(one);
      if (one.bytes === undefined) rmSync(one.full);
      else writeFileAtomic.sync(one.full, one.bytes);
    }
  } catch (error) {
    for (const { full, now } of done) writeFileAtomic.sync(full, now);
    throw error;
  }
  for (const folder of [...record.folders].reverse()) {
    const full = insideSite(root, folder);
    if (existsSync(full) && readdirSync(full).length === 0) rmdirSync(full);
  }
}

/** What files held before a change, `undefined` for those that were not there. */
export function bytesBefore(root: string, record: ChangeRecord): Map<string, Buffer | undefined> {
  return new Map(
    record.files.flatMap((entry) => {
      const found = restored(root, entry);
      return found === undefined ? [] : [[entry.path, found.bytes] as const];
    }),
  );
}

interface Restored {
  readonly full: string;
  readonly now: Buffer;
  /** `undefined` for a file that did not exist. */
  readonly bytes: Buffer | undefined;
}

/** Out: `undefined` for a file that the change has not reached. */
function restored(
  root: string,
  { path: file, encoding, before, after, back }: ChangeRecord['files'][number],
): Restored | undefined {
  const full = insideSite(root, file);
  if (!existsSync(full)) return undefined;
  const now = readPlain(full, file);
  if (sha256(now) !== after) return undefined;
  if (before === null) return { full, now, bytes: undefined };
  const text = decodeAs(now, encoding);
  const bytes = text === undefined ? undefined : encodeFile(applyEdits(text, back), encoding);
  if (bytes === undefined || sha256(bytes) !== before) throw new UsageError('record-broken', { file });
  return { full, now, bytes };
}
