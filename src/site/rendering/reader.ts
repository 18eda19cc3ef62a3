// Reads a site file by file: pages found without configuration, the sheets and scripts they lead to, and who owns each.

import path from 'node:path';
import { fileAt, isAbove } from '../../core/base/addresses.js';
import { withoutEnd } from '../../core/base/phrases.js';
import { UsageError } from '../../core/base/usage-error.js';
import type { ScriptText } from '../../core/cascade/index.js';
import { type BlockCompiler, isModuleSheet } from '../../core/read/components/index.js';
import {
  endingOf,
  isCompiled,
  isComponentFile,
  isNoScript,
  isStyleSheet,
  makesNoPage,
  PAGE_PATTERNS,
  SHEET_SOURCES,
  sheetStem,
} from '../../core/read/kinds/index.js';
import { parsePage } from '../../core/read/markup/index.js';
import { scriptReading } from '../../core/read/scripts/index.js';
// Not through the stage's entry: judging declarations takes long to load, and reading a sheet does not need it.
import { parseSheet } from '../../core/read/sheets/parse.js';
import type { Sheet } from '../../core/read/sheets/sheet.js';
import type { Mentions } from '../../core/read/standing/index.js';
import { linkedByAll, type SheetShelf, sheetForAll } from '../../core/stock/index.js';
import type { Config } from '../config.js';
import { blockCompiler, compiledText, compileProblem } from '../files/compiled.js';
import type { Decoded, Encoding } from '../files/encoding.js';
import { CONFIG_FILE, type SiteFiles } from '../files/files.js';
import { leaveOut } from '../files/notices.js';
import { globs, isPlatformPage, type Owner, ownerByName, ownerByText } from '../files/owner.js';
import { boxed, type PageSource, type PageSourceData, readPageText } from '../files/pages.js';
import { scriptComponents } from '../files/script-components.js';
import { isBare, isPart } from '../files/templates.js';
import { readText } from '../files/text.js';
import { sheetsOfUnread } from '../files/unread.js';
import { readVisited } from '../visiting/visited.js';
import { boxFile, isBoxFile, type Visited } from '../visiting/with-boxes.js';
import { amongTemplates } from './among-templates.js';
import { CompiledSheets } from './compiled-sheets.js';
import { defaultShared, SHARED } from './default-shared.js';
import { guessedCopies } from './guessed-copies.js';
import {
  type AddedSheet,
  blockText,
  findImportedSheets,
  type ImportedSheets,
  isBlockName,
} from './imported-sheets.js';
import { mentionsOf } from './mentions.js';
import { type NamedSheets, namedSheets } from './named-sheets.js';
import { SheetPlaces } from './sheet-places.js';

export interface SheetOwner extends Owner {
  readonly path: string;
  readonly pages: number;
}

/** Pages are read each time they are asked for; sheets and scripts once. */
export class SiteReader implements SheetShelf, PageSource {
  /** Paths of all files that may be pages, in order. */
  readonly pagePaths: readonly string[];
  /** Pages of the platform, as of a library with its examples: read where they may matter, not counted, not written. */
  readonly platformPages: readonly string[];
  /** Encodings of the files that are not plain UTF-8. */
  readonly encodings = new Map<string, Encoding>();
  readonly #isNamedComponent: ((file: string) => boolean) | undefined;
  readonly #parts = new Map<string, boolean>();
  /** Files that nothing marks as a whole page. */
  readonly #bare = new Set<string>();
  /** Sheets that a page links with their hash. */
  readonly #hashed = new Set<string>();
  #isAmong: ((file: string) => boolean) | undefined;
  #copies: Map<string, string> | undefined;
  #onlySheet: readonly string[] | undefined;
  #named: readonly NamedSheets[] | undefined;
  #imported: ImportedSheets | undefined;
  #added: AddedSheet | 'none' | undefined;
  readonly #isExcluded: (file: string) => boolean;
  /** Sheets of preprocessors. */
  readonly compiled: CompiledSheets;
  readonly compileBlock: BlockCompiler;
  /** What is written where, of sheets that are made of other files. */
  readonly sheetPlaces: SheetPlaces;
  /** Of a running system: what was brought of it. */
  readonly visited: Visited | undefined;
  readonly #texts = new Map<string, string | undefined>();
  readonly #sheets = new Map<string, Sheet | undefined>();
  readonly #words = new Map<string, ReadonlySet<string> | undefined>();

