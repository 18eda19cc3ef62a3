// What stands around the tops of a part, for who asks of one of its elements.

import type { Chain, Page, PageElement } from '../markup/index.js';

export const NO_CHAINS: readonly Chain[] = [];

/** In: an element of a part. Out: the ways in which it is shown; none where it may be in any other. */
export function chainsAround(page: Page, element: PageElement): readonly Chain[] {
  const { around, elements } = page;
  if (around === undefined) return NO_CHAINS;
  let top = element;
  while (top.parent >= 0) top = elements[top.parent]!;
  const at = top.tag?.range.start;
  if (at === undefined) return NO_CHAINS;
  return around.ranges.find(({ start, end }) => start <= at && at < end)?.chains ?? NO_CHAINS;
}

/** Names it: equal keys, equal answers. */
export function aroundKey(page: Page, element: PageElement): string {
  return chainsAround(page, element)
    .map(({ key }) => key)
    .join('|');
}
