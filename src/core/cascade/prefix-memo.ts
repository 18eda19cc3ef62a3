// What is known of the beginnings of one selector while it is asked of one element: `.a .b .c .d` would else ask for `.a` above
// every `.b` above every `.c`. What is certain holds whoever asks, and is kept for the next.

import type { ComplexSelector } from './selector-model.js';
import { ALWAYS, NEVER, type Truth } from './truth.js';

/** With so many parts, one is asked for again and again. */
const MANY_PARTS = 3;
/** More would be a burden: a page is kept as long as its site. */
const MOST_KEPT = 20_000;

export class PrefixMemo {
  readonly #size: number;
  readonly #certain = new Map<ComplexSelector, Map<number, Truth>>();
  readonly #now = new Map<number, Truth>();
  #asked: ComplexSelector | undefined;
  #kept = 0;

  /** In: how many elements there are. */
  constructor(size: number) {
    this.#size = size;
  }

  /** Another element is asked about, or another selector; `undefined` within a scope, whose root is another each time. */
  start(selector: ComplexSelector | undefined): void {
    this.#asked = (selector?.compounds.length ?? 0) < MANY_PARTS ? undefined : selector;
    if (this.#now.size > 0) this.#now.clear();
  }

  /** Whether anything is remembered of a selector. */
  holds(selector: ComplexSelector): boolean {
    return selector === this.#asked;
  }

  /** In: number of the part that is to match an element, with all parts before it; `find`, for what is not known. */
  of(selector: ComplexSelector, at: number, element: number, find: () => Truth): Truth {
    const key = at * this.#size + element;
    const known = this.#now.get(key) ?? this.#certain.get(selector)?.get(key);
    if (known !== undefined) return known;
    const found = find();
    if (found === NEVER || found === ALWAYS) this.#keep(selector, key, found);
    else this.#now.set(key, found);
    return found;
  }

  #keep(selector: ComplexSelector, key: number, truth: Truth): void {
    if (this.#kept >= MOST_KEPT) {
      this.#certain.clear();
      this.#kept = 0;
    }
    const own = this.#certain.get(selector) ?? new Map<number, Truth>();
    this.#certain.set(selector, own.set(key, truth));
    this.#kept++;
  }
}
