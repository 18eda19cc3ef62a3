// How a change that was taken back is shown to a person.

import type { Undone } from '../../site/ledger/undo.js';
import { onSite } from '../shared/moved-lines.js';
import { clean, heading, next, row } from '../shared/paper.js';

export function undoLines(folder: string, undone: Undone | undefined): string[] {
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
      lines.push(row({ mark: 'taken', text: `${clean(file)} is gone: it did not exist then` }));
  }
  lines.push(
    undone === undefined || undone.command === 'adopt'
      ? next(`acervus draft${onSite(folder)}`, 'proposes again; your draft file is still there to edit')
      : next(`acervus survey${onSite(folder)}`, 'shows what is written now'),
  );
  return lines;
}
