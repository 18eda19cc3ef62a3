// Stage 8, draft. In: what a search found. Out: the draft that a person reads, decides on and edits; and from the draft the
// decisions about what is found.

export {
  classId,
  type Decisions,
  decide,
  type Found,
  idClassId,
  moveId,
  partId,
  sectionId,
  styleId,
} from './decisions.js';
export { entriesOf, movedCount, movePlace, type SheetChanges } from './entries.js';
export { type KeptElsewhere, type KeptGroup, keptGroups } from './kept-groups.js';
export type { NamingOptions, OwnedSheet } from './naming.js';
export {
  type AdoptionReport,
  adoptionSchema,
  DRAFT_FILE,
  type Draft,
  type DraftStyle,
  draftSchema,
} from './schema.js';
export { type Answer, answerDraft, parseDraft, renderDraft } from './text.js';
