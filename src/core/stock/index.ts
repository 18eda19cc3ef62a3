// Stage 6, stock. In: a site model and its scripts. Out: what is written where and how often, what is broken, and the
// style attributes cut into movable declarations that can move.

export { type ColourUse, coloursIn, type NearMiss, nearMisses } from './colour-uses.js';
export type { Finding, FindingKind } from './findings.js';
export { linkedByAll, reachSheets, type SheetShelf, sheetForAll } from './links.js';
export { mergeStock } from './merge-stock.js';
export { declarationKey, type Movable, movablesOf } from './movables.js';
export { nearName } from './near-name.js';
export { sheetsFromSelf, stylesFromSelf } from './policy.js';
export { type MadeElements, SiteScripts } from './site-scripts.js';
export { type StockData, StockTaker } from './statistics.js';
export type {
  BuiltTags,
  MovableDeclaration,
  MovableSource,
  StyleAttribute,
  StyledTag,
  StyledTagOptions,
} from './styled-tag-model.js';
export { mayEditAll, tagsOf } from './styled-tag-model.js';
export { readStyle, styledTagsOf } from './styled-tags.js';
export { type RepeatedSet, type Survey, type Tally, takeStock } from './survey.js';
export type { SurveyInput } from './survey-input.js';
export { undecidedReason, undecidedUnless } from './undecided.js';
export { sheetsBesideUnread, unreadSheetOf } from './unread-sheets.js';
