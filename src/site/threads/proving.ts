// The proof between two states of a site on the disk, its pages spread over threads.

import { comparePaths } from '../../core/base/source.js';
import { UsageError } from '../../core/base/usage-error.js';
import type { PagesProven } from '../../core/change/consolidate/index.js';
import type { Edits } from '../../core/edit/text/index.js';
import { emptyPart, mergeProofs, type Proof, proofOf } from '../../core/proof/index.js';
import { WORTH_REMEMBERING } from '../cache/page-cache.js';
import { readConfig } from '../files/pages.js';
import { openState, otherState, type StateName } from '../files/state.js';
import { toPlain } from '../plain.js';
import { SiteReader } from '../rendering/reader.js';
import type { Job, ProveResult, ProveSide } from './job-model.js';
import { type PartDocument, partOf, readParts } from './part-file.js';
import { holdsAtLeast, inOtherThreads, inThreads, threadCount } from './pool.js';
import { printOf } from './print.js';
import { ProofMemory } from './proof-memory.js';
import { PageComparer } from './prove-job.js';
import { inShare, type Share, shareSize, takeShares } from './shares.js';
import { Timings } from './timings.js';

export interface Proven {
  readonly proof: Proof;
  /** Whether a path is that of a component. */
  readonly isComponent: (path: string) => boolean;
  readonly timings: Timings;
}

export interface ProvingOptions {
  /** How many threads, from 1 to 64; as the size of the site calls for without. */
  readonly jobs?: number | undefined;
  readonly onPage?: ((done: number, of: number) => void) | undefined;
}

/** In: the site's folder; the folder or commit to compare with. Throws `UsageError` for what cannot be a site. */
export async function proveSite(
  folder: string,
  against: string,
  options: ProvingOptions = {},
): Promise<Proven> {
  const states = await openStates(folder, against);
  const { job, readers, timings } = states;
  const { comparer, results } = await comparePages(job, readers, options, timings);
  return provenOf(folder, states, finish(comparer, results));
}

/** What a part of the pages comes to, for `joinProofs`. Throws `UsageError` for what cannot be a site. */
export async function provePart(
  folder: string,
  against: string,
  share: Share,
  options: ProvingOptions = {},
): Promise<PartDocument> {
  const { job, readers, timings } = await openStates(folder, against);
  const { results } = await comparePages({ ...job, share }, readers, options, timings);
  return partOf('prove', share, printOf(readers, inShare(job.paths, share)), results);
}

/** The proof of a site whose parts were proven before. In: the files of all of them. Throws `UsageError`. */
export async function joinProofs(folder: string, against: string, files: readonly string[]): Promise<Proven> {
  const states = await openStates(folder, against);
  const { job, readers } = states;
  const parts = readParts('prove', files, (share) => printOf(readers, inShare(job.paths, share)));
  return provenOf(folder, states, finish(new PageComparer(...readers), (parts as ProveResult[][]).flat()));
}

interface OpenedStates {
  readonly job: ProveJob;
  readonly readers: readonly [SiteReader, SiteReader];
  readonly timings: Timings;
}

type ProveJob = Extract<Job, { kind: 'prove' }>;

async function openStates(folder: string, against: string): Promise<OpenedStates> {
  const timings = new Timings();
  const before = await openSide(otherState(folder, against), timings);
  const after = await openSide({ kind: 'folder', folder }, timings);
  const readers = [before.reader, after.reader] as const;
  const paths = [
    ...new Set(readers.flatMap(({ pagePaths, platformPages }) => [...pagePaths, ...platformPages])),
  ].sort(comparePaths);
  return { job: { kind: 'prove', before: before.side, after: after.side, paths }, readers, timings };
}

function provenOf(folder: string, { readers, timings }: OpenedStates, proof: Proof): Proven {
  if (proof.pages + proof.components === 0 && proof.differences.length === 0)
    throw new UsageError('pages-empty-both', { site: folder });
  return { proof, isComponent: (file) => readers[1].isComponent(file), timings };
}

/** A change of a site that nothing is written of yet. */
export interface PlannedChange {
  readonly reader: SiteReader;
  /** Pages to compare, in order. */
  readonly paths: readonly string[];
  readonly edits: Edits;
}

export interface ChangeOptions {
  readonly onPage?: ProvingOptions['onPage'];
  /** Whether a page that was proven before is believed to look as before; it is without. */
  readonly cache?: boolean | undefined;
  /** From so many bytes of pages on; a million without. */
  readonly rememberFrom?: number | undefined;
  /** Nothing is written, what was proven neither. */
  readonly writesNothing?: boolean | undefined;
}

/** Whether a change leaves every page as it looks. In: the site's folder. */
export async function proveChange(
  folder: string,
  { reader, paths, edits }: PlannedChange,
  { onPage, cache, rememberFrom, writesNothing }: ChangeOptions = {},
): Promise<Proof> {
  const { job, readers } = jobOf(folder, { reader, paths, edits });
  const { config } = reader;
  const isWorth = cache !== false && holdsAtLeast(rememberFrom ?? WORTH_REMEMBERING, paths, job.before.state);
  // Read apart: what was of interest once is nothing that this change depends on.
  const apart = (): SiteReader => new SiteReader(openState(job.before.state), config, paths);
  const memory = isWorth ? ProofMemory.of(folder, paths, [apart(), readers[1]]) : undefined;
  if (memory !== undefined) {
    const proof = await proveByMemory(memory, job, readers, onPage);
    if (writesNothing !== true) memory.save();
    if (proof !== undefined) return proof;
  }
  const { comparer, results } = await comparePages(job, readers, { onPage }, new Timings());
  return finish(comparer, results);
}

