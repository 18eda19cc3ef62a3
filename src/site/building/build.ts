// A site that a command builds: its pages as the build makes them, and where each of their tags stands in the sources. Lives in
// `.acervus/build/`; safe to delete. Made anew when a source has changed.

import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { z } from 'zod';
import { UsageError } from '../../core/base/usage-error.js';
import { type MarkedTag, markTags, type Renderings, SourcePlaces } from '../../core/edit/sources/index.js';
import { isBuiltPage, isStyleSheet } from '../../core/read/kinds/index.js';
import { countMarks, SOURCE_MARK } from '../../core/read/markup/index.js';
import type { Config } from '../config.js';
import { decodeFile } from '../files/encoding.js';
import { CONFIG_FILE, openFolder, type SiteFiles } from '../files/files.js';
import { insideSite } from '../files/inside.js';
import { readConfig } from '../files/pages.js';
import { isGone } from '../ledger/lock.js';
import { sha256 } from '../ledger/record.js';
import { type LoadOptions, loadSite, type Site } from '../rendering/load.js';
import { programVersion } from '../version.js';
import { copiesIn } from './copies.js';
import { buildNumbered, type Numbered } from './numbered.js';
import { type BuildCommand, type BuildEnd, refuseFailed, runBuild } from './run.js';
import { copySources, findSources, type Sources } from './sources.js';
import { settleUnsteady } from './unsteady.js';

export interface BuiltSite {
  readonly command: BuildCommand;
  /** The folder of the pages, each tag numbered: what other parts of the program read as the site. */
  readonly folder: string;
  /** The same as the build makes them. */
  readonly plain: string;
  readonly sources: Sources;
  readonly sourcePlaces: SourcePlaces;
  /** By path of a built file, the source that it is a copy of. */
  readonly copies: ReadonlyMap<string, string>;
  /** Sources that could not be numbered: their tags are taken for what no source holds. */
  readonly unmarked: readonly string[];
}

const HOME = path.join('.acervus', 'build');
const STATE = 'state.json';

const stateSchema = z.strictObject({
  version: z.literal(programVersion()),
  digest: z.string(),
  command: z.strictObject({ build: z.string(), into: z.string() }),
  config: z.string(),
  firsts: z.record(z.string(), z.int()),
  copies: z.record(z.string(), z.string()),
  unmarked: z.array(z.string()),
  renderings: z.array(z.tuple([z.int(), z.int(), z.int()])),
});

type State = z.infer<typeof stateSchema>;

/** What a site's configuration says of its build; `undefined` for a site of finished pages. */
export function buildOf({ rendering }: Config): BuildCommand | undefined {
  return typeof rendering === 'object' && 'build' in rendering ? rendering : undefined;
}

/**
 * What a site builds, where its configuration names a build.
 * In: the site's folder and files; all sources are read through these. Out: `undefined` for a site of finished pages.
 */
export async function openBuilt(
  folder: string,
  files: SiteFiles,
  onStep: (step: string) => void = () => {},
): Promise<BuiltSite | undefined> {
  const config = await readConfig(files);
  const command = buildOf(config);
  if (command === undefined) return undefined;
  const built = await builtSite(folder, config, command, onStep);
  for (const file of built.sources.files) files.read(file);
  return built;
}

/** Its numbered pages. In: the shared sheet that a draft names. Throws `UsageError`. */
export function loadBuilt({ folder, sourcePlaces }: BuiltSite, shared?: string): Site {
  const known: LoadOptions['built'] = {
    shareOf: (page, tag) => sourcePlaces.shareOf(page, tag),
    isWritten: (page, element) => sourcePlaces.isWritten(page, element),
  };
  return loadSite(openFolder(folder), { built: known, ...(shared === undefined ? {} : { shared }) });
}

/**
 * Builds a site, or takes what was built of the same sources before.
 * In: the site's folder, its configuration, and who hears what is done. Throws `UsageError` for a build that fails.
 */
