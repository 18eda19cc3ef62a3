// From a site to its draft, and from a draft to the change it asks for.

import {
  type Consolidation,
  consolidate,
  movePlaces,
  type PlaceOf,
  type SheetMove,
} from '../consolidate/index.js';
import { declarationText, type NamedStyle, rulesOf, selectorsOf } from '../edits/index.js';
import {
  type Kept,
  type ScopeTaste,
  TASTES,
  type TasteName,
  takenOut,
  writtenCount,
} from '../search/index.js';
import { placeIn, showPlace } from '../source.js';
import { type CarriedUnit, groupBy, keptText } from '../stock/index.js';
import { type FileChange, fileChanges } from '../../site/ledger/change.js';
import { decide, type Found, moveId, moveSelector, styleId } from './decisions.js';
import type { Draft, DraftStyle } from './text.js';
import type { Site } from '../../site/rendering/load.js';
import type { AdoptionTold } from '../../site/ledger/plan.js';

export interface DraftOptions {
  readonly atLeast: number;
  readonly taste: TasteName;
  readonly scope: ScopeTaste;
  readonly onStep?: (step: string) => void;
}

export interface Drafted {
  readonly draft: Draft;
  /** What adopting it would do. */
  readonly adoption: Adoption;
}

/**
 * Searches, names and proves in advance, so that the draft says what adopting it will do.
 * In: `earlier`, a draft whose names and decisions are taken over where its styles are found again.
 */
export function makeDraft(site: Site, options: DraftOptions, earlier: Draft | undefined): Drafted {
  const { result, found } = run(site, options, earlier, 'take');
  const known = new Map((earlier?.styles ?? []).map((style) => [style.id, style]));
  const isListed = (id: string): boolean =>
    known.get(id)?.take === false || known.get(id)?.into !== undefined;
  const styles = [...result.styles, ...found.styles.filter((style) => isListed(styleId(style)))];
  const moves = [...result.sheetMoves, ...found.sheetMoves.filter((move) => isListed(moveId(move)))];
  const earlierTokens = new Map((earlier?.tokens ?? []).map((token) => [token.name, token]));
  const earlierNear = new Map((earlier?.['near misses'] ?? []).map((one) => [`${one.from} ${one.to}`, one]));
  const draft: Draft = {
    format: 2,
    shared: site.shared,
    taste: options.taste,
    scope: options.scope,
    'at-least': options.atLeast,
    upkeep: result.upkeep,
    styles: entriesOf(styles, moves, site.shared, known, result.placeOf),
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
    kept: keptEntries(result.kept, result.placeOf),
  };
  return { draft, adoption: adoptionOf(site, result, known, []) };
}

/** One entry for each style, strongest saving first. */
function entriesOf(
  styles: readonly NamedStyle[],
  moves: readonly SheetMove[],
  shared: string,
  known: ReadonlyMap<string, DraftStyle>,
  placeOf: PlaceOf,
): DraftStyle[] {
  return [
    ...styles.map((style) => ({
      saves: savedPlaces(style),
      entry: styleEntry(style, shared, known.get(styleId(style)), placeOf),
    })),
    ...moves.map((move) => ({
      saves: movePlaces(move),
      entry: moveEntry(move, shared, known.get(moveId(move))),
    })),
  ]
    .sort((a, b) => b.saves - a.saves || (a.entry.id < b.entry.id ? -1 : 1))
    .map(({ entry }) => entry);
}

export interface Adoption {
  readonly changes: readonly FileChange[];
  readonly told: AdoptionTold;
}

/** What a draft means on the site as it is now. Throws `UsageError` for what cannot be carried out. */
export function planAdoption(site: Site, draft: Draft, onStep?: (step: string) => void): Adoption {
  const options = {
    atLeast: draft['at-least'],
    taste: draft.taste,
    scope: draft.scope,
    ...(onStep && { onStep }),
  };
  const { result, found } = run(site, options, draft, 'refuse');
  const ids = new Set([...found.styles.map(styleId), ...found.sheetMoves.map(moveId)]);
  const gone = draft.styles.filter(({ id, take }) => take && !ids.has(id));
  const known = new Map(draft.styles.map((style) => [style.id, style]));
  return adoptionOf(
    site,
    result,
    known,
    gone.map(({ id }) => id),
  );
}

