// Stage 12, consolidate: search, edits and proof joined. In: a site, and a draft or none. Out: the draft with what adopting
// it would do, or the proven change that a draft asks for.

export { type Consolidation, type ConsolidationInput, consolidate } from './consolidate.js';
export type { DraftSite } from './draft-site.js';
export {
  type Adoption,
  type Drafted,
  type DraftOptions,
  makeDraft,
  type PagesProven,
  planAdoption,
} from './drafting.js';
export { upkeepOf } from './upkeep.js';
