// One whole state of a site in memory, for planning changes. What only looks at a site goes page by page instead.

import type { Place } from '../../core/base/source.js';
import { UsageError } from '../../core/base/usage-error.js';
import { SiteModel, type SiteSources } from '../../core/cascade/index.js';
import type { DraftSite } from '../../core/change/consolidate/index.js';
import { LookOver, type Overview } from '../../core/change/excerpt/index.js';
import type { Draft } from '../../core/edit/draft/index.js';
import { copiesWith, sheetsBeside } from '../../core/edit/text/index.js';
import { isComponentFile } from '../../core/read/kinds/index.js';

import { pagesThatShow } from '../../core/read/markup/index.js';
import { SiteScripts } from '../../core/stock/index.js';
import type { Config } from '../config.js';
import type { Encoding } from '../files/encoding.js';
import type { SiteFiles } from '../files/files.js';
import { sheetsOfUnread } from '../files/unread.js';
import { tellRead } from '../files/watch.js';
import { takeExcerpts } from '../threads/excerpting.js';
import { proveChange } from '../threads/proving.js';
import type { Visited } from '../visiting/with-boxes.js';
import { type CompiledSheet, ownSources, type SheetSource } from './compiled-sheets.js';
import type { AddedSheet } from './imported-sheets.js';
import { outlinedPages } from './outlines.js';
import { parsePlaced } from './placing.js';
import type { SheetOwner, SiteReader } from './reader.js';
import { SourceFinder } from './source-finder.js';
import { SheetUses } from './uses.js';

export interface Site {
  readonly files: SiteFiles;
  readonly config: Config;
  /** Every page; excerpts of them where `whole` is there. */
  readonly model: SiteModel;
  /** Paths of all pages, in order. */
  readonly paths: readonly string[];
  /** The whole text of a page. */
  readonly textOf: (path: string) => string | undefined;
  readonly whole: DraftSite['whole'];
  readonly scripts: SiteScripts;
  /** Texts of the site's local scripts, by path. */
  readonly scriptTexts: ReadonlyMap<string, string>;
  /** Whether a sheet or script is the platform's: it may not be edited. */
  readonly isPlatform: (path: string) => boolean;
  /** Sheets that may be edited, the shared one with them where it is there. */
  readonly themes: readonly string[];
  /** Linked and imported sheets, most used first. */
  readonly sheets: readonly SheetOwner[];
  /** Site path of the shared sheet, whether or not it exists. */
  readonly shared: string;
  /** Whether a person says which it is. */
  readonly sharedIsGiven: boolean;
  /** Sheets and scripts that were asked for, those that are not there too. */
  readonly asked: () => readonly string[];
  /** Encodings of the files that are not plain UTF-8. */
  readonly encodings: ReadonlyMap<string, Encoding>;
  /** A sheet that a module is to import once something is written into it. */
  readonly added: AddedSheet | undefined;
  /** How the shared sheet is a part of one that a preprocessor makes. */
  readonly compiled: CompiledSheet | undefined;
  /** Of what a sheet is made that a preprocessor makes, where changes of it can be made there. */
  readonly sourceOf: (sheet: string) => SheetSource | undefined;
  /** Where a rule or declaration is written; itself where it is written where it stands. */
  readonly writtenAt: (place: Place) => Place;
  /** How a built sheet is made. */
  readonly compiledAs: (sheet: string) => CompiledSheet | undefined;
  /** Of a running system: what was brought of it, and its boxes. */
  readonly visited: Visited | undefined;
}

export interface LoadOptions {
  /** The shared sheet that a draft names, instead of the configured or usual one. */
  readonly shared?: string;
  /** Of built pages: see `SiteSources`. */
  readonly built?: Pick<SiteSources, 'shareOf' | 'isWritten'>;
  /** The site's folder, where outlines of its pages are remembered; without it every page is parsed. */
  readonly outlinesIn?: string | undefined;
}

