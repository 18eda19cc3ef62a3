// Whether a page keeps to a policy of `style-src 'self'` (https://www.w3.org/TR/CSP3/#directive-style-src): no style
// attributes, no style blocks, no sheet of another origin.

import type { Page } from '../read/markup/index.js';

export function stylesFromSelf(page: Page): boolean {
  return sheetsFromSelf(page) && page.elements.every(({ style }) => style === undefined);
}

/** Whether it would once no tag of it had a style. */
export function sheetsFromSelf({ inert, sheets }: Page): boolean {
  return (
    inert.length === 0 &&
    sheets.every(
      (reference) => reference.kind === 'link' && !/^\s*(?:[a-z][\w+.-]*:|\/\/)/i.test(reference.address),
    )
  );
}
