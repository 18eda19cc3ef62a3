// Rules of states as rules that hold at rest, so that a state can be shown beside what is there without it.

import type { SiteModel } from '../../cascade/index.js';
import type { Page } from '../../read/markup/index.js';
import { SHOWN_STATES } from './pointed.js';

/** In: a page. Out: what its sheets declare of states, of the element that is shown in one; an attribute weighs what a state does. */
export function stateRules(model: SiteModel, page: Page): string {
  const [reader] = model.readersOf(page);
  if (reader === undefined) return '';
  const found: string[] = [];
  for (const { program } of reader.sheetOrder.uses) {
    for (const { rule, selector } of program.rules) {
      const text = selector.text.trim();
      const shown = inState(text);
      if (shown === undefined || rule.declarations.length === 0) continue;
      const body = program.sheet.text.slice(rule.selectorRange.end, rule.range.end);
      // A selector that is nested, or within a scope, means something in its place only.
      if (rule.nesting.length > 1 || rule.scope !== undefined || !/^\s*\{/.test(body)) continue;
      const own = rule.conditions.reduceRight(
        (css, { kind, text: of }) => `@${kind} ${of}{${css}}`,
        `${shown}${body}`,
      );
      found.push(own);
    }
  }
  return found.join('\n').replaceAll('</', '<\\/');
}

/** `a.fare:hover`, `.card:hover a`; `undefined` for a selector that asks for no state, or for one in a way of its own. */
function inState(selector: string): string | undefined {
  const state = new RegExp(`:(${SHOWN_STATES.join('|')})(?![\\w-])`, 'g');
  // What stands in brackets is no state that holds by itself.
  const outside = selector.replace(/\([^()]*(?:\([^()]*\)[^()]*)*\)|\[[^\]]*\]/g, (text) =>
    ' '.repeat(text.length),
  );
  const found = [...outside.matchAll(state)];
  if (found.length === 0 || found.length < [...selector.matchAll(state)].length) return undefined;
  let text = selector;
  for (const { index, 0: whole, 1: name } of found.reverse())
    text = `${text.slice(0, index)}[data-sampler~="${name}"]${text.slice(index + whole.length)}`;
  return text;
}