export async function builtSite(
  folder: string,
  config: Config,
  command: BuildCommand,
  onStep: (step: string) => void,
): Promise<BuiltSite> {
  const root = path.resolve(folder);
  const home = insideSite(root, HOME);
  const sources = findSources(root, command.into);
  const known = readState(home, sources, command, config);
  if (known !== undefined) return siteOf(root, home, sources, known);
  mkdirSync(home, { recursive: true });
  const desk = new Desk(root, home, sources, command);
  try {
    onStep(`building: ${command.build}`);
    desk.fresh();
    refuseFailed(command, await desk.build());
    desk.take('plain');
    if (!openFolder(path.join(home, 'plain')).list().some(isBuiltPage))
      throw new UsageError('build-no-pages', { command: command.build, into: command.into });
    onStep(`building once more, to see where tags come from: ${command.build}`);
    const numbered = await buildNumbered(sources, desk.work, {
      fresh: () => desk.fresh(),
      build: () => desk.build(),
      take: () => desk.take('numbered'),
    });
    if (!existsSync(path.join(home, 'numbered'))) {
      desk.fresh();
      refuseFailed(command, await desk.build());
      desk.take('numbered');
    }
    const copies = copiesIn(path.join(home, 'plain'), sources);
    const renderings = finishNumbered(path.join(home, 'numbered'), config, copies);
    const state = stateOf(sources, command, config, { ...numbered, copies, renderings });
    writeFileAtomic.sync(path.join(home, STATE), JSON.stringify(state));
    return siteOf(root, home, sources, state);
  } finally {
    desk.clear();
  }
}

/** Pages of changed sources. */
export interface BuiltChange {
  readonly folder: string;
  /** How many of them hold what changes from build to build: it is as in the first build. */
  readonly settled: number;
}

/**
 * Builds changed sources.
 * In: by path, the bytes of the sources that are others. Throws `UsageError` for a build that fails.
 */
export async function buildChanged(
  { sources, command }: BuiltSite,
  changed: ReadonlyMap<string, Buffer>,
): Promise<BuiltChange> {
  const home = insideSite(sources.root, HOME);
  const desk = new Desk(sources.root, home, sources, command);
  try {
    desk.fresh();
    for (const [file, bytes] of changed) {
      const full = path.join(desk.work, file);
      mkdirSync(path.dirname(full), { recursive: true });
      writeFileSync(full, bytes);
    }
    refuseFailed(command, await desk.build());
    desk.take('changed');
    const [first, again, folder] = ['plain', 'numbered', 'changed'].map((name) => path.join(home, name));
    return { folder: folder!, settled: settleUnsteady(first!, again!, folder!) };
  } finally {
    desk.clear();
  }
}

/** Where a build runs: a folder of its own for each process, always under one name, since some builds write it into pages. */
class Desk {
  readonly work: string;
  readonly #own: string;

