// Stage 7, search. In: tags that carry styling, rules and values. Out: a home for each movable declaration, rules and values that could be
// written once, names for what is new, and what stays with its reason.

export type { ScopeTaste } from './by-classes.js';
export { selectorText } from './by-selectors.js';
export { type Convention, readConvention, USUAL } from './convention.js';
export { TASTES, type Taste, type TasteName } from './cost.js';
export { ElementNames, Numbers, Remembered } from './element-names.js';
export { type ClassMove, classMoveKey } from './helper-classes.js';
export {
  type Decided,
  type Home,
  type Kept,
  type Member,
  type NamedStyle,
  type PlaceOf,
  pagesOf,
  partOf,
  type Style,
} from './home.js';
export { findHomes, type Search, type SearchOptions, takenOut } from './homes.js';
export { mayMatchIn } from './made.js';
export { CLASS_NAME, type NameRules, nameStyles, unnamed } from './names.js';
export { findNearMisses, type NearValue, type ValueChange, writtenValues } from './near-values.js';
export type { Strength } from './reach.js';
export { movableItem, ruleItem } from './refusals.js';
export {
  classSelectors,
  type IdClass,
  idClassKey,
  type NamedIdClass,
  wordOf,
} from './rules/id-classes.js';
export {
  type BlockPlace,
  covers,
  findRuleMoves,
  moveKey,
  type OwnRule,
  type PastedRule,
  type Replaced,
  type RuleMove,
  type RuleSearch,
  type Said,
} from './rules/index.js';
export {
  isWorthwhile,
  type NamedSection,
  rowsByRule,
  type SectionRow,
  type SectionValue,
  sectionKey,
  sectionWord,
} from './rules/sections.js';
export {
  classesAsked,
  classMovesOf,
  idClassesOf,
  type RuleStep,
  ruleMovesOf,
  sectionsOf,
} from './rules/step.js';
export { nameValue } from './token-names.js';
export { colourWord } from './traits.js';
export {
  type SheetValue,
  sheetValues,
  usualSpelling,
  type ValuePlace,
  type ValueToken,
} from './values.js';
export { type Placed, rulesOf, type SharedRule, selectorsOf } from './written.js';
export { writtenCount } from './written-count.js';
