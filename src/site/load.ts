// From files to what the core reads: pages found without configuration, the sheets and scripts they lead to, and who
// owns each sheet.

import path from 'node:path';
import picomatch from 'picomatch';
import { resolveAddress } from '../core/addresses.js';
import { OutcomeTable, SiteModel, sheetPath, TruthTable } from '../core/cascade/index.js';
import { hasTemplateText } from '../core/markup/index.js';
import { parseSheet } from '../core/sheets/index.js';
import { SiteScripts } from '../core/stock/index.js';
import { CONFIG_FILE, type Config, parseConfig } from './config.js';
import { type Decoded, decodeFile, type Encoding } from './encoding.js';
import type { SiteFiles } from './files.js';
import { UsageError } from './usage-error.js';

export interface SheetOwner {
  readonly path: string;
  readonly owner: 'platform' | 'theme';
  /** How it was decided, for the reader of a survey. */
  readonly because: string;
  readonly pages: number;
}

export interface Site {
  readonly files: SiteFiles;
  readonly config: Config;
  readonly model: SiteModel;
  readonly scripts: SiteScripts;
  /** Linked and imported sheets, most used first. */
  readonly sheets: readonly SheetOwner[];
  /** Site path of the shared sheet, whether or not it exists. */
  readonly shared: string;
  /** Encoding of every file that was read as text. */
  readonly encodings: ReadonlyMap<string, Encoding>;
}

export interface LoadOptions {
  /** Share conditions and outcomes with another state, to compare with it. */
  readonly table?: OutcomeTable;
  readonly earlier?: SiteModel;
  /** The shared sheet that a draft names, instead of the configured or usual one. */
  readonly shared?: string;
}

const PAGES = ['**/*.html', '**/*.htm', '**/*.shtml', '**/*.tpl'];
const COMPONENTS = ['**/*.tpl'];
const PLATFORM_FOLDERS =
  /(^|\/)(platform|vendors?|plugins?|libs?|dist|third[-_]party|frameworks?|packages|kit)\//i;

/** Loads one state of a site. Throws `UsageError` for what cannot be a site. */
export function loadSite(files: SiteFiles, options: LoadOptions = {}): Site {
  const config = readConfig(files);
  const loader = new Loader(
    files,
    options.shared === undefined ? config : { ...config, shared: options.shared },
  );
  return loader.load(options.table ?? new OutcomeTable(new TruthTable()), options.earlier);
}

function readConfig(files: SiteFiles): Config {
  const bytes = files.read(CONFIG_FILE);
  return parseConfig(bytes?.toString('utf8'));
}

class Loader {
  readonly #texts = new Map<string, Decoded>();
  readonly #pages = new Map<string, string>();
  readonly #sheets = new Map<string, string>();
  readonly #scripts = new Map<string, string>();
  readonly #files: SiteFiles;
  readonly #config: Config;
  readonly #isExcluded: (file: string) => boolean;

  constructor(files: SiteFiles, config: Config) {
    this.#files = files;
    this.#config = config;
    this.#isExcluded = matcher(config.exclude?.flatMap((one) => [one, `${one.replace(/\/$/, '')}/**`]));
  }

