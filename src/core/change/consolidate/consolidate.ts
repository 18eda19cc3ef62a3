// The whole way from a site to its proven change. In: a site and what a person has decided. Out: edits, what they are for,
// and what stays with its reason. The steps: values that a person wants made the same, rules
// that stand more than once, styling in the markup, names for values. Every step but the first is proven.

import { keptText } from '../../base/reasons/index.js';
import { placeIn } from '../../base/source.js';
import type { SiteModel, SiteSources } from '../../cascade/index.js';
import type { Decisions, KeptElsewhere } from '../../edit/draft/index.js';
import { type Edits, inOneStep, originalOffset } from '../../edit/text/index.js';
import { type Judge, PROVE, type Proof, type ProofPart, prove, TRUST } from '../../proof/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import {
  type ClassMove,
  type Decided,
  findNearMisses,
  type Kept,
  type NamedIdClass,
  type NamedSection,
  type NearValue,
  type PlaceOf,
  type RuleMove,
  type ScopeTaste,
  sheetValues,
  type Taste,
  type ValueToken,
} from '../../search/index.js';
import {
  type BuiltTags,
  type SiteScripts,
  type StyledTag,
  type StyledTagOptions,
  styledTagsOf,
} from '../../stock/index.js';
import type { Trace } from '../../stock/trace.js';
import { type ClassesResult, consolidateClasses } from './classes.js';
import { pastedRules, refusedMoves, refusedValues } from './elsewhere.js';
import { consolidateIds } from './id-classes.js';
import { consolidateMarkup } from './markup.js';
import { changeValues } from './near-misses.js';
import { type PartGiven, takePartGiven } from './part-given.js';
import { consolidateSections } from './sections.js';
import {
  consolidateSheets,
  consolidateSheetsWhole,
  type SheetsOptions,
  type SheetsResult,
} from './sheets.js';
import { consolidateTokens } from './tokens.js';
import { sizeOf, type Upkeep, UpkeepCount, upkeepOf } from './upkeep.js';

export interface ConsolidationInput {
  readonly model: SiteModel;
  readonly scripts: SiteScripts;
  /** Sheets that may be edited. */
  readonly themes: readonly string[];
  /** Of these, the sheets that documents load which nobody read: nothing in them comes to lean on another sheet. */
  readonly unseen?: ReadonlyMap<string, readonly string[]> | undefined;
  readonly shared: SharedSheet;
  readonly styledTags: StyledTagOptions;
  readonly atLeast: number;
  /** Whether rules become as weak as their work allows. */
  readonly weaken?: boolean | undefined;
  readonly taste: Taste;
  readonly scope: ScopeTaste;
  readonly onStep?: ((step: string) => void) | undefined;
  readonly trace?: Trace | undefined;
}

export interface Consolidation {
  readonly ruleMoves: readonly RuleMove[];
  readonly classMoves: readonly ClassMove[];
  readonly parts: readonly PartGiven[];
  readonly sections: readonly NamedSection[];
  readonly ids: readonly NamedIdClass[];
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
  /** The texts that they lead to. */
  readonly after: SiteSources;
  readonly proof: Proof;
  /** What each page came to by itself; nothing where some depend on others, or are to look otherwise. */
  readonly proven: ReadonlyMap<string, ProofPart> | undefined;
  readonly upkeep: { readonly now: Upkeep; readonly after: Upkeep };
  /** Characters in pages and in sheets that may be edited. */
  readonly size: { readonly now: number; readonly after: number };
}

