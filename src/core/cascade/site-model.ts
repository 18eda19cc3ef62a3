// One state of a whole site: every page parsed, every sheet compiled once, the stack of each page.

import { type Page, parsePage } from '../markup/index.js';
import { parseSheet } from '../sheets/index.js';
import { comparePaths } from '../source.js';
import type { MatcherOptions } from './matcher.js';
import { OutcomeTable, StyleReader } from './outcome.js';
import { compileSheet, type Program } from './program.js';
import { buildStack, type ProgramSource, type Stack } from './stack.js';
import { TruthTable } from './truth.js';

/** The texts of a site, by site-relative path, decoded and without byte order marks. */
export interface SiteSources {
  readonly pages: ReadonlyMap<string, string>;
  /** Those of `pages` that are fragments for other pages to include. */
  readonly components: ReadonlySet<string>;
  readonly sheets: ReadonlyMap<string, string>;
  /** Local copies of sheets that lie elsewhere: address to path. */
  readonly copies: ReadonlyMap<string, string>;
}

export class SiteModel implements ProgramSource {
  readonly pages: readonly Page[];
  readonly #byPath = new Map<string, Page>();
  readonly #programs = new Map<string, Program>();
  readonly #blocks = new Map<string, Program>();
  readonly #stacks = new Map<string, Stack>();
  #fragmentStacks: readonly Stack[] | undefined;

  /**
   * In: the texts; what the comparison shares; an earlier state, whose pages and programs are taken over where the
   * text is the same.
   */
  constructor(
    readonly sources: SiteSources,
    readonly table: OutcomeTable = new OutcomeTable(new TruthTable()),
    earlier?: SiteModel,
  ) {
    const pages: Page[] = [];
    for (const [path, text] of sources.pages) {
      const known = earlier?.page(path);
      pages.push(known?.text === text ? known : parsePage(path, text, sources.components.has(path)));
    }
    this.pages = pages.sort((a, b) => comparePaths(a.path, b.path));
    for (const page of this.pages) this.#byPath.set(page.path, page);
    if (earlier !== undefined) {
      for (const [key, program] of earlier.#blocks) this.#blocks.set(key, program);
      for (const [path, program] of earlier.#programs) {
        if (program.sheet.text === sources.sheets.get(path)) this.#programs.set(path, program);
      }
    }
  }

  page(path: string): Page | undefined {
    return this.#byPath.get(path);
  }

  sheetAt(path: string): Program | undefined {
    const known = this.#programs.get(path);
    if (known !== undefined) return known;
    const text = this.sources.sheets.get(path);
    if (text === undefined) return undefined;
    const program = compileSheet(parseSheet(text), path, this.table.truths);
    this.#programs.set(path, program);
    return program;
  }

  block(text: string, page: Page): Program {
    // Equal blocks are one program, unless they hold addresses, which mean something else in another folder.
    const key = /url\(|@import/i.test(text) ? `${page.path}\0${text}` : text;
    let program = this.#blocks.get(key);
    if (program === undefined) {
      program = compileSheet(parseSheet(text), page.path, this.table.truths);
      this.#blocks.set(key, program);
    }
    return program;
  }

  copyOf(address: string): string | undefined {
    return this.sources.copies.get(address);
  }

  /** The sheets of a whole page. */
  stackOf(page: Page): Stack {
    let stack = this.#stacks.get(page.path);
    if (stack === undefined) {
      stack = buildStack(page, this, this.table.truths);
      this.#stacks.set(page.path, stack);
    }
    return stack;
  }

  /**
   * The stacks that style a page: its own for a whole page. A component may be included by any page, so it is read
   * under every different stack of the site.
   */
  stacksOf(page: Page): readonly Stack[] {
    if (page.kind === 'page') return [this.stackOf(page)];
    if (this.#fragmentStacks === undefined) {
      const different = new Map<string, Stack>();
      for (const whole of this.pages) {
        if (whole.kind !== 'page') continue;
        const stack = this.stackOf(whole);
        if (!different.has(stack.key)) different.set(stack.key, stack);
      }
      this.#fragmentStacks = [...different.values()];
    }
    return this.#fragmentStacks;
  }

  readersOf(page: Page, options?: MatcherOptions): StyleReader[] {
    return this.stacksOf(page).map((stack) => new StyleReader(page, stack, this.table, options));
  }
}
