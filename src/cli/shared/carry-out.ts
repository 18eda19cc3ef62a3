// The end of every command that changes something: written with its record, or printed as a patch.

import { existsSync } from 'node:fs';
import path from 'node:path';
import type { Edit } from '../../core/edits/index.js';
import { type Difference, differenceText } from '../../core/proof/index.js';
import { fileChanges, refuseUnfinished, writeChange } from '../../site/ledger/change.js';
import { openFolder } from '../../site/files/files.js';
import { loadSite, type Site } from '../../site/rendering/load.js';
import { unifiedPatch } from '../../site/ledger/patch.js';
import { clean, more, row } from './paper.js';

export interface WriteOptions {
  readonly patch?: boolean;
  readonly json?: boolean;
}

export interface CarriedOut {
  readonly files: string[];
  readonly written: boolean;
  readonly patch?: string;
}

/** Loads a site that is to be changed. Throws `UsageError`. */
export function openForChange(folder: string): Site {
  const files = openFolder(folder);
  refuseUnfinished(path.resolve(folder));
  return loadSite(files);
}

export function isPlatformIn(site: Site): (file: string) => boolean {
  const platform = new Set(
    site.sheets.filter(({ owner }) => owner === 'platform').map((sheet) => sheet.path),
  );
  return (file) => platform.has(file);
}

/** Sheets that may be edited, the shared one with them. */
export function themesOf(site: Site): string[] {
  const themes = site.sheets.filter(({ owner }) => owner === 'theme').map((sheet) => sheet.path);
  const isThere = site.model.sources.sheets.has(site.shared);
  return isThere && !themes.includes(site.shared) ? [...themes, site.shared] : themes;
}

/** Writes the edits, or makes a patch of them. Nothing happens when there are none. Throws `UsageError`. */
export function carryOut(
  folder: string,
  site: Site,
  command: string,
  edits: ReadonlyMap<string, readonly Edit[]>,
  options: WriteOptions,
): CarriedOut {
  const root = path.resolve(folder);
  const changes = fileChanges(site, edits).filter((change) => change.edits.length > 0);
  const files = changes.map((change) => change.path);
  if (options.patch === true)
    return {
      files,
      written: false,
      patch: unifiedPatch(changes, (file) => existsSync(path.join(root, file))),
    };
  if (changes.length > 0) writeChange(root, command, changes);
  return { files, written: changes.length > 0 };
}

/** Differences that nobody asked for, and the end of a command that refuses because of them. */
export function strayLines(strays: readonly Difference[], all: boolean): string[] {
  const texts = [...new Set(strays.map(differenceText))];
  const shown = all ? texts : texts.slice(0, 6);
  const lines = shown.map((text) => row({ mark: 'broken', text: clean(text) }));
  if (texts.length > shown.length) lines.push(more(texts.length - shown.length, '--all'));
  return lines;
}
