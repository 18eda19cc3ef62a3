// How a draft is shown to a person.

import { onSite } from '../../shared/moved-lines.js';
import { keptLines, nearLines, styleLines, sumLines, tokenLines } from '../../shared/outcome-lines.js';
import { heading, next } from '../../shared/paper.js';
import type { WrittenDraft } from './run.js';

export function draftLines(
  folder: string,
  { document, report, file, hadEarlier }: WrittenDraft,
  all: boolean,
): string[] {
  const { styles, tokens, nearMisses, shared } = document;
  const lines = [
    heading('Draft', `${file}${hadEarlier ? ', your names and decisions kept' : ''}`),
    ...sumLines(report, false),
  ];
  if (styles.length > 0)
    lines.push(
      heading('Styles', `places each saves; into ${shared}; proven in advance to change nothing`),
      ...styleLines(styles, all),
    );
  lines.push(
    ...tokenLines(report.tokens, all),
    ...nearLines(nearMisses, all),
    ...keptLines(report.kept, all),
  );
  const at = onSite(folder);
  if (styles.length + tokens.length === 0)
    lines.push(next(`acervus survey${at}`, 'nothing repeats that could move; see what else is written'));
  else
    lines.push(
      next(`acervus draft --review${at}`, 'goes through it one by one'),
      next(`acervus adopt${at}`, 'carries it out').trimStart(),
    );
  return lines;
}
