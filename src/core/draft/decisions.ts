// What a draft says about what the search finds: names, refusals, exceptions, merges.

import { createHash } from 'node:crypto';
import {
  type ConsolidationInput,
  conditionsOf,
  type Decisions,
  type PlaceOf,
  type SheetMove,
  type SheetValue,
  usualSpelling,
  type ValueToken,
} from '../consolidate/index.js';
import type { NamedStyle } from '../edits/index.js';
import { type Kept, type Member, nameStyles, nameValue, type Style } from '../search/index.js';
import { parseDeclarations } from '../sheets/index.js';
import { showPlace } from '../source.js';
import { type CarriedUnit, declarationKey } from '../stock/index.js';
import { DRAFT_FILE, type Draft, type DraftStyle } from './text.js';
import type { Site } from '../../site/rendering/load.js';
import { customNames, namesInUse, namingRules } from './naming.js';
import { UsageError } from '../usage-error.js';

export interface Found {
  readonly sheetMoves: readonly SheetMove[];
  readonly styles: readonly NamedStyle[];
  readonly values: readonly ValueToken[];
}

/**
 * Decisions by a draft.
 * In: the draft, if there is one; whether what it does not hold is refused (adopting) or taken (drafting again).
 * Out: the decisions, and what they were asked about, complete once the consolidation is done.
 */
export function decide(
  site: Site,
  { shared, themes }: Pick<ConsolidationInput, 'shared' | 'themes'>,
  draft: Draft | undefined,
  unknown: 'take' | 'refuse',
): Decisions & { readonly found: () => Found } {
  const byId = new Map((draft?.styles ?? []).map((style) => [style.id, style]));
  const byForm = new Map((draft?.tokens ?? []).map((token) => [`${token.kind} ${token.form}`, token]));
  const found: { -readonly [K in keyof Found]: Found[K] } = { sheetMoves: [], styles: [], values: [] };
  const isTaken = (id: string): boolean => byId.get(id)?.take ?? unknown === 'take';
  return {
    values: (draft?.['near misses'] ?? []).filter(({ change }) => change),
    sheetMoves: (moves) => {
      found.sheetMoves = moves;
      return moves.filter((move) => isTaken(moveId(move)));
    },
    styles: (styles, placeOf) => {
      const named = nameAll(site, styles, byId, unknown === 'refuse' ? namesInUse(site) : undefined);
      found.styles = named;
      const kept: Kept[] = [];
      const taken = named.flatMap((style): NamedStyle[] => {
        const entry = byId.get(styleId(style));
        if (entry?.take ?? unknown === 'take')
          return entry === undefined ? [style] : [edited(style, entry, shared, placeOf, kept)];
        const reason =
          entry === undefined ? ({ kind: 'not in the draft' } as const) : ({ kind: 'refused' } as const);
        for (const member of style.members) keepAll(member, reason, kept);
        return [];
      });
      return { styles: merged(taken, byId, kept), kept };
    },
    tokens: (values, model) => {
      const used = customNames(model, themes);
      for (const { name } of draft?.tokens ?? []) used.add(name);
      const rules = namingRules(site);
      found.values = worthy(values).map((value): ValueToken => {
        const known = byForm.get(`${value.kind} ${value.form}`);
        const name = known?.name ?? nameValue(value.kind, value.form, rules.convention, used);
        return { ...value, name, text: usualSpelling(value.places) };
      });
      return found.values.filter(
        (value) => byForm.get(`${value.kind} ${value.form}`)?.take ?? unknown === 'take',
      );
    },
    found: () => found,
  };
}

/** A value is worth a name from so many places on. */
const TOKEN_USES = 3;

function worthy(values: readonly SheetValue[]): SheetValue[] {
  return values.filter(
    ({ places, form }) => places.length >= TOKEN_USES && form !== '#ffffff' && form !== '#000000',
  );
}

function nameAll(
  site: Site,
  styles: readonly Style[],
  byId: ReadonlyMap<string, DraftStyle>,
  inUse: ReadonlySet<string> | undefined,
): NamedStyle[] {
  const rules = namingRules(site);
  const taken = new Set(rules.taken);
  for (const { name } of byId.values()) if (name !== undefined) taken.add(name.toLowerCase());
  const fresh = styles.filter(
    (style) => style.home.kind === 'new class' && byId.get(styleId(style))?.name === undefined,
  );
  const names = nameStyles(fresh, { ...rules, taken });
  return styles.map((style): NamedStyle => {
    if (style.home.kind === 'existing class') return { ...style, className: style.home.name };
    if (style.home.kind !== 'new class') return { ...style, className: undefined };
    const entry = byId.get(styleId(style));
    const className = entry?.name ?? names[fresh.indexOf(style)]!;
    if (entry?.take === true && entry.into === undefined && inUse?.has(className.toLowerCase()))
      throw new UsageError(
        `${DRAFT_FILE}: style ${entry.id}: .${className} is in use on the site already; choose another name`,
      );
    return { ...style, className };
  });
}

