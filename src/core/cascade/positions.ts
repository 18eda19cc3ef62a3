// Positions among siblings, of all elements and of those with the same name, for a whole page in one pass: a page may hold
// a table of a hundred thousand rows.

import type { Page, PageElement } from '../read/markup/index.js';

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
    for (const { previous, index } of elements) if (previous < 0) this.#countRow(elements, index);
  }

  /** In: the first of a row of siblings. */
  #countRow(elements: readonly PageElement[], first: number): void {
    const count = (at: number, into: Int32Array, counts: Map<string, number>): void => {
      const { namespace, name } = elements[at]!;
      const key = namespace === 'html' ? name : `${namespace} ${name}`;
      const position = (counts.get(key) ?? 0) + 1;
      counts.set(key, position);
      into[at] = position;
    };
    const forward = new Map<string, number>();
    let last = first;
    for (let at = first; at >= 0; at = elements[at]!.next) {
      count(at, this.#ofType, forward);
      last = at;
    }
    const backward = new Map<string, number>();
    let fromEnd = 0;
    for (let at = last; at >= 0; at = elements[at]!.previous) {
      count(at, this.#ofTypeFromEnd, backward);
      this.#fromEnd[at] = ++fromEnd;
    }
  }

  /** From 1. */
  at(element: PageElement, last: boolean, ofType: boolean): number {
    if (ofType) return (last ? this.#ofTypeFromEnd : this.#ofType)[element.index]!;
    return last ? this.#fromEnd[element.index]! : element.position;
  }
}
