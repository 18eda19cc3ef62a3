// A change of built pages, made in the sources: planned on the pages, carried over, built again, proven page against page. What
// no source could take, or what does not look the same once it is built, is planned again without.

import { readFileSync } from 'node:fs';
import path from 'node:path';
import { UsageError } from '../../core/base/usage-error.js';
import type { DraftSite } from '../../core/change/consolidate/index.js';
import type { AdoptionReport } from '../../core/edit/draft/index.js';
import { carryOver } from '../../core/edit/sources/index.js';
import { applyEdits, type Edits } from '../../core/edit/text/index.js';
import type { Difference, Proof } from '../../core/proof/index.js';
import type { Page } from '../../core/read/markup/index.js';
import { sourceNumberOf } from '../../core/read/markup/index.js';
import { decodeFile, encodeFile } from '../files/encoding.js';
import type { FileChange } from '../ledger/change.js';
import { draftSite, type Site } from '../rendering/load.js';
import { proveSite } from '../threads/proving.js';
import { type BuiltSite, buildChanged } from './build.js';
import { placeForNew } from './copies.js';
import { linkIn } from './link.js';

export interface Settled<Plan> {
  readonly plan: Plan;
  /** On the sources. */
  readonly changes: readonly FileChange[];
  /** Of the pages as they are built, before against after; `undefined` where nothing changes. */
  readonly proof: Proof | undefined;
  /** How many pages hold what changes from build to build. */
  readonly settled: number;
}

export interface SettleOptions<Plan> {
  /** Plans the change on the pages. */
  readonly plan: (site: DraftSite) => Promise<Plan>;
  readonly editsOf: (plan: Plan) => Edits;
  readonly onStep: (step: string) => void;
}

/** A report of a change that was planned on pages, with what was proven of those that were built. */
export function provenBy(
  report: AdoptionReport,
  { proof, settled, changes }: Settled<unknown>,
): AdoptionReport {
  if (proof === undefined) return report;
  const now = changes.reduce((all, { text }) => all + text.length, 0);
  const grown = changes
    .flatMap(({ edits }) => edits)
    .reduce((all, { start, end, text }) => all + text.length - (end - start), 0);
  const what = `what changes from build to build on ${settled === 1 ? 'a page' : `${settled} pages`}, such as a time, says nothing of how elements look`;
  const { pages, components, elements } = proof;
  const assumptions = [...report.proof.assumptions, ...(settled === 0 ? [] : [what])];
  return {
    ...report,
    size: { now, after: now + grown },
    proof: { pages, components, elements, assumptions },
  };
}

/** So often a change is planned; then all tags stay as they are. */
const MOST_ROUNDS = 8;

/** In: the built site, and its numbered pages as they are loaded. Throws `UsageError`. */
export async function settle<Plan>(
  built: BuiltSite,
  site: Site,
  { plan: planOn, editsOf, onStep }: SettleOptions<Plan>,
): Promise<Settled<Plan>> {
  const { sourcePlaces } = built;
  for (let round = 1; ; round++) {
    if (round > MOST_ROUNDS)
      for (const number of sourcePlaces.data.tags.keys()) sourcePlaces.fix(number, OTHERWISE);
    const own = draftSite(site);
    const plan = await planOn({ ...own, styledTags: { ...own.styledTags, built: sourcePlaces } });
    const carried = carryOver(site.model, sourcePlaces, editsOf(plan), (file) =>
      placeForNew(built.copies, file),
    );
    for (const [number, reason] of carried.refused) sourcePlaces.fix(number, reason);
    for (const file of carried.stray) {
      const page = site.model.page(file);
      if (page === undefined) throw new UsageError('build-no-place', { sheet: file });
      fixPage(built, page);
    }
    if (carried.refused.size + carried.stray.length > 0 && round <= MOST_ROUNDS) continue;
    const edits = linkIn(built, site, carried);
    const changes = changesOf(built, edits);
    if (changes.length === 0) return { plan, changes, proof: undefined, settled: 0 };
    onStep(`building the changed sources: ${built.command.build}`);
    const { folder, settled } = await buildChanged(built, bytesOf(changes));
    onStep('proving page against page');
    const { proof } = await proveSite(folder, built.plain);
    if (proof.differences.length === 0) return { plan, changes, proof, settled };
    if (round > MOST_ROUNDS)
      throw new UsageError('build-differs', {
        command: built.command.build,
        pages: new Set(proof.differences.map(({ page }) => page)).size,
      });
    blame(built, site, proof.differences, edits);
  }
}

const OTHERWISE = { kind: 'built otherwise' } as const;

/** The tags that differ stay as they are; where none of those was changed, all that were on the page. */
function blame(built: BuiltSite, site: Site, differences: readonly Difference[], edits: Edits): void {
  const { sourcePlaces } = built;
  const changed = new Set(
    [...sourcePlaces.data.tags].flatMap(([number, tag]) =>
      edits.get(tag.path)?.some(({ start, end }) => start >= tag.range.start && end <= tag.range.end) === true
        ? [number]
        : [],
    ),
  );
  const blamed = new Set<number>();
  for (const difference of differences) {
    const page = site.model.page(difference.page);
    const element = difference.kind === 'style' ? page?.elements[difference.element] : undefined;
    const number = page && sourceNumberOf(page, element?.tag);
    if (number !== undefined && changed.has(number)) blamed.add(number);
    else if (page !== undefined)
      for (const { tag } of page.elements) {
        const other = sourceNumberOf(page, tag);
        if (other !== undefined && changed.has(other)) blamed.add(other);
      }
  }
  for (const number of blamed.size > 0 ? blamed : changed) sourcePlaces.fix(number, OTHERWISE);
}

function fixPage({ sourcePlaces }: BuiltSite, page: Page): void {
  for (const { tag } of page.elements) {
    const number = sourceNumberOf(page, tag);
    if (number !== undefined) sourcePlaces.fix(number, { kind: 'written by code' });
  }
}

/** In: edits of sources by path. Out: the same with the texts that they belong to. */
export function changesOf({ sources }: BuiltSite, edits: Edits): FileChange[] {
  const known = new Set(sources.files);
  return [...edits]
    .filter(([, own]) => own.length > 0)
    .map(([file, own]): FileChange => {
      const decoded = known.has(file) ? decodeFile(readFileSync(path.join(sources.root, file))) : undefined;
      return {
        path: file,
        text: decoded?.text ?? '',
        encoding: decoded?.encoding ?? { name: 'utf-8', mark: false },
        edits: own,
      };
    })
    .sort((a, b) => (a.path < b.path ? -1 : 1));
}

export function bytesOf(changes: readonly FileChange[]): Map<string, Buffer> {
  return new Map(
    changes.map(({ path: file, text, encoding, edits }) => [
      file,
      encodeFile(applyEdits(text, edits), encoding),
    ]),
  );
}
