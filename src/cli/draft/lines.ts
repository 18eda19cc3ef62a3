// How a draft is shown to a person.

import type { DraftDocument } from '../../commands/draft/document.js';
import type { DraftResult } from '../../commands/draft/draft.js';
import { assumptionLines } from '../shared/assumption-lines.js';
import { onSite } from '../shared/moved-lines.js';
import {
  codeBlockLines,
  isAbout,
  keptLines,
  mixinLines,
  nearLines,
  styleLines,
  sumLines,
  tokenLines,
} from '../shared/outcome-lines.js';
import { clean, dim, heading, next, row } from '../shared/paper.js';

const HOW_READ =
  '"copies" in acervus.json names a file that is read in its place; "rendering" has the site built and read as it is shown';
const HOW = '--all shows them, --only <file, home or selector> some of them';

export function draftLines(
  folder: string,
  { document, report, file, hadEarlier }: DraftResult,
  { all = false, only }: { readonly all?: boolean; readonly only?: string },
): string[] {
  const { tokens, nearMisses, shared } = document;
  const styles = document.styles.filter((style) => only === undefined || isAbout(style, only));
  const lines = [
    heading('Draft', `${file}${hadEarlier ? ', your names and decisions kept' : ''}`),
    ...sumLines(report, false),
    ...assumptionLines(document.assumed, all),
    ...(document.assumed.length > 0 ? [row({ text: dim(HOW_READ) })] : []),
  ];
  if (styles.length > 0)
    lines.push(
      heading('Styles', `places each saves; ${intoText(styles, shared)}proven in advance to change nothing`),
      ...styleLines(styles, all || only !== undefined, HOW),
    );
  else if (only !== undefined) lines.push(row({ count: 0, text: `styles are about «${clean(only)}»` }));
  if (only === undefined)
    lines.push(
      ...tokenLines(report.tokens, all),
      ...mixinLines(report.mixins, all),
      ...codeBlockLines(report.codeBlocks),
      ...nearLines(nearMisses, all),
      ...keptLines(report.kept, all),
    );
  const at = onSite(folder);
  const { mixins, codeBlocks } = document;
  if (document.styles.length + tokens.length + mixins.length + codeBlocks.length === 0)
    lines.push(next(`acervus survey${at}`, 'nothing repeats that could move; see what else is written'));
  else
    lines.push(
      next(`acervus draft --review${at}`, 'goes through it one by one'),
      next(`acervus adopt${at}`, 'carries it out').trimStart(),
    );
  return lines;
}

/** Nothing where each area has a sheet of its own: the styles say which. */
function intoText(styles: DraftDocument['styles'], shared: string): string {
  return styles.some((style) => style['written into'] === undefined) ? `into ${shared}; ` : '';
}
