// One state of a whole site in memory: every page parsed, and the styles it runs over.

import { type Page, parsePage } from '../markup/index.js';
import { comparePaths } from '../source.js';
import { OutcomeTable, StyleReader } from './outcome.js';
import { SiteStyles } from './site-styles.js';
import type { Stack } from './stack.js';
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

export class SiteModel extends SiteStyles {
  readonly pages: readonly Page[];
  readonly #byPath = new Map<string, Page>();
  readonly #readers = new WeakMap<Page, readonly StyleReader[]>();
  #fragmentStacks: readonly Stack[] | undefined;

  /**
   * In: the texts; what the comparison shares; earlier states, whose pages and programs are taken over where the text is
   * the same.
   */
  constructor(
    readonly sources: SiteSources,
    table: OutcomeTable = new OutcomeTable(new TruthTable()),
    ...earlier: readonly SiteModel[]
  ) {
    const { sheets, copies } = sources;
    const texts = {
      textAt: (path: string) => sheets.get(path),
      copyOf: (address: string) => copies.get(address),
    };
    super(texts, table, ...earlier);
    const pages: Page[] = [];
    for (const [path, text] of sources.pages) {
      const known = earlier.map((state) => state.page(path)).find((page) => page?.text === text);
      pages.push(known ?? parsePage(path, text, sources.components.has(path)));
    }
    this.pages = pages.sort((a, b) => comparePaths(a.path, b.path));
    for (const page of this.pages) this.#byPath.set(page.path, page);
  }

  page(path: string): Page | undefined {
    return this.#byPath.get(path);
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

  /** One reader for each stack, kept with what it has found out of the page. */
  readersOf(page: Page): readonly StyleReader[] {
    let readers = this.#readers.get(page);
    if (readers === undefined) {
      readers = this.stacksOf(page).map((stack) => new StyleReader(page, stack, this.table));
      this.#readers.set(page, readers);
    }
    return readers;
  }
}
