// The end of everything that changes a site: written with its record, or made a patch.

import { existsSync } from 'node:fs';
import path from 'node:path';
import { UsageError } from '../../core/base/usage-error.js';
import type { Edits } from '../../core/edit/text/index.js';
import { openFolder } from '../files/files.js';
import { loadSite, type Site } from '../rendering/load.js';
import { boxFile, isBoxFile } from '../visiting/with-boxes.js';
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
  const site = loadSite(files, { outlinesIn: path.resolve(folder) });
  const { rendering = 'files' } = site.config;
  if (rendering !== 'files' && 'build' in rendering) throw new UsageError('built-not-changed', {});
  if (site.visited?.boxes.length === 0) throw new UsageError('visited-no-box', {});
  return site;
}

/** Of a running system: the box that a page has of its own; `undefined` for a site whose pages may be written. */
export function boxOf({ visited, model }: Site): ((page: string) => string | undefined) | undefined {
  if (visited === undefined) return undefined;
  const place = visited.boxes.find(({ box }) => 'page' in box);
  return (page) => {
    const file = place && boxFile(place, page);
    return file !== undefined && model.sources.sheets.has(file) ? file : undefined;
  };
}

/** Writes the edits, or makes a patch of them. Nothing happens when there are none. Throws `UsageError`. */
export function carryOut(
  folder: string,
  site: Site,
  command: string,
  edits: Edits,
  { patch }: WriteOptions,
): CarriedOut {
  const { visited } = site;
  const foreign = [...edits.keys()].find((file) => visited !== undefined && !isBoxFile(visited, file));
  if (foreign !== undefined) throw new UsageError('visited-pages', { file: foreign });
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