  constructor(
    readonly root: string,
    readonly home: string,
    readonly sources: Sources,
    readonly command: BuildCommand,
  ) {
    sweepDesks(home);
    this.#own = path.join(home, `at-${process.pid}`);
    this.work = path.join(this.#own, 'site');
  }

  fresh(): void {
    copySources(this.sources, this.work);
  }

  build(): Promise<BuildEnd> {
    return runBuild(this.command, this.work, this.root);
  }

  /** Keeps what was built under a name. */
  take(name: string): void {
    const target = path.join(this.home, name);
    rmSync(target, { recursive: true, force: true });
    renameSync(path.join(this.work, this.command.into), target);
  }

  clear(): void {
    rmSync(this.#own, { recursive: true, force: true });
  }
}

/** What killed processes left. */
function sweepDesks(home: string): void {
  if (!existsSync(home)) return;
  for (const name of readdirSync(home)) {
    const pid = /^at-(\d+)$/.exec(name)?.[1];
    if (pid !== undefined && isGone(Number(pid)))
      rmSync(path.join(home, name), { recursive: true, force: true });
  }
}

const FIRST_TAG = /<(?:html|body|[a-z][a-z0-9]*)(?=[\s>])/i;

/**
 * The numbered pages as a site of their own. A page without a number gets one that stands for no source.
 * Out: by number, how many tags on how many pages come from it.
 */
function finishNumbered(
  folder: string,
  config: Config,
  copies: ReadonlyMap<string, string>,
): Map<number, Renderings> {
  const files = openFolder(folder).list();
  const seen = new Set<number>();
  const all = new Map<number, Renderings>();
  for (const file of files) {
    if (!isBuiltPage(file)) continue;
    const full = path.join(folder, file);
    // Letters of any encoding come back as they were.
    const text = readFileSync(full, 'latin1');
    const own = text.includes(SOURCE_MARK)
      ? text
      : text.replace(FIRST_TAG, (tag) => `${tag} ${SOURCE_MARK}=0`);
    const { text: counted, counts } = countMarks(own, seen);
    for (const [number, tags] of counts) {
      const known = all.get(number);
      all.set(number, { tags: tags + (known?.tags ?? 0), pages: 1 + (known?.pages ?? 0) });
    }
    writeFileSync(full, counted, 'latin1');
  }
  const built = files.filter((file) => isStyleSheet(file) && !copies.has(file));
  const { rendering, $schema, ...rest } = config;
  const shared = [...copies].find(([, source]) => source === config.shared)?.[0] ?? config.shared;
  const own: Config = {
    ...rest,
    ...(shared === undefined ? {} : { shared }),
    platform: [...(config.platform ?? []), ...built],
  };
  writeFileSync(path.join(folder, CONFIG_FILE), JSON.stringify(own));
  return all;
}

function stateOf(
  { digest }: Sources,
  command: BuildCommand,
  config: Config,
  {
    firsts,
    unmarked,
    copies,
    renderings,
  }: Numbered & {
    readonly copies: ReadonlyMap<string, string>;
    readonly renderings: ReadonlyMap<number, Renderings>;
  },
): State {
  return {
    version: programVersion(),
    digest,
    command: { build: command.build, into: command.into },
    config: configPrint(config),
    firsts: Object.fromEntries(firsts),
    copies: Object.fromEntries(copies),
    unmarked: [...unmarked],
    renderings: [...renderings].map(([number, own]) => [number, own.tags, own.pages]),
  };
}

function configPrint(config: Config): string {
  return sha256(Buffer.from(JSON.stringify(config)));
}

/** What was built before; `undefined` where a source, the configuration or the program has changed since. */
function readState(
  home: string,
  { digest }: Sources,
  command: BuildCommand,
  config: Config,
): State | undefined {
  const file = path.join(home, STATE);
  if (!existsSync(file) || !['plain', 'numbered'].every((name) => existsSync(path.join(home, name))))
    return undefined;
  let value: unknown;
  try {
    value = JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    // Made anew.
    return undefined;
  }
  const read = stateSchema.safeParse(value);
  if (!read.success || read.data.digest !== digest || read.data.config !== configPrint(config))
    return undefined;
  return read.data.command.build === command.build && read.data.command.into === command.into
    ? read.data
    : undefined;
}

function siteOf(root: string, home: string, sources: Sources, state: State): BuiltSite {
  const tags = new Map<number, MarkedTag>();
  const texts = new Map<string, string>();
  for (const [file, first] of Object.entries(state.firsts)) {
    const text = decodeFile(readFileSync(path.join(root, file)))?.text ?? '';
    texts.set(file, text);
    for (const [at, tag] of markTags(file, text, first).tags.entries()) tags.set(first + at, tag);
  }
  const copies = new Map(Object.entries(state.copies));
  const renderings = new Map(
    state.renderings.map(([number, count, pages]) => [number, { tags: count, pages }] as const),
  );
  const sheets = new Map([...copies].filter(([file]) => isStyleSheet(file)));
  return {
    command: state.command,
    folder: path.join(home, 'numbered'),
    plain: path.join(home, 'plain'),
    sources,
    sourcePlaces: new SourcePlaces({ tags, sources: texts, sheets, renderings }),
    copies,
    unmarked: state.unmarked,
  };
}
