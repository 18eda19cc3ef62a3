import { createHash } from 'node:crypto';
import { showPlace } from '../../base/source.js';
import { sumOf } from '../../base/sum.js';
import type { SiteSources } from '../../cascade/index.js';
import {
  type AdoptionReport,
  classId,
  type Draft,
  type DraftStyle,
  decide,
  entriesOf,
  type Found,
  idClassId,
  keptGroups,
  moveId,
  type SheetChanges,
  sectionId,
  styleId,
} from '../../edit/draft/index.js';
import { type Edits, stateAfter } from '../../edit/text/index.js';
import { isOfUnread, type ProofPart, prove } from '../../proof/index.js';
import { type PlaceOf, type ScopeTaste, TASTES, type TasteName } from '../../search/index.js';
import type { Trace } from '../../stock/trace.js';
import type { Excerpts } from '../excerpt/index.js';
import { areasOf, keepsPartsApart } from './areas.js';
import { type Consolidation, consolidate } from './consolidate.js';
import type { DraftSite } from './draft-site.js';
import { totalOf, type Upkeep } from './upkeep.js';
import { isWide, type ProvenWide, proveWide, shortened, withWhole } from './wide.js';

export interface DraftOptions {
  readonly atLeast: number;
  readonly weaken?: boolean | undefined;
  readonly taste: TasteName;
  readonly scope: ScopeTaste;
  readonly onStep?: ((step: string) => void) | undefined;
  /** Hears how many whole pages are proven. */
  readonly onPage?: ((done: number, of: number) => void) | undefined;
  readonly trace?: Trace | undefined;
}

export interface Drafted {
  readonly draft: Draft;
  /** What adopting it would do. */
  readonly adoption: Adoption;
}

/** What pages came to by themselves when they were compared, and the states that they were compared in. */
export interface PagesProven {
  readonly each: ReadonlyMap<string, ProofPart>;
  readonly after: readonly SiteSources[];
}

export interface Adoption {
  readonly edits: Edits;
  /** Nothing where some page depends on others, or was compared elsewhere. */
  readonly proven: PagesProven | undefined;
  readonly report: AdoptionReport;
}

/**
 * Searches, names and proves in advance, so that the draft says what adopting it will do.
 * In: `earlier`, a draft whose names and decisions are taken over where its styles are found again.
 */
export async function makeDraft(
  site: DraftSite,
  options: DraftOptions,
  earlier: Draft | undefined,
): Promise<Drafted> {
  const all = await runAll(site, options, earlier, 'take');
  const { runs } = all;
  const earlierTokens = new Map((earlier?.tokens ?? []).map((token) => [token.name, token]));
  const earlierNear = new Map((earlier?.['near misses'] ?? []).map((one) => [`${one.from} ${one.to}`, one]));
  const adoption = adoptionOf(site, all, []);
  const entries = runs.flatMap((run) => {
    const { result, found, known } = run;
    const isListed = (id: string): boolean =>
      known.get(id)?.take === false || known.get(id)?.into !== undefined;
    return entriesIn(site, run, {
      styles: [...result.styles, ...found.styles.filter((style) => isListed(styleId(style)))],
      rules: [...result.ruleMoves, ...found.ruleMoves.filter((move) => isListed(moveId(move)))],
      classes: [...result.classMoves, ...found.classMoves.filter((move) => isListed(classId(move)))],
      parts: result.parts,
      sections: [...result.sections, ...found.sections.filter((value) => isListed(sectionId(value)))],
      ids: [...result.ids, ...found.idClasses.filter((value) => isListed(idClassId(value)))],
    });
  });
  const unread = adoption.report.proof.assumptions.filter(isOfUnread);
  const draft: Draft = {
    format: 2,
    shared: site.shared.path,
    taste: options.taste,
    scope: options.scope,
    'at-least': options.atLeast,
    ...(options.weaken === true ? { weaken: true } : {}),
    ...(unread.length > 0 ? { assumed: unread } : {}),
    upkeep: adoption.report.upkeep,
    styles: inOrder(entries),
    mixins: [],
    'code blocks': [],
    tokens: runs.flatMap(({ result, found }) =>
      found.values
        .filter(
          ({ name }) =>
            result.tokens.some((token) => token.name === name) || earlierTokens.get(name)?.take === false,
        )
        .map(({ name, text, kind, form, places }) => ({
          name,
          take: earlierTokens.get(name)?.take ?? true,
          value: text,
          kind,
          form,
          uses: places.length,
        })),
    ),
    'near misses': runs
      .flatMap(({ result }) => result.nearMisses)
      .map(({ from, to, times, toTimes, apart, kind, places }) => ({
        from,
        to,
        change: earlierNear.get(`${from} ${to}`)?.change ?? false,
        apart: `${kind === 'colour' ? `a colour distance of ${apart}` : `${apart} pixel`}; ${times === 1 ? 'once' : `${times} times`} against ${toTimes}`,
        'such as': places.slice(0, 2).map(showPlace),
      })),
    kept: adoption.kept.map(({ reason, declarations, examples }) => ({
      reason,
      declarations,
      'such as': [...examples],
    })),
  };
  return { draft, adoption };
}

