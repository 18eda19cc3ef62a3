// Reads what pages lead to: sheets, scripts, and what these lead to.

import { fileAt } from '../../core/base/addresses.js';
import {
  OutcomeTable,
  type ScriptText,
  type SiteSources,
  type SiteStyles,
  TruthTable,
} from '../../core/cascade/index.js';
import type { Page } from '../../core/read/markup/index.js';
import { fileOfAddedSheet, importedFiles, scriptReading } from '../../core/read/scripts/index.js';
import { parseConfig } from '../config.js';
import { CONFIG_FILE, type SiteFiles } from '../files/files.js';
import { SiteReader } from './reader.js';

export class SourceFinder {
  readonly reader: SiteReader;
  readonly table = new OutcomeTable(new TruthTable());
  readonly #sheets = new Map<string, string>();
  readonly #scripts = new Map<string, ScriptText>();

  /** In: the pages, where another thread has found them. Throws `UsageError`. */
  constructor(
    readonly files: SiteFiles,
    pagePaths?: readonly string[],
  ) {
    this.reader = new SiteReader(files, parseConfig(files.read(CONFIG_FILE)?.toString('utf8')), pagePaths);
  }

  /** What is filled as pages are followed. */
  get sources(): {
    sheets: Map<string, string>;
    scripts: Map<string, ScriptText>;
    copies: SiteSources['copies'];
  } {
    return { sheets: this.#sheets, scripts: this.#scripts, copies: this.reader.copies };
  }

  /** What several threads found, each from its own pages. In: paths, in the order of the pages. */
  takeOver(sheets: readonly string[], scripts: readonly string[]): void {
    const known = new Map([...this.#sheets]);
    this.#sheets.clear();
    for (const file of sheets) {
      const text = known.get(file) ?? this.reader.sheetAt(file)?.text;
      if (text !== undefined) this.#sheets.set(file, text);
    }
    for (const file of scripts) {
      const script = this.reader.scriptAt(file);
      if (script !== undefined) this.#scripts.set(file, script);
    }
  }

  readSheet(file: string | undefined): void {
    const sheet = file === undefined || this.#sheets.has(file) ? undefined : this.reader.sheetAt(file);
    if (file === undefined || sheet === undefined) return;
    this.#sheets.set(file, sheet.text);
    for (const { address } of sheet.imports) this.#readAddress(address, file);
    this.readSheet(this.reader.behind(file));
  }

  follow(page: Page, styles: SiteStyles): void {
    for (const reference of page.sheets) {
      if (reference.kind === 'link') this.#readAddress(reference.address, page.path);
      else if (reference.text.toLowerCase().includes('@import'))
        for (const { address } of styles.block(reference.text, page).sheet.imports)
          this.#readAddress(address, page.path);
    }
    for (const reference of page.scripts) {
      const file = reference.kind === 'link' ? this.#fileAt(reference.address, page.path) : undefined;
      const script = file === undefined ? undefined : this.reader.scriptAt(file);
      if (file !== undefined && script !== undefined) this.#scripts.set(file, script);
      const own = reference.kind === 'inline' ? { text: reference.text, isLibrary: false } : script;
      if (own === undefined) continue;
      const holder = file ?? page.path;
      const imported = importedFiles(scriptReading(own.text).imports, holder, (file) => {
        const found = this.reader.scriptAt(file);
        if (found !== undefined) this.#scripts.set(file, found);
        return found && scriptReading(found.text).imports;
      });
      // A sheet that a script puts in is one of the page's.
      const brought = imported.map((path) => ({ path, script: this.#scripts.get(path)! }));
      for (const { path, script: one } of [{ path: holder, script: own }, ...brought])
        if (one.text.includes('.css') && !one.isLibrary)
          for (const sheet of scriptReading(one.text).sheets)
            if (sheet.kind !== 'text')
              this.readSheet(fileOfAddedSheet(sheet, path, page.path, (by) => this.reader.copies.get(by)));
    }
  }

  #readAddress(address: string, from: string): void {
    this.readSheet(this.#fileAt(address, from));
  }

  #fileAt(address: string, from: string): string | undefined {
    return fileAt(address, from, (one) => this.reader.copies.get(one));
  }
}
