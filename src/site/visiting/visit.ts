// Brings a running site into a folder that every other command takes as a site.

import { existsSync, rmSync } from 'node:fs';
import path from 'node:path';
import picomatch from 'picomatch';
import {
  type Box,
  type BoxCandidate,
  changesBetween,
  collectNames,
  madeUpNames,
  originOf,
  pathOf,
  type VisitChanges,
} from '../../core/ask/visit/index.js';
import { UsageError } from '../../core/base/usage-error.js';
import { openFolder, type SiteFiles } from '../files/files.js';
import { readText } from '../files/text.js';
import { programVersion } from '../version.js';
import { type BoxState, settleBoxes } from './box-texts.js';
import { Crawl, type Crawled, type RenderedPage } from './crawl.js';
import { CredentialJar } from './credentials.js';
import { leadsInside } from './hosts.js';
import { dropFile, keepManifest, LAST_VISIT, openKeeping, setAside } from './keeper.js';
import { MANIFEST, type Manifest, readManifest } from './manifest.js';
import { goneFiles, manifestOf } from './manifest-of.js';
import { type Bounds, USUAL, type VisitOptions } from './options.js';
import { configOf, settleOwn } from './own-boxes.js';
import { readRobots } from './robots.js';
import { ArchiveSource, NotHad, type Source } from './source.js';
import { namesSitemap, pagesOfSitemap, readStart, type Start } from './starts.js';
import { readVisited } from './visited.js';
import { Web } from './web.js';

/** With what other parts of the program do for it. */
export interface VisitTask extends VisitOptions {
  /** Opens the browser. */
  readonly openRenderer?: ((input: RendererInput) => Promise<Renderer>) | undefined;
  /** Says which of the likely boxes are the developer's. */
  readonly askBoxes?: ((candidates: readonly BoxCandidate[]) => Promise<readonly Box[]>) | undefined;
  /** The pages that the folder holds, and no others: links are not followed. */
  readonly onlyKnown?: boolean | undefined;
}

export interface RendererInput {
  /** The site's; what is of others is asked for only where the page needs it. */
  readonly origin: string;
  readonly credentials: CredentialJar;
  /** Widths of the window, in pixels; one of its own choice where there is none. */
  readonly widths: readonly number[];
}

export interface Renderer {
  /** The page after its scripts: once, and again for each further width at which it is another. */
  readonly render: (address: string) => Promise<readonly RenderedPage[]>;
  readonly close: () => Promise<void>;
}

export interface VisitResult {
  readonly manifest: Manifest;
  readonly folder: string;
  readonly crawled: Crawled;
  readonly requests: number;
  readonly bytes: number;
  /** Against the visit before, where there was one. */
  readonly changes: VisitChanges | undefined;
  readonly boxes: readonly BoxState[];
  /** Boxes that nobody has named yet. */
  readonly likely: readonly BoxCandidate[];
  readonly madeUp: readonly string[];
  /** Pages that robots.txt asks to leave alone. */
  readonly barred: number;
  readonly goesOn: boolean;
}

const SAVE_EVERY = 2000;

/** What is brought from, and how. */
interface Way {
  readonly source: Source;
  readonly web: Web | undefined;
  readonly credentials: CredentialJar;
  readonly bounds: Bounds;
  readonly atOnce: number;
  readonly pause: number;
}

/** In: an address, a file of addresses or an archive; `undefined` to visit again what the folder holds. Throws `UsageError`. */
export async function visitSite(
  from: string | undefined,
  folder: string,
  options: VisitTask,
): Promise<VisitResult> {
  const isNew = !existsSync(folder);
  const root = openKeeping(folder);
  try {
    return await visitInto(from, folder, root, options);
  } catch (error) {
    // A folder that was made for nothing is not left lying about.
    if (isNew && !existsSync(path.join(root, MANIFEST))) rmSync(root, { recursive: true, force: true });
    throw error;
  }
}

async function visitInto(
  from: string | undefined,
  folder: string,
  root: string,
  options: VisitTask,
): Promise<VisitResult> {
  const before = readManifest(openFolder(root));
  const begin = from ?? before?.start;
  if (begin === undefined) throw new UsageError('visit-nothing', { folder });
  const start: Start =
    options.onlyKnown === true && before !== undefined
      ? { kind: 'pages', addresses: addressesOf(before) }
      : readStart(begin);
  const origin = originOfStart(start);
  if (before !== undefined && before.origin !== origin && originOfText(before.start) !== origin)
    throw new UsageError('visit-other', { folder, origin: before.origin });
  const way = await wayTo(start, origin, options);
  try {
    const brought = await bring(root, { begin, start, origin, before }, way, options);
    return await finish(root, brought, before, options);
  } finally {
    await way.web?.close();
  }
}

