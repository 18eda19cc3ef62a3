// One whole state of a site in memory, for planning changes. What only looks at a site goes page by page instead.

import { resolveAddress, sheetPath } from '../../core/addresses.js';
import {
  OutcomeTable,
  type ScriptText,
  SiteModel,
  type SiteSources,
  type SiteStyles,
  TruthTable,
} from '../../core/cascade/index.js';
import type { DraftSite } from '../../core/consolidate/index.js';
import type { Draft } from '../../core/draft/index.js';
import { ExcerptTaker } from '../../core/excerpt/index.js';
import { isPlainLink, type Page, parsePage } from '../../core/markup/index.js';
import { importedFiles, scriptReading } from '../../core/scripts/index.js';
import { SiteScripts } from '../../core/stock/index.js';
import { UsageError } from '../../core/usage-error.js';
import { type Config, parseConfig } from '../config.js';
import type { Encoding } from '../files/encoding.js';
import type { SiteFiles } from '../files/files.js';
import { CONFIG_FILE } from '../files/pages.js';
import { sheetsOfUnread } from '../files/unread.js';
import { tellRead } from '../files/watch.js';
import { proveChange } from '../threads/proving.js';
import { type SheetOwner, SiteReader } from './reader.js';

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
  /** Encodings of the files that are not plain UTF-8. */
  readonly encodings: ReadonlyMap<string, Encoding>;
}

export interface LoadOptions {
  /** The shared sheet that a draft names, instead of the configured or usual one. */
  readonly shared?: string;
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
  const components = new Set([...pages.keys()].filter(found.reader.isComponent));
  // The model parses the pages; reading what they lead to then fills the same maps it looks into.
  const model = new SiteModel({ ...found.sources, pages, components }, found.table);
  for (const [at, path] of model.paths.entries()) {
    found.follow(model.page(path)!, model);
    tellRead(at + 1, pages.size);
  }
  return siteOf(found, model, sheetUses(model), plainLinks(model, found.reader.copies), options);
}

/** Reads what pages lead to: sheets, scripts, and what these lead to. */
class SourceFinder {
  readonly reader: SiteReader;
  readonly table = new OutcomeTable(new TruthTable());
  readonly #sheets = new Map<string, string>();
  readonly #scripts = new Map<string, ScriptText>();

  constructor(readonly files: SiteFiles) {
    this.reader = new SiteReader(files, parseConfig(files.read(CONFIG_FILE)?.toString('utf8')));
  }