function jobOf(
  folder: string,
  { reader, paths, edits }: PlannedChange,
): { readonly job: ProveJob; readonly readers: readonly [SiteReader, SiteReader] } {
  const { config, encodings } = reader;
  const files = new Map(
    [...edits].map(([file, own]) => [
      file,
      { edits: own, encoding: encodings.get(file) ?? { name: 'utf-8', mark: false } },
    ]),
  );
  const state = { kind: 'changed', folder, files } as const;
  const before = { state: { kind: 'folder', folder }, config } as const;
  return {
    job: { kind: 'prove', before, after: { state, config }, paths, perPage: 1 },
    readers: [reader, new SiteReader(openState(state), config, paths)],
  };
}

/**
 * Remembers what a search has proven of its change, so that it is not proven again when the change is made.
 * In: the change; what its pages came to; sheets and scripts that were asked for meanwhile, those that are not there too.
 */
export function rememberProof(
  folder: string,
  change: PlannedChange,
  { each, after }: PagesProven,
  asked: readonly string[],
  rememberFrom: number = WORTH_REMEMBERING,
): void {
  const { paths } = change;
  if (!paths.every((path) => each.has(path))) return;
  const { job, readers } = jobOf(folder, change);
  if (!holdsAtLeast(rememberFrom, paths, job.before.state)) return;
  // What was compared is what will be written, to the letter.
  const isSame = after.every(
    ({ pages, sheets }) =>
      [...pages].every(([path, text]) => readers[1].page(path) === text) &&
      [...sheets].every(([path, text]) => readers[1].textAt(path) === text),
  );
  const memory = isSame ? ProofMemory.of(folder, paths, readers) : undefined;
  if (memory === undefined) return;
  const found = new Map(memory.open.map((number) => [number, toPlain(each.get(paths[number]!))]));
  const names = [...new Set([...asked, ...after.flatMap(({ sheets }) => [...sheets.keys()])])];
  memory.note(paths, [
    {
      ...{ kind: 'prove', part: emptyPart(), late: [], known: new Set(), contextPages: [] },
      ...{ each: found, asked: [names, names], timings: new Map() },
    },
  ]);
  memory.save();
}

/** Out: `undefined` where a page came up that depends on all others, and some were not looked at. */
async function proveByMemory(
  memory: ProofMemory,
  job: ProveJob,
  readers: OpenedStates['readers'],
  onPage: ProvingOptions['onPage'],
): Promise<Proof | undefined> {
  const { open: numbers, known } = memory;
  if (numbers.length === 0) return proofOf([...known.values()].reduce(mergeProofs, emptyPart()));
  const { comparer, results } = await comparePages({ ...job, numbers }, readers, { onPage }, new Timings());
  memory.note(job.paths, results);
  if (known.size === 0) return finish(comparer, results);
  if (results.some(({ late }) => late.length > 0)) return undefined;
  const parts = [...known.values(), ...results.map(({ part }) => part)];
  return proofOf(parts.reduce(mergeProofs, emptyPart()));
}

/** From so many bytes of pages on a thread that starts anew costs less than what this one would come to hold. */
const WORTH_STEPPING_ASIDE = 30_000_000;

async function comparePages(
  job: ProveJob,
  readers: readonly [SiteReader, SiteReader],
  options: ProvingOptions,
  timings: Timings,
): Promise<{ readonly comparer: PageComparer; readonly results: readonly ProveResult[] }> {
  const { paths, share, numbers } = job;
  const own = numbers?.length ?? shareSize(paths.length, share);
  const jobs = threadCount(options.jobs, numbers?.map((at) => paths[at]!) ?? paths, job.after.state);
  const comparer = new PageComparer(...readers, job.perPage);
  const onPage = (done: number): void => options.onPage?.(done, own);
  // A change is planned by one who holds the site that it was planned on.
  const isAside =
    job.after.state.kind === 'changed' &&
    jobs > 1 &&
    holdsAtLeast(WORTH_STEPPING_ASIDE, paths, job.after.state);
  const results = await (isAside
    ? inOtherThreads(job, jobs, onPage)
    : inThreads(job, jobs, async (cells) =>
        numbers === undefined
          ? comparer.compare(paths, takeShares(cells, paths.length, { share, onPage }))
          : comparer.compareEach(paths, numbers, takeShares(cells, numbers.length, { onPage })),
      ));
  const proved = results.filter((result): result is ProveResult => result.kind === 'prove');
  for (const result of proved) timings.merge(result.timings);
  return { comparer, results: proved };
}

async function openSide(
  state: StateName,
  timings: Timings,
): Promise<{ side: ProveSide; reader: SiteReader }> {
  const files = openState(state);
  const config = await readConfig(files);
  return {
    side: { state, config },
    reader: timings.measure('finding files', () => new SiteReader(files, config)),
  };
}

/** Joins what threads or machines found, and compares what depends on all of it. */
function finish({ prover, pagePair }: PageComparer, results: readonly ProveResult[]): Proof {
  const late: string[] = [];
  for (const result of results) {
    late.push(...result.late);
    if (result.part === prover.part) continue;
    mergeProofs(prover.part, result.part);
    for (const name of result.known) prover.known.add(name);
  }
  if (late.length === 0) return proofOf(prover.part);
  const note = (path: string): void => {
    const [before, after] = pagePair(path);
    if (before !== undefined && after !== undefined) prover.note(before, after);
  };
  for (const path of results.flatMap(({ contextPages }) => contextPages)) note(path);
  const pairs = late.sort(comparePaths).map(pagePair);
  for (const path of new Set(pairs.flatMap(([before]) => before?.around?.shownBy ?? []))) note(path);
  for (const [before, after] of pairs)
    if (before !== undefined && after !== undefined) prover.addLate(before, after);
  return proofOf(prover.part);
}
