// Compares two states of a site page by page: pages may come from anywhere, and none has to be kept.

import { keptText } from '../base/reasons/index.js';
import {
  holdsWrittenValues,
  type Outcomes,
  type Program,
  type SheetOrder,
  type SiteStyles,
  StyleReader,
} from '../cascade/index.js';
import { countOf, isGiven, mayHoldMore, mayShow, type Page } from '../read/markup/index.js';
import { undecidedUnless } from '../stock/index.js';
import { type Alignment, type AlignOptions, alignPages } from './align.js';
import { type Difference, describeElement, placeOf, showElement } from './describe.js';
import { Likeness, looksOf } from './likeness.js';
import { emptyPart, type ProofPart } from './part.js';
import { attributesRead, readOtherwise } from './read-attributes.js';
import type { FileTexts } from './resolve.js';
import { noteScripts } from './script-assumptions.js';
import {
  isBeyondReach,
  isSameSheetOrder,
  isUntouched,
  noteNames,
  sheetOrdersDiffer,
} from './sheet-orders.js';

export interface ProverOptions extends AlignOptions {
  /** At most this many elements are described for one page; a page that differs in more differs anyway. */
  readonly perPage?: number;
}

const MOST_DESCRIBED = 50;
const NONE: ReadonlySet<string> = new Set();

/** A page in both states. */
export type PagePair = readonly [Page, Page];

/** Sheets under which a component may stand. */
interface Context {
  readonly sheetOrders: readonly [SheetOrder, SheetOrder];
  /** Whether pages that an engine fills have them. */
  readonly isFilled: boolean;
}

interface CompareOptions {
  readonly placed?: (() => PagePair) | undefined;
  readonly neverTemplated?: ReadonlySet<string> | undefined;
}

export class Prover {
  #part = emptyPart();
  /** Class names that the earlier state knows, and custom properties that style attributes or scripts of either set. */
  readonly known = new Set<string>();
  /** One page for every different pair of sheet orders. */
  readonly contextPages: string[] = [];
  readonly #mentioned = new Set<string>();
  readonly #seenBefore = new WeakSet<Program>();
  readonly #seenAfter = new WeakSet<Program>();
  readonly #contexts = new Map<string, Context>();
  /** By path of a page, the key of its context. */
  readonly #contextOf = new Map<string, string>();
  readonly #reported = new Set<string>();
  /** By outcome number, whether a rule says which box an element has. */
  readonly #shown = new Map<number, boolean>();
  readonly #likeness = new Likeness();
  /** What elements with these two outcome numbers differ in. */
  readonly #alike = new Map<string, readonly Difference[]>();
  readonly #before: SiteStyles;
  readonly #after: SiteStyles;
  readonly #perPage: number;
  readonly #meant: AlignOptions;

  /** In: the styles of both states, over one outcome table. */
  constructor(before: SiteStyles, after: SiteStyles, options: ProverOptions = {}) {
    this.#before = before;
    this.#after = after;
    this.#perPage = options.perPage ?? MOST_DESCRIBED;
    this.#meant = options;
  }

  get part(): ProofPart {
    return this.#part;
  }

  /** What was found since the last time. */
  take(): ProofPart {
    const taken = this.#part;
    this.#part = emptyPart();
    return taken;
  }

  /**
   * Compares one page. Out: whether it is done; components and pages with template text in their tags depend on the
   * whole site, and must be given to `addLate` when all others have been seen.
   * In: `placed`, where the pages have no offsets: the same pages with them, asked for when something differs.
   */
  add(path: string, before: Page | undefined, after: Page | undefined, placed?: () => PagePair): boolean {
    if (before === undefined || after === undefined) {
      const what = before === undefined ? 'the page is new' : 'the page is gone';
      this.part.differences.push({ kind: 'page', page: path, what });
      return true;
    }
    this.#noteClasses(before);
    for (const page of [before, after]) {
      if (!page.text.includes('--')) continue;
      const { outline } = page;
      const styles = outline?.styles.map(([style]) => style) ?? page.elements.map(({ style }) => style);
      for (const style of styles) for (const name of style?.match(/--[^\s:;]+/g) ?? []) this.known.add(name);
    }
    if (before.kind !== 'page' || after.kind !== 'page') return false;
    const contexts = [this.#context(before, after)];
    // What may have other sheets than it says depends on all that changes.
    const isSwitched = before.base !== undefined || before.hasPolicy;
    if (before.hasTemplatedTags || after.hasTemplatedTags || isSwitched) return false;
    this.#compare([before, after], contexts, { placed });
    return true;
  }

  #noteClasses(page: Page): void {
    const { outline } = page;
    if (outline !== undefined) for (const name of outline.classes) this.known.add(name);
    else for (const { classes } of page.elements) for (const name of classes) this.known.add(name);
  }

