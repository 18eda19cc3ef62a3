// `acervus adopt`: carries a draft out. Plans in memory, proves, and only then writes.

import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { z } from 'zod';
import { count, vouch } from '../core/proof/index.js';
import { inlineCarriers } from '../core/stock/index.js';
import { type FileChange, refuseUnfinished, writeChange } from '../site/change.js';
import { DRAFT_FILE, parseDraft } from '../site/draft-file.js';
import { resolveDraft } from '../site/drafting.js';
import { openFolder } from '../site/files.js';
import { loadSite, type Site } from '../site/load.js';
import { unifiedPatch } from '../site/patch.js';
import { UsageError } from '../site/usage-error.js';
import type { adoptDocument } from './documents.js';
import { keptLines, shownKept, shownStyle, styleLines } from './outcome-lines.js';
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
  const resolved = resolveDraft(site, draft);
  const vouched = vouch(site.model, resolved.styles, {
    shared: draft.shared,
    // A person may leave a single element of a style: what they ask for is carried out.
    atLeast: 1,
    onRound: (round) => progress.say(`proving, round ${round}`),
  });
  const { moves, plan, proof } = vouched;
  const changes = fileChanges(site, plan.edits);
  if (options.patch !== true && changes.length > 0) writeChange(root, 'adopt', changes);
  progress.end();
  const patch =
    options.patch === true ? unifiedPatch(changes, (one) => existsSync(path.join(root, one))) : undefined;
  const before = inlineCarriers(site.model, site.scripts).reduce(
    (sum, { declarations }) => sum + declarations.length,
    0,
  );
  const moved = moves.reduce(
    (sum, move) =>
      sum +
      move.members.reduce(
        (own, { units }) => own + units.reduce((some, { declarations }) => some + declarations.length, 0),
        0,
      ),
    0,
  );
  const styles = moves.map((move) => shownStyle(move, draft.shared));
  const kept = [
    ...shownKept([...resolved.kept, ...vouched.kept]),
    // What the draft already said stays, with the draft's reasons.
    ...draft.kept.map(({ reason, declarations, where }) => ({
      reason,
      declarations,
      places: Object.entries(where).flatMap(([page, entries]) =>
        entries.map((entry) => `${page}:${entry.split(' ')[0]}`),
      ),
    })),
  ];
  if (options.json === true) {
    const document: z.infer<typeof adoptDocument> = {
      format: 1,
      command: 'adopt',
      written: patch === undefined && changes.length > 0,
      shared: draft.shared,
      inline: { before, after: before - moved },
      styles,
      files: changes.map((change) => change.path),
      changedSinceDraft: [...resolved.changed],
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
    lines.push(row({ count: moved, mark: 'taken', text: 'declarations out of style attributes' }));
    lines.push(
      row({
        count: moves.reduce((sum, move) => sum + move.written.length, 0),
        mark: 'made',
        text: `declarations in ${count(moves.length, 'class').replace(/classs$/, 'classes')} of ${draft.shared}`,
      }),
    );
    lines.push(row({ count: changes.length, mark: 'made', text: 'files written' }));
    lines.push(row({ count: before - moved, mark: 'kept', text: `inline declarations left of ${before}` }));
  }
  for (const one of resolved.changed)
    lines.push(
      row({ mark: 'needs', text: amber(`${one} changed since the draft; what still holds was used`) }),
    );
  if (styles.length > 0)
    lines.push(heading('Classes', 'elements that wear each'), ...styleLines(styles, all));
  lines.push(...keptLines(kept, all));
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
