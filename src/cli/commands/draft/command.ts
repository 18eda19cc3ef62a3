// `acervus draft`: proposes a home for every style that is written in the wrong place or more than once.

import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import type { z } from 'zod';
import { type ScopeTaste, TASTES, type TasteName } from '../../../core/search/index.js';
import { refuseUnfinished } from '../../../site/ledger/change.js';
import { DRAFT_FILE, parseDraft, renderDraft } from '../../../core/draft/text.js';
import { makeDraft } from '../../../core/draft/drafting.js';
import { openFolder } from '../../../site/files/files.js';
import { loadSite } from '../../../site/rendering/load.js';
import { noteReadings, savePlan } from '../../../site/ledger/plan.js';
import { UsageError } from '../../../core/usage-error.js';
import type { draftDocument } from '../../documents.js';
import { keptLines, nearLines, styleLines, sumLines, tokenLines } from '../../shared/outcome-lines.js';
import { heading, next, print, printJson } from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';

export interface DraftOptions {
  readonly atLeast: string;
  readonly taste?: string;
  readonly scope?: string;
  readonly review?: boolean;
  readonly json?: boolean;
  readonly all?: boolean;
}

export async function draft(folder: string, options: DraftOptions): Promise<number> {
  const there = existsSync(path.join(folder, DRAFT_FILE));
  if (options.review !== true) return makeAndShow(folder, options);
  const { review } = await import('./review.js');
  if (!there) makeAndShow(folder, options);
  return review(folder);
}

function makeAndShow(folder: string, options: DraftOptions): number {
  const atLeast = Number(options.atLeast);
  if (!Number.isInteger(atLeast) || atLeast < 2)
    throw new UsageError(`--at-least ${options.atLeast}: expected a whole number from 2 on`);
  const progress = new Progress();
  progress.say('reading the site');
  const files = noteReadings(openFolder(folder));
  const site = loadSite(files);
  refuseUnfinished(path.resolve(folder));
  const file = path.join(folder, DRAFT_FILE);
  const text = existsSync(file) ? readFileSync(file, 'utf8') : undefined;
  const earlier = text === undefined ? undefined : parseDraft(text);
  const taste = tasteOf(options.taste ?? earlier?.taste ?? site.config.taste ?? 'balanced');
  const scope = scopeOf(options.scope ?? earlier?.scope ?? site.config.scope ?? 'site');
  const onStep = (step: string): void => progress.say(step);
  const { draft: made, adoption } = makeDraft(site, { atLeast, taste, scope, onStep }, earlier);
  const { told } = adoption;
  const rendered = renderDraft(made, text);
  writeFileAtomic.sync(file, rendered);
  savePlan(path.resolve(folder), rendered, files, adoption.changes, told);
  progress.end();
  if (options.json === true) {
    const document: z.infer<typeof draftDocument> = {
      format: 2,
      command: 'draft',
      file: DRAFT_FILE,
      shared: site.shared,
      upkeep: told.upkeep,
      size: told.size,
      styles: made.styles,
      tokens: made.tokens,
      nearMisses: made['near misses'],
      kept: told.kept,
    };
    printJson(document);
    return 0;
  }
  const all = options.all === true;
  const lines = [
    heading('Draft', `${file}${earlier === undefined ? '' : ', your names and decisions kept'}`),
  ];
  lines.push(...sumLines(told, false));
  if (made.styles.length > 0)
    lines.push(
      heading('Styles', `places each saves; into ${site.shared}; proven in advance to change nothing`),
      ...styleLines(made.styles, all),
    );
  lines.push(
    ...tokenLines(told.tokens, all),
    ...nearLines(made['near misses'], all),
    ...keptLines(told.kept, all),
  );
  const at = folder === '.' ? '' : ` ${folder}`;
  if (made.styles.length + made.tokens.length === 0)
    lines.push(next(`acervus survey${at}`, 'nothing repeats that could move; see what else is written'));
  else
    lines.push(
      next(`acervus draft --review${at}`, 'goes through it one by one'),
      next(`acervus adopt${at}`, 'carries it out').trimStart(),
    );
  print(lines);
  return 0;
}

function scopeOf(name: string): ScopeTaste {
  if (name === 'site' || name === 'section' || name === 'page') return name;
  throw new UsageError(`--scope ${name}: expected site, section or page`);
}

function tasteOf(name: string): TasteName {
  const known = Object.keys(TASTES).find((taste) => taste === name || taste.replace(' ', '-') === name);
  if (known === undefined)
    throw new UsageError(
      `--taste ${name}: expected ${Object.keys(TASTES)
        .map((one) => `"${one}"`)
        .join(', ')}`,
    );
  return known as TasteName;
}
