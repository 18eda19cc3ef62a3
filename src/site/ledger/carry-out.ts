// The end of everything that changes a site: written with its record, or made a patch.

import { existsSync } from 'node:fs';
import path from 'node:path';
import type { Edits } from '../../core/edits/index.js';
import { UsageError } from '../../core/usage-error.js';
import { openFolder } from '../files/files.js';
import { loadSite, type Site } from '../rendering/load.js';
import { type FileChange, fileChanges, refuseUnfinished, writeChange } from './change.js';
import { unifiedPatch } from './patch.js';
import type { WriteOptions } from './write-options.js';

export interface CarriedOut {
  /** Paths of the files that were written, or are in the patch. */
  readonly files: readonly string[];
  readonly written: boolean;
  readonly patch?: string;
}

export const NOTHING_DONE: CarriedOut = { files: [], written: false };

/** Loads a site that is to be changed. Throws `UsageError`. */
export function openForChange(folder: string): Site {
  const files = openFolder(folder);
  refuseUnfinished(path.resolve(folder));
  const site = loadSite(files);
  const { rendering = 'files' } = site.config;
  if (rendering !== 'files') throw new UsageError('built-not-changed', {});
  return site;
}

/** Writes the edits, or makes a patch of them. Nothing happens when there are none. Throws `UsageError`. */
export function carryOut(
  folder: string,
  site: Site,
  command: string,
  edits: Edits,
  { patch }: WriteOptions,
): CarriedOut {
  const changes = fileChanges(site, edits).filter((change) => change.edits.length > 0);
  return writePlanned(path.resolve(folder), command, changes, { patch });
}

/** The same for a change that is ready. */
export function writePlanned(
  root: string,
  command: string,
  changes: readonly FileChange[],
  { patch }: WriteOptions,
): CarriedOut {
  const files = changes.map((change) => change.path);
  if (patch === true)
    return {
      files,
      written: false,
      patch: unifiedPatch(changes, (file) => existsSync(path.join(root, file))),
    };
  if (changes.length > 0) writeChange(root, command, changes);
  return { files, written: changes.length > 0 };
}