function adoptionOf(
  site: Site,
  result: Consolidation,
  known: ReadonlyMap<string, DraftStyle>,
  gone: readonly string[],
): Adoption {
  const { upkeep, size, changed, proof, tokens } = result;
  return {
    changes: fileChanges(site, result.edits),
    told: {
      shared: site.shared,
      upkeep,
      size,
      styles: entriesOf(result.styles, result.sheetMoves, site.shared, known, result.placeOf),
      tokens: tokens.map(({ name, text, kind, places }) => ({
        name,
        value: text,
        kind,
        uses: places.length,
      })),
      changed,
      gone: [...gone],
      kept: keptTold(result.kept, result.placeOf),
      proof: {
        pages: proof.pages,
        components: proof.components,
        elements: proof.elements,
        assumptions: [...proof.assumptions],
      },
    },
  };
}

/** What stays, by reason, most first. */
function keptTold(kept: readonly Kept[], placeOf: PlaceOf): AdoptionTold['kept'] {
  return [...groupBy(kept, ({ reason }) => keptText(reason))]
    .map(([reason, group]) => ({
      reason,
      declarations: group.reduce((sum, { unit }) => sum + writtenCount(unit), 0),
      places: [...new Set(group.map(({ carrier }) => showPlace(placeOf(carrier))))],
    }))
    .sort((a, b) => b.declarations - a.declarations || (a.reason < b.reason ? -1 : 1));
}

function run(
  site: Site,
  { atLeast, taste, scope, onStep }: DraftOptions,
  draft: Draft | undefined,
  unknown: 'take' | 'refuse',
): { result: Consolidation; found: Found } {
  const themes = site.sheets.filter(({ owner }) => owner === 'theme').map(({ path }) => path);
  const decisions = decide(site, { shared: site.shared, themes }, draft, unknown);
  const result = consolidate(
    {
      model: site.model,
      scripts: site.scripts,
      themes,
      shared: site.shared,
      carriers: { pictureSizes: site.config.pictureSizes ?? 'keep' },
      atLeast,
      taste: TASTES[taste],
      scope,
      partNames: site.config.parts ?? {},
    },
    { ...decisions, ...(onStep && { onStep }) },
  );
  return { result, found: decisions.found() };
}

function styleEntry(
  style: NamedStyle,
  shared: string,
  known: DraftStyle | undefined,
  placeOf: PlaceOf,
): DraftStyle {
  const { home, members, instead, beats, className } = style;
  const selectors = selectorsOf(style);
  const plain = home.kind === 'new class' && selectors[0] === `.${className}`;
  return {
    id: styleId(style),
    home: home.kind,
    ...(home.kind === 'new class' || home.kind === 'existing class' ? { name: className } : {}),
    take: known?.take ?? true,
    ...(known?.reviewed === undefined ? {} : { reviewed: known.reviewed }),
    ...(known?.into === undefined ? {} : { into: known.into }),
    ...(known?.except === undefined ? {} : { except: known.except }),
    ...(selectors.length === 0 || plain ? {} : { selector: selectors.join(', ') }),
    ...(beats === undefined ? {} : { beats: `${beats.selector} (${showPlace(beats.place)})` }),
    elements: members.length,
    pages: new Set(members.map(({ carrier }) => carrier.page)).size,
    'out of': fromText(style),
    ...(style.page === undefined ? {} : { 'written into': style.page }),
    'such as': members.slice(0, 2).map(({ carrier }) => showPlace(placeOf(carrier))),
    saves: { places: savedPlaces(style), bytes: savedBytes(style, shared) },
    ...(instead === undefined ? {} : { instead }),
    declarations: declarationsOf(style, shared),
  };
}

/** `style attributes`, or the old attributes that say it. */
function fromText({ members }: NamedStyle): string {
  const names = new Set<string>();
  for (const { carrier, units } of members) {
    for (const { from } of units) {
      if (from.kind === 'style') names.add('style');
      else if (from.kind === 'name') names.add(`<${carrier.element?.name}>`);
      else for (const name of from.names) names.add(name);
    }
  }
  return [...names].sort().join(', ');
}