  /** What is filled as pages are followed. */
  get sources(): {
    sheets: Map<string, string>;
    scripts: Map<string, ScriptText>;
    copies: SiteSources['copies'];
  } {
    return { sheets: this.#sheets, scripts: this.#scripts, copies: this.reader.copies };
  }

  readSheet(file: string | undefined): void {
    const sheet = file === undefined || this.#sheets.has(file) ? undefined : this.reader.sheetAt(file);
    if (file === undefined || sheet === undefined) return;
    this.#sheets.set(file, sheet.text);
    for (const { address } of sheet.imports) this.#readAddress(address, file);
  }

  follow(page: Page, styles: SiteStyles): void {
    for (const reference of page.sheets) {
      if (reference.kind === 'link') this.#readAddress(reference.address, page.path);
      else if (/@import/i.test(reference.text))
        for (const { address } of styles.block(reference.text, page).sheet.imports)
          this.#readAddress(address, page.path);
    }
    for (const reference of page.scripts) {
      const resolved = reference.kind === 'link' ? resolveAddress(reference.address, page.path) : undefined;
      const script = resolved?.kind === 'site' ? this.reader.scriptAt(resolved.path) : undefined;
      if (resolved?.kind === 'site' && script !== undefined) this.#scripts.set(resolved.path, script);
      const own = reference.kind === 'inline' ? { text: reference.text, isLibrary: false } : script;
      if (own === undefined) continue;
      const holder = resolved?.kind === 'site' ? resolved.path : page.path;
      const imported = importedFiles(scriptReading(own.text).imports, holder, (file) => {
        const found = this.reader.scriptAt(file);
        if (found !== undefined) this.#scripts.set(file, found);
        return found && scriptReading(found.text).imports;
      });
      // A sheet that a script puts in is one of the page's.
      for (const { text, isLibrary } of [own, ...imported.map((file) => this.#scripts.get(file)!)])
        if (/\.css\b/.test(text) && !isLibrary)
          for (const one of scriptReading(text).sheets)
            if (one.kind === 'address') this.#readAddress(one.address, page.path);
    }
  }

  #readAddress(address: string, from: string): void {
    this.readSheet(sheetPath(address, from, (one) => this.reader.copies.get(one)));
  }
}

/** In: what was found; the pages; how many of them use each sheet; by page, the sheets that it links plainly. */
function siteOf(
  found: SourceFinder,
  model: SiteModel,
  uses: ReadonlyMap<string, number>,
  links: readonly (readonly string[])[],
  options: LoadOptions,
): Site {
  const { reader, files } = found;
  const { sheets, scripts } = found.sources;
  const owners = reader.owners(uses);
  const usual = reader.shared(owners, links);
  const shared = options.shared ?? usual;
  found.readSheet(shared);
  const isPlatform = (file: string): boolean => reader.isPlatform(file);
  const themes = owners.filter(({ owner }) => owner === 'theme').map(({ path }) => path);
  return {
    files,
    config: reader.config,
    model,
    textOf: (file) => model.sources.pages.get(file),
    paths: model.paths,
    scripts: new SiteScripts(scripts),
    scriptTexts: new Map([...scripts].map(([file, { text }]) => [file, text])),
    isPlatform,
    themes: sheets.has(shared) && !isPlatform(shared) ? [...new Set([...themes, shared])] : themes,
    sheets: owners,
    shared,
    sharedIsGiven: reader.config.shared !== undefined || shared !== usual,
    encodings: reader.encodings,
    whole: undefined,
  };
}

/** From so many characters of pages on, the search reads excerpts of them. */
const LARGE = 8_000_000;

/** How a site is loaded whose every page is looked at one by one. */
export interface ExcerptOptions extends LoadOptions {
  /** From so many characters of pages on they are taken as excerpts. */
  readonly largeFrom?: number | undefined;
  /** A page that a person asks about. */
  /** Pages that are kept as they are: a person speaks of a place on them. */
  readonly whole?: ReadonlySet<string> | undefined;
}

/** Loads a site for a search: of a large one, excerpts of its pages. Throws `UsageError` for what cannot be a site. */
export function loadExcerpts(folder: string, files: SiteFiles, options: ExcerptOptions = {}): Site {
  const found = new SourceFinder(files);
  const { reader, table } = found;
  const { size, sharedIds, paths } = lookOver(reader);
  if (paths.length === 0) throw new UsageError('pages-empty', { site: files.label });
  if (size < (options.largeFrom ?? LARGE)) return loadSite(files, options);
  const components = new Set(paths.filter(reader.isComponent));
  const styles = new SiteModel({ ...found.sources, pages: new Map(), components }, table);
  const taker = new ExcerptTaker(styles, {
    isShared: (id) => sharedIds.has(id),
    isWhole: (path) => options.whole?.has(path) === true,
    // A component may stand on any page, and may ask all of them for a sheet.
    mayLeaveOut: components.size === 0,
  });
  const uses = new Map<string, number>();
  const links = new Map<string, string[]>();
  for (const [at, path] of paths.entries()) {
    const text = reader.page(path);
    if (text === undefined) continue;
    const page = parsePage(path, text, reader.isComponent(path));
    found.follow(page, styles);
    taker.add(page);
    if (page.kind === 'page') {
      for (const file of sheetsUsed(page, styles)) uses.set(file, (uses.get(file) ?? 0) + 1);
      const plain = linksOf(page, reader.copies);
      links.set(plain.join('\n'), plain);
    }
    tellRead(at + 1, paths.length);
  }
  const { excerpts } = taker;
  const { pages: parsed, alike, likeTags, placeIds } = excerpts;
  const pages = new Map([...parsed].map(([path, { text }]) => [path, text]));
  const model = new SiteModel(
    { ...found.sources, pages, components, parsed, alike, likeTags, sharedIds: placeIds },
    table,
    styles,
  );
  const site = siteOf(found, model, uses, [...links.values()], options);
  const known = new Set(paths);
  const read = (path: string): string | undefined => reader.page(path);
  return {
    ...site,
    paths,
    textOf: (path) => (known.has(path) ? read(path) : undefined),
    whole: {
      pages: {
        paths,
        isComponent: reader.isComponent,
        read,
        prove: (edits, onPage) => proveChange(folder, { reader, paths, edits }, onPage),
      },
      excerpts,
    },
  };
}

/** In: the draft that is there. Values that it wants made the same change looks, which is counted on every element. */
export function loadForDraft(
  folder: string,
  files: SiteFiles,
  draft: Draft | undefined,
  options: ExcerptOptions = {},
): Site {
  const asksForLooks = draft?.['near misses'].some(({ change }) => change) === true;
  if (asksForLooks) return loadSite(files, options);
  const excepted = (draft?.styles ?? []).flatMap(({ except = [] }) => except);
  const whole = new Set([
    ...(options.whole ?? []),
    ...excepted.map((place) => place.replace(/:\d+:\d+$/, '')),
  ]);
  return loadExcerpts(folder, files, { ...options, whole });
}

const ID = /\sid\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'>]+))/gi;

/** Before any page is parsed: how much there is to read, and the ids that stand on several pages. */
function lookOver(reader: SiteReader): { size: number; sharedIds: Set<string>; paths: string[] } {
  const seen = new Set<string>();
  const sharedIds = new Set<string>();
  const paths: string[] = [];
  let size = 0;
  for (const path of reader.pagePaths) {
    const text = reader.page(path);
    if (text === undefined) continue;
    paths.push(path);
    size += text.length;
    const own = new Set<string>();
    for (const [, double, single, bare] of text.matchAll(ID)) own.add(double ?? single ?? bare ?? '');
    for (const id of own) (seen.has(id) ? sharedIds : seen).add(id);
  }
  return { size, sharedIds, paths };
}

/** By page, the sheets that it links plainly, in order. */
function plainLinks(model: SiteModel, copies: SiteSources['copies']): string[][] {
  return model.pages.filter(({ kind }) => kind === 'page').map((page) => linksOf(page, copies));
}

function linksOf(page: Page, copies: SiteSources['copies']): string[] {
  return page.sheets.flatMap((one) =>
    one.kind === 'link' && isPlainLink(one)
      ? (sheetPath(one.address, page.path, (address) => copies.get(address)) ?? [])
      : [],
  );
}

/** How many pages use each sheet file. */
function sheetUses(model: SiteModel): Map<string, number> {
  const uses = new Map<string, number>();
  for (const page of model.pages) {
    if (page.kind !== 'page') continue;
    for (const file of sheetsUsed(page, model)) uses.set(file, (uses.get(file) ?? 0) + 1);
  }
  return uses;
}

/** The sheet files that style a page. */
function sheetsUsed(page: Page, styles: SiteStyles): Set<string> {
  const used = styles.stackOf(page).uses.flatMap(({ source: { path, isBlock } }) => (isBlock ? [] : path));
  return new Set(used);
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
    carriers: {
      pictureSizes: config.pictureSizes ?? 'keep',
      outdated: config.outdated ?? 'repeats',
      mail: config.mail ?? 'keep',
    },
  };
}