export function consolidate(input: ConsolidationInput, decisions: Decisions): Consolidation {
  const { model, scripts, themes, shared, atLeast } = input;
  const step = (name: string): void => input.onStep?.(name);
  // Rules may come to stand in modules of components, which are edited only so.
  const modules = [...model.sources.sheets.keys()].filter((path) => model.sources.isModule?.(path) === true);
  const owned = [...new Set([...themes, shared.path, ...modules])];
  const nearMisses = findNearMisses(model, themes);
  const open = themes.filter((path) => input.unseen?.has(path) !== true);
  const changed = changeValues(model, themes, decisions.values);
  step('rules that stand more than once');
  const styledTags = styledTagsOf(changed.after, scripts, input.styledTags);
  if (input.trace !== undefined) tellStock(styledTags, input.trace);
  const rules = {
    scripts,
    themes: open,
    shared,
    atLeast,
    unreadDocuments: input.unseen?.get(shared.path) ?? [],
    isWanted: decisions.isWanted,
    weaken: input.weaken === true,
  };
  const steps = (judge: Judge): Begun => {
    const { after: regrouped, ...sheets } = consolidateSheets(changed.after, { ...rules, styledTags, judge });
    const between =
      regrouped === changed.after ? styledTags : styledTagsOf(regrouped, scripts, input.styledTags);
    step('classes that were put on by hand');
    const { after: before, ...classes } = consolidateClasses(regrouped, {
      ...{ scripts, styledTags: between, themes: open, shared: shared.path, first: changed.after },
      unreadDocuments: rules.unreadDocuments,
      isWanted: decisions.isWantedClass,
      built: input.styledTags.built,
    });
    const own = before === regrouped ? between : styledTagsOf(before, scripts, input.styledTags);
    const moved = inOneStep(model, [changed.edits, sheets.edits, classes.edits]);
    const placeOf = placeBefore(model, moved, input.styledTags.built);
    return {
      sheets,
      classes,
      placeOf,
      done: inSheets(input, decisions, { styledTags: own, before, placeOf, judge, rules }),
    };
  };
  // What the search proposes has been tried on every kind of element: as a rule one proof of the whole is enough.
  let { sheets, classes, placeOf, done } = steps(TRUST);
  let upkeep = new UpkeepCount(done.after);
  const proven = new Map<string, ProofPart>();
  let isEach = changed.edits.size === 0;
  let proof = prove(changed.after, done.after, {
    ...{ perPage: 1, keepsUnseen: true },
    onPage: (page) => upkeep.add(page),
    onProven: (path, part) => {
      if (part === undefined) isEach = false;
      else proven.set(path, part);
    },
  });
  if (proof.differences.length > 0) {
    isEach = false;
    ({ sheets, classes, placeOf, done } = steps(PROVE));
    proof = { ...done.proof, differences: [] };
    upkeep = new UpkeepCount(done.after);
    for (const page of done.after.pages) upkeep.add(page);
  }
  return {
    ruleMoves: [...sheets.moves, ...done.ruleMoves],
    classMoves: classes.moves,
    parts: done.parts,
    sections: done.sections,
    ids: done.ids,
    styles: done.styles,
    tokens: done.tokens,
    nearMisses,
    changed: { elements: changed.elements, pages: changed.pages },
    kept: done.kept,
    keptElsewhere: [
      ...refusedMoves(sheets.refused, changed.after),
      ...pastedRules(sheets.pasted, done.pasted, changed.after),
      ...done.keptElsewhere,
    ],
    placeOf,
    edits: inOneStep(model, [changed.edits, sheets.edits, classes.edits, ...done.edits]),
    after: done.after.sources,
    proof,
    proven: isEach ? proven : undefined,
    upkeep: { now: upkeepOf(model, owned), after: upkeep.of(owned) },
    size: { now: sizeOf(model, owned), after: sizeOf(done.after, owned) },
  };
}

/** Where styled tags of the state that edits lead to stand in the files. Made apart from the steps, so that it holds no state of theirs. */
function placeBefore({ sources }: SiteModel, moved: Edits, built: BuiltTags | undefined): PlaceOf {
  return ({ page, tag, start }) => {
    const source = built?.placeOf(page, tag);
    if (source !== undefined) return source;
    const edits = moved.get(page.path);
    const offset = edits === undefined ? start : originalOffset(edits, start);
    return placeIn(page.path, sources.pages.get(page.path) ?? page.text, offset);
  };
}

function tellStock(styledTags: readonly StyledTag[], trace: Trace): void {
  let found = 0;
  for (const styledTag of styledTags)
    for (const movable of styledTag.movables) {
      if (!trace.follows(styledTag, movable)) continue;
      found++;
      const where = movable.from.kind === 'attributes' ? movable.from.names.join(', ') : movable.from.kind;
      const fate = movable.objection === undefined ? 'may move' : `must stay: ${keptText(movable.objection)}`;
      trace.say('stock', `${movable.key}, written as ${where}; ${fate}`);
    }
  if (found === 0) trace.say('stock', 'no such declaration stands in a tag there');
}

