// What stands around the tops of a part, for who asks of one of its elements.

import { getOrInsert } from '../base/get-or-insert.js';
import { type Chain, isLoose, type Page, type PageElement } from '../read/markup/index.js';
import type { ComplexSelector } from './selector-model.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';

const NO_CHAINS: readonly Chain[] = [];

/** In: an element of a part. Out: the ways in which it is shown; none where it may be in any other. */
export function chainsAround(page: Page, element: PageElement): readonly Chain[] {
  const { around, elements } = page;
  if (around === undefined) return NO_CHAINS;
  let top = element;
  while (top.parent >= 0) top = elements[top.parent]!;
  const at = top.tag?.range.start;
  // What an engine puts somewhere else stands in none of them for certain.
  if (at === undefined || isLoose(page, top)) return NO_CHAINS;
  return around.ranges.find(({ start, end }) => start <= at && at < end)?.chains ?? NO_CHAINS;
}

/** Names it: equal keys, equal answers. In: what else tells the elements around it apart. */
export function aroundKey(page: Page, element: PageElement, mark?: (element: PageElement) => string): string {
  return chainsAround(page, element)
    .map((chain) => `${chain.key}${mark === undefined ? '' : chain.page.elements.map(mark).join('>')}`)
    .join('|');
}

/** What is asked of a chain of elements. */
interface OnChain {
  /** Whether compounds 0 to `at` match above what stands in the last of them. */
  above(selector: ComplexSelector, at: number): Truth;
}

export class Outside {
  readonly #page: Page;
  readonly #table: TruthTable;
  readonly #onChain: (chain: Page) => OnChain;
  readonly #known = new Map<Page, OnChain>();

  constructor(page: Page, table: TruthTable, onChain: (chain: Page) => OnChain) {
    this.#page = page;
    this.#table = table;
    this.#onChain = onChain;
  }

  /**
   * Whether compounds 0 to `at` match outside of a part, around an element of it: asked on each of the pages that show it, as
   * far as they are known. In: whether that is asked from the root of a scope, which may be outside, too.
   */
  truth(selector: ComplexSelector, at: number, element: PageElement, isScoped: boolean): Truth {
    const where = selector.combinators[at] === ' ' ? 'an ancestor' : 'the parent';
    const text = `${where} outside the fragment is ${selector.leading[at]}`;
    const chains = isScoped ? NO_CHAINS : chainsAround(this.#page, element);
    if (chains.length === 0) return this.#table.literal(text);
    const truths = chains.map(({ page }) =>
      getOrInsert(this.#known, page, () => this.#onChain(page)).above(selector, at),
    );
    const [first] = truths;
    if ((first === ALWAYS || first === NEVER) && truths.every((one) => one === first)) return first;
    const told = truths.flatMap((one, number) =>
      one === NEVER ? [] : `${number + 1}${one === ALWAYS ? '' : ' perhaps'}`,
    );
    return this.#table.literal(`${text}, of ${truths.length} places in ${told.join(', ')}`);
  }
}
