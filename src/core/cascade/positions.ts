// Positions among siblings, of all elements and of those with the same name, for a whole page in one pass: a page may hold
// a table of a hundred thousand rows.

import type { Page, PageElement } from '../markup/index.js';

export class Positions {
  static readonly #known = new WeakMap<Page, Positions>();

  readonly #fromEnd: Int32Array;
  readonly #ofType: Int32Array;
  readonly #ofTypeFromEnd: Int32Array;

  static of(page: Page): Positions {
    let known = Positions.#known.get(page);
    if (known === undefined) {
      known = new Positions(page);
      Positions.#known.set(page, known);
    }
    return known;
  }

  private constructor({ elements }: Page) {
    this.#fromEnd = new Int32Array(elements.length);
    this.#ofType = new Int32Array(elements.length);
    this.#ofTypeFromEnd = new Int32Array(elements.length);
    const count = (element: PageElement, into: Int32Array, counts: Map<string, number>): void => {
      const key = `${element.parent} ${element.namespace} ${element.name}`;
      const position = (counts.get(key) ?? 0) + 1;
      counts.set(key, position);
      into[element.index] = position;
    };
    const forward = new Map<string, number>();
    for (const element of elements) count(element, this.#ofType, forward);
    const backward = new Map<string, number>();
    for (let at = elements.length - 1; at >= 0; at--) {
      const element = elements[at]!;
      count(element, this.#ofTypeFromEnd, backward);
      // Later siblings have higher numbers, so theirs are known.
      this.#fromEnd[at] = element.next < 0 ? 1 : this.#fromEnd[element.next]! + 1;
    }
  }

  /** From 1. */
  at(element: PageElement, last: boolean, ofType: boolean): number {
    if (ofType) return (last ? this.#ofTypeFromEnd : this.#ofType)[element.index]!;
    return last ? this.#fromEnd[element.index]! : element.position;
  }
}
