// Takes the pages of a site one by one and keeps of each what the search needs: whatever carries styling, and the first of
// every form of element, with what stands around and beside it. The rest is counted, and can go.

import { holdsAddress, resolveAddress } from '../../base/addresses.js';
import { getOrInsert } from '../../base/get-or-insert.js';
import { scriptInAddress } from '../../base/script-address.js';
import { type Place, placeIn, type SourceRange } from '../../base/source.js';
import {
  type Alike,
  eachRuleCompound,
  type LeftOut,
  type LikeTag,
  type Program,
  type SheetOrder,
  type SiteStyles,
  StyleReader,
} from '../../cascade/index.js';
import type { Edit } from '../../edit/text/index.js';
import { neutralFor } from '../../read/hints/index.js';
import { isPlainLink, type Page, type PageElement } from '../../read/markup/index.js';
import { isBuiltOf, scriptForm, scriptReading } from '../../read/scripts/index.js';
import { holdsEngineText } from '../../read/templates/index.js';
import { undecidedReason } from '../../stock/index.js';
import { cutPage, type Excerpt } from './cut.js';
import { Forms, isStyled } from './forms.js';
import { type Front, frontOf } from './front.js';
import type { Overview } from './look-over.js';
import { endTagAt, type TagForm, tagForm } from './tag-form.js';

/** What was kept of a site. */
export interface Excerpts {
  /** By path, the text of a whole page, or of an excerpt. Pages with nothing that others do not have are not among them. */
  readonly pages: ReadonlyMap<string, string>;
  /** What was cut out of each page; nothing for a whole one. */
  readonly cuts: ReadonlyMap<string, readonly Edit[]>;
  /** By path, and number of the element counted from the page's end: what was cut out that is like it. */
  readonly alike: ReadonlyMap<string, ReadonlyMap<number, Alike>>;
  /** By path, the tags with styling that were cut out of the page, each with one that is written like it. */
  readonly copies: ReadonlyMap<string, readonly Copy[]>;
  /** The same by the path of the page that tags were cut out of, each once. */
  readonly likeTags: ReadonlyMap<string, readonly LikeTag[]>;
  /** Ids on several pages that styling stands under. */
  readonly placeIds: ReadonlySet<string>;
  /** Characters of all pages. */
  readonly size: number;
  /** The pages that were left out. */
  readonly leftOut: ReadonlyMap<string, LeftOut>;
}

/** A tag with styling that has the form of one that was kept: it changes as that one does. */
export interface Copy {
  /** Offset on the page. */
  readonly start: number;
  /** See `TagForm`. */
  readonly free: readonly number[];
  /** Of its end tag; where there is none, no matter. */
  readonly endTag: number;
  readonly like: First;
}

/** The first element of a form. */
export interface First {
  readonly path: string;
  /** Number counted from the end of the excerpt, and of the whole page. */
  readonly fromEnd: number;
  readonly inWhole: number;
  /** Offsets of its tags on the whole page; an end tag of no length where there is none. */
  readonly tag: SourceRange;
  readonly endTag: SourceRange;
  /** See `TagForm`. */
  readonly free: readonly number[];
}

/** What is styled is kept so often: to see that things repeat, and in what order they do. */
const ENOUGH = 3;

/** What says which sheets and scripts a page runs, or holds text that is no page yet: never cut. */
const NEVER_CUT = new Set([
  'style',
  'script',
  'link',
  'template',
  'noscript',
  'base',
  'meta',
  'title',
  'iframe',
]);
const HANDLER = /^on/i;

interface Counted extends First {
  kept: number;
  cut: number;
  /** Styled tags that were cut out. */
  readonly also: Place[];
}

export class ExcerptTaker {
  readonly #styles: SiteStyles;
  readonly #site: Overview;
  readonly #forms: Forms;
  readonly #pages = new Map<string, string>();
  readonly #cuts = new Map<string, readonly Edit[]>();
  /** By form, the first element of it, and how many were cut out. */
  readonly #firsts = new Map<number, Counted>();
  readonly #copies = new Map<string, Copy[]>();
  /** By all that says how a page is shown but its body, the first such page. */
  readonly #heads = new Map<string, { readonly path: string; readonly front: Front }>();
  readonly #isWhole: (path: string) => boolean;
  readonly #onKept: ((page: Page) => void) | undefined;
  #size = 0;
  readonly #leftOut = new Map<string, LeftOut>();

  /**
   * In: the styles of the site; what its pages have in common; whether a page is kept as it is; who hears of what is kept, as
   * it was read.
   */
  constructor(
    styles: SiteStyles,
    options: {
      readonly site: Overview;
      readonly isWhole: (path: string) => boolean;
      readonly onKept?: ((page: Page) => void) | undefined;
    },
  ) {
    this.#styles = styles;
    this.#site = options.site;
    this.#forms = new Forms(options.site);
    this.#isWhole = options.isWhole;
    this.#onKept = options.onKept;
  }

