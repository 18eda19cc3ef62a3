// What a script may import: every command as a function that gives its document, and prints nothing. `docs/api.md` shows how.

import type { DraftDocument } from './commands/draft/document.js';
import type { DraftOptions } from './commands/draft/draft.js';
import * as draftCommand from './commands/draft/draft.js';
import type { ExplainDocument } from './commands/explain/document.js';
import type { ExplainOptions } from './commands/explain/explain.js';
import * as explainCommand from './commands/explain/explain.js';
import type { FamilyDocument } from './commands/family/document.js';
import type { FamilyOptions } from './commands/family/family.js';
import * as familyCommand from './commands/family/family.js';
import * as familyFinder from './commands/family/find.js';
import type { OverrideDocument } from './commands/override/document.js';
import type { OverrideOptions } from './commands/override/override.js';
import * as overrideCommand from './commands/override/override.js';
import type { ProveDocument } from './commands/prove/document.js';
import type { LiveOptions, ProveOptions } from './commands/prove/prove.js';
import * as proveCommand from './commands/prove/prove.js';
import type { RenameDocument } from './commands/rename/document.js';
import type { RenameOptions } from './commands/rename/rename.js';
import * as renameCommand from './commands/rename/rename.js';
import type { RestyleDocument } from './commands/restyle/document.js';
import type { RestyleOptions } from './commands/restyle/restyle.js';
import * as restyleCommand from './commands/restyle/restyle.js';
import type { UndoDocument } from './commands/undo/document.js';
import * as undoCommand from './commands/undo/undo.js';
import type { VisitDocument } from './commands/visit/document.js';
import type { VisitOptions } from './commands/visit/visit.js';
import * as visitCommand from './commands/visit/visit.js';
import type { WriteOptions } from './site/ledger/write-options.js';

export { type AdoptOptions, adopt } from './commands/adopt/adopt.js';
export type { AdoptDocument } from './commands/adopt/document.js';
export type { DraftDocument } from './commands/draft/document.js';
export type { DraftOptions } from './commands/draft/draft.js';
export type { ExplainDocument } from './commands/explain/document.js';
export type { ExplainOptions } from './commands/explain/explain.js';
export type { FamilyDocument } from './commands/family/document.js';
export type { FamilyOptions } from './commands/family/family.js';
export type { HoldDocument } from './commands/hold/document.js';
export { type HoldOptions, hold } from './commands/hold/hold.js';
export type { OutlastDocument } from './commands/outlast/document.js';
export { type OutlastOptions, outlast } from './commands/outlast/outlast.js';
export type { OverrideDocument } from './commands/override/document.js';
export type { OverrideOptions } from './commands/override/override.js';
export type { ProveDocument } from './commands/prove/document.js';
export type { BrowserOptions, LiveOptions, ProveOptions } from './commands/prove/prove.js';
export type { ReachDocument } from './commands/reach/document.js';
export { type ReachOptions, reach } from './commands/reach/reach.js';
export type { RenameDocument } from './commands/rename/document.js';
export type { RenameOptions } from './commands/rename/rename.js';
export type { RestyleDocument } from './commands/restyle/document.js';
export type { RestyleOptions } from './commands/restyle/restyle.js';
export type { SamplerDocument } from './commands/sampler/document.js';
export { type SamplerOptions, sampler } from './commands/sampler/sampler.js';
export type { Followed } from './commands/shared/followed.js';
export type { StarterDocument } from './commands/starter/document.js';
export { type StarterOptions, starter } from './commands/starter/starter.js';
export type { SurveyDocument } from './commands/survey/document.js';
export { type SurveyOptions, survey } from './commands/survey/survey.js';
export type { UndoDocument } from './commands/undo/document.js';
export type { ValuesDocument } from './commands/values/document.js';
export { type ValuesOptions, values } from './commands/values/values.js';
export type { VisitDocument } from './commands/visit/document.js';
export type { VisitOptions } from './commands/visit/visit.js';
export { MESSAGES, type MessageCode } from './core/base/messages/index.js';
export { UsageError } from './core/base/usage-error.js';
export type { WriteOptions } from './site/ledger/write-options.js';

/** A command that finds more than its document, which the program prints: as a script asks it. */
function asked<Given extends unknown[], Document>(
  command: (...given: Given) => { readonly document: Document } | Promise<{ readonly document: Document }>,
): (...given: Given) => Promise<Document> {
  return async (...given) => (await command(...given)).document;
}

/** A home for every repeated style, proven and written as `acervus-draft.yaml`. Names and decisions of a draft that is there are kept. */
export const draft: (site: string, options?: DraftOptions) => Promise<DraftDocument> = asked(
  draftCommand.draft,
);

/** What styles one element, what wins, and why the rest does not. `element`: a selector, or `line` or `line:column` of its tag. */
export const explain: (
  site: string,
  page: string,
  element: string,
  options?: ExplainOptions,
) => Promise<ExplainDocument> = asked(explainCommand.explain);

/** Writes the rules of a table; nothing where an element that the table does not name would look different. */
export const family: (site: string, table: string, options?: FamilyOptions) => Promise<FamilyDocument> =
  asked(familyCommand.family);

/** Puts a table in the place of each family of rules that was copied out by hand, where nothing looks different by it. */
export const findFamilies: (site: string, options?: WriteOptions) => Promise<FamilyDocument> = asked(
  familyFinder.findFamilies,
);

/** Writes the weakest rule that beats the present declarations; nothing where it would reach further (`refused`). */
export const override: (
  site: string,
  selector: string,
  declarations: readonly string[],
  options?: OverrideOptions,
) => Promise<OverrideDocument> = asked(overrideCommand.override);

/** Every override of a site with what it beats, and whether it is still needed. */
export const listOverrides: (site: string) => Promise<OverrideDocument> = asked(
  overrideCommand.listOverrides,
);

/** Takes the override with a selector away, or some of its properties; `refused` where nothing was written. */
export const dropOverride: (
  site: string,
  selector: string,
  properties?: readonly string[],
  options?: Pick<OverrideOptions, 'within' | 'medium' | 'patch'>,
) => Promise<OverrideDocument> = asked(overrideCommand.dropOverride);

/** Compares every element of every page in two states. `against`: a folder, or a commit that git knows in the site. */
export const prove: (site: string, against: string, options?: ProveOptions) => Promise<ProveDocument> = asked(
  proveCommand.prove,
);

/** Compares a folder that a visit filled, with its changed boxes, with the site as it runs now. */
export const proveLive: (site: string, options?: ProveOptions & LiveOptions) => Promise<ProveDocument> =
  asked(proveCommand.proveLive);

/** Gives a class another name in markup, sheets and scripts; `refused` says why nothing was written. */
export const rename: (
  site: string,
  from: string,
  to: string,
  options?: RenameOptions,
) => Promise<RenameDocument> = asked(renameCommand.rename);

/** Changes a rule of the theme where it stands; `refused` says why nothing was written. */
export const restyle: (
  site: string,
  selector: string,
  declarations: readonly string[],
  options?: RestyleOptions,
) => Promise<RestyleDocument> = asked(restyleCommand.restyle);

/** Takes the last change of the site back, byte for byte. */
export const undo: (site: string) => Promise<UndoDocument> = asked(undoCommand.undo);

/** Brings the pages of a running system into a folder. `from`: an address, a list or archive; `undefined` to visit again. */
export const visit: (
  from: string | undefined,
  folder: string,
  options?: VisitOptions,
) => Promise<VisitDocument> = visitCommand.visit;
