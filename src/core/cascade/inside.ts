// `:has()`: what stands in an element, or behind it.

import type { Page, PageElement } from '../read/markup/index.js';
import type { ComplexSelector, Compound } from './selector-model.js';
import { reachable, stepFrom, subtreeEnd } from './tree-steps.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';

/** What is asked of a matcher. */
interface Asked {
  compound(compound: Compound, element: PageElement): Truth;
  /** Whether scripts or a person may put something into an element. */
  mayGain(index: number): boolean;
  /** The condition of that text on an element. */
  open(text: string, element: PageElement): Truth;
}

export class Inside {
  readonly #page: Page;
  readonly #elements: readonly PageElement[];
  readonly #table: TruthTable;
  readonly #asked: Asked;

  constructor(page: Page, table: TruthTable, asked: Asked) {
    this.#page = page;
    this.#elements = page.elements;
    this.#table = table;
    this.#asked = asked;
  }

  has(selectors: readonly ComplexSelector[], element: PageElement): Truth {
    const text = `:has(${selectors.map((one) => one.text).join(',')})`;
    if (this.#isFilled(element)) return this.#asked.open(`${text} by what an engine writes`, element);
    let found: Truth = NEVER;
    for (const selector of selectors)
      for (const candidate of reachable(this.#elements, selector, element)) {
        found = this.#table.or(
          found,
          this.#relative(selector, selector.compounds.length - 1, candidate, element),
        );
        if (found === ALWAYS) return found;
      }
    const end = subtreeEnd(this.#elements, element);
    for (let index = element.index; index < end; index++)
      if (this.#elements[index]!.hasTemplateText || this.#asked.mayGain(index))
        return this.#table.or(found, this.#asked.open(`${text} by what is not in the file`, element));
    return found;
  }

  /** Whether an engine reads somewhere in an element: what stands there may be left out. */
  #isFilled(element: PageElement): boolean {
    if (!this.#page.holdsEngineText) return false;
    const end = subtreeEnd(this.#elements, element);
    for (let index = element.index; index < end; index++)
      if (this.#elements[index]!.hasTemplateText) return true;
    return false;
  }

  #relative(selector: ComplexSelector, at: number, candidate: number, anchor: PageElement): Truth {
    const own = this.#asked.compound(selector.compounds[at]!, this.#elements[candidate]!);
    if (own === NEVER) return NEVER;
    const combinator = at === 0 ? selector.relative! : selector.combinators[at - 1]!;
    let found: Truth = NEVER;
    let step = stepFrom(this.#elements, candidate, combinator);
    while (step >= 0) {
      const here =
        at === 0 ? (step === anchor.index ? ALWAYS : NEVER) : this.#relative(selector, at - 1, step, anchor);
      found = this.#table.or(found, here);
      if (found === ALWAYS || combinator === '>' || combinator === '+') break;
      step = stepFrom(this.#elements, step, combinator);
    }
    return this.#table.and(own, found);
  }
}