  /** In: the pages, where another thread has found them. Throws `UsageError` for a folder without pages. */
  constructor(
    readonly files: SiteFiles,
    readonly config: Config,
    pagePaths?: readonly string[],
  ) {
    this.compiled = new CompiledSheets(files);
    this.compileBlock = blockCompiler(files);
    this.sheetPlaces = new SheetPlaces(files, this.compiled, (sheet) => this.textAt(sheet));
    this.visited = readVisited(files, config);
    const { exclude, components, pages } = config;
    this.#isExcluded = globs(exclude?.flatMap((one) => [one, `${withoutEnd(one, '/')}/**`]));
    this.#isNamedComponent = components && globs(components);
    const isPage = globs(pages ?? PAGE_PATTERNS);
    const isScript = scriptComponents(files);
    const isWanted = (file: string): boolean =>
      pages === undefined ? (isPage(file) && !makesNoPage(file)) || isScript(file) : isPage(file);
    const brought = this.visited?.pages.filter((file) => !this.#isExcluded(file));
    const all =
      pagePaths ?? brought ?? files.list().filter((file) => isWanted(file) && !this.#isExcluded(file));
    // Pages that are asked for by name are the developer's.
    const own =
      (pagePaths ?? brought ?? pages) ? all : all.filter((file) => !isPlatformPage(file, config, files));
    this.pagePaths = own.length > 0 ? own : all;
    this.platformPages = own.length > 0 ? all.filter((file) => !own.includes(file)) : [];
    if (this.pagePaths.length === 0) throw new UsageError('no-pages', { site: files.label });
    for (const [address, file] of Object.entries(config.copies ?? {})) {
      if (this.textAt(file) === undefined) throw new UsageError('copy-missing', { file, address });
    }
  }

  page(file: string): string | undefined {
    const text = boxed(this.#noted(file, readPageText(this.files, file)), file, this.visited, this.files);
    if (!this.#parts.has(file)) {
      this.#parts.set(file, text !== undefined && isPart(file, text));
      if (text !== undefined && isBare(file, text)) this.#bare.add(file);
      if (text?.toLowerCase().includes('integrity') === true) this.#noteHashes(file, text);
    }
    return text;
  }

  #noteHashes(file: string, text: string): void {
    for (const one of parsePage(file, text).sheets) {
      const path =
        one.kind === 'link' && one.hasHash ? fileAt(one.address, file, () => undefined) : undefined;
      if (path !== undefined) this.#hashed.add(path);
    }
  }

  /** Whether a file is a part that pages include: named so, or nothing marks what an engine reads in it as a whole page. */
  isComponent(file: string): boolean {
    if (this.#isNamedComponent !== undefined) return this.#isNamedComponent(file);
    if (!this.#parts.has(file)) this.page(file);
    if (this.#parts.get(file) === true || !this.#bare.has(file)) return this.#parts.get(file) === true;
    this.#isAmong ??= amongTemplates(
      this.pagePaths,
      (other) => this.page(other),
      (other) => this.#parts.get(other) === true || this.#bare.has(other),
    );
    return this.#isAmong(file);
  }

  /** The sheets that style a page or component, where a person says so, or there is but one. */
  sheetsFor(file: string): readonly string[] | undefined {
    const named = this.#namedSheets;
    if (named.length > 0) {
      const found = named.filter(({ isMeant }) => isMeant(file));
      return found.length === 0 ? undefined : found.flatMap(({ sheets }) => sheets);
    }
    if (!this.isComponent(file)) return undefined;
    const imported = isComponentFile(file) ? this.imported.of(file) : [];
    if (imported.length > 0) {
      const { added } = this;
      return added === undefined || !imported.includes(added.behind) ? imported : [...imported, added.sheet];
    }
    this.#onlySheet ??= this.#findOnlySheet();
    return this.#onlySheet.length === 0 ? undefined : this.#onlySheet;
  }

  /** Which sheets style which pages, as the configuration says; of files of code it says something else. */
  get #namedSheets(): readonly NamedSheets[] {
    this.#named ??= namedSheets(this.config).filter(({ isMeant }) => this.pagePaths.some(isMeant));
    return this.#named;
  }

  /** The sheets that modules import; looked for where there are components. */
  get imported(): ImportedSheets {
    this.#imported ??= findImportedSheets(this.files);
    return this.#imported;
  }

  /** The sheet that is to be imported behind the last, where none of those that modules import may be edited. */
  get added(): AddedSheet | undefined {
    if (this.#added === undefined) this.#added = this.#findAdded() ?? 'none';
    return this.#added === 'none' ? undefined : this.#added;
  }

  isToCome(file: string): boolean {
    return this.#added !== undefined && this.added?.sheet === file;
  }

  #findAdded(): AddedSheet | undefined {
    const { sheets, importers } = this.imported;
    const own = sheets.filter((file) => !file.startsWith('node_modules/') && !isBlockName(file));
    const behind = own.findLast((file) => !isModuleSheet(file)) ?? own.at(-1);
    if (behind === undefined || sheets.some((file) => !this.isPlatform(file))) return undefined;
    const sheet = ['shared.css', 'house.css']
      .map((name) => path.posix.join(path.posix.dirname(behind), name))
      .find((file) => this.files.read(file) === undefined);
    return sheet === undefined ? undefined : { sheet, behind, module: importers.get(behind)! };
  }

  /** Where no page shows components, the theme's one sheet. */
  #findOnlySheet(): readonly string[] {
    if (!this.pagePaths.every((file) => this.isComponent(file))) return [];
    const own = this.files.list().filter((file) => isStyleSheet(file) && !this.#isExcluded(file));
    const themes = own.filter((file) => !this.isPlatform(file));
    return themes.length === 1 ? themes : [];
  }

  /** By address, the sheet of the site that is meant: local copies, and what a server or a template engine makes of it. */
  get copies(): ReadonlyMap<string, string> {
    this.#copies ??= new Map([
      ...(this.visited?.addresses ?? guessedCopies(this)),
      ...Object.entries(this.config.copies ?? {}),
    ]);
    return this.#copies;
  }

  get mentions(): Mentions {
    return mentionsOf(this);
  }

  /** Addresses that lead to files of the site that are to come. */
  learn(copies: ReadonlyMap<string, string>): void {
    if (copies === this.copies) return;
    for (const [address, file] of copies) this.#copies?.set(address, file);
  }

  /** The text of a sheet or script; `undefined` where there is none, it is excluded, or it is no text. */
  textAt(file: string): string | undefined {
    if (!this.#texts.has(file))
      this.#texts.set(file, this.#isExcluded(file) ? undefined : this.#readText(file));
    return this.#texts.get(file);
  }

  #readText(file: string): string | undefined {
    // What a running system brought lies in one folder, and a page of it names nothing on this machine.
    if (isAbove(file) && this.visited !== undefined) return undefined;
    if (isBlockName(file)) return blockText(file, (own) => this.page(own), this.compileBlock);
    if (isCompiled(file) && !this.compiled.isPart(file)) {
      const text = compiledText(this.files, file);
      if (text === undefined && this.files.read(file) !== undefined) leaveOut(file, compileProblem(file));
      return text;
    }
    const made = this.compiled.of(file);
    // What our own part brings is read from that.
    if (made?.isTaken === true) return this.compiled.textWithout(made);
    return this.#noted(file, readText(this.files, file));
  }

  /** Our own part of a sheet that a preprocessor makes. */
  behind(file: string): string | undefined {
    return this.compiled.of(file)?.part;
  }

  /** Whether code asks a sheet for the names that a build gives its classes. */
  isModule(file: string): boolean {
    return isModuleSheet(file) && this.imported.importers.has(file);
  }

  /** Sheets and scripts that were asked for, those that are not there too. */
  get asked(): string[] {
    return [...this.#texts.keys()];
  }

  sheetAt(file: string): Sheet | undefined {
    if (!this.#sheets.has(file)) {
      const text = this.textAt(file);
      this.#sheets.set(file, text === undefined ? undefined : parseSheet(text));
    }
    return this.#sheets.get(file);
  }

  isElsewhere(file: string): boolean {
    return this.files.leadsOut?.(file) === true;
  }

  copyOf(address: string): string | undefined {
    return this.copies.get(address);
  }

  scriptAt(file: string): ScriptText | undefined {
    // What a module imports may be a component or a sheet.
    if (isNoScript(file) || (endingOf(file) === 'js' && this.pagePaths.includes(file))) return undefined;
    const text = this.textAt(file);
    return text === undefined ? undefined : { text, isLibrary: this.isPlatform(file) };
  }

  /** The words in the strings of a linked script. */
  scriptWords(file: string): ReadonlySet<string> | undefined {
    if (!this.#words.has(file)) {
      const text = this.textAt(file);
      this.#words.set(file, text === undefined ? undefined : scriptReading(text).words);
    }
    return this.#words.get(file);
  }

  /** Library scripts are not the site's own: minified, or in a platform folder. */
  isPlatform(file: string): boolean {
    return this.#ownerOf(file).owner === 'platform';
  }

  /** In: how many pages use each sheet. Out: who owns it, most used first. */
  owners(uses: ReadonlyMap<string, number>): SheetOwner[] {
    return [...uses]
      .map(([file, pages]) => ({ path: file, pages, ...this.#ownerOf(file) }))
      .sort((a, b) => b.pages - a.pages || (a.path < b.path ? -1 : 1));
  }

  /**
   * Site path of the shared sheet, whether or not it exists: the last theme sheet that every page links and no other
   * document loads, where there is one.
   * In: by page, or by pages that link alike, the sheets that they link plainly, in order.
   */
  shared(sheets: readonly SheetOwner[], linked: readonly (readonly string[])[]): string {
    if (this.config.shared !== undefined) return this.config.shared;
    const box = this.#firstBox(sheets);
    if (box !== undefined) return box;
    const said =
      this.#namedSheets[0]?.sheets ??
      (this.#imported && [...this.#imported.sheets, ...(this.added === undefined ? [] : [this.added.sheet])]);
    const given = said?.findLast((file) => !this.isPlatform(file));
    if (given !== undefined) return given;
    const themes = sheets.filter(({ owner }) => owner === 'theme').map((sheet) => sheet.path);
    const named = themes.find((file) => path.posix.basename(file) === SHARED);
    if (named !== undefined) return named;
    const everywhere = linkedByAll(themes, linked);
    const made = linkedByAll(
      sheets.map((sheet) => sheet.path).filter((file) => this.behind(file) !== undefined),
      linked,
    );
    if (everywhere.length === 0 && made.length > 0) return this.behind(made.at(-1)!)!;
    // What frames and templates inside pages load is looked at when something is to be changed.
    const pages = new Map(this.pagePaths.map((file) => [file, '']));
    const unread = everywhere.length === 0 ? undefined : sheetsOfUnread(this.files, pages, everywhere);
    return (
      sheetForAll(
        everywhere.filter((file) => unread?.has(file) !== true),
        (file) => this.textAt(file),
      ) ?? defaultShared(sheets, this.files.list())
    );
  }

  /** The box that stands on most pages. */
  #firstBox(sheets: readonly SheetOwner[]): string | undefined {
    if (this.visited === undefined) return undefined;
    const own = this.visited.boxes.flatMap((one) => ('page' in one.box ? [] : (boxFile(one, '') ?? [])));
    return sheets.find(({ path }) => own.includes(path))?.path ?? own[0];
  }

  /** What another thread needs to read the pages. */
  pageData(): PageSourceData {
    const components = new Set(this.pagePaths.filter((file) => this.isComponent(file)));
    return {
      paths: this.pagePaths,
      components,
      copies: this.copies,
      given: this.given(this.pagePaths),
      mentions: this.mentions,
      visited: this.visited,
    };
  }

  /** By page, the sheets that style it, where they are not told by what it links. */
  given(paths: readonly string[]): Map<string, readonly string[]> {
    return new Map(
      paths.flatMap((file) => {
        const sheets = this.sheetsFor(file);
        return sheets === undefined ? [] : [[file, sheets] as const];
      }),
    );
  }

  /** What says that a sheet is made from another file: what is written into it is gone with the next build. */
  #builtFrom(file: string): string | undefined {
    if (!isStyleSheet(file)) return undefined;
    const made = this.compiled.of(file);
    if (made !== undefined) return made.source;
    const [mapped, ...others] = this.sheetPlaces.sourcesOf(file);
    if (mapped !== undefined) return others.length === 0 ? mapped : `${mapped} and ${others.length} more`;
    const [named] = this.compiled.sourcesOf(file);
    if (named !== undefined) return named;
    const stem = sheetStem(file);
    const source = SHEET_SOURCES.map((ending) => `${stem}.${ending}`).find(
      (one) => this.files.read(one) !== undefined,
    );
    if (source !== undefined) return path.posix.basename(source);
    return /\/\*[#@]\s*sourceMappingURL=/.test(this.textAt(file) ?? '') ? 'it names a source map' : undefined;
  }

  #noted(file: string, decoded: Decoded | undefined): string | undefined {
    if (decoded === undefined) return undefined;
    const { encoding, text } = decoded;
    if (encoding.name !== 'utf-8' || encoding.mark) this.encodings.set(file, encoding);
    return text;
  }

  #ownerOf(file: string): Owner {
    if (this.visited !== undefined && isBoxFile(this.visited, file))
      return { owner: 'theme', because: `"own" in ${CONFIG_FILE}` };
    if (this.visited !== undefined) return { owner: 'platform', because: 'brought from a running system' };
    if (this.#hashed.has(file))
      return { owner: 'platform', because: 'a page links it with its hash ("integrity")' };
    const named = ownerByName(this.config, file);
    if (named !== undefined) return named;
    if (isAbove(file)) return { owner: 'platform', because: 'outside of the site’s folder' };
    if (this.files.isLinked?.(file) === true) return { owner: 'platform', because: 'a link leads to it' };
    if (isBlockName(file)) return { owner: 'platform', because: 'a block of a component' };
    if (this.compiled.isPart(file)) return { owner: 'theme', because: 'a part of our own' };
    if (isCompiled(file)) return { owner: 'platform', because: 'compiled' };
    if (isModuleSheet(file))
      return { owner: 'platform', because: 'a module: its names are made up when it is built' };
    if (file.startsWith('node_modules/')) return { owner: 'platform', because: 'a package' };
    const built = this.#builtFrom(file);
    if (built !== undefined) return { owner: 'platform', because: `built: ${built}` };
    // Naming a platform sheet as the shared one does not make it one's own; naming it under "theme" does.
    if (file === this.config.shared) return { owner: 'theme', because: `"shared" in ${CONFIG_FILE}` };
    return ownerByText(file, () => this.textAt(file), this.files);
  }
}
