// Steps through a page's elements, by their indexes in document order.

import type { PageElement } from '../read/markup/index.js';
import type { ComplexSelector } from './selector-model.js';

/** The index behind the last element inside. */
export function subtreeEnd(elements: readonly PageElement[], element: PageElement): number {
  for (let at: PageElement | undefined = element; at !== undefined; at = elements[at.parent]) {
    if (at.next >= 0) return at.next;
  }
  return elements.length;
}

/** Elements that could be the last compound of a relative selector anchored at `element`. */
export function* reachable(
  elements: readonly PageElement[],
  { relative }: ComplexSelector,
  element: PageElement,
): Iterable<number> {
  const sideways = relative === '+' || relative === '~';
  const end = subtreeEnd(elements, sideways ? (elements[element.parent] ?? element) : element);
  for (let index = sideways ? subtreeEnd(elements, element) : element.index + 1; index < end; index++)
    yield index;
}

/** Where a combinator leads from an element: to its parent, or to the sibling before it. -1 for nowhere. */
export function stepFrom(elements: readonly PageElement[], from: number, combinator: string): number {
  const element = elements[from]!;
  return combinator === ' ' || combinator === '>' ? element.parent : element.previous;
}
