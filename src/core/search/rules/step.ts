// One search of the rules of a site, as one step of its consolidation.

import type { KeptReason } from '../../base/reasons/index.js';
import { type SiteModel, writtenClasses } from '../../cascade/index.js';
import type { Page } from '../../read/markup/index.js';
import { listItems } from '../../read/sheets/index.js';
import type { SiteScripts, StyledTag } from '../../stock/index.js';
import { type Census, takeCensus } from '../census.js';
import { type ClassMove, helperClasses } from '../helper-classes.js';
import { mayMatchIn, mayMatchMade } from '../made.js';
import { Trials } from '../trial.js';
import { reachesUnseen } from '../unseen.js';
import { type IdClass, idClasses } from './id-classes.js';
import { findRuleMoves, type OwnRule, ownRules, type RuleMove } from './index.js';
import { type SectionValue, sectionValues } from './sections.js';

export interface RuleStep {
  readonly scripts: SiteScripts;
  readonly styledTags: readonly StyledTag[];
  /** Sheets that may be edited. */
  readonly themes: readonly string[];
  /** Site path of the shared sheet. */
  readonly shared: string;
  readonly atLeast: number;
  /** Texts of documents that load the shared sheet and were not read. */
  readonly unreadDocuments: readonly string[];
  readonly refused: ReadonlyMap<string, KeptReason>;
  /** Whether a page could link the shared sheet, or does. */
  readonly mayLink: (page: Page) => boolean;
  readonly isWanted: (move: RuleMove) => boolean;
  readonly weaken: boolean;
}

/** Whose rules may be edited. */
type Owned = Pick<RuleStep, 'styledTags' | 'themes' | 'shared' | 'unreadDocuments'>;

interface Base {
  readonly census: Census;
  readonly rules: readonly OwnRule[];
}

const bases = new WeakMap<SiteModel, Base>();

/** The elements of a state and the rules of a developer; a search that takes something leaves it used up. */
function baseOf(model: SiteModel, { styledTags, themes, shared, unreadDocuments }: Owned): Base {
  let base = bases.get(model);
  if (base === undefined) {
    // Nothing is taken out of a sheet that a document loads which nobody read.
    const sheets = model.sheetAt(shared) === undefined || unreadDocuments.length > 0 ? [] : [shared];
    const census = takeCensus(model, styledTags);
    base = { census, rules: ownRules(model, census, [...new Set([...sheets, ...themes])]) };
    bases.set(model, base);
  }
  return base;
}

/** Whether a sheet has a rule that names several ids one by one. */
function namesIds(model: SiteModel, path: string): boolean {
  return (model.sheetAt(path)?.sheet.rules ?? []).some(
    ({ selector }) => listItems(selector).filter((one) => one.startsWith('#')).length > 2,
  );
}

/** Whether a state has rules that could be searched at all. */
function hasRules(model: SiteModel, themes: readonly string[]): boolean {
  return (
    themes.some((path) => (model.sheetAt(path)?.sheet.rules.length ?? 0) > 0) ||
    model.pages.some(
      ({ kind, sheets }) =>
        kind === 'page' && sheets.some((one) => one.kind === 'block' && one.isFixed !== true),
    )
  );
}

export function ruleMovesOf(model: SiteModel, step: RuleStep): ReturnType<typeof findRuleMoves> {
  const { scripts, themes, shared, atLeast, unreadDocuments, refused, isWanted, weaken, mayLink } = step;
  if (!hasRules(model, [shared, ...themes])) return { moves: [], pasted: [] };
  const made = scripts.madeOn(model.pages);
  const isSeenElsewhere = (selector: string): boolean =>
    unreadDocuments.some((text) => mayMatchIn(selector, text));
  const { census, rules } = baseOf(model, step);
  const isUnseen = reachesUnseen(model, census);
  const found = findRuleMoves(model, rules, {
    census,
    trials: new Trials(model.table.truths),
    sheets: [
      ...(model.sheetAt(shared) === undefined ? [] : [shared]),
      ...themes.filter((path) => path !== shared),
    ],
    shared,
    atLeast,
    isRefused: (selector) => isUnseen(selector) || mayMatchMade(selector, made) || isSeenElsewhere(selector),
    isSeenElsewhere,
    mayLink,
    refused,
    isWanted,
    weaken,
  });
  if (found.moves.length > 0) bases.delete(model);
  return found;
}

/** Classes that could leave their tags. */
export function classMovesOf(
  model: SiteModel,
  step: Owned & { readonly scripts: SiteScripts; readonly asked: ReadonlySet<string> },
): ClassMove[] {
  const { scripts, asked } = step;
  if (!hasRules(model, [step.shared, ...step.themes]) && asked.size === 0) return [];
  const { census, rules } = baseOf(model, step);
  return helperClasses(model, census, { rules, scripts, asked });
}

/** Classes that could stand in place of ids that rules name one by one. */
export function idClassesOf(model: SiteModel, step: Owned & { readonly scripts: SiteScripts }): IdClass[] {
  const { scripts, themes, shared, unreadDocuments } = step;
  if (![shared, ...themes].some((path) => namesIds(model, path))) return [];
  const { census, rules } = baseOf(model, step);
  const made = scripts.madeOn(model.pages);
  return idClasses(model, census, rules, {
    scripts,
    trials: new Trials(model.table.truths),
    isRefused: (selector) =>
      mayMatchMade(selector, made) || unreadDocuments.some((text) => mayMatchIn(selector, text)),
  });
}

/** Values that differ by section of the site, and the rules that they stand in. */
export function sectionsOf(
  model: SiteModel,
  step: Owned,
): { readonly rules: readonly OwnRule[]; readonly values: readonly SectionValue[] } {
  const { shared, themes, unreadDocuments } = step;
  if (!hasRules(model, [shared, ...themes])) return { rules: [], values: [] };
  const { rules } = baseOf(model, step);
  const sheets = unreadDocuments.length > 0 ? themes.filter((path) => path !== shared) : [shared, ...themes];
  return { rules, values: sectionValues(model, rules, [...new Set(sheets)]) };
}

/** Classes that the rules of a developer ask for. */
export function classesAsked(model: SiteModel, themes: readonly string[]): Set<string> {
  const found = new Set<string>();
  const note = (selectors: readonly string[]): void => {
    for (const text of selectors) for (const { name } of writtenClasses(text)) found.add(name);
  };
  for (const path of themes) for (const { nesting } of model.sheetAt(path)?.sheet.rules ?? []) note(nesting);
  const seen = new Set<string>();
  for (const page of model.pages)
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || seen.has(reference.text)) continue;
      seen.add(reference.text);
      for (const { nesting } of model.block(reference.text, page).sheet.rules) note(nesting);
    }
  return found;
}