/** A style as a person has cut it down: without declarations that were left out, and without excepted places. */
function edited(
  style: NamedStyle,
  entry: DraftStyle,
  shared: string,
  placeOf: PlaceOf,
  kept: Kept[],
): NamedStyle {
  if (style.home.kind === 'already given' || style.home.kind === 'existing class')
    return withoutPlaces(style, entry, placeOf, kept);
  const { declarations, defects } = parseDeclarations(entry.declarations);
  if (declarations.length === 0 || defects.length > 0) {
    const what = defects[0] === undefined ? 'holds none' : `«${defects[0].detail}» is none`;
    throw new UsageError(
      `${DRAFT_FILE}: style ${entry.id}: declarations: expected CSS declarations, and it ${what}`,
    );
  }
  const wanted = new Set(declarations.map((one) => declarationKey(one, shared)));
  const saidBy = ({ declarations: own, holder }: CarriedUnit): string[] =>
    own.map((one) => declarationKey(one, holder));
  const isWanted = (unit: CarriedUnit): boolean => saidBy(unit).every((key) => wanted.has(key));
  const units = style.units.filter(isWanted);
  const said = new Set(style.units.flatMap(saidBy));
  const foreign = [...wanted].filter((key) => !said.has(key));
  if (foreign.length > 0)
    throw new UsageError(
      `${DRAFT_FILE}: style ${entry.id}: «${foreign[0]!.replace(':', ': ')}» is not what its elements say; declarations may be left out whole, not changed`,
    );
  if (units.length === style.units.length) return withoutPlaces(style, entry, placeOf, kept);
  const members = style.members.map((member): Member => {
    const own = member.units.filter(isWanted);
    keepAll(
      { ...member, units: member.units.filter((unit) => !own.includes(unit)) },
      { kind: 'refused' },
      kept,
    );
    return { ...member, units: own };
  });
  return withoutPlaces(
    { ...style, units, keys: units.map(({ key }) => key).sort(), members },
    entry,
    placeOf,
    kept,
  );
}

function withoutPlaces(
  style: NamedStyle,
  { except }: DraftStyle,
  placeOf: PlaceOf,
  kept: Kept[],
): NamedStyle {
  if (except === undefined || except.length === 0) return style;
  const places = new Set(except);
  const members = style.members.filter((member) => {
    if (!places.has(showPlace(placeOf(member.carrier)))) return true;
    keepAll(member, { kind: 'refused' }, kept);
    return false;
  });
  return { ...style, members };
}

/** Elements of styles that go into others wear those classes; what the others lack stays. */
function merged(
  styles: readonly NamedStyle[],
  byId: ReadonlyMap<string, DraftStyle>,
  kept: Kept[],
): NamedStyle[] {
  const moving = styles.filter((style) => byId.get(styleId(style))?.into !== undefined);
  return styles
    .filter((style) => !moving.includes(style))
    .map((style) => {
      const joining = moving.filter((one) => byId.get(styleId(one))!.into === style.className);
      if (joining.length === 0 || style.home.kind !== 'new class') return style;
      const members = joining.flatMap((one) => {
        const lacking = style.keys.find((key) => !one.keys.includes(key));
        if (lacking !== undefined)
          throw new UsageError(
            `${DRAFT_FILE}: style ${styleId(one)}: "${one.className}" cannot go into "${style.className}": it lacks ${lacking.replace(':', ': ')}`,
          );
        return one.members.map((member): Member => {
          const units = member.units.filter(({ key }) => style.keys.includes(key));
          keepAll(
            { ...member, units: member.units.filter((unit) => !units.includes(unit)) },
            { kind: 'refused' },
            kept,
          );
          return { ...member, units };
        });
      });
      return { ...style, members: [...style.members, ...members] };
    });
}

function keepAll({ carrier, units }: Member, reason: Kept['reason'], kept: Kept[]): void {
  for (const unit of units) kept.push({ carrier, unit, reason });
}

export function moveId(move: SheetMove): string {
  return shortHash(`${move.kind} ${move.key}`);
}

export function styleId({ home, keys, units }: Style): string {
  const named = 'name' in home ? home.name : 'selectors' in home ? home.selectors.join() : '';
  const from = home.kind === 'already given' ? units.map((unit) => unit.from.kind).join() : '';
  return shortHash(`${home.kind} ${named} ${from} ${home.kind === 'existing class' ? '' : keys.join('\n')}`);
}

function shortHash(text: string): string {
  return createHash('sha256').update(text).digest('hex').slice(0, 8);
}

/** The selector of a move as a person reads it. */
export function moveSelector(move: SheetMove): string {
  if (move.kind === 'grouped rule') return move.rules.map(({ selectors }) => selectors[0]!).join(', ');
  return [...conditionsOf(move.rule), move.rule.selectors[0]!.replace(/\s+/g, ' ')].join(' ');
}
