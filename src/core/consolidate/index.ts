// Stage 8, consolidate: the whole way from a site to its proven change. In: a site and what a person has decided. Out:
// edits, what they are for, and what stays with its reason. The steps: values that a person wants made the same, rules
// that stand more than once, styling in the markup, names for values. Every step but the first is proven.

import type { SiteModel } from '../cascade/index.js';
import type { PartNames } from '../edits/index.js';
import type { Proof } from '../proof/index.js';
import type { Kept, Style, Taste } from '../search/index.js';
import { type CarrierOptions, carriersOf, type SiteScripts } from '../stock/index.js';
import { type Edits, inOneStep } from './changes.js';
import { consolidateMarkup, type Decided } from './markup.js';
import { changeValues, findNearMisses, type NearValue, type ValueChange } from './near-misses.js';
import { findSheetMoves, groupsIn, type SheetMove } from './sheet-rules.js';
import { consolidateSheets } from './sheets.js';
import { consolidateTokens, type ValueToken } from './tokens.js';
import { sizeOf, upkeepOf } from './upkeep.js';
import { type SheetValue, sheetValues } from './values.js';

export type { Decided } from './markup.js';
export type { NearValue, ValueChange } from './near-misses.js';
export { conditionsOf, movePlaces, type SheetMove } from './sheet-rules.js';
export { usualSpelling, type ValueToken } from './tokens.js';
export { upkeepOf } from './upkeep.js';
export type { SheetValue } from './values.js';

export interface ConsolidationInput {
  readonly model: SiteModel;
  readonly scripts: SiteScripts;
  /** Sheets that may be edited. */
  readonly themes: readonly string[];
  /** Site path of the shared sheet. */
  readonly shared: string;
  readonly carriers: CarrierOptions;
  readonly atLeast: number;
  readonly taste: Taste;
  readonly partNames: PartNames;
}

/** What a person, or an earlier draft, has to say about what is found. */
export interface Decisions {
  readonly values: readonly ValueChange[];
  readonly sheetMoves: (found: readonly SheetMove[]) => readonly SheetMove[];
  readonly styles: (found: readonly Style[], model: SiteModel) => Decided;
  readonly tokens: (found: readonly SheetValue[], model: SiteModel) => readonly ValueToken[];
  readonly onStep?: (step: string) => void;
}

export interface Consolidation {
  readonly sheetMoves: readonly SheetMove[];
  readonly styles: Decided['styles'];
  readonly tokens: readonly ValueToken[];
  readonly nearMisses: readonly NearValue[];
  /** The only change of looks: elements that the values asked for have changed. */
  readonly changed: { readonly elements: number; readonly pages: number };
  readonly kept: readonly Kept[];
  /** On the texts of the site as it is. */
  readonly edits: Edits;
  readonly after: SiteModel;
  readonly proof: Proof;
  readonly upkeep: { readonly now: number; readonly after: number };
  /** Characters in pages and in sheets that may be edited. */
  readonly size: { readonly now: number; readonly after: number };
}

export function consolidate(input: ConsolidationInput, decisions: Decisions): Consolidation {
  const { model, scripts, themes, shared, atLeast, taste, partNames } = input;
  const step = (name: string): void => decisions.onStep?.(name);
  const owned = [...new Set([...themes, shared])];
  const nearMisses = findNearMisses(model, themes);
  const changed = changeValues(model, themes, decisions.values);
  step('rules that stand more than once');
  const moves = decisions.sheetMoves(
    findSheetMoves(
      changed.after,
      themes.filter((path) => path !== shared),
      atLeast,
    ),
  );
  const before = carriersOf(changed.after, scripts, input.carriers);
  const placesOn = (pages: ReadonlySet<string>): number =>
    before
      .filter(({ page }) => pages.has(page.path))
      .reduce((all, { units }) => all + units.filter(({ objection }) => objection === undefined).length, 0);
  const sheets = consolidateSheets(changed.after, moves, shared, partNames, placesOn);
  step('styling in the markup');
  const carriers =
    sheets.after === changed.after ? before : carriersOf(sheets.after, scripts, input.carriers);
  const markup = consolidateMarkup(sheets.after, scripts, carriers, {
    shared,
    atLeast,
    taste,
    partNames,
    apart: sheets.apart,
    decide: decisions.styles,
    onRound: (round) => {
      if (round > 1) step(`styling in the markup, round ${round}`);
    },
  });
  // A class and a selector that say the same are one rule.
  const groups = groupsIn(markup.after, shared, atLeast);
  const grouped = consolidateSheets(markup.after, groups, shared, partNames, () => 0);
  step('names for values');
  const values = decisions.tokens(sheetValues(grouped.after, owned), grouped.after);
  const tokens = consolidateTokens(grouped.after, values, shared, partNames);
  return {
    sheetMoves: sheets.moves,
    styles: markup.styles,
    tokens: tokens.tokens,
    nearMisses,
    changed: { elements: changed.elements, pages: changed.pages },
    kept: markup.kept,
    edits: inOneStep(model, [changed.edits, sheets.edits, markup.plan.edits, grouped.edits, tokens.edits]),
    after: tokens.after,
    proof: markup.proof,
    upkeep: { now: upkeepOf(model, owned), after: upkeepOf(tokens.after, owned) },
    size: { now: sizeOf(model, owned), after: sizeOf(tokens.after, owned) },
  };
}
