// What the branches of a template leave unsure of the tree.

import type { Page, PageElement } from '../markup/index.js';

/** Whether an element stands around another one whatever branches are taken. */
export function isSurelyAround({ surelyUntil }: PageElement, { tag }: PageElement): boolean {
  return surelyUntil === undefined || (tag !== undefined && tag.range.start < surelyUntil);
}

/** Whether an element may stand in something that a branch closes in front of it. */
export function isLoose({ looseFrom }: Page, { tag }: PageElement): boolean {
  return looseFrom !== undefined && (tag === undefined || tag.range.start >= looseFrom);
}
