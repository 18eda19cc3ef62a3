// A site as it was before the last change, without touching it.

import path from 'node:path';
import { openFolder, type SiteFiles } from '../files/files.js';
import { lastRecord } from './record.js';
import { bytesBefore } from './undo.js';

export interface LastChange {
  readonly before: SiteFiles;
  /** Paths of the files that it wrote. */
  readonly files: readonly string[];
}

/** Out: `undefined` where nothing was changed. Throws `UsageError`. */
export function lastChange(folder: string): LastChange | undefined {
  const root = path.resolve(folder);
  const filed = lastRecord(root);
  if (filed === undefined) return undefined;
  const files = openFolder(folder);
  const old = bytesBefore(root, filed.record);
  const before: SiteFiles = {
    ...files,
    list: () => files.list().filter((file) => !old.has(file) || old.get(file) !== undefined),
    read: (file) => (old.has(file) ? old.get(file) : files.read(file)),
  };
  return { before, files: [...old.keys()] };
}
