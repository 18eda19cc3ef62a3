// A rule as it stands, changed: itself where it is for the meant selector alone, else a rule of its own right behind it.

import { compileSelectorList } from '../cascade/index.js';
import {
  changeText,
  type DeclarationChange,
  type Edit,
  editRule,
  ruleBehind,
  withoutRule,
} from '../edit/text/index.js';
import type { StyleRule } from '../read/sheets/index.js';

export interface RuleInText {
  /** The sheet's or block's own text. */
  readonly text: string;
  readonly rule: StyleRule;
  /** Whether the rule is for what is meant alone, or for other selectors too. */
  readonly whole: boolean;
}

/** In: what the rule is to say for `selector`. Out: edits in the sheet's or block's text. */
export function changeRule(
  { text, rule, whole }: RuleInText,
  changes: readonly DeclarationChange[],
  selector: string,
): Edit[] {
  return whole ? changeWhole(text, rule, changes) : splitOff(text, rule, changes, selector);
}

function changeWhole(text: string, rule: StyleRule, changes: readonly DeclarationChange[]): Edit[] {
  const gone = changes.filter(({ value }) => value === undefined).map(({ property }) => property);
  const left = rule.declarations.filter(({ property }) => !gone.includes(property));
  return left.length === 0 && gone.length === changes.length
    ? [withoutRule(text, withAlone(text, rule))]
    : editRule(text, rule, changes);
}

/** A rule that stands alone in a media query goes with it. */
function withAlone(text: string, rule: StyleRule): StyleRule {
  let { range } = rule;
  for (let left = rule.conditions.length; left > 0; left--) {
    const open = /@[a-z-]+[^{}]*\{\s*$/i.exec(text.slice(0, range.start));
    const close = /^\s*\}/.exec(text.slice(range.end));
    if (open === null || close === null) break;
    range = { start: open.index, end: range.end + close[0].length };
  }
  return { ...rule, range };
}

/** One selector of a list gets a rule of its own: right behind, so that nothing comes between. */
function splitOff(
  text: string,
  rule: StyleRule,
  changes: readonly DeclarationChange[],
  selector: string,
): Edit[] {
  const gone = changes.filter(({ value }) => value === undefined).map(({ property }) => property);
  if (gone.length === 0) return [ruleBehind(text, rule, selector, changes.map(changeText))];
  // What is taken out of one must stay for the others: the list loses it, and the rule behind has the rest.
  const kept = new Map<string, string>();
  for (const { property, value, important } of rule.declarations)
    if (!gone.includes(property)) kept.set(property, changeText({ property, value, important }));
  for (const change of changes) if (change.value !== undefined) kept.set(change.property, changeText(change));
  const { start, end } = rule.selectorRange;
  const list = compileSelectorList(rule.selector);
  const wanted = compileSelectorList(selector);
  if (list.kind !== 'list' || wanted.kind !== 'list') return [];
  const out = new Set(wanted.selectors.map((one) => one.text));
  const others = list.selectors.filter((one) => !out.has(one.text)).map((one) => one.text);
  const comma = /,\s*/.exec(text.slice(start, end))?.[0] ?? ', ';
  const edits: Edit[] = [{ start, end, text: others.join(comma) }];
  if (kept.size > 0) edits.push(ruleBehind(text, rule, selector, [...kept.values()]));
  return edits;
}
