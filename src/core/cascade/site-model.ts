// One state of a whole site in memory: every page parsed, and the styles it runs over.

import { comparePaths, type Place, type SourceRange } from '../base/source.js';
import type { BlockCompiler } from '../read/components/index.js';
import {
  isGiven,
  type Page,
  type PageElement,
  pagesThatShow,
  parsePage,
  type SourceTag,
} from '../read/markup/index.js';
import { type Mentions, NO_MENTIONS, Standing } from '../read/standing/index.js';
import { StyleReader } from './outcome.js';
import { OutcomeTable } from './outcome-table.js';
import type { SheetOrder } from './sheet-order.js';
import { type ScriptText, SiteStyles } from './site-styles.js';
import { TruthTable } from './truth.js';

/** The texts of a site, by site-relative path, decoded and without byte order marks. */
export interface SiteSources {
  readonly pages: ReadonlyMap<string, string>;
  /** Those of `pages` that are fragments for other pages to include. */
  readonly components: ReadonlySet<string>;
  /** By page, the sheets that style it, where a person says so. */
  readonly given?: ReadonlyMap<string, readonly string[]>;
  /** Who compiles style blocks of components that take in other files. */
  readonly compileBlock?: BlockCompiler | undefined;
  /** Which files the names in templates mean. */
  readonly mentions?: Mentions | undefined;
  /** How a template links a sheet, where a person says so. */
  readonly link?: string | undefined;
  readonly sheets: ReadonlyMap<string, string>;
  /** Local copies of sheets that lie elsewhere: address to path. */
  readonly copies: ReadonlyMap<string, string>;
  /** The sheet that is to be a part of another one, at its end. */
  readonly behind?: ((path: string) => string | undefined) | undefined;
  /** Whether a build gives the classes of a sheet names of their own: code asks for them. */
  readonly isModule?: ((path: string) => boolean) | undefined;
  /** Whether a sheet is none yet, and linked by nothing. */
  readonly isToCome?: ((path: string) => boolean) | undefined;
  /** The site's local scripts. */
  readonly scripts?: ReadonlyMap<string, ScriptText>;
  /** Pages that are parsed already, as far as their texts are those of `pages`. */
  readonly parsed?: ReadonlyMap<string, Page>;
  /**
   * Where pages are excerpts: by path, and number of the element counted from the page's end, what is like it elsewhere on
   * the site and not in the texts.
   */
  readonly alike?: ReadonlyMap<string, ReadonlyMap<number, Alike>>;
  /** By path of an excerpt, tags that those which were cut out of its page are written like. */
  readonly likeTags?: ReadonlyMap<string, readonly LikeTag[]>;
  /** Where pages are excerpts: those of which nothing is in the texts, by path. */
  readonly leftOut?: ReadonlyMap<string, LeftOut>;
  /** Ids that stand on several pages, some of them on pages that are not in the texts. */
  readonly sharedIds?: ReadonlySet<string>;
  /** Where a build made the pages: what part of a tag of a source a tag of a page stands for. */
  readonly shareOf?: (page: Page, tag: SourceTag | undefined) => number;
  /** Where a build made the pages: whether one source writes an element with all that is in it. */
  readonly isWritten?: (page: Page, element: PageElement) => boolean;
}

const NO_PLACES: readonly Place[] = [];

/** A tag: the path of its page, and the number of its element counted from the page's end. */
export interface LikeTag {
  readonly path: string;
  readonly fromEnd: number;
}

/** A page all of whose elements are like some that are kept. */
export interface LeftOut {
  /** A page that is shown by the same sheets and scripts. */
  readonly like: string;
  /** Where its body begins: what links a sheet stands in front of it. */
  readonly body: number;
  /** Its style blocks: where each begins, the white space in front counted in, and where the same one stands on that page. */
  readonly blocks: readonly { readonly start: number; readonly like: SourceRange }[];
  /** Whether it would pass a policy of `style-src 'self'` once no tag of it had a style, if that page would. */
  readonly fromSelf: boolean;
}

/** Elements that one stands for. */
export interface Alike {
  readonly count: number;
  /** The element's number counted from the end of the whole page. */
  readonly inWhole: number;
  /** Where the tags of those stand that carry styling. */
  readonly tags: readonly Place[];
}

export class SiteModel extends SiteStyles {
  /** Paths of all pages, in order. */
  readonly paths: readonly string[];
  readonly #known = new Map<string, Page>();
  /** Pages as they are by themselves, where others bring something to them. */
  readonly #bare = new Map<string, Page>();
  readonly #standing: Standing;
  /** Empty once every page is known: a state does not keep those alive that led to it. */
  #earlierStates: readonly SiteModel[];
  #pages: readonly Page[] | undefined;
  readonly #readers = new WeakMap<Page, readonly StyleReader[]>();
  #fragmentSheetOrders: readonly SheetOrder[] | undefined;
  #likes: ReadonlyMap<string, number> | undefined;

