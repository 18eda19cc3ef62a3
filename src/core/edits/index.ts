// Stage 6, edits. In: styles with their members. Out: edits by source offset for pages and the shared sheet, and the
// texts they lead to.

export { applyEdits, type Edit, reverseEdits } from './edit.js';
export { planLink } from './link.js';
export { type Move, planEdits, type SitePlan } from './plan.js';
export { declarationText, type Placed } from './shared-sheet.js';
export { commonScope, type Demand, demandOf, type StrongerRule } from './strength.js';
