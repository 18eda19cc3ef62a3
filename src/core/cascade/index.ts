// Stage 3, cascade. In: a page and the sheets it uses. Out: which rules match each element, under which conditions,
// and its outcome lists.

export { type HintDeclaration, hintDeclarations, isExactHint } from './hints.js';
export { Matcher, type MatcherOptions } from './matcher.js';
export {
  type Matched,
  type Origin,
  type Outcome,
  type OutcomeList,
  type Outcomes,
  OutcomeTable,
  outcomesForm,
  StyleReader,
  withoutIdle,
} from './outcome.js';
export { compileSelectors, compileSheet, type Program } from './program.js';
export type { Entry, ProgramRule } from './rule-index.js';
export { compileSelectorList } from './selector.js';
export {
  type ComplexSelector,
  type Compound,
  ONE_CLASS,
  ONE_ID,
  specificityParts,
} from './selector-model.js';
export { SiteModel, type SiteSources } from './site-model.js';
export { type SheetTexts, SiteStyles } from './site-styles.js';
export {
  buildStack,
  type ProgramSource,
  rankLayers,
  type SheetSource,
  type SheetUse,
  type Stack,
  type UnreadSheet,
} from './stack.js';
export { ALWAYS, NEVER, type Truth, TruthTable } from './truth.js';
