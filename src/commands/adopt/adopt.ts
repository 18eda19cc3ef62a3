// Carries a draft out: plans in memory, proves, and only then writes.

import { existsSync } from 'node:fs';
import path from 'node:path';
import { UsageError } from '../../core/base/usage-error.js';
import { planAdoption } from '../../core/change/consolidate/index.js';
import { type AdoptionReport, DRAFT_FILE, parseDraft } from '../../core/edit/draft/index.js';
import { isStyleSheet } from '../../core/read/kinds/index.js';
import type { Trace } from '../../core/stock/trace.js';
import { keepWorkList, WORK_PAGE } from '../../report/work-list.js';
import { type BuiltSite, buildChanged, loadBuilt, openBuilt } from '../../site/building/build.js';
import { bytesOf, provenBy, settle } from '../../site/building/settle.js';
import { withOthers } from '../../site/factoring/others.js';
import { openFolder, type SiteFiles } from '../../site/files/files.js';
import { readPlain } from '../../site/files/inside.js';
import { readConfig } from '../../site/files/pages.js';
import { readText } from '../../site/files/text.js';
import { writePlanned } from '../../site/ledger/carry-out.js';
import { type FileChange, fileChanges, refuseUnfinished } from '../../site/ledger/change.js';
import { dropPlan, findPlan } from '../../site/ledger/plan.js';
import { isImport } from '../../site/rendering/imported-sheets.js';
import { draftSite, loadForDraft, loadSite } from '../../site/rendering/load.js';
import { SiteReader } from '../../site/rendering/reader.js';
import { proveChange, proveSite } from '../../site/threads/proving.js';
import { isBoxFile } from '../../site/visiting/with-boxes.js';
import { type WorkList, workListOf } from '../../site/visiting/work-list.js';
import { type Followed, follow } from '../shared/followed.js';
import type { AdoptDocument } from './document.js';

export interface AdoptOptions {
  /** Make a patch for `git apply`, and write nothing. */
  readonly patch?: boolean | undefined;
  /** From so many characters of pages on, the search reads excerpts of them; two million without. */
  readonly largeFrom?: number | undefined;
  /** Whether a page that the draft has proven is believed while nothing of it has changed; it is without. */
  readonly cache?: boolean | undefined;
  /** Hears how many pages of a large site are proven. */
  readonly onPage?: ((done: number, of: number) => void) | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
  /** A declaration to follow through the stages. */
  readonly trace?: Followed | undefined;
}

/**
 * Carries `acervus-draft.yaml` of the site out, once it is proven to change nothing that it does not name.
 * In: the site's folder. Throws `UsageError`, with nothing written.
 */
export async function adopt(site: string, options: AdoptOptions = {}): Promise<AdoptDocument> {
  const { patch, onStep } = options;
  const trace = follow(options.trace);
  const files = openFolder(site);
  const root = path.resolve(site);
  refuseUnfinished(root);
  const file = path.join(site, DRAFT_FILE);
  if (!existsSync(file)) {
    loadSite(files);
    throw new UsageError('no-draft', { file });
  }
  const text = readPlain(file, DRAFT_FILE).toString('utf8');
  // Who follows a declaration wants the way, not the answer that is there.
  const ready = trace === undefined ? findPlan(root, text, files) : undefined;
  onStep?.('proving');
  // A plan is a file like any other: what it says is not believed, but proven.
  const built = await openBuilt(site, files, onStep);
  const isProven =
    ready !== undefined &&
    (await (built === undefined
      ? changesNothing(site, files, ready.changes, options)
      : buildsTheSame(built, ready.changes)));
  const { changes: all, report } = isProven ? ready : await plan(site, files, text, options, trace, built);
  const left = await leftForEditor(site, files, all, options);
  const changes = left?.changes ?? all;
  onStep?.('writing');
  const done = writePlanned(root, 'adopt', changes, { patch });
  if (done.written) dropPlan(root);
  const { written, ...rest } = done;
  if (left !== undefined && patch !== true) keepWorkList(root, left.list, left.origin);
  const workList = left && { file: WORK_PAGE, items: left.list.items.length, early: left.early };
  return { format: 2, command: 'adopt', written, ...report, ...rest, ...(workList && { workList }) };
}

