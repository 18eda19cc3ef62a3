// `acervus draft`: proposes a class for every set of declarations that stands alike on several elements.

import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import type { z } from 'zod';
import { refuseUnfinished } from '../site/change.js';
import { DRAFT_FILE, parseDraft, renderDraft } from '../site/draft-file.js';
import { makeDraft } from '../site/drafting.js';
import { openFolder } from '../site/files.js';
import { loadSite } from '../site/load.js';
import { UsageError } from '../site/usage-error.js';
import type { draftDocument } from './documents.js';
import { keptLines, shownKept, shownStyle, styleLines } from './outcome-lines.js';
import { heading, next, print, printJson, row } from './paper.js';
import { Progress } from './progress.js';

export interface DraftOptions {
  readonly atLeast: string;
  readonly json?: boolean;
  readonly all?: boolean;
}

export function draft(folder: string, options: DraftOptions): number {
  const atLeast = Number(options.atLeast);
  if (!Number.isInteger(atLeast) || atLeast < 2)
    throw new UsageError(`--at-least ${options.atLeast}: expected a whole number from 2 on`);
  const progress = new Progress();
  progress.say('reading the site');
  const site = loadSite(openFolder(folder));
  refuseUnfinished(path.resolve(folder));
  const file = path.join(folder, DRAFT_FILE);
  const earlier = existsSync(file) ? readFileSync(file, 'utf8') : undefined;
  const made = makeDraft(site, atLeast, earlier === undefined ? undefined : parseDraft(earlier), (round) =>
    progress.say(`proving, round ${round}`),
  );
  const before =
    countInline(made.kept) +
    made.vouched.moves.reduce((sum, move) => sum + move.written.length * move.members.length, 0);
  const after = countInline(made.kept);
  writeFileAtomic.sync(file, renderDraft(made.draft, earlier));
  progress.end();
  const styles = made.vouched.moves.map((move) => shownStyle(move, site.shared));
  const kept = shownKept(made.kept);
  if (options.json === true) {
    const document: z.infer<typeof draftDocument> = {
      format: 1,
      command: 'draft',
      file: DRAFT_FILE,
      shared: site.shared,
      inline: { before, after },
      styles,
      kept,
    };
    printJson(document);
    return 0;
  }
  const all = options.all === true;
  const lines = [
    heading(
      'Draft',
      `${path.join(folder, DRAFT_FILE)}${earlier === undefined ? '' : ', your names and decisions kept'}`,
    ),
  ];
  lines.push(row({ count: before, text: 'inline declarations now' }));
  lines.push(
    row({
      count: before - after,
      mark: 'taken',
      text: `move to ${styles.length} classes in ${site.shared}, proven in advance to change nothing`,
    }),
  );
  lines.push(row({ count: after, mark: 'kept', text: 'stay where they are' }));
  if (styles.length > 0)
    lines.push(heading('Classes', 'elements that would wear each'), ...styleLines(styles, all));
  lines.push(...keptLines(kept, all));
  const at = folder === '.' ? '' : ` ${folder}`;
  if (styles.length === 0)
    lines.push(next(`acervus survey${at}`, 'nothing repeats that could move; see what else is written'));
  else lines.push(next(`acervus adopt${at}`, 'carries it out; edit the draft first to change it'));
  print(lines);
  return 0;
}

function countInline(
  kept: readonly { readonly unit: { readonly declarations: readonly unknown[] } }[],
): number {
  return kept.reduce((sum, { unit }) => sum + unit.declarations.length, 0);
}
