// The words in attributes in which the markup keeps names for scripts: `data-opens="menu is-open"`, `value="dark"`.

import type { Page } from './page.js';

const known = new WeakMap<Page, ReadonlySet<string>>();

/** Out: words of letters, digits, `-` and `_`, of all elements. */
export function namesKept(page: Page): ReadonlySet<string> {
  let words = known.get(page);
  if (words === undefined) {
    const found = new Set<string>();
    for (const { attributes } of page.elements)
      for (const { name, value } of attributes)
        if (name.startsWith('data-') || name === 'value')
          for (const word of value.match(/[\p{L}_][\p{L}\p{N}_-]*/gu) ?? []) found.add(word);
    words = found;
    known.set(page, words);
  }
  return words;
}