  /** In: a page whose sheets and scripts can be read by now. */
  add(page: Page): void {
    this.#size += page.text.length;
    if (
      page.kind === 'component' ||
      holdsEngineText(page.text, page.path) ||
      page.text.toLowerCase().includes('contenteditable')
    ) {
      this.#keep(page, []);
      return;
    }
    const sheetOrder = this.#styles.sheetOrderOf(page);
    const ids = [...new Set(sheetOrder.uses.map(({ program }) => idsAsked(program)))];
    const isAsked = (id: string): boolean => ids.some((one) => one.has(id.toLowerCase()));
    const styled = page.elements.map(isStyled);
    if (undecidedReason(page, [sheetOrder]) !== undefined) {
      this.#keep(page, []);
      return;
    }
    const isName = namesOn(page);
    const isMeant = this.#meantOn(page, isAsked);
    const tags = page.elements.map((element) => {
      const mayChange = styled[element.index]! || (element.id !== undefined && isAsked(element.id));
      return mayChange ? tagForm(element, page, isMeant) : undefined;
    });
    const forms = this.#forms.of(page, new StyleReader(page, sheetOrder, this.#styles.table), {
      root: rootOf(page, sheetOrder, isName),
      styled,
      tags,
    });
    const stays = this.#chosen(page, forms, styled, isName);
    const front = frontOf(page);
    const head = front && headOf(page, sheetOrder.key, isName, front);
    const isWhole = this.#isWhole(page.path);
    const like = head === undefined ? undefined : this.#heads.get(head);
    if (front !== undefined && like !== undefined && !isWhole && !stays.includes(true)) {
      for (const { index } of page.elements) this.#cutOut(page, index, forms[index]!, tags[index]);
      const blocks = front.blocks.map(({ start }, at) => ({ start, like: like.front.blocks[at]! }));
      const fromSelf = page.inert.length === 0;
      this.#leftOut.set(page.path, { like: like.path, body: front.body, blocks, fromSelf });
      return;
    }
    if (front !== undefined && head !== undefined && like === undefined)
      this.#heads.set(head, { path: page.path, front });
    withNeighbours(page, stays);
    const excerpt: Excerpt = (isWhole ? undefined : cutPage(page, stays)) ?? { page, cuts: [] };
    this.#keep(excerpt.page, excerpt.cuts);
    let at = 0;
    for (const { index } of page.elements) {
      const isKept = excerpt.page === page || stays[index]!;
      const form = forms[index]!;
      const first = this.#firsts.get(form);
      if (!isKept) {
        this.#cutOut(page, index, form, tags[index]);
        continue;
      }
      if (first === undefined)
        this.#firsts.set(form, firstAt(page, index, excerpt.page.elements.length - at, tags[index]));
      else first.kept++;
      at++;
    }
  }

  get excerpts(): Excerpts {
    const alike = new Map<string, Map<number, Alike>>();
    for (const { path, fromEnd, inWhole, cut, also } of this.#firsts.values()) {
      if (cut === 0) continue;
      const own = alike.get(path) ?? new Map<number, Alike>();
      own.set(fromEnd, { count: cut, inWhole, tags: also });
      alike.set(path, own);
    }
    return {
      pages: this.#pages,
      cuts: this.#cuts,
      alike,
      copies: this.#copies,
      likeTags: new Map(
        [...this.#copies].map(([path, own]) => [path, [...new Set(own.map(({ like }) => like))]]),
      ),
      placeIds: this.#forms.placeIds,
      size: this.#size,
      leftOut: this.#leftOut,
    };
  }

  /** Names that a rule, the search or a script goes by. In: whether a rule asks for an id. */
  #meantOn(page: Page, isAsked: (id: string) => boolean): (name: string) => boolean {
    const scripts = this.#styles.scriptsOf(page);
    return (name) =>
      isAsked(name) ||
      this.#site.sharedIds.has(name) ||
      scripts.some(({ reading: { words, stems } }) => words.has(name) || isBuiltOf(name, stems));
  }

  #cutOut(
    { path, text, elements, contentEnds }: Page,
    index: number,
    form: number,
    tags: TagForm | undefined,
  ): void {
    const like = this.#firsts.get(form)!;
    like.cut++;
    if (tags === undefined) return;
    const start = elements[index]!.tag!.range.start;
    if (isStyled(elements[index]!)) like.also.push(placeIn(path, text, start));
    const known = this.#copies.get(path) ?? [];
    this.#copies.set(path, known);
    known.push({ start, endTag: contentEnds[index]!, free: tags.free, like });
  }

  #keep(page: Page, cuts: readonly Edit[]): void {
    this.#pages.set(page.path, page.text);
    this.#onKept?.(page);
    if (cuts.length > 0) this.#cuts.set(page.path, cuts);
  }

  /** Elements that the search must see. */
  #chosen(
    { elements }: Page,
    forms: readonly number[],
    styled: readonly boolean[],
    isName: (word: string) => boolean,
  ): boolean[] {
    const here = new Map<number, number>();
    return elements.map((element) => {
      const form = forms[element.index]!;
      const seen = (this.#firsts.get(form)?.kept ?? 0) + (here.get(form) ?? 0);
      here.set(form, (here.get(form) ?? 0) + 1);
      if (styled[element.index]!) return seen < ENOUGH || !mayBeCut(element);
      return seen === 0 || runsScript(element, isName);
    });
  }
}

