// Stage 9, edits. In: styles with their members. Out: edits by source offset for pages and sheets, and the texts they
// lead to.

export { editTagStyle } from './attributes.js';
export { planClassMoves, withoutClasses } from './class-moves.js';
export { applyEdits, composeEdits, type Edit, originalOffset, reverseEdits } from './edit.js';
export { planIdClasses } from './id-classes.js';
export {
  joined,
  withClasses,
  withoutAttribute,
  withoutDeclarations,
  withoutEntries,
  withoutWords,
} from './in-tag.js';
export { copiesWith, lineFor, linksIn, planBlock, planLink, saysWhatAllLink, sheetsBeside } from './link.js';
export { newline as newlineOf } from './newline.js';
export { ownBlockOf } from './own-block.js';
export {
  addLinks,
  applyToSources,
  hasBehind,
  isLinkable,
  linkOn,
  planEdits,
  push,
  type SitePlan,
} from './plan.js';
export { type RootValue, writeRootValues } from './root-values.js';
export { planRuleMoves } from './rule-moves.js';
export {
  changeText,
  concerns,
  type DeclarationChange,
  editRule,
  indentAt,
  indentUnit,
  rangeWithLine,
  ruleBehind,
  withoutRule,
} from './rules.js';
export { planSections } from './sections.js';
export {
  emptyPart,
  partRange,
  writeRules,
} from './shared-sheet.js';
export { type Edits, inOneStep, stateAfter } from './state.js';
export { type Strengthened, strengthen } from './strength.js';