/** Loads one state of a site, every page of it. Throws `UsageError` for what cannot be a site. */
export function loadSite(files: SiteFiles, options: LoadOptions = {}): Site {
  const found = new SourceFinder(files);
  const pages = new Map<string, string>();
  for (const file of found.reader.pagePaths) {
    const text = found.reader.page(file);
    if (text !== undefined) pages.set(file, text);
  }
  if (pages.size === 0) throw new UsageError('pages-empty', { site: files.label });
  const components = new Set([...pages.keys()].filter((file) => found.reader.isComponent(file)));
  const given = found.reader.given([...pages.keys()]);
  const parsed =
    options.outlinesIn === undefined || given.size > 0
      ? undefined
      : outlinedPages(options.outlinesIn, pages, (file) => components.has(file));
  // The model parses the pages; reading what they lead to then fills the same maps it looks into.
  const model = new SiteModel(
    {
      ...{ ...found.sources, pages, components, given, link: found.reader.config.link },
      behind: (file) => found.reader.behind(file),
      isModule: (file) => found.reader.isModule(file),
      isToCome: (file) => found.reader.isToCome(file),
      compileBlock: found.reader.compileBlock,
      mentions: found.reader.mentions,
      ...(parsed === undefined ? {} : { parsed }),
      ...options.built,
    },
    found.table,
  );
  for (const [at, path] of model.paths.entries()) {
    found.follow(model.page(path)!, model);
    tellRead(at + 1, pages.size);
  }
  const uses = new SheetUses();
  for (const page of model.pages) uses.note(page, model, model.sources);
  return siteOf(found, model, uses, options);
}

function siteOf(found: SourceFinder, model: SiteModel, uses: SheetUses, options: LoadOptions): Site {
  const { reader, files } = found;
  const { sheets, scripts } = found.sources;
  const owners = reader.owners(uses.counts);
  const hasOwn =
    reader.config.shared !== undefined ||
    owners.some(({ path, owner }) => owner === 'theme' || reader.behind(path) !== undefined);
  const copyOf = (address: string): string | undefined => reader.copies.get(address);
  const beside = hasOwn ? [] : sheetsBeside(model.pages, 'shared.css', copyOf);
  const usual = beside.find((path) => !reader.isPlatform(path)) ?? reader.shared(owners, uses.links);
  const shared = options.shared ?? usual;
  found.readSheet(shared);
  reader.learn(copiesWith(reader.copies, model.pages, shared, reader.config.link));
  const isPlatform = (file: string): boolean => reader.isPlatform(file);
  const themes = owners.filter(({ owner }) => owner === 'theme').map(({ path }) => path);
  const isOwn = ownSources(reader.config, reader.files);
  return {
    files,
    config: reader.config,
    model,
    textOf: (file) => model.sources.pages.get(file),
    paths: model.paths,
    scripts: new SiteScripts(scripts, copyOf, () => pagesThatShow(model.pages)),
    scriptTexts: new Map([...scripts].map(([file, { text }]) => [file, text])),
    isPlatform,
    themes: sheets.has(shared) && !isPlatform(shared) ? [...new Set([...themes, shared])] : themes,
    sheets: owners,
    shared,
    sharedIsGiven: reader.config.shared !== undefined || shared !== usual,
    asked: () => reader.asked,
    encodings: reader.encodings,
    added: model.pages.some(({ path }) => isComponentFile(path)) ? reader.added : undefined,
    sourceOf: (sheet) => reader.compiled.sourceOf(sheet, isOwn),
    writtenAt: (place) => reader.sheetPlaces.of(place) ?? place,
    compiledAs: (sheet) => reader.compiled.of(sheet),
    compiled: owners.map(({ path }) => reader.compiled.of(path)).find((one) => one?.part === shared),
    visited: reader.visited,
    whole: undefined,
  };
}

/** From so many characters of pages on, the search reads excerpts of them. */
const LARGE = 8_000_000;

/** How a site is loaded whose every page is looked at one by one. */
export interface ExcerptOptions extends LoadOptions {
  /** From so many characters of pages on they are taken as excerpts. */
  readonly largeFrom?: number | undefined;
  /** Whether a page that was proven before is believed to look as before; it is without. */
  readonly cache?: boolean | undefined;
  /** Nothing is written, what was proven neither. */
  readonly writesNothing?: boolean | undefined;
  /** How many threads take excerpts; as the size of the site calls for without. */
  readonly jobs?: number | undefined;
  /** Pages that are kept as they are: a person mentions a place on them. */
  readonly whole?: ReadonlySet<string> | undefined;
}