async function wayTo(start: Start, origin: string, options: VisitTask): Promise<Way> {
  const bounds = { ...USUAL.bounds, ...options.bounds };
  const credentials = new CredentialJar(options, origin);
  const atOnce = options.atOnce ?? USUAL.atOnce;
  if (start.kind === 'archive') {
    const source = new ArchiveSource(start.answers);
    return { source, web: undefined, credentials, bounds, atOnce, pause: 0 };
  }
  const allowsPrivate = await leadsInside(origin);
  // A machine of one's own may be asked as fast as it answers.
  const pause = options.pause ?? (allowsPrivate ? 0 : USUAL.pause);
  const agentName = `acervus/${programVersion()}`;
  const web = new Web({ bounds, credentials, atOnce, pause, allowsPrivate, agentName });
  return { source: web, web, credentials, bounds, atOnce, pause };
}

interface Begin {
  readonly begin: string;
  readonly start: Start;
  readonly origin: string;
  readonly before: Manifest | undefined;
}

interface Brought {
  readonly manifest: Manifest;
  readonly crawled: Crawled;
  readonly barred: number;
  readonly goesOn: boolean;
  readonly web: Web | undefined;
}

async function bring(
  root: string,
  { begin, start, origin, before }: Begin,
  { source, web, credentials, bounds, atOnce, pause }: Way,
  options: VisitTask,
): Promise<Brought> {
  const asked = askedOf(options, before?.asked);
  const goesOn = before?.begun !== undefined;
  const begun = before?.begun ?? new Date().toISOString();
  const robots = await readRobots(source, origin, asked.robots && web !== undefined);
  const all = await startsOf(start, source);
  const wanted = wantedBy(asked);
  const isWanted = (address: string): boolean => wanted(address) && robots.allows(address);
  const starts = all.follows ? all.starts : all.starts.filter(isWanted);
  const slower = Math.max(pause, web === undefined ? 0 : robots.delay);
  web?.slowDown(slower);
  options.onPlan?.({
    pages: all.follows ? asked.pages : Math.min(starts.length, asked.pages),
    ...{ isKnown: !all.follows, bounds, pause: slower, goesOn },
  });
  if (before !== undefined && !goesOn) {
    setAside(root);
    // From here on files are another state's: what is cut short goes on, and does not set them aside.
    keepManifest(root, { ...before, begun });
  }
  const renderer =
    asked.browser && web !== undefined
      ? await options.openRenderer?.({ origin, credentials, widths: asked.widths ?? [] })
      : undefined;
  let saved = performance.now();
  const head = { start: begin, asked };
  const save = (): void => {
    if (crawl.found.pages.size === 0) return;
    saved = performance.now();
    keepManifest(root, manifestOf(crawl.kept, { ...head, origin: crawl.origin }, begun, before));
  };
  const crawl: Crawl = new Crawl({
    ...{ root, source, starts, follows: all.follows, isWanted, begun, atOnce },
    ...{ most: asked.pages, depth: asked.depth ?? Number.POSITIVE_INFINITY, all: asked.all, before },
    render: renderer?.render,
    onPage: (done, of) => {
      options.onPage?.(done, of);
      if (performance.now() - saved > SAVE_EVERY) save();
    },
    onLevel: save,
  });
  try {
    const crawled = await crawl.run();
    if (crawled.pages.size === 0) {
      // Nothing was written over: it is the visit before.
      if (before !== undefined) keepManifest(root, before);
      throw nothingBrought(begin, crawled, robots.barred.size);
    }
    const manifest = manifestOf(crawled, { ...head, origin: crawl.origin }, undefined, before);
    return { manifest, crawled, barred: robots.barred.size, goesOn, web };
  } finally {
    await renderer?.close();
  }
}