interface LeftForEditor {
  /** What can be done without touching the pages. */
  readonly changes: readonly FileChange[];
  readonly list: WorkList;
  readonly origin: string;
  /** Elements that look otherwise once the boxes are pasted, until the list is done. */
  readonly early: number;
}

/** Of a running system only the boxes are written: the rest is work for its own editor. */
async function leftForEditor(
  folder: string,
  files: SiteFiles,
  all: readonly FileChange[],
  { onPage, largeFrom: rememberFrom }: AdoptOptions,
): Promise<LeftForEditor | undefined> {
  const reader = new SiteReader(files, await readConfig(files));
  const { visited } = reader;
  if (visited === undefined) return undefined;
  const changes = all.filter(({ path: file }) => isBoxFile(visited, file));
  const edits = new Map(changes.map(({ path: file, edits: own }) => [file, own]));
  const proof = await proveChange(
    folder,
    { reader, paths: reader.pagePaths, edits },
    { onPage, cache: false, rememberFrom, writesNothing: true },
  );
  const early = new Set(
    proof.differences.map((one) => `${one.page} ${one.kind === 'style' ? one.element : ''}`),
  );
  return { changes, list: workListOf(visited, all), origin: visited.origin, early: early.size };
}

/** Whether changes touch pages and own sheets alone, and no element looks different with them. */
async function changesNothing(
  folder: string,
  files: SiteFiles,
  changes: readonly FileChange[],
  { onPage, cache, patch: writesNothing, largeFrom: rememberFrom }: AdoptOptions,
): Promise<boolean> {
  const reader = new SiteReader(files, await readConfig(files));
  const pages = new Set(reader.pagePaths);
  const isOwn = ({ path: file, text, edits }: FileChange): boolean =>
    pages.has(file) || edits.every(isImport)
      ? (pages.has(file) ? reader.page(file) : readText(files, file)?.text) === text
      : isStyleSheet(file) && (reader.textAt(file) ?? '') === text && !reader.isPlatform(file);
  if (!changes.every(isOwn)) return false;
  const edits = new Map(changes.map(({ path: file, edits: own }) => [file, own]));
  const proof = await proveChange(
    folder,
    { reader, paths: reader.pagePaths, edits },
    { onPage, cache, rememberFrom, writesNothing },
  );
  return proof.differences.length === 0;
}

/** Whether the changed sources build pages that look as before. */
async function buildsTheSame(built: BuiltSite, changes: readonly FileChange[]): Promise<boolean> {
  const { proof } = await proveSite((await buildChanged(built, bytesOf(changes))).folder, built.plain);
  return proof.differences.length === 0;
}

interface Planned {
  readonly changes: readonly FileChange[];
  readonly report: AdoptionReport;
}

/** Plans a draft that a person has changed, or a site that is not as it was. */
async function plan(
  folder: string,
  files: SiteFiles,
  text: string,
  { largeFrom, cache, patch: writesNothing, onStep, onPage }: AdoptOptions,
  trace: Trace | undefined,
  built: BuiltSite | undefined,
): Promise<Planned> {
  const draft = parseDraft(text);
  if (built !== undefined) {
    const say = onStep ?? (() => {});
    const done = await settle(built, loadBuilt(built, draft.shared), {
      plan: (on) => planAdoption(on, draft, { onStep, onPage, trace }),
      editsOf: ({ edits }) => edits,
      onStep: say,
    });
    return { changes: done.changes, report: provenBy(done.plan.report, done) };
  }
  const load = { largeFrom, cache, writesNothing, whole: new Set(trace === undefined ? [] : [trace.path]) };
  const usual = await loadForDraft(folder, files, draft, load);
  if (usual.sheets.some(({ path: file, owner }) => file === draft.shared && owner === 'platform'))
    throw new UsageError('draft-shared-platform', { sheet: draft.shared });
  const site =
    draft.shared === usual.shared
      ? usual
      : await loadForDraft(folder, files, draft, { ...load, shared: draft.shared });
  const { edits, report } = await planAdoption(draftSite(site), draft, { onStep, onPage, trace });
  return withOthers(site, draft, { changes: fileChanges(site, edits), report }, onStep);
}