/** Loads a site for a search: of a large one, excerpts of its pages. Throws `UsageError` for what cannot be a site. */
export async function loadExcerpts(
  folder: string,
  files: SiteFiles,
  options: ExcerptOptions = {},
): Promise<Site> {
  const found = new SourceFinder(files);
  const { reader, table } = found;
  const { sizes, overview } = lookOver(reader);
  const paths = [...sizes.keys()];
  if (paths.length === 0) throw new UsageError('pages-empty', { site: files.label });
  const size = [...sizes.values()].reduce((all, one) => all + one, 0);
  if (size < (options.largeFrom ?? LARGE)) return loadSite(files, options);
  const { excerpts, parsed, styles, uses } = await takeExcerpts(found, {
    folder,
    sizes,
    overview,
    whole: options.whole ?? new Set(),
    jobs: options.jobs,
  });
  const components = new Set(paths.filter((file) => reader.isComponent(file)));
  const given = reader.given(paths);
  const { pages, alike, likeTags, leftOut, placeIds } = excerpts;
  const model = new SiteModel(
    {
      ...found.sources,
      behind: (file) => reader.behind(file),
      isModule: (file) => reader.isModule(file),
      isToCome: (file) => reader.isToCome(file),
      compileBlock: reader.compileBlock,
      mentions: reader.mentions,
      pages,
      components,
      given,
      link: reader.config.link,
      parsed,
      alike,
      likeTags,
      leftOut,
      sharedIds: placeIds,
    },
    table,
    styles,
  );
  const site = siteOf(found, model, uses, options);
  const known = new Set(paths);
  const read = (path: string): string | undefined => reader.page(path);
  return {
    ...site,
    paths,
    textOf: (path) => (known.has(path) ? read(path) : undefined),
    whole: {
      pages: {
        paths,
        parse: (path, text) => parsePlaced(reader, path, text),
        read,
        prove: (edits, onPage) =>
          proveChange(
            folder,
            { reader, paths, edits },
            {
              onPage,
              cache: options.cache,
              rememberFrom: options.largeFrom,
              writesNothing: options.writesNothing,
            },
          ),
      },
      excerpts,
    },
  };
}

/** In: the draft that is there. Values that it wants made the same change looks, which is counted on every element. */
export async function loadForDraft(
  folder: string,
  files: SiteFiles,
  draft: Draft | undefined,
  options: ExcerptOptions = {},
): Promise<Site> {
  const asksForLooks = draft?.['near misses'].some(({ change }) => change) === true;
  if (asksForLooks) return loadSite(files, options);
  const excepted = (draft?.styles ?? []).flatMap(({ except = [] }) => except);
  const whole = new Set([
    ...(options.whole ?? []),
    ...excepted.map((place) => place.replace(/:\d+:\d+$/, '')),
  ]);
  return loadExcerpts(folder, files, { ...options, whole });
}

/** Before any page is parsed: the characters of each, and what they have in common. */
function lookOver(reader: SiteReader): { sizes: Map<string, number>; overview: Overview } {
  const look = new LookOver();
  const sizes = new Map<string, number>();
  for (const path of reader.pagePaths) {
    const text = reader.page(path);
    if (text === undefined) continue;
    sizes.set(path, text.length);
    look.add(text);
  }
  return { sizes, overview: look.overview };
}

/** Whether a file is page, sheet or script of a page; what a library holds unread is its own affair. */
export function isReadIn({ model, scriptTexts, isPlatform }: Site, file: string): boolean {
  const { pages, sheets } = model.sources;
  return pages.has(file) || sheets.has(file) || scriptTexts.has(file) || isPlatform(file);
}

/** By sheet, the texts of documents that load it and are not read as pages. */
export function sheetsElsewhere({ files, model, paths, sheets, shared }: Site): Map<string, string[]> {
  const wanted = new Set([...sheets.map(({ path }) => path), shared]);
  // An excerpt holds all that a page may load a sheet by.
  const pages = new Map(paths.map((path) => [path, model.sources.pages.get(path) ?? '']));
  return sheetsOfUnread(files, pages, [...wanted]);
}

/** The site as a draft sees it: without a disk. */
export function draftSite(site: Site): DraftSite {
  const { model, scripts, sheets, shared, config, whole } = site;
  return {
    model,
    whole,
    scripts,
    sheets,
    shared: { path: shared, partNames: config.parts ?? {} },
    sharedIsGiven: site.sharedIsGiven,
    unseen: sheetsElsewhere(site),
    naming: config.naming ?? {},
    styledTags: {
      pictureSizes: config.pictureSizes ?? 'keep',
      outdated: config.outdated ?? 'repeats',
      mail: config.mail ?? 'keep',
    },
  };
}
