// `acervus adopt`: carries a draft out. Plans in memory, proves, and only then writes.

import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { z } from 'zod';
import { count } from '../core/proof/index.js';
import { type FileChange, refuseUnfinished, writeChange } from '../site/change.js';
import { DRAFT_FILE, parseDraft } from '../site/draft-file.js';
import { planAdoption } from '../site/drafting.js';
import { openFolder } from '../site/files.js';
import { loadSite, type Site } from '../site/load.js';
import { unifiedPatch } from '../site/patch.js';
import { UsageError } from '../site/usage-error.js';
import type { adoptDocument } from './documents.js';
import { keptLines, shownKept, styleLines, sumLines, tokenLines } from './outcome-lines.js';
import { amber, dim, heading, next, print, printJson, row } from './paper.js';
import { Progress } from './progress.js';

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
  const usual = loadSite(files);
  refuseUnfinished(root);
  const file = path.join(folder, DRAFT_FILE);
  if (!existsSync(file)) throw new UsageError(`${file}: there is no draft; run "acervus draft" first`);
  const draft = parseDraft(readFileSync(file, 'utf8'));
  if (usual.sheets.some((sheet) => sheet.path === draft.shared && sheet.owner === 'platform')) {
    throw new UsageError(
      `${DRAFT_FILE}: shared: ${draft.shared} is a platform sheet; name a sheet of your own, or list it under "theme" in acervus.json`,
    );
  }
  const site = draft.shared === usual.shared ? usual : loadSite(files, { shared: draft.shared });
  const { result, styles, gone } = planAdoption(site, draft, (step) => progress.say(step));
  const changes = fileChanges(site, result.edits);
  progress.say('writing');
  if (options.patch !== true && changes.length > 0) writeChange(root, 'adopt', changes);
  progress.end();
  const patch =
    options.patch === true ? unifiedPatch(changes, (one) => existsSync(path.join(root, one))) : undefined;
  const kept = shownKept(result.kept);
  const { proof } = result;
  if (options.json === true) {
    const document: z.infer<typeof adoptDocument> = {
      format: 2,
      command: 'adopt',
      written: patch === undefined && changes.length > 0,
      shared: draft.shared,
      upkeep: result.upkeep,
      size: result.size,
      styles: [...styles],
      tokens: result.tokens.map(({ name, text, places }) => ({ name, value: text, uses: places.length })),
      changed: result.changed,
      files: changes.map((change) => change.path),
      gone: gone.map(({ id }) => id),
      kept,
      proof: {
        pages: proof.pages,
        components: proof.components,
        elements: proof.elements,
        assumptions: [...proof.assumptions],
      },
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
    lines.push(row({ count: changes.length, mark: 'made', text: 'files written' }), ...sumLines(result));
  }
  if (gone.length > 0)
    lines.push(
      row({
        count: gone.length,
        mark: 'needs',
        text: amber('styles of the draft are not found any more: the site changed since; draft again'),
      }),
    );
  if (styles.length > 0)
    lines.push(heading('Styles', `places each saves; into ${draft.shared}`), ...styleLines(styles, all));
  lines.push(...tokenLines(result, all), ...keptLines(kept, all));
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

function fileChanges(
  site: Site,
  edits: ReadonlyMap<string, readonly { start: number; end: number; text: string }[]>,
): FileChange[] {
  return [...edits]
    .map(
      ([file, own]): FileChange => ({
        path: file,
        text: site.model.sources.pages.get(file) ?? site.model.sources.sheets.get(file) ?? '',
        encoding: site.encodings.get(file) ?? { name: 'utf-8', mark: false },
        edits: own,
      }),
    )
    .sort((a, b) => (a.path < b.path ? -1 : 1));
}
