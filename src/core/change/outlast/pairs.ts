// The elements of a page before and after its markup changed: paired as far as they are the same.

import { diffArrays } from 'diff';
import type { Page } from '../../read/markup/index.js';

/** Out: index before to index after, for elements of the same name, id and text in the same order. */
export function pairElements(before: Page, after: Page): Map<number, number> {
  const pairs = new Map<number, number>();
  if (before === after) {
    for (const { index } of before.elements) pairs.set(index, index);
    return pairs;
  }
  let [i, j] = [0, 0];
  for (const { added, removed, count } of diffArrays(keysOf(before), keysOf(after))) {
    if (added) j += count;
    else if (removed) i += count;
    else for (let k = 0; k < count; k++) pairs.set(i++, j++);
  }
  return pairs;
}

/** Classes are left out: they are what an update renames. */
function keysOf({ elements, texts }: Page): string[] {
  const own = new Map<number, string>();
  for (const { parent, value } of texts) own.set(parent, `${own.get(parent) ?? ''}${value.trim()}`);
  return elements.map(({ index, name, id }) => `${name}#${id ?? ''} ${own.get(index) ?? ''}`);
}