  /**
   * In: the texts; what the comparison shares; earlier states, whose pages and programs are taken over where the text is
   * the same.
   */
  constructor(
    readonly sources: SiteSources,
    table: OutcomeTable = new OutcomeTable(new TruthTable()),
    ...earlier: readonly SiteModel[]
  ) {
    const { sheets, copies, scripts, behind, isModule, isToCome } = sources;
    const texts = {
      textAt: (path: string) => sheets.get(path),
      copyOf: (address: string) => copies.get(address),
      behind: (path: string) => behind?.(path),
      isModule: (path: string) => isModule?.(path) === true,
      isToCome: (path: string) => isToCome?.(path) === true,
      scriptAt: (path: string) => scripts?.get(path),
    };
    super(texts, table, ...earlier);
    this.#earlierStates = earlier;
    this.paths = [...sources.pages.keys()].sort(comparePaths);
    this.#standing = new Standing(sources.mentions ?? NO_MENTIONS, (path) => this.#bareAt(path));
  }

  /** Every page; those that were not asked for yet are parsed now. */
  get pages(): readonly Page[] {
    if (this.#pages === undefined) {
      this.#pages = this.paths.flatMap((path) => this.page(path) ?? []);
      this.#earlierStates = [];
    }
    return this.#pages;
  }

  /** A page, parsed when it is first asked for. */
  page(path: string): Page | undefined {
    let page = this.#known.get(path);
    if (page === undefined) {
      page = this.readOnce(path);
      if (page !== undefined) this.#known.set(path, page);
    }
    return page;
  }

  /** A page that nobody will ask for again: it is not kept. */
  readOnce(path: string): Page | undefined {
    const known = this.#known.get(path);
    if (known !== undefined) return known;
    if (this.#standing.isEmpty) return this.#parsed(path);
    const bare = this.#bareAt(path);
    return bare && this.#standing.place(bare);
  }

  /** A page as it is by itself. */
  #bareAt(path: string): Page | undefined {
    if (this.#standing.isEmpty) return this.page(path);
    const bare = this.#bare.get(path) ?? this.#parsed(path);
    if (bare !== undefined) this.#bare.set(path, bare);
    return bare;
  }

  #parsed(path: string): Page | undefined {
    const text = this.sources.pages.get(path);
    if (text === undefined) return undefined;
    const ready = this.sources.parsed?.get(path);
    if (ready?.text === text) return ready;
    for (const state of this.#earlierStates) {
      const same = state.sources.pages.get(path) === text ? state.#bareAt(path) : undefined;
      if (same !== undefined) return same;
    }
    const { components, given, compileBlock } = this.sources;
    return parsePage(path, text, components.has(path), given?.get(path), compileBlock);
  }

  /** How many elements of the site an element of a page stands for. */
  countOf(page: Page, element: PageElement): number {
    return this.shareOf(page, element.tag) * (1 + (this.#alike(page, element)?.count ?? 0));
  }

  /** What part of a tag of a source a tag stands for: 1 but for pages that a build made. */
  shareOf(page: Page, tag: SourceTag | undefined): number {
    return this.sources.shareOf?.(page, tag) ?? 1;
  }

  /** The tags with styling that the tag of an element stands for, itself not among them. */
  alsoAt(page: Page, element: PageElement): readonly Place[] {
    return this.#alike(page, element)?.tags ?? NO_PLACES;
  }

  /** How many pages have the style blocks of this one: itself, and those that were left out and are shown as it is. */
  pagesLike({ path }: Page): number {
    if (this.#likes === undefined) {
      const likes = new Map<string, number>();
      for (const { like } of this.sources.leftOut?.values() ?? [])
        likes.set(like, (likes.get(like) ?? 0) + 1);
      this.#likes = likes;
    }
    return 1 + (this.#likes.get(path) ?? 0);
  }

  /** Elements that what was cut out of a page is written like. */
  likeTagsOf({ path }: Pick<Page, 'path'>): PageElement[] {
    return (this.sources.likeTags?.get(path) ?? []).flatMap(
      (one) => this.page(one.path)?.elements.at(-one.fromEnd) ?? [],
    );
  }

  #alike({ path, elements }: Page, { index }: PageElement): Alike | undefined {
    return this.sources.alike?.get(path)?.get(elements.length - index);
  }

  /**
   * The sheet orders that style a page: its own for a whole page. A component may be included by any page that shows some, so it is
   * read under every different sheet order of these.
   */
  sheetOrdersOf(page: Page): readonly SheetOrder[] {
    if (page.kind === 'page' || page.sheets.some(isGiven)) return this.ownSheetOrders(page);
    const shownBy = page.around?.shownBy?.map((path) => this.page(path)!);
    if (shownBy === undefined) this.#fragmentSheetOrders ??= this.#sheetOrdersOn(pagesThatShow(this.pages));
    const around = shownBy === undefined ? this.#fragmentSheetOrders! : this.#sheetOrdersOn(shownBy);
    return around.map((one) => this.sheetOrderWithin(page, one));
  }

  /** The different sheet orders of whole pages. */
  #sheetOrdersOn(pages: readonly Page[]): SheetOrder[] {
    const different = new Map<string, SheetOrder>();
    for (const whole of pages) {
      const sheetOrder = this.sheetOrderOf(whole);
      if (!different.has(sheetOrder.key)) different.set(sheetOrder.key, sheetOrder);
    }
    return [...different.values()];
  }

  /** One reader for each sheet order, kept with what it has found out of the page. */
  readersOf(page: Page): readonly StyleReader[] {
    let readers = this.#readers.get(page);
    if (readers === undefined) {
      readers = this.sheetOrdersOf(page).map((sheetOrder) => new StyleReader(page, sheetOrder, this.table));
      this.#readers.set(page, readers);
    }
    return readers;
  }
}
