// Takes the last change back, byte for byte.

import path from 'node:path';
import { openFolder } from '../../site/files/files.js';
import { dropPlan } from '../../site/ledger/plan.js';
import { type Undone, undoLast } from '../../site/ledger/undo.js';
import type { UndoDocument } from './document.js';

/**
 * Takes the last change of the site back. In: the site's folder. Out: `undone` is false where no change is on record.
 * Throws `UsageError`, with nothing touched, where a file is not as the change left it.
 * @internal
 */
export function undo(folder: string): { document: UndoDocument; undone: Undone | undefined } {
  openFolder(folder);
  const undone = undoLast(path.resolve(folder));
  if (undone !== undefined) dropPlan(path.resolve(folder));
  const document: UndoDocument = {
    format: 1,
    command: 'undo',
    undone: undone !== undefined,
    restored: undone?.restored ?? [],
    removed: undone?.removed ?? [],
  };
  return { document, undone };
}
