// Stage 6, edits. In: styles with their members. Out: edits by source offset for pages and sheets, and the texts they
// lead to.

export { applyEdits, composeEdits, type Edit, originalOffset, reverseEdits } from './edit.js';
export { planLink } from './link.js';
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
  declarationText,
  type PartNames,
  type Placed,
  type SharedRule,
  writeRules,
} from './shared-sheet.js';
export { type Strengthened, strengthen } from './strength.js';