  /** Notes the sheets of a whole page that another thread compared. */
  note(before: Page, after: Page): void {
    this.#context(before, after);
  }

  addLate(before: Page, after: Page): void {
    const whole = before.kind === 'page' && after.kind === 'page';
    const isAlone = whole || before.sheets.some(isGiven) || after.sheets.some(isGiven);
    const contexts = isAlone ? this.#contextsAlone(before, after) : this.#contextsOfComponents(before, after);
    const newClasses = new Set([...this.#mentioned].filter((name) => !this.known.has(name)));
    this.#compare([before, after], contexts, { neverTemplated: newClasses });
  }

  /** The sheets of the pages that show it; of those that show components, where that is not known; else of all pages. */
  #contextsOfComponents(before: Page, after: Page): (readonly [SheetOrder, SheetOrder])[] {
    const all = [...this.#contexts.values()];
    const filled = all.filter(({ isFilled }) => isFilled);
    const own = before.around?.shownBy?.map((path) => this.#contextOf.get(path)) ?? [undefined];
    const known = own.flatMap((key) => (key === undefined ? [] : (this.#contexts.get(key) ?? [])));
    const isKnown = known.length === own.length;
    return [...new Set(isKnown ? known : filled.length > 0 ? filled : all)].map(
      ({ sheetOrders: [was, is] }) =>
        [this.#before.sheetOrderWithin(before, was), this.#after.sheetOrderWithin(after, is)] as const,
    );
  }

  #contextsAlone(before: Page, after: Page): (readonly [SheetOrder, SheetOrder])[] {
    const first = this.#context(before, after);
    const [was, is] = [this.#before.ownSheetOrders(before), this.#after.ownSheetOrders(after)];
    return [first, ...was.slice(1).map((sheetOrder, at) => [sheetOrder, is[at + 1] ?? is[0]!] as const)];
  }

  /** The sheet orders of a whole page, noted as one that components may stand in. */
  #context(before: Page, after: Page): readonly [SheetOrder, SheetOrder] {
    const pair = [this.#before.sheetOrderOf(before), this.#after.sheetOrderOf(after)] as const;
    const isFilled = mayShow(before);
    const key = `${isFilled}\n${pair[0].key}\n${pair[1].key}`;
    if (before.kind === 'page') this.#contextOf.set(before.path, key);
    if (before.kind === 'component') {
      noteNames(pair[0], this.known, this.#seenBefore);
      noteNames(pair[1], this.#mentioned, this.#seenAfter);
    } else if (!this.#contexts.has(key)) {
      this.#contexts.set(key, { sheetOrders: pair, isFilled });
      this.contextPages.push(before.path);
      noteNames(pair[0], this.known, this.#seenBefore);
      noteNames(pair[1], this.#mentioned, this.#seenAfter);
    }
    return pair;
  }

  #compare(
    [before, after]: PagePair,
    contexts: readonly (readonly [SheetOrder, SheetOrder])[],
    options: CompareOptions,
  ): void {
    const { part } = this;
    if (before.kind === 'page') part.pages++;
    else part.components++;
    part.elements += countOf(before);
    const same = before.text === after.text && contexts.every(([a, b]) => isSameSheetOrder(a, b));
    for (const [a, b] of contexts) {
      this.#noteUnread(a, new Set(b.unread.map(({ address }) => address)));
      const problem = same ? undefined : sheetOrdersDiffer(a, b);
      if (problem !== undefined) part.differences.push({ kind: 'page', page: before.path, what: problem });
    }
    if (same) return;
    noteScripts(before, this.#before, part.scripts);
    for (const [page, styles] of [[before, this.#before] as const, [after, this.#after] as const])
      for (const { reading } of styles.scriptsOf(page))
        for (const word of reading.words) if (word.startsWith('--')) this.known.add(word);
    // Whatever code does to a component that has not changed, it does with new rules too: these are what is compared.
    const unread = before.text === after.text ? undefined : before.unread;
    const undecided =
      undecidedUnless(
        before,
        contexts.map(([a]) => a),
        unread,
      ) ??
      undecidedUnless(
        after,
        contexts.map(([, b]) => b),
        unread,
      );
    if (undecided !== undefined) {
      const all = [...contexts, ...[...this.#contexts.values()].map(({ sheetOrders }) => sheetOrders)];
      if (before.text === after.text && isBeyondReach(before, all, options.neverTemplated ?? NONE)) return;
      const what = `it changed, and ${keptText(undecided)}`;
      part.differences.push({ kind: 'page', page: before.path, what });
      return;
    }
    if (before === after && contexts.every((pair) => isUntouched(before, pair))) return;
    if (options.placed === undefined) {
      this.#compareLooks([before, after], contexts, options);
      return;
    }
    const known = part.differences.length;
    this.#compareLooks([before, after], contexts, options);
    if (part.differences.length === known) return;
    part.differences.length = known;
    const [one, other] = options.placed();
    const sheetOrders = [this.#before.sheetOrderOf(one), this.#after.sheetOrderOf(other)] as const;
    this.#compareLooks([one, other], [sheetOrders], {});
  }

  /** Every element of two states, one by one. */
  #compareLooks(
    [before, after]: PagePair,
    contexts: readonly (readonly [SheetOrder, SheetOrder])[],
    { neverTemplated, placed }: CompareOptions,
  ): void {
    const { part } = this;
    const alignment = alignPages(before, after, this.#meant);
    if (alignment.kind === 'moved') {
      const place =
        placeOf(after, after.elements[alignment.after ?? -1]) ??
        placeOf(before, before.elements[alignment.before ?? -1]);
      part.differences.push({ kind: 'markup', page: before.path, what: alignment.what, place });
      return;
    }
    part.templated ||= before.hasTemplatedTags;
    part.given ||= before.sheets.some(isGiven);
    part.filled ||= mayHoldMore(before);
    part.named ||= before.around !== undefined;
    part.filledValues ||= holdsWrittenValues(before);
    if (before.sheets.some((one) => one.kind === 'block' && one.isFilled)) part.filledBlocks = true;
    for (const [a, b] of contexts) {
      const options = neverTemplated === undefined ? {} : { neverTemplated };
      const first = new StyleReader(before, a, this.#before.table, options);
      const second = new StyleReader(after, b, this.#after.table, options);
      this.#refuseShown(second, [...alignment.added, ...otherBlocks(after, before)]);
      this.#refuseShown(first, [...alignment.removed, ...otherBlocks(before, after)]);
      this.#refuseRolledBack(second, alignment.renamed);
      this.#refusePicked(before, after, alignment);
      this.#compareElements(first, second, alignment, placed === undefined);
    }
  }

  /** A link or style element that came or went, or declares something else, shows nothing unless a rule gives it a box. */
  #refuseShown(reader: StyleReader, indexes: readonly number[]): void {
    const { page } = reader;
    const isShown = (index: number): boolean => {
      const number = reader.outcomeNumber(index);
      const known = this.#shown.get(number) ?? setsDisplay(reader.outcomes(index).get(''));
      this.#shown.set(number, known);
      return known;
    };
    const shown = indexes.find(
      (index) => isShown(index) || isShown(Math.max(0, page.elements[index]!.parent)),
    );
    if (shown === undefined) return;
    const element = page.elements[shown];
    const what = `a rule shows the <${element?.name}> that came or went, or the space around it`;
    this.part.differences.push({ kind: 'markup', page: page.path, what, place: placeOf(page, element) });
  }

  /** What rolls back to the browser's own sheet tells an outdated element from a neutral one. */
  #refuseRolledBack(reader: StyleReader, renamed: readonly number[]): void {
    const { page } = reader;
    const rolled = renamed.find((index) =>
      [...(reader.outcomes(index).get('') ?? [])].some(
        ([name, list]) => name === 'all' || list.some(({ value }) => value.includes('revert')),
      ),
    );
    if (rolled === undefined) return;
    const element = page.elements[rolled];
    const what = `a rule takes back what browsers say of the <${element?.name}> that was renamed`;
    this.part.differences.push({ kind: 'markup', page: page.path, what, place: placeOf(page, element) });
  }

  /** What a script picks out by the name of an element, it finds no more, or finds besides, where that was renamed. */
  #refusePicked(
    before: Page,
    after: Page,
    { pairs, renamed }: Extract<Alignment, { kind: 'aligned' }>,
  ): void {
    if (renamed.length === 0) return;
    const own = this.#before.scriptsOf(before).filter(({ isLibrary }) => !isLibrary);
    for (const [i, j] of pairs) {
      const [old, fresh] = [before.elements[i]!, after.elements[j]!];
      if (old.name === fresh.name) continue;
      const name = [old.name, fresh.name].find((one) => own.some(({ reading }) => reading.words.has(one)));
      if (name === undefined) continue;
      const what = `a script names <${name}>, and the <${old.name}> was renamed`;
      this.part.differences.push({ kind: 'markup', page: after.path, what, place: placeOf(after, fresh) });
      return;
    }
  }

  #compareElements(
    first: StyleReader,
    second: StyleReader,
    { pairs }: Extract<Alignment, { kind: 'aligned' }>,
    isPlaced: boolean,
  ): void {
    let described = 0;
    const before = looksOf(first, textsOf(this.#before), this.known);
    const after = looksOf(second, textsOf(this.#after), this.known);
    const read = new Set([...attributesRead(first.sheetOrder), ...attributesRead(second.sheetOrder)]);
    for (const [i, j] of pairs) {
      if (read.size > 0)
        for (const one of readOtherwise(read, [first, i], [second, j])) this.#tell(one, second.page);
      const numbers = [first.outcomeNumber(i), second.outcomeNumber(j)] as const;
      if (numbers[0] === numbers[1]) continue;
      const key = numbers.join(' ');
      const known = this.#alike.get(key);
      if (known !== undefined) {
        for (const one of known) this.#tell(movedTo(one, second.page, j), second.page);
        continue;
      }
      const isEqual = this.#likeness.areEqual([before, i], [after, j], `${key} ${this.known.size}`);
      if (!isEqual && ++described > this.#perPage) continue;
      const found = isEqual ? [] : describeElement(first, i, second, j);
      for (const difference of found) this.#tell(difference, second.page);
      // Where every difference is asked for, elements that differ alike are described once; what custom properties
      // come to depends on the page.
      if (
        isPlaced &&
        this.#perPage === Number.POSITIVE_INFINITY &&
        !usesCustom(first, i) &&
        !usesCustom(second, j)
      )
        this.#alike.set(key, found);
    }
  }

  /** A component differs alike under many pages' sheets: it is reported once. */
  #tell(difference: Difference, { kind }: Page): void {
    const key = kind === 'page' ? undefined : JSON.stringify(difference);
    if (key !== undefined && this.#reported.has(key)) return;
    if (key !== undefined) this.#reported.add(key);
    this.part.differences.push(difference);
  }

  /** In: sheets of a component that are there in neither state: one that is to come is none of them. */
  #noteUnread({ unread }: SheetOrder, inNeither: ReadonlySet<string>): void {
    for (const { address, path, why } of unread) {
      if (path !== undefined && this.#before.texts.isToCome?.(path) === true) continue;
      if (why === 'elsewhere' || inNeither.has(address))
        this.part.unread.set(address, (this.part.unread.get(address) ?? 0) + 1);
    }
  }
}

function textsOf({ texts }: SiteStyles): FileTexts {
  return { textAt: (path) => texts.textAt(path), copyOf: (address) => texts.copyOf(address) };
}

function setsDisplay(outcomes: Outcomes | undefined): boolean {
  return outcomes?.has('display') === true || outcomes?.has('all') === true;
}

/** The same difference on another element. */
function movedTo(one: Difference, page: Page, index: number): Difference {
  if (one.kind !== 'style') return one;
  const element = page.elements[index]!;
  return {
    ...one,
    page: page.path,
    place: placeOf(page, element),
    element: index,
    shown: showElement(element),
  };
}

function usesCustom(reader: StyleReader, index: number): boolean {
  for (const outcomes of reader.outcomes(index).values())
    for (const [longhand, list] of outcomes)
      if (longhand.startsWith('--') || list.some(({ value }) => value.includes('var('))) return true;
  return false;
}

/** Style elements whose text the other state has nowhere. The block of a component is none. */
function otherBlocks(page: Page, other: Page): number[] {
  const texts = new Set(other.sheets.map((one) => (one.kind === 'block' ? one.text : '')));
  return page.sheets.flatMap((one) =>
    one.kind === 'block' && one.element >= 0 && !texts.has(one.text) ? one.element : [],
  );
}
