// Names for elements that conditions are about.

import { getOrInsert } from '../base/get-or-insert.js';
import type { PageElement } from '../read/markup/index.js';

/** Ways to elements, remembered for the one that was last asked from. */
export class Paths {
  readonly #elements: readonly PageElement[];
  readonly #known = new Map<number, string>();
  #from = -1;

  constructor(elements: readonly PageElement[]) {
    this.#elements = elements;
  }

  to(element: PageElement, subject: number): string {
    if (this.#from !== subject) this.#known.clear();
    this.#from = subject;
    return getOrInsert(this.#known, element.index, () => pathBetween(this.#elements, subject, element));
  }
}

/**
 * Names an element by its way from the subject, so that elements in like places share conditions. Links and style
 * blocks are not counted: they are what an edit may add.
 */
function pathBetween(elements: readonly PageElement[], subject: number, element: PageElement): string {
  const ancestors = new Map<number, number>();
  let up = 0;
  for (let at = subject; at >= 0; at = elements[at]!.parent) ancestors.set(at, up++);
  const steps: number[] = [];
  let at = element;
  while (!ancestors.has(at.index)) {
    let count = 0;
    for (let side = at.previous; side >= 0; side = elements[side]!.previous) {
      const { name } = elements[side]!;
      if (name !== 'link' && name !== 'style') count++;
    }
    steps.push(count);
    if (at.parent < 0) break;
    at = elements[at.parent]!;
  }
  const climbed = ancestors.get(at.index);
  const top = climbed === undefined ? 'the top' : climbed === 1 ? 'its parent' : `ancestor ${climbed}`;
  return steps.length === 0 ? top : `${top}, down ${steps.reverse().join('.')}`;
}
