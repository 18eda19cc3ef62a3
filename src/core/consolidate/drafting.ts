// From a site to its draft, and from a draft to the change it asks for.

import type { SiteModel } from '../cascade/index.js';
import {
  type AdoptionReport,
  classId,
  type Draft,
  type DraftStyle,
  decide,
  entriesOf,
  type Found,
  keptGroups,
  moveId,
  type NamingOptions,
  type OwnedSheet,
  styleId,
} from '../draft/index.js';
import type { Edits } from '../edits/index.js';
import type { SharedSheet } from '../parts.js';
import { type ScopeTaste, TASTES, type TasteName } from '../search/index.js';
import { showPlace } from '../source.js';
import type { CarrierOptions, SiteScripts } from '../stock/index.js';
import type { Trace } from '../trace.js';
import { type Consolidation, consolidate } from './consolidate.js';

/** A site as a draft sees it. */
export interface DraftSite {
  readonly model: SiteModel;
  readonly scripts: SiteScripts;
  readonly sheets: readonly OwnedSheet[];
  readonly shared: SharedSheet;
  /** Sheets that documents load which were not read, with the texts of these. */
  readonly unseen: ReadonlyMap<string, readonly string[]>;
  readonly naming: NamingOptions;
  readonly carriers: CarrierOptions;
}

export interface DraftOptions {
  readonly atLeast: number;
  readonly taste: TasteName;
  readonly scope: ScopeTaste;
  readonly onStep?: ((step: string) => void) | undefined;
  readonly trace?: Trace | undefined;
}

export interface Drafted {
  readonly draft: Draft;
  /** What adopting it would do. */
  readonly adoption: Adoption;
}

export interface Adoption {
  readonly edits: Edits;
  readonly report: AdoptionReport;
}

/**
 * Searches, names and proves in advance, so that the draft says what adopting it will do.
 * In: `earlier`, a draft whose names and decisions are taken over where its styles are found again.
 */
export function makeDraft(site: DraftSite, options: DraftOptions, earlier: Draft | undefined): Drafted {
  const { result, found } = run(site, options, earlier, 'take');
  const known = new Map((earlier?.styles ?? []).map((style) => [style.id, style]));
  const isListed = (id: string): boolean =>
    known.get(id)?.take === false || known.get(id)?.into !== undefined;
  const styles = [...result.styles, ...found.styles.filter((style) => isListed(styleId(style)))];
  const moves = [...result.ruleMoves, ...found.ruleMoves.filter((move) => isListed(moveId(move)))];
  const classes = [...result.classMoves, ...found.classMoves.filter((move) => isListed(classId(move)))];
  const earlierTokens = new Map((earlier?.tokens ?? []).map((token) => [token.name, token]));
  const earlierNear = new Map((earlier?.['near misses'] ?? []).map((one) => [`${one.from} ${one.to}`, one]));
  const adoption = adoptionOf(site, result, known, []);
  const draft: Draft = {
    format: 2,
    shared: site.shared.path,
    taste: options.taste,
    scope: options.scope,
    'at-least': options.atLeast,
    upkeep: result.upkeep,
    styles: entriesOf(styles, { rules: moves, classes }, site.shared.path, known, result.placeOf, site.model),
    tokens: found.values
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
    'near misses': result.nearMisses.map(({ from, to, times, toTimes, apart, kind, places }) => ({
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
export function planAdoption(
  site: DraftSite,
  draft: Draft,
  asked: Pick<DraftOptions, 'onStep' | 'trace'>,
): Adoption {
  const options = { atLeast: draft['at-least'], taste: draft.taste, scope: draft.scope, ...asked };
  const { result, found } = run(site, options, draft, 'refuse');
  const ids = new Set([
    ...found.styles.map(styleId),
    ...found.ruleMoves.map(moveId),
    ...found.classMoves.map(classId),
  ]);
  const gone = draft.styles.filter(({ id, take }) => take && !ids.has(id)).map(({ id }) => id);
  const known = new Map(draft.styles.map((style) => [style.id, style]));
  return adoptionOf(site, result, known, gone);
}

function adoptionOf(
  site: DraftSite,
  result: Consolidation,
  known: ReadonlyMap<string, DraftStyle>,
  gone: readonly string[],
): Adoption & { readonly kept: ReturnType<typeof keptGroups> } {
  const { upkeep, size, changed, proof, tokens, placeOf } = result;
  const kept = keptGroups(result.kept, result.keptElsewhere, placeOf);
  return {
    edits: result.edits,
    kept,
    report: {
      shared: site.shared.path,
      upkeep,
      size,
      styles: entriesOf(
        result.styles,
        { rules: result.ruleMoves, classes: result.classMoves },
        site.shared.path,
        known,
        placeOf,
        site.model,
      ),
      tokens: tokens.map(({ name, text, kind, places }) => ({
        name,
        value: text,
        kind,
        uses: places.length,
      })),
      changed,
      gone: [...gone],
      kept: kept.map(({ reason, declarations, places }) => ({ reason, declarations, places: [...places] })),
      proof: {
        pages: proof.pages,
        components: proof.components,
        elements: proof.elements,
        assumptions: [...proof.assumptions],
      },
    },
  };
}

function run(
  site: DraftSite,
  { atLeast, taste, scope, onStep, trace }: DraftOptions,
  draft: Draft | undefined,
  unknown: 'take' | 'refuse',
): { result: Consolidation; found: Found } {
  const { model, scripts, sheets, shared, unseen, naming, carriers } = site;
  const themes = sheets.filter(({ owner }) => owner === 'theme').map(({ path }) => path);
  const strangers = unseen.get(shared.path) ?? [];
  const decisions = decide({ model, sheets, shared: shared.path, naming, strangers }, draft, unknown);
  const result = consolidate(
    {
      ...{ model, scripts, themes, unseen, shared, carriers },
      ...{ atLeast, taste: TASTES[taste], scope, onStep, trace },
    },
    decisions,
  );
  return { result, found: decisions.found() };
}