/** What a draft means on the site as it is now. Throws `UsageError` for what cannot be carried out. */
export async function planAdoption(
  site: DraftSite,
  draft: Draft,
  asked: Pick<DraftOptions, 'onStep' | 'trace' | 'onPage'>,
): Promise<Adoption> {
  const options = {
    atLeast: draft['at-least'],
    weaken: draft.weaken,
    taste: draft.taste,
    scope: draft.scope,
    ...asked,
  };
  const all = await runAll(site, options, draft, 'refuse');
  const { runs } = all;
  const ids = new Set(
    runs.flatMap(({ found, mark }) =>
      [
        ...found.styles.map(styleId),
        ...found.ruleMoves.map(moveId),
        ...found.classMoves.map(classId),
        ...found.sections.map(sectionId),
        ...found.idClasses.map(idClassId),
        ...found.parts,
      ].map((id) => id + mark),
    ),
  );
  const gone = draft.styles.filter(({ id, take }) => take && !ids.has(id)).map(({ id }) => id);
  return adoptionOf(site, all, gone);
}

function adoptionOf(
  site: DraftSite,
  all: AllRuns,
  gone: readonly string[],
): Adoption & { readonly kept: ReturnType<typeof keptGroups> } {
  const { runs, wide } = all;
  const results = runs.map(({ result }) => result);
  const proofs = wide === undefined ? results.map(({ proof }) => proof) : [wide.widened.proof];
  const placeOf: PlaceOf = (styledTag) =>
    (runs.find(({ area }) => area.model.sources.pages.has(styledTag.page.path)) ?? runs[0]!).result.placeOf(
      styledTag,
    );
  const kept = keptGroups(
    results.flatMap((one) => one.kept),
    results.flatMap((one) => one.keptElsewhere),
    placeOf,
  );
  const both = (of: (result: Consolidation) => { readonly now: number; readonly after: number }) => ({
    now: sumOf(results, (one) => of(one).now),
    after: sumOf(results, (one) => of(one).after),
  });
  const entries = runs.flatMap((run) => {
    const { styles, ruleMoves: rules, classMoves: classes, sections, ids, parts } = run.result;
    return entriesIn(site, run, { styles, rules, classes, sections, ids, parts });
  });
  return {
    edits: wide?.widened.edits ?? new Map(results.flatMap(({ edits }) => [...edits])),
    proven: wide === undefined ? provenIn(results) : undefined,
    kept,
    report: {
      shared: site.shared.path,
      upkeep: both(({ upkeep: { now, after } }) => ({ now: totalOf(now), after: totalOf(after) })),
      held: {
        tags: both(held('tags')),
        blocks: both(held('blocks')),
        sheets: both(held('sheets')),
      },
      stylesFromSelf: both(held('fromSelf')),
      size: sizeOfAll(
        all,
        both(({ size }) => size),
      ),
      styles: inOrder(entries),
      mixins: [],
      codeBlocks: [],
      tokens: results.flatMap(({ tokens }) =>
        tokens.map(({ name, text, kind, places }) => ({ name, value: text, kind, uses: places.length })),
      ),
      changed: {
        elements: sumOf(results, ({ changed }) => changed.elements),
        pages: sumOf(results, ({ changed }) => changed.pages),
      },
      gone: [...gone],
      kept: kept.map(({ reason, declarations, places }) => ({ reason, declarations, places: [...places] })),
      proof: {
        pages: sumOf(proofs, ({ pages }) => pages),
        components: sumOf(proofs, ({ components }) => components),
        elements: sumOf(proofs, ({ elements }) => elements),
        assumptions: [...new Set(proofs.flatMap(({ assumptions }) => assumptions))],
      },
    },
  };
}

function provenIn(results: readonly Consolidation[]): PagesProven | undefined {
  const each = new Map<string, ProofPart>();
  for (const { proven } of results) {
    if (proven === undefined) return undefined;
    for (const [path, part] of proven) each.set(path, part);
  }
  return { each, after: results.map(({ after }) => after) };
}

interface Both {
  readonly now: number;
  readonly after: number;
}

/** In: characters of what was searched. Out: those of the site, where that was more. */
function sizeOfAll({ runs, wide }: AllRuns, searched: Both): Both {
  if (wide === undefined) return searched;
  const { excerpts, widened } = wide;
  const read = sumOf(
    runs.flatMap(({ area }) => [...area.model.sources.pages.values()]),
    ({ length }) => length,
  );
  const now = searched.now - read + excerpts.size;
  const grown = sumOf(
    [...widened.edits.values()].flat(),
    ({ start, end, text }) => text.length - (end - start),
  );
  return { now, after: now + grown };
}

function held(part: keyof Upkeep) {
  return ({ upkeep: { now, after } }: Consolidation) => ({ now: now[part], after: after[part] });
}