interface Steps
  extends Pick<
    Consolidation,
    'ruleMoves' | 'parts' | 'sections' | 'ids' | 'styles' | 'tokens' | 'kept' | 'keptElsewhere' | 'proof'
  > {
  readonly after: SiteModel;
  readonly edits: readonly Edits[];
  readonly pasted: SheetsResult['pasted'];
}

/** All steps, with what the first of them found. The states between them are let go: each holds pages of its own. */
interface Begun {
  readonly sheets: Omit<SheetsResult, 'after'>;
  readonly classes: Omit<ClassesResult, 'after'>;
  readonly placeOf: PlaceOf;
  readonly done: Steps;
}

/** What is known once rules have moved, and classes are gone. */
interface Ready {
  readonly styledTags: readonly StyledTag[];
  readonly before: SiteModel;
  readonly placeOf: PlaceOf;
  readonly judge: Judge;
  readonly rules: Omit<SheetsOptions, 'styledTags' | 'judge'>;
}

/** The steps that write into the shared sheet: styling out of the markup, equal rules made one, names for values. */
function inSheets(
  input: ConsolidationInput,
  decisions: Decisions,
  { styledTags, before, placeOf, judge, rules }: Ready,
): Steps {
  const { scripts, themes, unseen, shared, atLeast, taste, scope, trace } = input;
  const step = (name: string): void => input.onStep?.(name);
  step('styling in the markup');
  const markup = consolidateMarkup(before, scripts, styledTags, {
    themes,
    shared,
    atLeast,
    outdated: input.styledTags.outdated === 'move',
    taste,
    scope,
    unreadDocuments: unseen?.get(shared.path) ?? [],
    decide: (found) => decisions.styles(found, placeOf),
    judge,
    onRound: (round) => {
      if (round > 1) step(`styling in the markup, round ${round}`);
    },
    trace,
  });
  const parts = takePartGiven(
    markup.after,
    styledTagsOf(markup.after, scripts, input.styledTags),
    decisions.isWantedPart,
  );
  const sections = consolidateSections(parts.after, {
    styledTags: styledTagsOf(parts.after, scripts, input.styledTags),
    themes: rules.themes,
    shared: shared.path,
    unreadDocuments: rules.unreadDocuments,
    decide: decisions.sections,
  });
  // What is new and what was there may have much in common.
  let left: { readonly state: SiteModel; readonly styledTags: readonly StyledTag[] } | undefined;
  const leftIn = (state: SiteModel): readonly StyledTag[] => {
    if (left?.state !== state) left = { state, styledTags: styledTagsOf(state, scripts, input.styledTags) };
    return left.styledTags;
  };
  const grouped = consolidateSheetsWhole(sections.after, (state) => ({
    ...{ ...rules, weaken: false, judge },
    styledTags: leftIn(state),
  }));
  const ids = consolidateIds(grouped.after, {
    ...{ scripts, themes: rules.themes, shared: shared.path, unreadDocuments: rules.unreadDocuments },
    styledTags: leftIn(grouped.after),
    built: input.styledTags.built,
    decide: decisions.idClasses,
  });
  step('names for values');
  // A name is defined in the shared sheet, which a document that nobody read may lack.
  const named = [...themes, shared.path].filter((path) => path === shared.path || unseen?.has(path) !== true);
  const values = decisions.tokens(sheetValues(ids.after, [...new Set(named)]), ids.after);
  const tokens = consolidateTokens(ids.after, before, values, shared, judge);
  step('proof');
  return {
    ruleMoves: grouped.moves,
    pasted: grouped.pasted,
    styles: markup.styles,
    tokens: tokens.tokens,
    kept: markup.kept,
    parts: parts.parts,
    sections: sections.sections,
    ids: ids.classes,
    keptElsewhere: refusedValues(tokens.refused, ids.after),
    after: tokens.after,
    proof: markup.proof,
    edits: [
      ...[markup.plan.edits, parts.edits, sections.edits],
      ...[...grouped.edits, ids.edits, tokens.edits],
    ],
  };
}
