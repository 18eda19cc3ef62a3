// What a template leaves unsure of the tree: branches that open and close tags, and what is put somewhere else than it is written.

import type { Page, PageElement } from './page.js';

/** Whether an element stands around another one whatever branches are taken, and wherever it is put. */
export function isSurelyAround(page: Page, around: PageElement, element: PageElement): boolean {
  const { surelyUntil } = around;
  const { tag } = element;
  if (surelyUntil !== undefined && (tag === undefined || tag.range.start >= surelyUntil)) return false;
  return !isPut(page, around, element, (how) => how === 'elsewhere');
}

/** Whether nothing can come between an element and its parent. */
export function isSurelyIn(page: Page, parent: PageElement, element: PageElement): boolean {
  return !isPut(page, parent, element, () => true);
}

/** Whether an element may stand in something that the tree does not show. */
export function isLoose(page: Page, element: PageElement): boolean {
  const { looseFrom, wrapped } = page;
  if (looseFrom !== undefined && (element.tag === undefined || element.tag.range.start >= looseFrom))
    return true;
  if (wrapped.length === 0) return false;
  const at = startOf(page, element);
  return wrapped.some(({ start, end }) => start <= at && at < end);
}

/** Whether anything of the above is open on a page. */
export function isUnsure({ looseFrom, wrapped, elements }: Page): boolean {
  return (
    looseFrom !== undefined ||
    wrapped.length > 0 ||
    elements.some(({ surelyUntil }) => surelyUntil !== undefined)
  );
}

/** What of an element and what stands around it is not sure: equal texts under equal elements, equal answers to all of the above. */
export function unsureForm(page: Page, element: PageElement): string {
  let form = isLoose(page, element) ? '?' : '';
  for (let at = element.parent, up = 1; at >= 0; at = page.elements[at]!.parent, up++) {
    const around = page.elements[at]!;
    if (!isSurelyAround(page, around, element)) form += `?${up}`;
    if (!isSurelyIn(page, around, element)) form += `!${up}`;
  }
  return form;
}

/** Whether an element is put somewhere, and the other one is not put there with it. */
function isPut(
  page: Page,
  around: PageElement,
  element: PageElement,
  isMeant: (how: Page['wrapped'][number]['how']) => boolean,
): boolean {
  if (page.wrapped.length === 0) return false;
  const [outer, inner] = [startOf(page, around), startOf(page, element)];
  return page.wrapped.some(
    ({ start, end, how }) => start <= inner && inner < end && outer < start && isMeant(how),
  );
}

/** Where an element begins; of one that is only implied, where the first in it does. */
function startOf({ elements }: Page, element: PageElement): number {
  let { tag } = element;
  for (let at = element.index; tag === undefined && at < elements.length; at++) tag = elements[at]!.tag;
  return tag?.range.start ?? Number.POSITIVE_INFINITY;
}
