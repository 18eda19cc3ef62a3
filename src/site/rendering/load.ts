// One whole state of a site in memory, for planning changes. What only looks at a site goes page by page instead.

import { resolveAddress, sheetPath } from '../../core/addresses.js';
import { OutcomeTable, type ScriptText, SiteModel, TruthTable } from '../../core/cascade/index.js';
import type { DraftSite } from '../../core/consolidate/index.js';
import { isPlainLink } from '../../core/markup/index.js';
import { importedFiles, scriptReading } from '../../core/scripts/index.js';
import { SiteScripts } from '../../core/stock/index.js';
import { UsageError } from '../../core/usage-error.js';
import { type Config, parseConfig } from '../config.js';
import type { Encoding } from '../files/encoding.js';
import type { SiteFiles } from '../files/files.js';
import { CONFIG_FILE } from '../files/pages.js';
import { sheetsOfUnread } from '../files/unread.js';
import { type SheetOwner, SiteReader } from './reader.js';

export interface Site {
  readonly files: SiteFiles;
  readonly config: Config;
  readonly model: SiteModel;
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

/** Loads one state of a site. Throws `UsageError` for what cannot be a site. */
export function loadSite(files: SiteFiles, options: LoadOptions = {}): Site {
  const reader = new SiteReader(files, parseConfig(files.read(CONFIG_FILE)?.toString('utf8')));
  const pages = new Map<string, string>();
  for (const file of reader.pagePaths) {
    const text = reader.page(file);
    if (text !== undefined) pages.set(file, text);
  }
  if (pages.size === 0) throw new UsageError('pages-empty', { site: files.label });
  const sheets = new Map<string, string>();
  const scripts = new Map<string, ScriptText>();
  const { copies } = reader;
  const components = new Set([...pages.keys()].filter(reader.isComponent));
  // The model parses the pages; reading what they lead to then fills the same maps it looks into.
  const sources = { pages, components, sheets, copies, scripts };
  const model = new SiteModel(sources, new OutcomeTable(new TruthTable()));
  const readSheet = (file: string | undefined): void => {
    const sheet = file === undefined || sheets.has(file) ? undefined : reader.sheetAt(file);
    if (file === undefined || sheet === undefined) return;
    sheets.set(file, sheet.text);
    for (const { address } of sheet.imports) readSheet(sheetPath(address, file, (one) => copies.get(one)));
  };
  for (const page of model.pages) {
    for (const reference of page.sheets) {
      if (reference.kind === 'link')
        readSheet(sheetPath(reference.address, page.path, (one) => copies.get(one)));
      else if (/@import/i.test(reference.text))
        for (const { address } of model.block(reference.text, page).sheet.imports)
          readSheet(sheetPath(address, page.path, (one) => copies.get(one)));
    }
    for (const reference of page.scripts) {
      const resolved = reference.kind === 'link' ? resolveAddress(reference.address, page.path) : undefined;
      const script = resolved?.kind === 'site' ? reader.scriptAt(resolved.path) : undefined;
      if (resolved?.kind === 'site' && script !== undefined) scripts.set(resolved.path, script);
      const own = reference.kind === 'inline' ? { text: reference.text, isLibrary: false } : script;
      if (own === undefined) continue;
      const holder = resolved?.kind === 'site' ? resolved.path : page.path;
      const imported = importedFiles(scriptReading(own.text).imports, holder, (file) => {
        const found = reader.scriptAt(file);
        if (found !== undefined) scripts.set(file, found);
        return found && scriptReading(found.text).imports;
      });
      // A sheet that a script puts in is one of the page's.
      for (const { text, isLibrary } of [own, ...imported.map((file) => scripts.get(file)!)])
        if (/\.css\b/.test(text) && !isLibrary)
          for (const one of scriptReading(text).sheets)
            if (one.kind === 'address')
              readSheet(sheetPath(one.address, page.path, (address) => copies.get(address)));
    }
  }
  const owners = reader.owners(sheetUses(model));
  const usual = reader.shared(owners, plainLinks(model, copies));
  const shared = options.shared ?? usual;
  readSheet(shared);
  const isPlatform = (file: string): boolean => reader.isPlatform(file);
  const themes = owners.filter(({ owner }) => owner === 'theme').map(({ path }) => path);
  return {
    files,
    config: reader.config,
    model,
    scripts: new SiteScripts(scripts),
    scriptTexts: new Map([...scripts].map(([file, { text }]) => [file, text])),
    isPlatform,
    themes: sheets.has(shared) && !isPlatform(shared) ? [...new Set([...themes, shared])] : themes,
    sheets: owners,
    shared,
    sharedIsGiven: reader.config.shared !== undefined || shared !== usual,
    encodings: reader.encodings,
  };
}

/** By page, the sheets that it links plainly, in order. */
function plainLinks(model: SiteModel, copies: ReadonlyMap<string, string>): string[][] {
  return model.pages
    .filter(({ kind }) => kind === 'page')
    .map((page) =>
      page.sheets.flatMap((one) =>
        one.kind === 'link' && isPlainLink(one)
          ? (sheetPath(one.address, page.path, (address) => copies.get(address)) ?? [])
          : [],
      ),
    );
}

/** How many pages use each sheet file. */
function sheetUses(model: SiteModel): Map<string, number> {
  const uses = new Map<string, number>();
  for (const page of model.pages) {
    if (page.kind !== 'page') continue;
    const paths = new Set(model.stackOf(page).uses.map(({ source }) => source.path));
    for (const file of paths) if (model.sources.sheets.has(file)) uses.set(file, (uses.get(file) ?? 0) + 1);
  }
  return uses;
}

/** By sheet, the texts of documents that load it and are not read as pages. */
export function sheetsElsewhere({ files, model, sheets, shared }: Site): Map<string, string[]> {
  const wanted = new Set([...sheets.map(({ path }) => path), shared]);
  return sheetsOfUnread(files, model.sources.pages, [...wanted]);
}

/** The site as a draft sees it: without a disk. */
export function draftSite(site: Site): DraftSite {
  const { model, scripts, sheets, shared, config } = site;
  return {
    model,
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