/** What says how a page is shown, but for its body. */
function headOf(
  page: Page,
  sheetOrderKey: string,
  isName: (word: string) => boolean,
  { key }: Front,
): string {
  const links = page.sheets.map((one) => (one.kind === 'link' ? `${isPlainLink(one)} ${one.address}` : ''));
  return [sheetOrderKey, page.quirks, page.isMail, key, ...links, ...scriptsOf(page, isName)].join('\n');
}

/** A tag that means the same on any page. */
function mayBeCut({ tag, style }: PageElement): boolean {
  return tag !== undefined && !holdsAddress(style ?? '');
}

function firstAt(
  { path, text, elements, contentEnds }: Page,
  index: number,
  fromEnd: number,
  tags: TagForm | undefined,
): Counted {
  const { start, end } = elements[index]!.tag?.range ?? { start: 0, end: 0 };
  const close = contentEnds[index]!;
  return {
    path,
    fromEnd,
    inWhole: elements.length - index,
    tag: { start, end },
    endTag: { start: close, end: close + endTagAt(text, close).length },
    free: tags?.free ?? [],
    kept: 1,
    cut: 0,
    also: [],
  };
}

/**
 * What tells all elements of a page from those of others that are written alike: whether styles may leave its tags, which sheets
 * they go to, and which scripts may look at them.
 */
function rootOf(page: Page, { uses }: SheetOrder, isName: (word: string) => boolean): string {
  const sheets = new Set(uses.map(({ source }) => (source.isBlock ? '' : source.path)));
  return [page.quirks, page.isMail, ...sheets, ...new Set(scriptsOf(page, isName))].join('\n');
}

/** The scripts of a page, each by its address or by what it is to the page. */
function scriptsOf({ path, scripts }: Page, isName: (word: string) => boolean): string[] {
  return scripts.map((one) => {
    if (one.kind === 'inline') return scriptForm(scriptReading(one.text), isName);
    const resolved = resolveAddress(one.address, path);
    return resolved.kind === 'site' || resolved.kind === 'above' ? resolved.path : one.address;
  });
}

/** Whether a word names something that stands on a page, or that an old element could become. */
function namesOn({ elements }: Page): (word: string) => boolean {
  let names: Set<string> | undefined;
  const found = (): ReadonlySet<string> => {
    if (names !== undefined) return names;
    names = new Set();
    for (const { name, id, classes } of elements) {
      names.add(name);
      const neutral = neutralFor(name);
      if (neutral !== undefined) names.add(neutral);
      if (id !== undefined) names.add(id);
      for (const one of classes) names.add(one);
    }
    return names;
  };
  return (word) => found().has(word);
}

const asked = new WeakMap<Program, ReadonlySet<string>>();

/** Ids that the rules of a sheet ask for, in lower case. */
function idsAsked(program: Program): ReadonlySet<string> {
  return getOrInsert(asked, program, () => {
    const found = new Set<string>();
    for (const rule of program.rules)
      eachRuleCompound(rule, ({ id }) => {
        if (id !== undefined) found.add(id.toLowerCase());
      });
    return found;
  });
}

/** Whether a script stands in an element's attributes, and does something to the page. In: see `scriptForm`. */
function runsScript({ attributes }: PageElement, isName: (word: string) => boolean): boolean {
  return attributes.some(
    ({ name, value }) =>
      (HANDLER.test(name) || scriptInAddress(value) !== undefined) &&
      scriptForm(scriptReading(scriptInAddress(value) ?? value), isName) !== '',
  );
}

/** With an element stay those around it, and the siblings of all of these. Out: `stays`, changed. */
function withNeighbours({ elements }: Page, stays: boolean[]): void {
  for (const { index, name, parent } of elements)
    if (NEVER_CUT.has(name) || parent < 0 || ['head', 'body'].includes(name)) stays[index] = true;
  for (let at = elements.length - 1; at >= 0; at--) {
    const { parent } = elements[at]!;
    if (stays[at] && parent >= 0) stays[parent] = true;
  }
  for (const { index, tag, firstChild } of elements) {
    // One that only its children bring about goes with them.
    let some = stays[index]! && tag === undefined;
    for (let at = firstChild; at >= 0 && !some; at = elements[at]!.next) some = stays[at]!;
    if (some) for (let at = firstChild; at >= 0; at = elements[at]!.next) stays[at] = true;
  }
}
