// Stage 5, cascade. In: a page and the sheets it uses. Out: which rules match each element, under which conditions,
// and its outcome lists.

export { aroundKey, chainsAround } from './around.js';
export { AtRest } from './at-rest.js';
export { beaterOf, canWin } from './can-win.js';
export { mirrored } from './direction.js';
export { Matcher } from './matcher.js';
export { changedSelectors, mayMatchOn, mayStandOn } from './may-stand.js';
export { readMedia } from './media.js';
export { eachMoment, excludes, featuresOf, type Holds, implies } from './moments.js';
export type { MatcherOptions } from './name-match.js';
export { compileSelector } from './one-selector.js';
export { StyleReader } from './outcome.js';
export { outcomesForm, withoutIdle } from './outcome-form.js';
export type {
  Matched,
  MatchedSheets,
  Outcome,
  OutcomeList,
  Outcomes,
  OwnStyling,
  TakenOut,
  TrialPlace,
  TrialRule,
  WrittenIn,
} from './outcome-model.js';
export { OutcomeTable } from './outcome-table.js';
export { compileBlock, compileSelectors, compileSheet, conditionTruth, type Program } from './program.js';
export { UNSCOPED } from './program-matches.js';
export type { Block, Entry, ProgramRule } from './rule-index.js';
export { isMeant, ScriptStates } from './script-states.js';
export { compileSelectorList } from './selector.js';
export {
  type ComplexSelector,
  type Compound,
  ONE_CLASS,
  ONE_ID,
  specificityParts,
} from './selector-model.js';
export { rangesOfClass, type WrittenClass, writtenClasses } from './selector-text.js';
export {
  asksMoreThanNames,
  type CompoundPlace,
  classesIn,
  eachCompound,
  eachRuleCompound,
  namesIn,
  onlyClass,
  onlyName,
} from './selector-walk.js';
export {
  buildSheetOrder,
  type ProgramSource,
  placeInSource,
  rankLayers,
  type SheetOrder,
  type SheetSource,
  type SheetUse,
  type UnreadSheet,
} from './sheet-order.js';
export { type Alike, type LeftOut, type LikeTag, SiteModel, type SiteSources } from './site-model.js';
export { type ScriptText, type SheetTexts, SiteStyles } from './site-styles.js';
export { subtreeEnd } from './tree-steps.js';
export { ALWAYS, NEVER, type Truth, TruthTable } from './truth.js';
export { type Edge, edgeBetween, undefeatedFor, type Weighed } from './weigh.js';
export { holdsWrittenValues, isOpaque, isWrittenByEngine, writtenDeclarations } from './written-style.js';
