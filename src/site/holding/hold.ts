// The gate of a site: reads its pages and sheets, or those of them that changed, and compares with what is written down.

import {
  blocksOf,
  classesOf,
  compareHeld,
  type Debt,
  type DebtKind,
  type DebtSheet,
  debtsOf,
  type Exception,
  exceptionsIn,
  type Held,
  HOLD_FILE,
  type Home,
  Homes,
  heldOf,
  namedColours,
  parseHeld,
  renderHeld,
  repetitions,
  type Spent,
  spentOf,
  withoutExcepted,
} from '../../core/ask/hold/index.js';
import { fileAt } from '../../core/base/addresses.js';
import { comparePlaces } from '../../core/base/source.js';
import { isComponentFile, isStyleSheet } from '../../core/read/kinds/index.js';

import type { Page } from '../../core/read/markup/index.js';
import type { Sheet } from '../../core/read/sheets/index.js';
import { openFolder, type SiteFiles } from '../files/files.js';
import { readConfig } from '../files/pages.js';
import { changedSince } from '../files/since.js';
import { parseAlone } from '../rendering/placing.js';
import { SiteReader } from '../rendering/reader.js';

export interface HoldOptions {
  /** Only files that changed since this commit. */
  readonly since?: string | undefined;
  readonly onPage?: ((done: number, of: number) => void) | undefined;
}

export interface HeldSite {
  /** Whether nothing was written down before. */
  readonly isFirst: boolean;
  readonly fresh: readonly { readonly debt: Debt; readonly home: Home }[];
  readonly less: ReadonlyMap<DebtKind, number>;
  /** What is to be written down now. */
  readonly held: Held;
  /** The text of the file as it is to be; `undefined` where it is that already. */
  readonly text: string | undefined;
  readonly exceptions: readonly Exception[];
  readonly spent: readonly Spent[];
  /** Files that were looked at. */
  readonly files: number;
}

/** In: the site's folder. Nothing is written. Throws `UsageError`. */
export async function holdSite(folder: string, { since, onPage }: HoldOptions): Promise<HeldSite> {
  const files = openFolder(folder);
  const reader = new SiteReader(files, await readConfig(files));
  const changed = since === undefined ? undefined : new Set(changedSince(folder, since));
  const isLookedAt = (file: string): boolean => changed?.has(file) ?? true;
  const sheets = new SheetsOfSite(files, reader);
  const paths = reader.pagePaths.filter(isLookedAt);
  const pages = paths.flatMap((file, at): Page[] => {
    onPage?.(at + 1, paths.length);
    const text = reader.page(file);
    return text === undefined ? [] : [parseAlone(reader, file, text)];
  });
  const own = sheets.own.filter(({ path: file }) => isLookedAt(file));
  const all = [
    ...debtsOf({ pages, sheets: own, knownOn: (page) => sheets.knownOn(page) }),
    ...repetitions(sheets.own).filter(({ place }) => isLookedAt(place.path)),
  ].sort((a, b) => comparePlaces(a.place, b.place));
  const exceptions = [
    ...pages.flatMap((page) => exceptionsIn(page.path, page.text)),
    ...own.flatMap((one) => exceptionsIn(one.path, one.text)),
  ];
  const debts = withoutExcepted(all, exceptions);
  const before = files.read(HOLD_FILE)?.toString('utf8');
  const isFirst = before === undefined;
  const { fresh, held, less } = isFirst
    ? { fresh: [], held: heldOf(debts), less: new Map<DebtKind, number>() }
    : compareHeld(parseHeld(before), debts, isLookedAt);
  const text = renderHeld(held);
  return {
    isFirst,
    fresh: withHomes(fresh, debts, { pages, sheets }),
    less,
    held,
    text: text === before ? undefined : text,
    exceptions,
    // What a part of the files spends says nothing.
    spent:
      since === undefined && reader.config.budgets !== undefined
        ? spentOf(reader.config.budgets, {
            debts: all,
            sheets: sheets.own,
            bytesOf: () => pages.map((page) => ({ page: page.path, bytes: sheets.bytesOf(page) })),
          })
        : [],
    files: pages.length + own.length,
  };
}

