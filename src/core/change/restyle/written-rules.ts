// The rules of a theme that stand under a selector: in its sheets, and in the style blocks of its pages.

import { type Place, placeIn } from '../../base/source.js';
import {
  ALWAYS,
  compileSelectorList,
  conditionTruth,
  implies,
  type SiteModel,
  type Truth,
} from '../../cascade/index.js';
import type { StyleRule } from '../../read/sheets/index.js';

export interface WrittenRule {
  /** Of the sheet, or of the page whose block it stands in. */
  readonly path: string;
  /** Where the sheet's text begins in the file. */
  readonly offset: number;
  /** The sheet's or block's own text. */
  readonly text: string;
  readonly isBlock: boolean;
  readonly rule: StyleRule;
  /** Whether the rule is for what was asked about alone, or for other selectors too. */
  readonly whole: boolean;
  readonly place: Place;
}

/** One form for every spelling of a selector. */
export function selectorForm(text: string): readonly string[] | undefined {
  const list = compileSelectorList(text);
  return list.kind === 'invalid' ? undefined : list.selectors.map((one) => one.text);
}

/** In: a selector or a list of them. Out: the rules whose list is it, or has it in, in the order of the files. */
export function rulesUnder(model: SiteModel, themes: readonly string[], selector: string): WrittenRule[] {
  const wanted = selectorForm(selector);
  if (wanted === undefined) return [];
  return allRules(model, themes).flatMap((one) => {
    // In a scope the selector means something else.
    if (one.rule.nesting.length !== 1 || one.rule.scope !== undefined) return [];
    const own = selectorForm(one.rule.selector);
    if (own === undefined || !wanted.every((text) => own.includes(text))) return [];
    return [{ ...one, whole: own.length === wanted.length }];
  });
}

/**
 * The conditions under which a rule holds: its own, and those under which pages use the sheet or block that it stands in.
 * A sheet that some page always uses has none.
 */
export function conditionOf(model: SiteModel, { path, offset, isBlock, rule }: WrittenRule): Truth {
  const { truths } = model.table;
  const own = truths.and(...rule.conditions.map((condition) => conditionTruth(condition, truths)));
  const uses = new Set<Truth>();
  for (const page of isBlock ? [model.page(path)] : model.pages) {
    if (page?.kind !== 'page') continue;
    for (const { source, condition } of model.sheetOrderOf(page).uses)
      if (source.path === path && source.isBlock === isBlock && (!isBlock || source.offset === offset))
        uses.add(condition);
  }
  return truths.and(own, uses.size === 0 || uses.has(ALWAYS) ? ALWAYS : truths.or(...uses));
}

/** Whether a rule holds in a medium and in no other: `(width <= 40em)` is `(max-width: 40em)`. */
export function holdsIn(model: SiteModel, written: WrittenRule, medium: Truth): boolean {
  const { truths } = model.table;
  const own = conditionOf(model, written);
  return own === medium || (implies(own, medium, truths) && implies(medium, own, truths));
}

const listed = new WeakMap<SiteModel, { themes: readonly string[]; rules: readonly WrittenRule[] }>();

/** Every rule of the theme's sheets and of style blocks, read once. */
export function allRules(model: SiteModel, themes: readonly string[]): readonly WrittenRule[] {
  const known = listed.get(model);
  if (known?.themes.join() === themes.join()) return known.rules;
  const rules: WrittenRule[] = [];
  for (const path of themes) {
    const sheet = model.sheetAt(path)?.sheet;
    for (const rule of sheet?.rules ?? []) {
      const { text } = sheet!;
      const place = placeIn(path, text, rule.selectorRange.start);
      rules.push({ path, offset: 0, text, isBlock: false, rule, whole: true, place });
    }
  }
  for (const page of model.pages) {
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || reference.offset === undefined) continue;
      const { offset, text } = reference;
      for (const rule of model.block(text, page).sheet.rules) {
        const place = placeIn(page.path, page.text, offset + rule.selectorRange.start);
        rules.push({ path: page.path, offset, text, isBlock: true, rule, whole: true, place });
      }
    }
  }
  listed.set(model, { themes, rules });
  return rules;
}
