// Stage 4, stock. In: a site model and its scripts. Out: what is written where and how often, what is broken, and the
// style attributes cut into units that can move.

export { mergeStock, type StockData, StockTaker } from './book.js';
export {
  type CarriedUnit,
  type Carrier,
  type CarrierOptions,
  carriersOf,
  readStyle,
  type StyleAttribute,
  type UnitSource,
} from './carriers.js';
export { type ColourUse, coloursIn, type NearMiss, nearMisses } from './colour-uses.js';
export type { Finding, FindingKind } from './findings.js';
export { type KeptReason, keptText } from './kept.js';
export { reachSheets, type SheetShelf } from './links.js';
export { type ScriptSources, SiteScripts } from './site-scripts.js';
export { groupBy, type RepeatedSet, type Survey, type SurveyInput, type Tally, takeStock } from './survey.js';
export { undecidedReason } from './undecided.js';
export { declarationKey, type Unit, unitsOf } from './units.js';
