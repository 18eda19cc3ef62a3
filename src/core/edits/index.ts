// Stage 6, edits. In: styles with their members. Out: edits by source offset for pages and sheets, and the texts they
// lead to.

export { applyEdits, composeEdits, type Edit, originalOffset, reverseEdits } from './edit.js';
export { planBlock, planLink } from './link.js';
export { newline as newlineOf } from './newline.js';
export {
  addLinks,
  applyToSources,
  type NamedStyle,
  planEdits,
  push,
  rulesOf,
  type SitePlan,
  selectorsOf,
} from './plan.js';
export {
  changeText,
  type DeclarationChange,
  editRule,
  indentAt,
  ruleBehind,
  withoutRule,
} from './rules.js';
export {
  declarationText,
  emptyPart,
  type PartNames,
  type Placed,
  partRange,
  type SharedRule,
  writeRules,
} from './shared-sheet.js';
export { type Strengthened, strengthen } from './strength.js';
