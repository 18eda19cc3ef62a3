// The sheets of one state of a site: each compiled once, whatever number of pages use it.

import { fileAt, folderOf } from '../base/addresses.js';
import { getOrInsert } from '../base/get-or-insert.js';
import { includesAny } from '../base/phrases.js';
import { namesKept, type Page, type ScriptReference } from '../read/markup/index.js';
import { importedFiles, readingsOnPage, type ScriptOnPage, scriptReading } from '../read/scripts/index.js';
import { parseSheet } from '../read/sheets/index.js';
import type { OutcomeTable } from './outcome-table.js';
import { compileSheet, type Program } from './program.js';
import { ONE_CLASS } from './selector-model.js';
import {
  buildSheetOrder,
  type ProgramSource,
  type ScriptSheet,
  type SheetOrder,
  sheetOrderWithin,
} from './sheet-order.js';
import type { TruthTable } from './truth.js';

/** Where the texts of sheets come from, and of scripts where they are at hand. */
export interface SheetTexts {
  /** `undefined` where there is no such file. */
  textAt(path: string): string | undefined;
  /** A local copy of a sheet that lies elsewhere, if the developer named one. */
  copyOf(address: string): string | undefined;
  /** The sheet that is to be a part of another one, at its end: a preprocessor puts it there. */
  behind?(path: string): string | undefined;
  /** Whether a build gives the classes of a sheet names of their own: code asks for them. */
  isModule?(path: string): boolean;
  /** Whether a sheet is none yet, and linked by nothing: it comes with the first rule that is written into it. */
  isToCome?(path: string): boolean;
  /** A script of the site; `undefined` where there is none, or it is not at hand. */
  scriptAt?(path: string): ScriptText | undefined;
}

export interface ScriptText {
  readonly text: string;
  /** Not the site's own: minified, or in a platform folder. */
  readonly isLibrary: boolean;
}

/** A script of a page, and where it begins in the file that it stands in. */
export interface FoundScript extends ScriptText {
  readonly path: string;
  /** The file's text. */
  readonly whole: string;
  readonly offset: number;
}

/** The compiled sheets of one state. It knows those of earlier states, and nothing else of these. */
class SheetPrograms {
  readonly #known = new Map<string, Program>();

  constructor(
    readonly texts: SheetTexts,
    readonly earlier: readonly SheetPrograms[],
  ) {}

  /** In: what conditions are told by. */
  at(path: string, truths: TruthTable): Program | undefined {
    const known = this.#known.get(path);
    if (known !== undefined) return known;
    const text = this.texts.textAt(path);
    if (text === undefined) return undefined;
    const before = this.earlier.map((one) => one.at(path, truths)).find((one) => one?.sheet.text === text);
    const program =
      before ??
      compileSheet(parseSheet(text), path, truths, { isModule: this.texts.isModule?.(path) === true });
    this.#known.set(path, program);
    return program;
  }
}

export class SiteStyles implements ProgramSource {
  readonly #programs: SheetPrograms;
  readonly #blocks: Map<string, Program>;
  readonly #sheetOrders = new WeakMap<Page, SheetOrder>();
  readonly #blocksFirst = new WeakMap<Page, SheetOrder>();
  #lastScripts: { readonly page: Page; readonly scripts: readonly FoundScript[] } | undefined;
  readonly #within = new WeakMap<Page, Map<string, SheetOrder>>();

  /** In: the texts; what the comparison shares; earlier states, whose programs are taken over where texts are equal. */
  constructor(
    readonly texts: SheetTexts,
    readonly table: OutcomeTable,
    ...earlier: readonly SiteStyles[]
  ) {
    const comparable = earlier.filter((state) => state.table === table);
    const [first] = comparable;
    this.#programs = new SheetPrograms(
      texts,
      comparable.map((state) => state.#programs),
    );
    this.#blocks = first === undefined ? new Map() : first.#blocks;
  }

  sheetAt(path: string): Program | undefined {
    return this.#programs.at(path, this.table.truths);
  }

  block(text: string, page: Page): Program {
    // Equal blocks are one program, unless they hold addresses, which mean something else in another folder.
    const folder = folderOf(page.path);
    // What a framework puts into the selectors of a scoped block counts as a class.
    const isScoped = page.sheets.some(
      (one) => one.kind === 'block' && one.isScoped === true && one.text === text,
    );
    const key = `${isScoped ? 'scoped\0' : ''}${includesAny(text.toLowerCase(), ['url(', '@import']) ? `${folder}\0${text}` : text}`;
    let program = this.#blocks.get(key);
    if (program === undefined) {
      program = compileSheet(parseSheet(text), page.path, this.table.truths, {
        more: isScoped ? ONE_CLASS : 0,
      });
      this.#blocks.set(key, program);
    }
    return program;
  }