/** Takes out what is gone, sees to the boxes, and tells what is otherwise. */
async function finish(
  root: string,
  { manifest, crawled, barred, goesOn, web }: Brought,
  before: Manifest | undefined,
  options: VisitTask,
): Promise<VisitResult> {
  keepManifest(root, manifest);
  if (before !== undefined) for (const file of goneFiles(before, manifest)) dropFile(root, file);
  options.onStep?.('looking for the boxes');
  const likely = await settleOwn(root, manifest, options.own, options.askBoxes);
  const files = openFolder(root);
  const aside = path.join(root, LAST_VISIT);
  const last = before !== undefined && existsSync(aside) ? openFolder(aside) : undefined;
  const visited = readVisited(files, configOf(files));
  const names = namesOf(files, manifest);
  const old = last === undefined ? undefined : readManifest(last);
  const changes =
    last === undefined || old === undefined
      ? undefined
      : changesBetween(stateOf(old, namesOf(last, old)), stateOf(manifest, names));
  return {
    ...{ manifest, folder: root, crawled, changes, likely, barred, goesOn },
    requests: web?.used.requests ?? 0,
    bytes: web?.used.bytes ?? 0,
    boxes: visited === undefined ? [] : settleBoxes(root, visited, last),
    madeUp: madeUpNames(names, changes?.namesGone),
  };
}

function originOfText(text: string): string | undefined {
  return URL.canParse(text) ? originOf(text) : undefined;
}

/** Of each page its first address; what a narrower window shows is shown with it. */
function addressesOf({ pages }: Manifest): string[] {
  return pages.map(({ address }) => address).filter((one) => !one.includes('#'));
}

function originOfStart(start: Start): string {
  if (start.kind === 'address') return originOf(start.address);
  const addresses = start.kind === 'pages' ? start.addresses : start.pages;
  return originOf(addresses[0]!);
}

async function startsOf(
  start: Start,
  source: Source,
): Promise<{ readonly starts: readonly string[]; readonly follows: boolean }> {
  if (start.kind === 'archive') return { starts: start.pages, follows: false };
  if (start.kind === 'pages') return { starts: start.addresses, follows: false };
  if (!namesSitemap(start.address)) return { starts: [start.address], follows: true };
  const pages = await pagesOfSitemap(source, start.address).catch((error: unknown) => {
    if (error instanceof NotHad)
      throw new UsageError('visit-failed', { address: start.address, why: error.message });
    throw error;
  });
  if (pages?.length === 0) throw new UsageError('visit-list', { file: start.address });
  return { starts: pages ?? [start.address], follows: pages === undefined };
}

/** What is not repeated is as the visit before was asked. */
function askedOf(options: VisitTask, before: Manifest['asked'] | undefined): Manifest['asked'] {
  const depth = options.depth ?? before?.depth;
  const match = options.match ?? before?.match;
  const skip = options.skip ?? before?.skip;
  const widths = options.widths ?? before?.widths;
  return {
    pages: options.pages ?? before?.pages ?? USUAL.pages,
    ...(depth === undefined ? {} : { depth }),
    ...(match === undefined ? {} : { match: [...match] }),
    ...(skip === undefined ? {} : { skip: [...skip] }),
    robots: options.ignoreRobots === undefined ? (before?.robots ?? true) : !options.ignoreRobots,
    all: options.all ?? before?.all ?? false,
    browser: options.browser ?? before?.browser ?? false,
    ...(widths === undefined ? {} : { widths: [...widths] }),
  };
}

function wantedBy({ match, skip }: Manifest['asked']): (address: string) => boolean {
  const matches = match === undefined ? () => true : picomatch([...match]);
  const skips = skip === undefined ? () => false : picomatch([...skip]);
  return (address) => {
    const said = pathOf(address);
    const [bare = ''] = said.split('?');
    return (matches(said) || matches(bare)) && !skips(said) && !skips(bare);
  };
}

function nothingBrought(begin: string, { failed, usedUp }: Crawled, barred: number): UsageError {
  const [first] = failed;
  if (first !== undefined) return new UsageError('visit-failed', { address: first[0], why: first[1] });
  if (usedUp !== undefined)
    return new UsageError('visit-failed', { address: begin, why: `${usedUp} are used up` });
  return new UsageError(barred > 0 ? 'visit-barred' : 'visit-list', { file: begin, address: begin });
}

function namesOf(files: SiteFiles, { pages }: Manifest): Set<string> {
  const names = new Set<string>();
  for (const { file } of pages) collectNames(readText(files, file)?.text ?? '', names);
  return names;
}

function stateOf({ pages, files }: Manifest, names: ReadonlySet<string>) {
  const digests = (entries: Manifest['files'] | Manifest['pages']): Map<string, string> =>
    new Map(entries.map(({ file, digest }) => [file, digest]));
  return { pages: digests(pages), sheets: digests(files.filter(({ kind }) => kind === 'sheet')), names };
}
