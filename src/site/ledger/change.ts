// Writing a planned change, all or nothing, with its record first.

import { accessSync, constants, existsSync, mkdirSync, statSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { groupBy } from '../../core/base/group-by.js';
import { UsageError } from '../../core/base/usage-error.js';
import { applyEdits, type Edit, reverseEdits } from '../../core/edit/text/edit.js';
import { type Encoding, encodeFile } from '../files/encoding.js';
import { insideSite, readPlain } from '../files/inside.js';
import { noteUnlinked } from '../files/notices.js';
import { readText } from '../files/text.js';
import { remake } from '../rendering/compiled-sheets.js';
import { importEdit } from '../rendering/imported-sheets.js';
import type { Site } from '../rendering/load.js';
import { alone } from './lock.js';
import { type ChangeRecord, dropRecord, lastRecord, saveRecord, sha256 } from './record.js';
import { sourceChanges } from './source-changes.js';
import { sweepChange, sweepOwn } from './sweep.js';
import { takeBack } from './undo.js';

export interface FileChange {
  readonly path: string;
  /** The decoded text the edits belong to; empty for a new file. */
  readonly text: string;
  readonly encoding: Encoding;
  readonly edits: readonly Edit[];
}

const UTF_8: Encoding = { name: 'utf-8', mark: false };

type ChangedSite = Pick<
  Site,
  | 'model'
  | 'textOf'
  | 'encodings'
  | 'scriptTexts'
  | 'added'
  | 'compiled'
  | 'files'
  | 'sheets'
  | 'sourceOf'
  | 'config'
  | 'compiledAs'
>;

/** In: edits by path, on the texts of a loaded site; a path that it does not hold is a new file. */
export function fileChanges(site: ChangedSite, edits: ReadonlyMap<string, readonly Edit[]>): FileChange[] {
  const { model, textOf, encodings, scriptTexts, added } = site;
  const { others, changes } = sourceChanges(site, edits);
  const moduleText = (file: string): string | undefined =>
    file === added?.module ? readText(site.files, file)?.text : undefined;
  const made = [...withImport(site, others)].map(
    ([file, own]): FileChange => ({
      path: file,
      text: textOf(file) ?? model.sources.sheets.get(file) ?? scriptTexts.get(file) ?? moduleText(file) ?? '',
      encoding: encodings.get(file) ?? UTF_8,
      edits: own,
    }),
  );
  const sourced = changes.map(
    ({ file, text, edits }): FileChange => ({ path: file, text, edits, encoding: UTF_8 }),
  );
  return [...made, ...sourced, ...remadeFiles(site, made)].sort((a, b) => (a.path < b.path ? -1 : 1));
}

/** Two changes of one site as one. */
export function together(one: readonly FileChange[], other: readonly FileChange[]): FileChange[] {
  return [...groupBy([...one, ...other], ({ path: file }) => file).values()]
    .map((own): FileChange => {
      const edits = own.flatMap((change) => change.edits).sort((a, b) => a.start - b.start);
      return { ...own[0]!, edits };
    })
    .sort((a, b) => (a.path < b.path ? -1 : 1));
}

/** What a preprocessor makes of the shared sheet, where it is a part of one. */
function remadeFiles(
  { compiled, files }: Pick<Site, 'compiled' | 'files'>,
  changes: readonly FileChange[],
): FileChange[] {
  const part = changes.find((one) => one.path === compiled?.part);
  if (compiled === undefined || part === undefined) return [];
  return remake(files, compiled, applyEdits(part.text, part.edits)).map(({ file, text, edits }) => ({
    path: file,
    text,
    encoding: UTF_8,
    edits,
  }));
}

/** A sheet that is new to the modules of a site is imported by one of them. */
function withImport(
  { added, textOf, files }: Pick<Site, 'added' | 'textOf' | 'files'>,
  edits: ReadonlyMap<string, readonly Edit[]>,
): ReadonlyMap<string, readonly Edit[]> {
  if (added === undefined || !edits.has(added.sheet)) return edits;
  const text = textOf(added.module) ?? readText(files, added.module)?.text;
  const line = text === undefined ? undefined : importEdit(text, added);
  if (line === undefined) return edits;
  return new Map([...edits, [added.module, [...(edits.get(added.module) ?? []), line]]]);
}

/**
 * Writes changes to the site's files. Every file is checked before the first is written; a failure on the way puts
 * back what was written. Throws `UsageError`.
 */
export function writeChange(root: string, command: string, changes: readonly FileChange[]): void {
  alone(root, () => write(root, command, changes));
}

function write(root: string, command: string, changes: readonly FileChange[]): void {
  refuseUnfinished(root);
  sweepOwn(root);
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
    sweepChange(root, record);
    throw new UsageError('writing-failed', { problem: (error as Error).message });
  }
  saveRecord(root, { ...record, state: 'done' }, file);
}

/** A change that was cut short must be put right before the next one. */
export function refuseUnfinished(root: string): void {
  const state = lastRecord(root)?.record.state;
  if (state === 'writing') throw new UsageError('change-unfinished', {});
  if (state === 'undoing') throw new UsageError('undo-unfinished', {});
}

function planFile(
  root: string,
  { path: file, text, encoding, edits }: FileChange,
): { file: string; full: string; bytes: Buffer; entry: ChangeRecord['files'][number] } {
  const full = insideSite(root, file);
  const existed = existsSync(full);
  const before = existed ? readPlain(full, file) : undefined;
  if (existed && statSync(full).nlink > 1) noteUnlinked(file);
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