function withHomes(
  fresh: readonly Debt[],
  debts: readonly Debt[],
  { pages, sheets }: { pages: readonly Page[]; sheets: SheetsOfSite },
): HeldSite['fresh'] {
  if (fresh.length === 0) return [];
  const all = [...sheets.own, ...sheets.platform];
  const concerned = new Set(fresh.map(({ place }) => place.path));
  const homes = new Homes({
    sheets: all,
    blocks: pages.filter((page) => concerned.has(page.path)).flatMap((page) => blocksOf(page)),
    names: namedColours(all),
    classes: [...sheets.classes],
    debts,
  });
  return fresh.map((debt) => ({ debt, home: homes.homeOf(debt) }));
}

/** Every sheet of a site, read once; those of the platform are parsed where a home is looked for. */
class SheetsOfSite {
  readonly own: readonly DebtSheet[];
  /** Classes that their rules name. */
  readonly classes: ReadonlySet<string>;
  readonly #platform: readonly string[];
  readonly #reader: SiteReader;

  constructor(files: SiteFiles, reader: SiteReader) {
    this.#reader = reader;
    const plain = files.list().filter(isStyleSheet);
    // Sheets of a preprocessor are read where modules import them; by themselves they may be parts of others.
    const imported = reader.pagePaths.some(isComponentFile) ? reader.imported.sheets : [];
    const all = [...new Set([...plain, ...imported])].sort();
    this.#platform = all.filter((file) => reader.isPlatform(file));
    this.own = this.#read(all.filter((file) => !reader.isPlatform(file)));
    const named = classesOf(this.own.map(({ sheet }) => sheet));
    for (const file of this.#platform) addWords(reader.textAt(file) ?? '', CLASS, named);
    this.classes = named;
  }

  get platform(): readonly DebtSheet[] {
    return this.#read(this.#platform);
  }

  #read(files: readonly string[]): DebtSheet[] {
    return files.flatMap((file) => {
      const sheet = this.#reader.sheetAt(file);
      return sheet === undefined ? [] : [{ path: file, text: sheet.text, sheet, offset: 0 }];
    });
  }

  /** What any sheet has a rule for, and what the page's own blocks and scripts name: other pages do not count. */
  knownOn(page: Page): (name: string) => boolean {
    const own = new Set<string>();
    const copyOf = (address: string): string | undefined => this.#reader.copyOf(address);
    for (const one of page.sheets) if (one.kind === 'block') addWords(one.text, CLASS, own);
    const words: ReadonlySet<string>[] = [];
    for (const one of page.scripts) {
      if (one.kind === 'inline') addWords(one.text, WORD, own);
      else words.push(this.#wordsOf(fileAt(one.address, page.path, copyOf)));
    }
    return (name) => this.classes.has(name) || own.has(name) || words.some((one) => one.has(name));
  }

  readonly #words = new Map<string | undefined, ReadonlySet<string>>();

  /** Every word of a script: which of them it gives an element is not asked. */
  #wordsOf(file: string | undefined): ReadonlySet<string> {
    const known = this.#words.get(file);
    if (known !== undefined) return known;
    const words = new Set<string>();
    addWords(file === undefined ? '' : (this.#reader.textAt(file) ?? ''), WORD, words);
    this.#words.set(file, words);
    return words;
  }

  /** Bytes of the sheets that a page links, with what these import. */
  bytesOf(page: Page): number {
    const seen = new Set<string>();
    const copyOf = (address: string): string | undefined => this.#reader.copyOf(address);
    const add = (address: string, holder: string): void => {
      const file = fileAt(address, holder, copyOf);
      if (file === undefined || seen.has(file)) return;
      const sheet: Sheet | undefined = this.#reader.sheetAt(file);
      if (sheet === undefined) return;
      seen.add(file);
      for (const one of sheet.imports) add(one.address, file);
    };
    for (const one of page.sheets) if (one.kind === 'link') add(one.address, page.path);
    return [...seen].reduce((all, file) => all + Buffer.byteLength(this.#reader.textAt(file) ?? ''), 0);
  }
}

const WORD = /([\w-]+)/g;
const CLASS = /\.([\w-]+)/g;

function addWords(text: string, words: RegExp, to: Set<string>): void {
  for (const [, word] of text.matchAll(words)) to.add(word!);
}
