// Proposes a home for every style that is written in the wrong place or more than once.

import { existsSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { scopeName, tasteName } from '../../core/base/choices.js';
import { UsageError } from '../../core/base/usage-error.js';
import {
  type Drafted,
  type DraftSite,
  makeDraft,
  type PagesProven,
} from '../../core/change/consolidate/index.js';
import {
  type AdoptionReport,
  DRAFT_FILE,
  type Draft,
  parseDraft,
  renderDraft,
} from '../../core/edit/draft/index.js';
import type { ScopeTaste, TasteName } from '../../core/search/index.js';
import { keepWorkList } from '../../report/work-list.js';
import { type BuiltSite, loadBuilt, openBuilt } from '../../site/building/build.js';
import { provenBy, settle } from '../../site/building/settle.js';
import { withOthers } from '../../site/factoring/others.js';
import { openFolder } from '../../site/files/files.js';
import { insideSite, readPlain } from '../../site/files/inside.js';
import { type FileChange, fileChanges, refuseUnfinished } from '../../site/ledger/change.js';
import { findPlan, noteReadings, savePlan } from '../../site/ledger/plan.js';
import { draftSite, loadForDraft, type Site } from '../../site/rendering/load.js';
import { SiteReader } from '../../site/rendering/reader.js';
import { suggestedSheets } from '../../site/rendering/suggestion.js';
import { isUnlinkable } from '../../site/rendering/unlinkable.js';
import { rememberProof } from '../../site/threads/proving.js';
import { workListOf } from '../../site/visiting/work-list.js';
import { type Followed, follow } from '../shared/followed.js';
import { refuseTooLarge } from '../shared/memory.js';
import type { DraftDocument } from './document.js';

export interface DraftOptions {
  /** Share a style from this many elements on; 2 without. */
  readonly atLeast?: number | undefined;
  /** Makes rules as weak as their work allows; without it, as the draft that is there. */
  readonly weaken?: boolean | undefined;
  /** What classes should be like; as in the earlier draft or the configuration without, else `balanced`. */
  readonly taste?: TasteName | undefined;
  /** How far rules reach; as in the earlier draft or the configuration without, else `site`. */
  readonly scope?: ScopeTaste | undefined;
  /** From so many characters of pages on, the search reads excerpts of them; two million without. */
  readonly largeFrom?: number | undefined;
  /** Hears how many pages of a large site are proven. */
  readonly onPage?: ((done: number, of: number) => void) | undefined;
  /** Whether a draft of the same files is believed to be as it was; it is without. */
  readonly cache?: boolean | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
  /** A declaration to follow through the stages. */
  readonly trace?: Followed | undefined;
}

/** Options as they are typed. @internal */
export interface TypedDraftOptions extends Omit<DraftOptions, 'taste' | 'scope'> {
  readonly taste?: string | undefined;
  readonly scope?: string | undefined;
}

/** @internal */
export interface DraftResult {
  readonly document: DraftDocument;
  /** What adopting it would do. */
  readonly report: AdoptionReport;
  /** Path of the draft's file. */
  readonly file: string;
  /** Whether names and decisions of an earlier draft were kept. */
  readonly hadEarlier: boolean;
}

/**
 * Proposes, proves the proposal in advance, and writes it as `acervus-draft.yaml` into the site; names and decisions
 * of a draft that is there are kept. In: the site's folder. Throws `UsageError`.
 * @internal
 */
export async function draft(folder: string, options: TypedDraftOptions = {}): Promise<DraftResult> {
  const { atLeast = 2, onStep } = options;
  if (!Number.isInteger(atLeast) || atLeast < 1) throw new UsageError('at-least', { given: atLeast });
  const trace = follow(options.trace);
  const files = noteReadings(openFolder(folder));
  const file = path.join(folder, DRAFT_FILE);
  const text = existsSync(file) ? readPlain(file, DRAFT_FILE).toString('utf8') : undefined;
  const earlier = text === undefined ? undefined : parseDraft(text);
  // Nothing has changed since: the answer is the one that is there.
  if (
    earlier !== undefined &&
    trace === undefined &&
    options.cache !== false &&
    asksTheSame(options, earlier)
  ) {
    const known = findPlan(path.resolve(folder), text!, files);
    if (known !== undefined)
      return { document: documentOf(earlier, known.report), report: known.report, file, hadEarlier: true };
  }
  const built = await openBuilt(folder, files, onStep);
  const site =
    built === undefined
      ? await loadForDraft(folder, files, earlier, {
          largeFrom: options.largeFrom,
          cache: options.cache,
          whole: new Set(trace === undefined ? [] : [trace.path]),
        })
      : loadBuilt(built);
  refuseTooLarge([...site.model.sources.pages.values()].reduce((all, { length }) => all + length, 0));
  refuseUnfinished(path.resolve(folder));
  if (site.isPlatform(site.shared)) throw new UsageError('shared-is-platform', { sheet: site.shared });
  if (isUnlinkable(site))
    throw new UsageError('unlinkable', {
      suggestion: JSON.stringify({
        sheets: suggestedSheets(new SiteReader(site.files, site.config)),
      }),
    });
  const taste = tasteOf(options.taste ?? earlier?.taste ?? site.config.taste ?? 'balanced');
  const scope = scopeOf(options.scope ?? earlier?.scope ?? site.config.scope ?? 'site');
  const how = {
    atLeast,
    weaken: options.weaken ?? earlier?.weaken,
    taste,
    scope,
    onStep,
    onPage: options.onPage,
    trace,
  };
  const plan = (on: DraftSite): Promise<Drafted> => makeDraft(on, how, earlier);
  const {
    draft: made,
    changes,
    report,
    proven,
  } = await (built === undefined
    ? planned(site, await plan(draftSite(site)), earlier, onStep)
    : plannedInSources(built, site, plan, onStep));
  const rendered = renderDraft(made, text);
  writeFileAtomic.sync(insideSite(folder, DRAFT_FILE), rendered);
  savePlan(path.resolve(folder), rendered, files, changes, report);
  if (proven !== undefined && options.cache !== false) {
    const reader = new SiteReader(site.files, site.config);
    const edits = new Map(changes.map(({ path: changed, edits: own }) => [changed, own]));
    const change = { reader, paths: reader.pagePaths, edits };
    rememberProof(folder, change, proven, site.asked(), options.largeFrom);
  }
  const { visited } = site;
  const work = visited && workListOf(visited, changes);
  // One that is done stays until there is something new to do.
  if (work !== undefined && work.items.length > 0) keepWorkList(path.resolve(folder), work, visited!.origin);
  return { document: documentOf(made, report), report, file, hadEarlier: earlier !== undefined };
}

interface Planned {
  readonly draft: Draft;
  readonly changes: readonly FileChange[];
  readonly report: AdoptionReport;
  readonly proven?: PagesProven | undefined;
}

function planned(
  site: Site,
  { draft: made, adoption: { edits, report, proven } }: Drafted,
  earlier: Draft | undefined,
  onStep: DraftOptions['onStep'],
): Planned {
  const own = { changes: fileChanges(site, edits), report };
  const { entries, ...all } = withOthers(site, earlier, own, onStep);
  return { ...all, draft: { ...made, ...entries, kept: [...made.kept, ...entries.kept] }, proven };
}

/** Of a site that is built: the change is one of its sources. */
async function plannedInSources(
  built: BuiltSite,
  site: Site,
  plan: (on: DraftSite) => Promise<Drafted>,
  onStep: (step: string) => void = () => {},
): Promise<Planned> {
  const done = await settle(built, site, { plan, editsOf: ({ adoption }) => adoption.edits, onStep });
  const { draft: made, adoption } = done.plan;
  return { draft: made, changes: done.changes, report: provenBy(adoption.report, done) };
}

function documentOf(made: Draft, report: AdoptionReport): DraftDocument {
  return {
    format: 2,
    command: 'draft',
    file: DRAFT_FILE,
    shared: made.shared,
    assumed: made.assumed ?? [],
    upkeep: report.upkeep,
    held: report.held,
    stylesFromSelf: report.stylesFromSelf,
    size: report.size,
    styles: made.styles,
    tokens: made.tokens,
    mixins: made.mixins,
    codeBlocks: made['code blocks'],
    nearMisses: made['near misses'],
    kept: report.kept,
  };
}

/** Whether a draft that is there was asked for in the same words. */
function asksTheSame({ atLeast = 2, weaken, taste, scope }: TypedDraftOptions, earlier: Draft): boolean {
  return (
    atLeast === earlier['at-least'] &&
    (weaken ?? earlier.weaken ?? false) === (earlier.weaken ?? false) &&
    (taste === undefined || tasteOf(taste) === earlier.taste) &&
    (scope === undefined || scopeOf(scope) === earlier.scope)
  );
}

function scopeOf(given: string): ScopeTaste {
  const read = scopeName.safeParse(given);
  if (!read.success) throw new UsageError('scope', { given });
  return read.data;
}

/** `small pieces`, or `small-pieces` where quotes are a bother. */
function tasteOf(given: string): TasteName {
  const known = tasteName.options.find((taste) => taste === given || taste.replace(' ', '-') === given);
  if (known !== undefined) return known;
  throw new UsageError('taste', { given, known: tasteName.options.map((one) => `"${one}"`).join(', ') });
}
