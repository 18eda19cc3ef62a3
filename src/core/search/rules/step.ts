// One search of the rules of a site, as one step of its consolidation.

import { type SiteModel, writtenClasses } from '../../cascade/index.js';
import type { Carrier, KeptReason, SiteScripts } from '../../stock/index.js';
import { takeCensus } from '../census.js';
import { type ClassMove, helperClasses } from '../helper-classes.js';
import { mayMatchIn, mayMatchMade } from '../made.js';
import { Trials } from '../trial.js';
import { findRuleMoves, type OwnRule, ownRules, type RuleMove } from './index.js';
import { type SectionValue, sectionValues } from './sections.js';

export interface RuleStep {
  readonly scripts: SiteScripts;
  readonly carriers: readonly Carrier[];
  /** Sheets that may be edited. */
  readonly themes: readonly string[];
  /** Site path of the shared sheet. */
  readonly shared: string;
  readonly atLeast: number;
  /** Texts of documents that load the shared sheet and were not read. */
  readonly strangers: readonly string[];
  readonly refused: ReadonlyMap<string, KeptReason>;
  readonly isWanted: (move: RuleMove) => boolean;
  readonly weaken: boolean;
}

export function ruleMovesOf(model: SiteModel, step: RuleStep): ReturnType<typeof findRuleMoves> {
  const { scripts, carriers, themes, shared, atLeast, strangers, refused, isWanted, weaken } = step;
  const made = scripts.madeOn(model.pages);
  return findRuleMoves(model, {
    census: takeCensus(model, carriers),
    trials: new Trials(model.table.truths),
    sheets: [
      ...(model.sheetAt(shared) === undefined ? [] : [shared]),
      ...themes.filter((path) => path !== shared),
    ],
    shared,
    atLeast,
    isRefused: (selector) =>
      mayMatchMade(selector, made) || strangers.some((text) => mayMatchIn(selector, text)),
    refused,
    isWanted,
    weaken,
  });
}

/** Classes that could leave their tags. */
export function classMovesOf(
  model: SiteModel,
  {
    scripts,
    carriers,
    themes,
    asked,
  }: Pick<RuleStep, 'scripts' | 'carriers' | 'themes'> & { readonly asked: ReadonlySet<string> },
): ClassMove[] {
  const census = takeCensus(model, carriers);
  return helperClasses(model, census, { rules: ownRules(model, census, themes), scripts, asked });
}

/** Values that differ by section of the site, and the rules that they stand in. */
export function sectionsOf(
  model: SiteModel,
  { carriers, themes }: Pick<RuleStep, 'carriers' | 'themes'>,
): { readonly rules: readonly OwnRule[]; readonly values: readonly SectionValue[] } {
  const rules = ownRules(model, takeCensus(model, carriers), themes);
  return { rules, values: sectionValues(model, rules, themes) };
}

/** Classes that the rules of a developer ask for. */
export function classesAsked(model: SiteModel, themes: readonly string[]): Set<string> {
  const found = new Set<string>();
  const note = (selectors: readonly string[]): void => {
    for (const text of selectors) for (const { name } of writtenClasses(text)) found.add(name);
  };
  for (const path of themes)
    for (const { selectors } of model.sheetAt(path)?.sheet.rules ?? []) note(selectors);
  const seen = new Set<string>();
  for (const page of model.pages)
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || seen.has(reference.text)) continue;
      seen.add(reference.text);
      for (const { selectors } of model.block(reference.text, page).sheet.rules) note(selectors);
    }
  return found;
}
