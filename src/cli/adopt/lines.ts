// How an adoption is shown to a person.

import type { AdoptDocument } from '../../commands/adopt/document.js';
import { assumptionLines } from '../shared/assumption-lines.js';
import { onSite, plural } from '../shared/moved-lines.js';
import {
  codeBlockLines,
  keptLines,
  mixinLines,
  styleLines,
  sumLines,
  tokenLines,
} from '../shared/outcome-lines.js';
import { amber, heading, next, row } from '../shared/paper.js';

export function adoptLines(folder: string, document: AdoptDocument, all: boolean): string[] {
  const { styles, gone, kept, proof, tokens, mixins, codeBlocks, shared, files, workList } = document;
  const lines = [heading('Adopt', folder)];
  if (files.length === 0)
    lines.push(row({ count: 0, text: 'nothing to adopt: no style of the draft is left to move' }));
  else
    lines.push(
      row({ count: files.length, mark: 'made', text: 'files written' }),
      ...sumLines(document, true),
    );
  if (gone.length > 0)
    lines.push(
      row({
        count: gone.length,
        mark: 'needs',
        text: amber('styles of the draft are gone: the site has changed; draft again'),
      }),
    );
  if (styles.length > 0)
    lines.push(heading('Styles', `places each saves; into ${shared}`), ...styleLines(styles, all));
  lines.push(
    ...tokenLines(tokens, all),
    ...mixinLines(mixins, all),
    ...codeBlockLines(codeBlocks),
    ...keptLines(kept, all),
  );
  if (files.length > 0)
    lines.push(
      heading('Proof'),
      row({
        count: 0,
        text: `differences on ${plural(proof.elements, 'element')} of ${plural(proof.pages, 'page')}${proof.components > 0 ? ` and ${plural(proof.components, 'component')}` : ''}, in every medium and state`,
      }),
    );
  lines.push(...assumptionLines(proof.assumptions, all));
  if (workList !== undefined && workList.items > 0) lines.push(...workLines(workList));
  if (workList !== undefined && files.length > 0) {
    lines.push(
      next(`acervus prove --live${onSite(folder)}`, 'when the boxes are pasted: does it look as before?'),
    );
    return lines;
  }
  lines.push(
    files.length === 0
      ? next(`acervus survey${onSite(folder)}`, 'shows what is still written')
      : next(`acervus undo${onSite(folder)}`, 'takes it back, byte for byte'),
  );
  return lines;
}

/** What only the platform's own editor can do. */
function workLines({ file, items, early }: NonNullable<AdoptDocument['workList']>): string[] {
  const lines = [
    heading('Left for the editor', 'of the platform: take out styles, give classes; paste the boxes first'),
    row({ count: items, mark: 'needs', text: 'blocks to change, page by page', place: file }),
  ];
  if (early > 0)
    lines.push(
      row({
        count: early,
        mark: 'needs',
        text: amber('elements look different between pasting and the end of the list'),
      }),
    );
  return lines;
}
