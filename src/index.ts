// What a script may import: every command as a function, data in and data out. `docs/api.md` shows how.

export type { AdoptDocument } from './cli/commands/adopt/document.js';
export { type AdoptOptions, adopt } from './cli/commands/adopt/run.js';
export type { DraftDocument } from './cli/commands/draft/document.js';
export { type DraftOptions, draft } from './cli/commands/draft/run.js';
export type { ExplainDocument } from './cli/commands/explain/document.js';
export { type ExplainOptions, explain } from './cli/commands/explain/run.js';
export type { FamilyDocument } from './cli/commands/family/document.js';
export { findFamilies } from './cli/commands/family/find.js';
export { type FamilyOptions, family } from './cli/commands/family/run.js';
export type { HoldDocument } from './cli/commands/hold/document.js';
export { type HoldOptions, hold } from './cli/commands/hold/run.js';
export type { OutlastDocument } from './cli/commands/outlast/document.js';
export { type OutlastOptions, outlast } from './cli/commands/outlast/run.js';
export type { OverrideDocument } from './cli/commands/override/document.js';
export {
  dropOverride,
  listOverrides,
  type OverrideOptions,
  override,
} from './cli/commands/override/run.js';
export type { ProveDocument } from './cli/commands/prove/document.js';
export {
  type BrowserOptions,
  type LiveOptions,
  type ProveOptions,
  prove,
  proveLive,
} from './cli/commands/prove/run.js';
export type { ReachDocument } from './cli/commands/reach/document.js';
export { reach } from './cli/commands/reach/run.js';
export type { RenameDocument } from './cli/commands/rename/document.js';
export { type RenameOptions, rename } from './cli/commands/rename/run.js';
export type { RestyleDocument } from './cli/commands/restyle/document.js';
export { type RestyleOptions, restyle } from './cli/commands/restyle/run.js';
export type { SamplerDocument } from './cli/commands/sampler/document.js';
export { type SamplerOptions, sampler } from './cli/commands/sampler/run.js';
export type { StarterDocument } from './cli/commands/starter/document.js';
export { type StarterOptions, starter } from './cli/commands/starter/run.js';
export type { SurveyDocument } from './cli/commands/survey/document.js';
export { type SurveyOptions, survey } from './cli/commands/survey/run.js';
export type { UndoDocument } from './cli/commands/undo/document.js';
export { undo } from './cli/commands/undo/run.js';
export type { ValuesDocument } from './cli/commands/values/document.js';
export { type ValuesOptions, values } from './cli/commands/values/run.js';
export type { VisitDocument } from './cli/commands/visit/document.js';
export { type VisitOptions, visit } from './cli/commands/visit/run.js';
export type { Followed } from './cli/shared/followed.js';
export { MESSAGES, type MessageCode } from './core/messages.js';
export { UsageError } from './core/usage-error.js';
export type { WriteOptions } from './site/ledger/write-options.js';
