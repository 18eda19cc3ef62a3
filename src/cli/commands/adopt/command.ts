// `acervus adopt`: carries a draft out. Plans in memory, proves, and only then writes.

import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { z } from 'zod';
import { count } from '../../../core/proof/index.js';
import { refuseUnfinished, writeChange } from '../../../site/ledger/change.js';
import { DRAFT_FILE, parseDraft } from '../../../core/draft/text.js';
import { type Adoption, planAdoption } from '../../../core/draft/drafting.js';
import { openFolder, type SiteFiles } from '../../../site/files/files.js';
import { loadSite } from '../../../site/rendering/load.js';
import { unifiedPatch } from '../../../site/ledger/patch.js';
import { dropPlan, findPlan } from '../../../site/ledger/plan.js';
import { UsageError } from '../../../core/usage-error.js';
import type { adoptDocument } from '../../documents.js';
import { keptLines, styleLines, sumLines, tokenLines } from '../../shared/outcome-lines.js';
import { amber, dim, heading, next, print, printJson, row } from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';

export interface AdoptOptions {
  readonly patch?: boolean;
  readonly json?: boolean;
  readonly all?: boolean;
}

export function adopt(folder: string, options: AdoptOptions): number {
  const progress = new Progress();
  progress.say('reading the site');
  const files = openFolder(folder);
  const root = path.resolve(folder);
  refuseUnfinished(root);
  const file = path.join(folder, DRAFT_FILE);
  if (!existsSync(file)) {
    loadSite(files);
    throw new UsageError(`${file}: there is no draft; run "acervus draft" first`);
  }
  const text = readFileSync(file, 'utf8');
  const { changes, told } = findPlan(root, text, files) ?? plan(files, text, (step) => progress.say(step));
  progress.say('writing');
  if (options.patch !== true && changes.length > 0) {
    writeChange(root, 'adopt', changes);
    dropPlan(root);
  }
  progress.end();
  const patch =
    options.patch === true ? unifiedPatch(changes, (one) => existsSync(path.join(root, one))) : undefined;
  if (options.json === true) {
    const document: z.infer<typeof adoptDocument> = {
      format: 2,
      command: 'adopt',
      written: patch === undefined && changes.length > 0,
      ...told,
      files: changes.map((change) => change.path),
      ...(patch === undefined ? {} : { patch }),
    };
    printJson(document);
    return 0;
  }
  if (patch !== undefined) {
    process.stdout.write(patch);
    return 0;
  }
  const all = options.all === true;
  const lines = [heading('Adopt', folder)];
  if (changes.length === 0)
    lines.push(row({ count: 0, text: 'nothing to adopt: no style of the draft is left to move' }));
  else {
    lines.push(
      row({ count: changes.length, mark: 'made', text: 'files written' }),
      ...sumLines(told, options.patch !== true),
    );
  }
  const { styles, gone, kept, proof } = told;
  if (gone.length > 0)
    lines.push(
      row({
        count: gone.length,
        mark: 'needs',
        text: amber('styles of the draft are not found any more: the site changed since; draft again'),
      }),
    );
  if (styles.length > 0)
    lines.push(heading('Styles', `places each saves; into ${told.shared}`), ...styleLines(styles, all, 5));
  lines.push(...tokenLines(told.tokens, all), ...keptLines(kept, all));
  lines.push(heading('Proof'));
  lines.push(
    row({
      count: 0,
      text: `differences on ${count(proof.elements, 'element')} of ${count(proof.pages, 'page')}, in every medium and state`,
    }),
  );
  for (const one of proof.assumptions) lines.push(row({ mark: 'needs', text: dim(`assumed: ${one}`) }));
  const at = folder === '.' ? '' : ` ${folder}`;
  lines.push(
    changes.length === 0
      ? next(`acervus survey${at}`, 'shows what is still written')
      : next(`acervus undo${at}`, 'takes it back, byte for byte'),
  );
  print(lines);
  return 0;
}

/** Plans a draft that a person has changed, or a site that is not as it was. */
function plan(files: SiteFiles, text: string, onStep: (step: string) => void): Adoption {
  const usual = loadSite(files);
  const draft = parseDraft(text);
  if (usual.sheets.some((sheet) => sheet.path === draft.shared && sheet.owner === 'platform')) {
    throw new UsageError(
      `${DRAFT_FILE}: shared: ${draft.shared} is a platform sheet; name a sheet of your own, or list it under "theme" in acervus.json`,
    );
  }
  const site = draft.shared === usual.shared ? usual : loadSite(files, { shared: draft.shared });
  return planAdoption(site, draft, onStep);
}
