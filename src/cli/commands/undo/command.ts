// `acervus undo`: takes the last change back, byte for byte.

import path from 'node:path';
import type { z } from 'zod';
import { undoLast } from '../../../site/ledger/change.js';
import { openFolder } from '../../../site/files/files.js';
import { dropPlan } from '../../../site/ledger/plan.js';
import type { undoDocument } from '../../documents.js';
import { onSite } from '../../shared/moved-lines.js';
import { heading, next, print, printJson, row } from '../../shared/paper.js';

export interface UndoOptions {
  readonly json?: boolean;
}

export function undo(folder: string, options: UndoOptions): number {
  openFolder(folder);
  const undone = undoLast(path.resolve(folder));
  if (undone !== undefined) dropPlan(path.resolve(folder));
  if (options.json === true) {
    const document: z.infer<typeof undoDocument> = {
      format: 1,
      command: 'undo',
      undone: undone !== undefined,
      restored: [...(undone?.restored ?? [])],
      removed: [...(undone?.removed ?? [])],
    };
    printJson(document);
    return 0;
  }
  const lines = [heading('Undo', folder)];
  if (undone === undefined) lines.push(row({ count: 0, text: 'changes on record: nothing to take back' }));
  else {
    const what = undone.unfinished
      ? `the ${undone.command} that was cut short`
      : `the ${undone.command} of ${undone.time.slice(0, 16).replace('T', ' ')}`;
    lines.push(
      row({
        count: undone.restored.length,
        mark: 'taken',
        text: `files are byte for byte what they were before ${what}`,
      }),
    );
    for (const file of undone.removed)
      lines.push(row({ mark: 'taken', text: `${file} is gone: it did not exist then` }));
  }
  lines.push(
    undone === undefined || undone.command === 'adopt'
      ? next(`acervus draft${onSite(folder)}`, 'proposes again; your draft file is still there to edit')
      : next(`acervus survey${onSite(folder)}`, 'shows what is written now'),
  );
  print(lines);
  return 0;
}