export function declarationsOf({ units }: NamedStyle, shared: string): string {
  const lines = units.flatMap(({ declarations, cells = [], holder }) => [
    ...declarations.map((one) => `${declarationText(one, holder, shared)};\n`),
    ...cells.map((one) => `/* its cells: ${declarationText(one, holder, shared)} */\n`),
  ]);
  return lines.join('');
}

/** Places less to keep up: what goes out of the markup, less what is written. */
export function savedPlaces(style: NamedStyle): number {
  return (
    takenOut(style.members) - rulesOf(style).reduce((sum, { declarations }) => sum + declarations.length, 0)
  );
}

/** Characters less, about: indentation is not counted. */
export function savedBytes(style: NamedStyle, shared: string): number {
  let saved = 0;
  for (const { carrier, units } of style.members) {
    for (const unit of units) saved += writtenLength(carrier.tag?.attributes, unit);
    if (style.className !== undefined)
      saved -=
        style.className.length + (carrier.tag?.attributes.has('class') === true ? 1 : ' class=""'.length);
  }
  for (const { selectors, declarations } of rulesOf(style)) {
    saved -= selectors.join(', ').length + 4;
    for (const { declaration, holder } of declarations)
      saved -= declarationText(declaration, holder, shared).length + 4;
  }
  return saved;
}

function writtenLength(
  attributes: ReadonlyMap<string, { readonly start: number; readonly end: number }> | undefined,
  { from, declarations }: CarriedUnit,
): number {
  if (from.kind === 'name') return 0;
  if (from.kind === 'style')
    return declarations.reduce((sum, { range }) => sum + range.end - range.start + 2, 0);
  return from.names.reduce((sum, name) => {
    const range = attributes?.get(name);
    return range === undefined ? sum : sum + range.end - range.start + 1;
  }, 0);
}

function moveEntry(move: SheetMove, shared: string, known: DraftStyle | undefined): DraftStyle {
  const holder = move.kind === 'grouped rule' ? move.path : move.holder;
  const rule = move.kind === 'grouped rule' ? move.rules[0]! : move.rule;
  const places = movePlaces(move);
  const length = rule.range.end - rule.range.start;
  const times = move.kind === 'grouped rule' ? move.rules.length : move.places.length;
  return {
    id: moveId(move),
    home: move.kind,
    take: known?.take ?? true,
    ...(known?.reviewed === undefined ? {} : { reviewed: known.reviewed }),
    selector: moveSelector(move),
    'out of': move.kind === 'grouped rule' ? `${times} rules of ${move.path}` : `${times} style blocks`,
    'such as': moveExamples(move),
    saves: { places, bytes: length * (times - 1) },
    declarations: rule.declarations.map((one) => `${declarationText(one, holder, shared)};\n`).join(''),
  };
}

function moveExamples(move: SheetMove): string[] {
  if (move.kind === 'grouped rule') return [];
  return move.places
    .slice(0, 2)
    .map(({ page, reference, rule }) =>
      showPlace(placeIn(page.path, page.text, (reference.offset ?? 0) + rule.selectorRange.start)),
    );
}

function keptEntries(kept: readonly Kept[], placeOf: PlaceOf): Draft['kept'] {
  return [...groupBy(kept, ({ reason }) => keptText(reason))]
    .map(([reason, group]) => ({
      reason,
      declarations: group.length,
      'such as': [
        ...new Set(
          group.slice(0, 2).map(({ carrier, unit }) => `${showPlace(placeOf(carrier))} ${unitText(unit)}`),
        ),
      ],
    }))
    .sort((a, b) => b.declarations - a.declarations || (a.reason < b.reason ? -1 : 1));
}

/** What a unit says, as it is written. */
export function unitText({ from, declarations }: CarriedUnit): string {
  if (from.kind === 'attributes') return from.names.join(' ');
  if (from.kind === 'name') return 'the element itself';
  return declarations.map(({ property, value }) => `${property}: ${value}`).join('; ');
}
