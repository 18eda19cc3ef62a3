// Rules of states as rules that hold at rest, so that a state can be shown beside what is there without it.

import type { SiteModel } from '../cascade/index.js';
import type { Page } from '../markup/index.js';
import { SHOWN_STATES } from './styles.js';

/** In: a page. Out: what its sheets say of states, of the element that is shown in one; an attribute weighs what a state does. */
export function stateRules(model: SiteModel, page: Page): string {
  const [reader] = model.readersOf(page);
  if (reader === undefined) return '';
  const found: string[] = [];
  for (const { program } of reader.stack.uses) {
    for (const { rule, selector } of program.rules) {
      const text = selector.text.trim();
      const shown = inState(text);
      if (shown === undefined || rule.declarations.length === 0) continue;
      const body = program.sheet.text.slice(rule.selectorRange.end, rule.range.end);
      // A selector that is nested, or within a scope, means something in its place only.
      if (rule.selectors.length > 1 || rule.scope !== undefined || !/^\s*\{/.test(body)) continue;
      const own = rule.conditions.reduceRight(
        (css, { kind, text: of }) => `@${kind} ${of}{${css}}`,
        `${shown}${body}`,
      );
      found.push(own);
    }
  }
  return found.join('\n').replaceAll('</', '<\\/');
}

/** `a.fare:hover` of the element that is shown; `undefined` for a selector that asks for no state of its subject. */
function inState(selector: string): string | undefined {
  const cut = Math.max(
    0,
    ...[...selector.matchAll(/[\s>+~]+(?![^(]*\))/g)].map(({ index, 0: all }) => index + all.length),
  );
  const subject = selector.slice(cut);
  const states = [...subject.matchAll(/:(hover|focus-visible|focus|active)(?![\w-])/g)];
  if (states.length === 0 || /:(?:not|is|where|has)\(|::/.test(subject)) return undefined;
  let text = subject;
  for (const state of SHOWN_STATES)
    text = text.replace(new RegExp(`:${state}(?![\\w-])`, 'g'), `[data-sampler~="${state}"]`);
  return `${selector.slice(0, cut)}${text}`;
}
