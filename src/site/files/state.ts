// Names a state of a site so that every thread can open it for itself.

import { existsSync, statSync } from 'node:fs';
import { openCommit, openFolder, type SiteFiles } from './files.js';

export type StateName =
  | { readonly kind: 'folder'; readonly folder: string }
  | { readonly kind: 'commit'; readonly folder: string; readonly reference: string };

/** In: the site's folder, and what `--against` names: another folder, or a commit. */
export function otherState(folder: string, against: string): StateName {
  const isFolder = existsSync(against) && statSync(against).isDirectory();
  return isFolder ? { kind: 'folder', folder: against } : { kind: 'commit', folder, reference: against };
}

/** Throws `UsageError` for what cannot be opened. */
export function openState(state: StateName): SiteFiles {
  return state.kind === 'folder' ? openFolder(state.folder) : openCommit(state.folder, state.reference);
}