function entriesIn(
  site: DraftSite,
  { area, result, known, mark }: Run,
  { styles, ...changes }: SheetChanges & { readonly styles: Consolidation['styles'] },
): DraftStyle[] {
  const entries = entriesOf(styles, changes, area.shared.path, known, result.placeOf, area.model);
  if (area.shared.path === site.shared.path) return entries;
  return entries.map((one) => {
    const { declarations, id, ...rest } = one;
    if (WRITE_NOTHING.has(one.home)) return { ...one, id: id + mark };
    return { id: id + mark, ...rest, 'written into': one['written into'] ?? area.shared.path, declarations };
  });
}

/** What is there already, or not needed any more. */
const WRITE_NOTHING: ReadonlySet<DraftStyle['home']> = new Set([
  'already given',
  'existing class',
  'idle class',
]);

/** Strongest saving first. */
function inOrder(entries: readonly DraftStyle[]): DraftStyle[] {
  return [...entries].sort(
    (a, b) => (b.saves?.places ?? 0) - (a.saves?.places ?? 0) || (a.id < b.id ? -1 : 1),
  );
}

/** One area of the site: all of it, where its pages share their sheets. */
interface Run {
  readonly area: DraftSite;
  readonly result: Consolidation;
  readonly found: Found;
  /** What the draft has to declare about it, by id without the mark. */
  readonly known: ReadonlyMap<string, DraftStyle>;
  /** Behind every id: two areas may have the same style, each with a name and a decision of its own. */
  readonly mark: string;
}

interface AllRuns {
  readonly runs: readonly Run[];
  /** On the whole pages, where the search had excerpts. */
  readonly wide: { readonly widened: ProvenWide; readonly excerpts: Excerpts } | undefined;
}

/** So often pages are read whole one by one; after that all of them are. */
const MOST_ROUNDS = 3;

async function runAll(
  given: DraftSite,
  options: DraftOptions,
  draft: Draft | undefined,
  unknown: 'take' | 'refuse',
): Promise<AllRuns> {
  let site = given;
  for (let round = 1; ; round++) {
    const runs = runAreas(site, options, draft, unknown);
    if (!isWide(site)) {
      // A part may stand on pages of any area, and in one that is not its own.
      const hold =
        runs.length === 1 || keepsPartsApart(runs.map(({ area }) => area)) || holdTogether(site, runs);
      return { runs: hold ? runs : runAreas(asOne(site), options, draft, unknown), wide: undefined };
    }
    options.onStep?.('proof of every page');
    const widened = await proveWide(site, runs, options.onPage);
    if (widened.missed.length === 0) return { runs, wide: { widened, excerpts: site.whole.excerpts } };
    site = withWhole(site, round < MOST_ROUNDS ? widened.missed : shortened(site));
  }
}

/** Whether all areas together look as before, as each does by itself; looks that are to change are told apart in each. */
function holdTogether({ model }: DraftSite, runs: readonly Run[]): boolean {
  if (runs.some(({ result }) => result.changed.elements > 0)) return true;
  const edits = new Map(runs.flatMap(({ result }) => [...result.edits]));
  return prove(model, stateAfter(model, edits), { perPage: 1, keepsUnseen: true }).differences.length === 0;
}

/** The site as one area. */
function asOne(site: DraftSite): DraftSite {
  return { ...site, sharedIsGiven: true };
}

function runAreas(
  site: DraftSite,
  { atLeast, weaken, taste, scope, onStep, trace }: DraftOptions,
  draft: Draft | undefined,
  unknown: 'take' | 'refuse',
): Run[] {
  const { scripts, unseen, naming, styledTags } = site;
  return areasOf(site).map((area): Run => {
    const { model, sheets, shared } = area;
    const themes = sheets.filter(({ owner }) => owner === 'theme').map(({ path }) => path);
    const unreadDocuments = unseen.get(shared.path) ?? [];
    const mark = markOf(shared.path, site);
    const own = draft && draftIn(draft, mark);
    const decisions = decide({ model, sheets, shared: shared.path, naming, unreadDocuments }, own, unknown);
    const result = consolidate(
      {
        ...{ model, scripts, themes, unseen, shared, styledTags },
        ...{ atLeast, weaken, taste: TASTES[taste], scope, onStep, trace },
      },
      decisions,
    );
    const known = new Map((own?.styles ?? []).map((style) => [style.id, style]));
    return { area, result, found: decisions.found(), known, mark };
  });
}

/** Nothing for the area of the site's shared sheet. */
function markOf(shared: string, site: DraftSite): string {
  if (shared === site.shared.path) return '';
  return `.${createHash('sha256').update(shared).digest('hex').slice(0, 4)}`;
}

/** What a draft declares about one area. */
function draftIn(draft: Draft, mark: string): Draft {
  const styles = draft.styles.flatMap((style) => {
    const [id, own = ''] = style.id.split(/(?=\.)/);
    return own === mark ? { ...style, id: id! } : [];
  });
  return { ...draft, styles };
}
