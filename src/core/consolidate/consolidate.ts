// The whole way from a site to its proven change. In: a site and what a person has decided. Out: edits, what they are for,
// and what stays with its reason. The steps: values that a person wants made the same, rules
// that stand more than once, styling in the markup, names for values. Every step but the first is proven.

import type { SiteModel } from '../cascade/index.js';
import type { Decisions, KeptElsewhere } from '../draft/index.js';
import { type Edits, inOneStep, originalOffset } from '../edits/index.js';
import type { SharedSheet } from '../parts.js';
import { type Judge, PROVE, type Proof, prove, TRUST } from '../proof/index.js';
import {
  type Decided,
  findNearMisses,
  findSheetMoves,
  groupsIn,
  type Kept,
  type NearValue,
  type PlaceOf,
  type ScopeTaste,
  type SheetMove,
  sheetValues,
  type Taste,
  type ValueToken,
} from '../search/index.js';
import { placeIn } from '../source.js';
import { type Carrier, type CarrierOptions, carriersOf, keptText, type SiteScripts } from '../stock/index.js';
import type { Trace } from '../trace.js';
import { refusedMoves, refusedValues } from './elsewhere.js';
import { consolidateMarkup } from './markup.js';
import { changeValues } from './near-misses.js';
import { consolidateSheets, type SheetsResult } from './sheets.js';
import { consolidateTokens } from './tokens.js';
import { sizeOf, UpkeepCount, upkeepOf } from './upkeep.js';

export interface ConsolidationInput {
  readonly model: SiteModel;
  readonly scripts: SiteScripts;
  /** Sheets that may be edited. */
  readonly themes: readonly string[];
  /** Of these, the sheets that documents load which nobody read: nothing in them comes to lean on another sheet. */
  readonly unseen?: ReadonlyMap<string, readonly string[]> | undefined;
  readonly shared: SharedSheet;
  readonly carriers: CarrierOptions;
  readonly atLeast: number;
  readonly taste: Taste;
  readonly scope: ScopeTaste;
  readonly onStep?: ((step: string) => void) | undefined;
  readonly trace?: Trace | undefined;
}

export interface Consolidation {
  readonly sheetMoves: readonly SheetMove[];
  readonly styles: Decided['styles'];
  readonly tokens: readonly ValueToken[];
  readonly nearMisses: readonly NearValue[];
  /** The only change of looks: elements that the values asked for have changed. */
  readonly changed: { readonly elements: number; readonly pages: number };
  readonly kept: readonly Kept[];
  /** Rules and names for values that the proof did not vouch for. */
  readonly keptElsewhere: readonly KeptElsewhere[];
  readonly placeOf: PlaceOf;
  /** On the texts of the site as it is. */
  readonly edits: Edits;
  readonly after: SiteModel;
  readonly proof: Proof;
  readonly upkeep: { readonly now: number; readonly after: number };
  /** Characters in pages and in sheets that may be edited. */
  readonly size: { readonly now: number; readonly after: number };
}