  load(table: OutcomeTable, earlier: SiteModel | undefined): Site {
    this.#readPages();
    const copies = new Map(Object.entries(this.#config.copies ?? {}));
    for (const [address, file] of copies) {
      if (this.#readText(file) === undefined)
        throw new UsageError(`${CONFIG_FILE}: copies: there is no ${file} to stand for ${address}`);
    }
    // The model parses the pages; reading what they lead to then fills the same maps it looks into.
    const isComponent = matcher(this.#config.components ?? COMPONENTS);
    const components = new Set([...this.#pages.keys()].filter(isComponent));
    const sources = { pages: this.#pages, components, sheets: this.#sheets, copies };
    const model = new SiteModel(sources, table, earlier);
    for (const page of model.pages) {
      for (const reference of page.sheets) {
        if (reference.kind === 'block') this.#followImports(reference.text, page.path, copies);
        else
          this.#readSheet(
            sheetPath(reference.address, page.path, (address) => copies.get(address)),
            copies,
          );
      }
      for (const reference of page.scripts) {
        if (reference.kind === 'link') this.#readScript(reference.address, page.path);
      }
    }
    const sheets = this.#owners(model);
    const shared = this.#config.shared ?? defaultShared(sheets, this.#files.list());
    this.#readSheet(shared, copies);
    const isLibrary = (file: string): boolean =>
      this.#ownerOf(file, this.#scripts.get(file) ?? '').owner === 'platform';
    return {
      files: this.#files,
      config: this.#config,
      model,
      scripts: new SiteScripts({ scripts: this.#scripts, isLibrary }),
      sheets,
      shared,
      encodings: new Map([...this.#texts].map(([file, { encoding }]) => [file, encoding])),
    };
  }

  #readPages(): void {
    const isPage = matcher(this.#config.pages ?? PAGES);
    const found = this.#files.list().filter((file) => isPage(file) && !this.#isExcluded(file));
    if (found.length === 0) {
      throw new UsageError(
        `${this.#files.label}: holds no page; name a folder with .html files, or set "pages" in ${CONFIG_FILE}`,
      );
    }
    for (const file of found) {
      const text = this.#readText(file);
      if (text === undefined) continue;
      if (text.trim() === '') continue;
      if (!/<[a-z!?/%]/i.test(text) && !hasTemplateText(text)) {
        throw new UsageError(
          `${file}: is no HTML: it holds no tag; add it to "exclude" in ${CONFIG_FILE} or mend it`,
        );
      }
      this.#pages.set(file, text);
    }
    if (this.#pages.size === 0)
      throw new UsageError(`${this.#files.label}: all its pages are empty; there is nothing to read`);
  }

  #readText(file: string): string | undefined {
    const known = this.#texts.get(file);
    if (known !== undefined) return known.text;
    const bytes = this.#files.read(file);
    if (bytes === undefined) return undefined;
    const decoded = decodeFile(bytes);
    if (decoded === undefined)
      throw new UsageError(
        `${file}: is binary or in an unknown encoding; add it to "exclude" in ${CONFIG_FILE}`,
      );
    this.#texts.set(file, decoded);
    return decoded.text;
  }

  #readSheet(file: string | undefined, copies: ReadonlyMap<string, string>): void {
    if (file === undefined || this.#sheets.has(file) || this.#isExcluded(file)) return;
    const text = this.#readText(file);
    if (text === undefined) return;
    this.#sheets.set(file, text);
    this.#followImports(text, file, copies);
  }

  #followImports(text: string, holder: string, copies: ReadonlyMap<string, string>): void {
    if (!/@import/i.test(text)) return;
    for (const { address } of parseSheet(text).imports) {
      this.#readSheet(
        sheetPath(address, holder, (one) => copies.get(one)),
        copies,
      );
    }
  }

  #readScript(address: string, holder: string): void {
    const resolved = resolveAddress(address, holder);
    if (resolved.kind !== 'site' || this.#scripts.has(resolved.path)) return;
    const text = this.#readText(resolved.path);
    if (text !== undefined) this.#scripts.set(resolved.path, text);
  }

  #owners(model: SiteModel): SheetOwner[] {
    const uses = new Map<string, number>();
    for (const page of model.pages) {
      if (page.kind !== 'page') continue;
      const paths = new Set(model.stackOf(page).uses.map(({ source }) => source.path));
      for (const file of paths) if (this.#sheets.has(file)) uses.set(file, (uses.get(file) ?? 0) + 1);
    }
    return [...uses]
      .map(([file, pages]) => ({ path: file, pages, ...this.#ownerOf(file, this.#sheets.get(file) ?? '') }))
      .sort((a, b) => b.pages - a.pages || (a.path < b.path ? -1 : 1));
  }

  #ownerOf(file: string, text: string): Pick<SheetOwner, 'owner' | 'because'> {
    if (file === this.#config.shared) return { owner: 'theme', because: `"shared" in ${CONFIG_FILE}` };
    if (matcher(this.#config.theme)(file)) return { owner: 'theme', because: `"theme" in ${CONFIG_FILE}` };
    if (matcher(this.#config.platform)(file))
      return { owner: 'platform', because: `"platform" in ${CONFIG_FILE}` };
    const folder = PLATFORM_FOLDERS.exec(file)?.[2];
    if (folder !== undefined) return { owner: 'platform', because: `folder ${folder}` };
    if (/\.min\.(css|js)$/i.test(file) || isMinified(text)) return { owner: 'platform', because: 'minified' };
    return { owner: 'theme', because: 'readable source' };
  }
}

function matcher(patterns: readonly string[] | undefined): (file: string) => boolean {
  return patterns === undefined || patterns.length === 0
    ? () => false
    : picomatch([...patterns], { dot: false });
}

/** More than 400 characters a line on average: nobody edits that by hand. */
function isMinified(text: string): boolean {
  return text.length > 2000 && text.length / (text.split('\n').length || 1) > 400;
}

/** Beside the theme sheet that most pages use; else in a folder for sheets; else at the top. */
function defaultShared(sheets: readonly SheetOwner[], files: readonly string[]): string {
  const theme = sheets.find(
    ({ owner, path: file }) => owner === 'theme' && !file.endsWith('/shared.css') && file !== 'shared.css',
  );
  if (theme !== undefined) return path.posix.join(path.posix.dirname(theme.path), 'shared.css');
  for (const folder of ['css', 'styles', 'assets/css']) {
    if (files.some((file) => file.startsWith(`${folder}/`))) return `${folder}/shared.css`;
  }
  return 'shared.css';
}
