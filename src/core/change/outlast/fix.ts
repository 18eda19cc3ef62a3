// The weakest change of a rule that lets it win again over all that would beat it.

import { compileSelectorList } from '../../cascade/index.js';
import { strengthen } from '../../edit/text/index.js';
import type { StyleRule } from '../../read/sheets/index.js';
import type { Loss } from './losses.js';
import type { Fix } from './model.js';

/** Out: `undefined` where no selector and no importance would do. */
export function fixFor(rule: StyleRule, losses: readonly Loss[]): Fix | undefined {
  const list = compileSelectorList(rule.selector);
  // In a layer it loses to all that is in none, however it is written.
  if (list.kind === 'invalid' || rule.layer !== undefined) return undefined;
  const important = new Set<string>();
  let needed = 0;
  for (const { by, behind, property } of losses) {
    const { important: isImportant, writtenIn, weight } = by;
    if (isImportant && (writtenIn.kind === 'style attribute' || weight.layerName !== undefined))
      return undefined;
    if (isImportant || writtenIn.kind === 'style attribute') important.add(property);
    if (writtenIn.kind === 'rule' && weight.layerName === undefined)
      needed = Math.max(needed, weight.specificity + (behind ? 1 : 0));
  }
  const stronger = list.selectors.map(({ text }) => strengthen(text, needed)?.selector);
  return stronger.some((text) => text === undefined)
    ? undefined
    : { selector: stronger.join(', '), important: [...important] };
}
