// The selector of a text that is one, and no list.

import { compileSelectorList } from './selector.js';
import type { ComplexSelector } from './selector-model.js';

/** Out: `undefined` for a text that is none, and for a list of several. */
export function compileSelector(text: string): ComplexSelector | undefined {
  const list = compileSelectorList(text);
  return list.kind === 'list' && list.selectors.length === 1 ? list.selectors[0] : undefined;
}
