// Names a state of a site so that every thread can open it for itself.

import { existsSync, statSync } from 'node:fs';
import { applyEdits, type Edit } from '../../core/edit/text/edit.js';
import { decodeAs, type Encoding, encodeFile } from './encoding.js';
import { openCommit, openFolder, type SiteFiles } from './files.js';

export type StateName =
  | { readonly kind: 'folder'; readonly folder: string }
  | { readonly kind: 'commit'; readonly folder: string; readonly reference: string }
  /** A folder with edits made, and nothing written. */
  | { readonly kind: 'changed'; readonly folder: string; readonly files: ReadonlyMap<string, ChangedFile> };

/** Edits of a file's decoded text; of an empty one, where there is no such file. */
export interface ChangedFile {
  readonly encoding: Encoding;
  readonly edits: readonly Edit[];
}

/** In: the site's folder, and what `--against` names: another folder, or a commit. */
export function otherState(folder: string, against: string): StateName {
  const isFolder = existsSync(against) && statSync(against).isDirectory();
  return isFolder ? { kind: 'folder', folder: against } : { kind: 'commit', folder, reference: against };
}

/** Throws `UsageError` for what cannot be opened. */
export function openState(state: StateName): SiteFiles {
  switch (state.kind) {
    case 'folder':
      return openFolder(state.folder);
    case 'commit':
      return openCommit(state.folder, state.reference);
    case 'changed':
      return openChanged(openFolder(state.folder), state.files);
  }
}

function openChanged(files: SiteFiles, changed: ReadonlyMap<string, ChangedFile>): SiteFiles {
  let list: readonly string[] | undefined;
  return {
    label: files.label,
    list: () => {
      list ??= [...new Set([...files.list(), ...changed.keys()])].sort();
      return list;
    },
    isLinked: (file) => files.isLinked?.(file) ?? false,
    leadsOut: (file) => files.leadsOut?.(file) ?? false,
    read: (file) => {
      const bytes = files.read(file);
      const own = changed.get(file);
      if (own === undefined) return bytes;
      const text = bytes === undefined ? '' : decodeAs(bytes, own.encoding);
      // A file that is not what it was is read as it is: it differs.
      return text === undefined ? bytes : encodeFile(applyEdits(text, own.edits), own.encoding);
    },
  };
}
