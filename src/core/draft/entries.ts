// A plan as the entries of a draft: one for each style and each rule, with what it saves.

import {
  movePlaces,
  type NamedStyle,
  type PlaceOf,
  rulesOf,
  type SheetMove,
  selectorsOf,
  takenOut,
} from '../search/index.js';
import { declarationText } from '../sheets/index.js';
import { placeIn, showPlace } from '../source.js';
import type { CarriedUnit } from '../stock/index.js';
import { moveId, moveSelector, styleId } from './decisions.js';
import type { DraftStyle } from './schema.js';

/** Strongest saving first. In: `shared`, the site path of the shared sheet; `known`, entries of an earlier draft by id. */
export function entriesOf(
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