export function consolidate(input: ConsolidationInput, decisions: Decisions): Consolidation {
  const { model, scripts, themes, shared, atLeast } = input;
  const step = (name: string): void => input.onStep?.(name);
  const owned = [...new Set([...themes, shared.path])];
  const nearMisses = findNearMisses(model, themes);
  const open = themes.filter((path) => input.unseen?.has(path) !== true);
  const changed = changeValues(model, themes, decisions.values);
  step('rules that stand more than once');
  const moves = decisions.sheetMoves(
    findSheetMoves(
      changed.after,
      open.filter((path) => path !== shared.path),
      atLeast,
    ),
  );
  const carriers = carriersOf(changed.after, scripts, input.carriers);
  if (input.trace !== undefined) tellStock(carriers, input.trace);
  const placesOn = (pages: ReadonlySet<string>): number =>
    carriers
      .filter(({ page }) => pages.has(page.path))
      .reduce((all, { units }) => all + units.filter(({ objection }) => objection === undefined).length, 0);
  const steps = (first: Judge, then: Judge): { sheets: SheetsResult; placeOf: PlaceOf; done: Steps } => {
    const sheets = consolidateSheets(changed.after, moves, shared, placesOn, first);
    const own = sheets.after === changed.after ? carriers : carriersOf(sheets.after, scripts, input.carriers);
    const moved = inOneStep(model, [changed.edits, sheets.edits]);
    const placeOf: PlaceOf = ({ page, start }) => {
      const edits = moved.get(page.path);
      const offset = edits === undefined ? start : originalOffset(edits, start);
      return placeIn(page.path, model.sources.pages.get(page.path) ?? page.text, offset);
    };
    return {
      sheets,
      placeOf,
      done: inSheets(input, decisions, { carriers: own, sheets, placeOf, judge: then }),
    };
  };
  // What the search proposes has been tried on every kind of element: as a rule one proof of the whole is enough. Rules
  // that move from pages to the shared sheet have not, and are proven first.
  const untried = moves.some(({ kind }) => kind === 'from style blocks');
  let { sheets, placeOf, done } = steps(untried ? PROVE : TRUST, TRUST);
  let upkeep = new UpkeepCount(done.after);
  let proof = prove(changed.after, done.after, { perPage: 1, onPage: (page) => upkeep.add(page) });
  if (proof.differences.length > 0) {
    ({ sheets, placeOf, done } = steps(PROVE, PROVE));
    proof = { ...done.proof, differences: [] };
    upkeep = new UpkeepCount(done.after);
    for (const page of done.after.pages) upkeep.add(page);
  }
  return {
    sheetMoves: sheets.moves,
    styles: done.styles,
    tokens: done.tokens,
    nearMisses,
    changed: { elements: changed.elements, pages: changed.pages },
    kept: done.kept,
    keptElsewhere: [...refusedMoves(sheets.refused, model), ...done.keptElsewhere],
    placeOf,
    edits: inOneStep(model, [changed.edits, sheets.edits, ...done.edits]),
    after: done.after,
    proof,
    upkeep: { now: upkeepOf(model, owned), after: upkeep.of(owned) },
    size: { now: sizeOf(model, owned), after: sizeOf(done.after, owned) },
  };
}

function tellStock(carriers: readonly Carrier[], trace: Trace): void {
  let found = 0;
  for (const carrier of carriers)
    for (const unit of carrier.units) {
      if (!trace.follows(carrier, unit)) continue;
      found++;
      const where = unit.from.kind === 'attributes' ? unit.from.names.join(', ') : unit.from.kind;
      const fate = unit.objection === undefined ? 'may move' : `must stay: ${keptText(unit.objection)}`;
      trace.say('stock', `${unit.key}, written as ${where}; ${fate}`);
    }
  if (found === 0) trace.say('stock', 'no such declaration stands in a tag there');
}

interface Steps
  extends Pick<Consolidation, 'styles' | 'tokens' | 'kept' | 'keptElsewhere' | 'after' | 'proof'> {
  readonly edits: readonly Edits[];
}

/** What is known once rules have moved out of pages. */
interface Begun {
  readonly carriers: readonly Carrier[];
  readonly sheets: SheetsResult;
  readonly placeOf: PlaceOf;
  readonly judge: Judge;
}

/** The steps that write into the shared sheet: styling out of the markup, equal rules made one, names for values. */
function inSheets(
  input: ConsolidationInput,
  decisions: Decisions,
  { carriers, sheets, placeOf, judge }: Begun,
): Steps {
  const { scripts, themes, unseen, shared, atLeast, taste, scope, trace } = input;
  const step = (name: string): void => input.onStep?.(name);
  step('styling in the markup');
  const markup = consolidateMarkup(sheets.after, scripts, carriers, {
    shared,
    atLeast,
    taste,
    scope,
    apart: sheets.apart,
    strangers: unseen?.get(shared.path) ?? [],
    decide: (found) => decisions.styles(found, placeOf),
    judge,
    onRound: (round) => {
      if (round > 1) step(`styling in the markup, round ${round}`);
    },
    trace,
  });
  // A class and a selector that say the same are one rule.
  const groups = groupsIn(markup.after, shared.path, atLeast);
  const grouped = consolidateSheets(markup.after, groups, shared, () => 0, judge);
  step('names for values');
  // A name is defined in the shared sheet, which a document that nobody read may lack.
  const named = [...themes, shared.path].filter((path) => path === shared.path || unseen?.has(path) !== true);
  const values = decisions.tokens(sheetValues(grouped.after, [...new Set(named)]), grouped.after);
  const tokens = consolidateTokens(grouped.after, sheets.after, values, shared, judge);
  step('proof');
  return {
    styles: markup.styles,
    tokens: tokens.tokens,
    kept: markup.kept,
    keptElsewhere: refusedValues(tokens.refused, grouped.after),
    after: tokens.after,
    proof: markup.proof,
    edits: [markup.plan.edits, grouped.edits, tokens.edits],
  };
}
