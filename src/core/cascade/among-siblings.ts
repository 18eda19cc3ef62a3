// Positions among those siblings that a list of selectors matches: `:nth-child(2 of .fare)`.

import type { PageElement } from '../read/markup/index.js';
import type { ComplexSelector, Simple } from './selector-model.js';
import { ALWAYS, NEVER, type Truth } from './truth.js';

export class AmongSiblings {
  readonly #positions = new Map<Simple, Map<number, number>>();
  readonly #elements: readonly PageElement[];
  readonly #matches: (simple: Simple, element: PageElement) => Truth;

  /** In: the elements of a page; whether one of them matches. */
  constructor(elements: readonly PageElement[], matches: (simple: Simple, element: PageElement) => Truth) {
    this.#elements = elements;
    this.#matches = matches;
  }

  /** A list of selectors, and which of the siblings match it: yes, no, or the number of a condition. */
  text(of: readonly ComplexSelector[], element: PageElement): string {
    const among: Simple = { kind: 'among', negated: false, selectors: of };
    let side = element;
    while (side.previous >= 0) side = this.#elements[side.previous]!;
    const found: string[] = [];
    for (let at = side.index; at >= 0; at = this.#elements[at]!.next) {
      const truth = this.#matches(among, this.#elements[at]!);
      found.push(truth === ALWAYS ? 'yes' : truth === NEVER ? 'no' : `${truth}`);
    }
    return `${of.map(({ text }) => text).join(',')} (${found.join(' ')})`;
  }

  /** The position among siblings that match `of`; `undefined` where one of them only might. */
  position(
    simple: Extract<Simple, { kind: 'nth' }>,
    of: readonly ComplexSelector[],
    element: PageElement,
    isKept: boolean,
  ): number | undefined {
    let known = this.#positions.get(simple);
    if (known === undefined || !isKept) {
      known = new Map();
      this.#positions.set(simple, known);
    }
    const found = known.get(element.index);
    if (found !== undefined) return found;
    // All siblings at once, in the direction of counting, up to the first that is open.
    let side = element;
    for (let at = side.index; at >= 0; at = simple.last ? side.next : side.previous)
      side = this.#elements[at]!;
    let position = 0;
    for (let at = side.index; at >= 0; at = simple.last ? side.previous : side.next) {
      side = this.#elements[at]!;
      const counts = this.#matches({ kind: 'among', negated: false, selectors: of }, side);
      if (counts !== ALWAYS && counts !== NEVER) break;
      if (counts === ALWAYS) position++;
      known.set(at, position);
    }
    return known.get(element.index);
  }
}