  copyOf(address: string): string | undefined {
    return this.texts.copyOf(address);
  }

  behind(path: string): string | undefined {
    return this.texts.behind?.(path);
  }

  sheetsOfScripts(page: Page): ScriptSheet[] {
    // What a library adds is what it is for, and named so.
    return this.scriptsIn(page).flatMap((script) =>
      script.isLibrary
        ? []
        : scriptReading(script.text).sheets.map((sheet) => ({
            ...{ sheet, path: script.path, text: script.whole },
            offset: script.offset + sheet.offset,
          })),
    );
  }

  /** The page's scripts that are at hand. */
  scriptsOf(page: Page): ScriptOnPage[] {
    return readingsOnPage(
      this.scriptsIn(page).map(({ text, isLibrary }) => ({ reading: scriptReading(text), isLibrary })),
      this.unreadScripts(page).length === 0,
      () => namesKept(page),
    );
  }

  /** Addresses of the page's scripts that are not at hand, or the files that they lead to. */
  unreadScripts(page: Page): string[] {
    return page.scripts.flatMap((reference) => {
      if (reference.kind === 'inline' || this.#scriptAt(reference, page) !== undefined) return [];
      return [fileAt(reference.address, page.path, (address) => this.copyOf(address)) ?? reference.address];
    });
  }

  /** The page's scripts that are at hand, and those that they bring in. */
  scriptsIn(page: Page): readonly FoundScript[] {
    // Asked for several times in a row.
    if (this.#lastScripts?.page !== page) this.#lastScripts = { page, scripts: this.#scriptsIn(page) };
    return this.#lastScripts.scripts;
  }

  #scriptsIn(page: Page): FoundScript[] {
    const direct = page.scripts.flatMap((reference) => this.#scriptAt(reference, page) ?? []);
    const known = new Set(direct.map(({ path }) => path));
    const brought = direct.flatMap(({ text, path }) =>
      importedFiles(scriptReading(text).imports, path, (file) => {
        const script = this.texts.scriptAt?.(file);
        return script && scriptReading(script.text).imports;
      }),
    );
    return [
      ...direct,
      ...[...new Set(brought)].flatMap((path) => {
        const script = known.has(path) ? undefined : this.texts.scriptAt?.(path);
        return script === undefined ? [] : [{ ...script, path, whole: script.text, offset: 0 }];
      }),
    ];
  }

  #scriptAt(reference: ScriptReference, page: Page): FoundScript | undefined {
    if (reference.kind === 'inline') {
      const { text, broughtBy: holder = page } = reference;
      return {
        ...{ text, isLibrary: false, path: holder.path, whole: holder.text },
        // Found out for who asks.
        get offset() {
          return reference.offset;
        },
      };
    }
    const path = fileAt(reference.address, page.path, (address) => this.copyOf(address));
    const script = path === undefined ? undefined : this.texts.scriptAt?.(path);
    if (path === undefined || script === undefined) return undefined;
    return { ...script, path, whole: script.text, offset: 0 };
  }

  /** The sheets of a component on a page with these. */
  sheetOrderWithin(part: Page, around: SheetOrder): SheetOrder {
    if (part.sheets.length + part.scripts.length === 0) return around;
    const known = getOrInsert(this.#within, part, () => new Map<string, SheetOrder>());
    return getOrInsert(known, around.key, () => sheetOrderWithin(part, around, this, this.table.truths));
  }

  /** The sheets of a whole page. */
  sheetOrderOf(page: Page): SheetOrder {
    let sheetOrder = this.#sheetOrders.get(page);
    if (sheetOrder === undefined) {
      sheetOrder = buildSheetOrder(page, this, this.table.truths);
      this.#sheetOrders.set(page, sheetOrder);
    }
    return sheetOrder;
  }

  /**
   * The sheet orders that the sheets of a file itself may come to. A bundler puts the blocks of components before or behind the
   * sheets that modules import.
   */
  ownSheetOrders(page: Page): readonly SheetOrder[] {
    const blocks = page.sheets.filter((one) => one.kind === 'block');
    if (page.kind === 'page' || blocks.length === 0 || blocks.length === page.sheets.length)
      return [this.sheetOrderOf(page)];
    let behind = this.#blocksFirst.get(page);
    if (behind === undefined) {
      const sheets = [...blocks, ...page.sheets.filter((one) => one.kind !== 'block')];
      behind = buildSheetOrder({ ...page, sheets }, this, this.table.truths);
      this.#blocksFirst.set(page, behind);
    }
    return [this.sheetOrderOf(page), behind];
  }
}
