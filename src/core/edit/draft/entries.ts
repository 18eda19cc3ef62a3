// A plan as the entries of a draft: one for each style and each rule, with what it saves.

import { groupBy } from '../../base/group-by.js';
import { comparePlaces, type Place, placeIn, showPlace } from '../../base/source.js';
import { sumOf } from '../../base/sum.js';
import type { SiteModel } from '../../cascade/index.js';
import { type Declaration, declarationText } from '../../read/sheets/index.js';
import {
  type ClassMove,
  classSelectors,
  type NamedIdClass,
  type NamedSection,
  type NamedStyle,
  type OwnRule,
  type PlaceOf,
  pagesOf,
  type RuleMove,
  rulesOf,
  selectorsOf,
  takenOut,
} from '../../search/index.js';
import { type MovableDeclaration, type StyledTag, tagsOf } from '../../stock/index.js';
import { classId, idClassId, moveId, partId, sectionId, styleId } from './decisions.js';
import type { DraftStyle } from './schema.js';

/** What changes beside the styles of tags. */
export interface SheetChanges {
  readonly rules: readonly RuleMove[];
  readonly classes: readonly ClassMove[];
  readonly sections: readonly NamedSection[];
  readonly ids: readonly NamedIdClass[];
  readonly parts: readonly GivenPart[];
}

/** A declaration of a tag that a rule declares by now. */
export interface GivenPart {
  readonly styledTag: StyledTag;
  readonly declaration: Declaration;
  readonly key: string;
}

/** Strongest saving first. In: `shared`, the site path of the shared sheet; `known`, entries of an earlier draft by id. */
export function entriesOf(
  styles: readonly NamedStyle[],
  { rules: moves, classes, sections, ids, parts }: SheetChanges,
  shared: string,
  known: ReadonlyMap<string, DraftStyle>,
  placeOf: PlaceOf,
  model: SiteModel,
): DraftStyle[] {
  return [
    ...styles.map((style) => ({
      saves: savedPlaces(style),
      entry: styleEntry(style, shared, known.get(styleId(style)), placeOf),
    })),
    ...moves.map((move) => ({
      saves: movedCount(move) - writtenBy(move),
      entry: moveEntry(move, shared, known.get(moveId(move)), model),
    })),
    ...[...groupBy(parts, ({ key }) => key).values()].map((own) => ({
      saves: own.length,
      entry: partEntry(own, known.get(partId(own[0]!.key)), placeOf),
    })),
    ...sections.map((value) => {
      const entry = sectionEntry(value, known.get(sectionId(value)));
      return { saves: entry.saves?.places ?? 0, entry };
    }),
    ...ids.map((value) => ({
      saves: savedByIds(value),
      entry: idsEntry(value, known.get(idClassId(value))),
    })),
    ...classes.map((move) => ({
      // A word in a tag is a quarter of a place.
      saves: move.tags.length / 4,
      entry: classEntry(move, known.get(classId(move)), model),
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
    ...(home.kind === 'existing class' ? { because: home.because } : {}),
    ...(beats === undefined ? {} : { beats: `${beats.selector} (${showPlace(beats.place)})` }),
    elements: Math.round(sumOf(members, ({ styledTag }) => tagsOf(styledTag))),
    pages: pagesOf(members.map(({ styledTag }) => styledTag)).size,
    'out of': fromText(style),
    ...(style.page === undefined ? {} : { 'written into': style.page }),
    'such as': suchAs(members, placeOf),
    saves: { places: savedPlaces(style), bytes: savedBytes(style, shared) },
    ...(instead === undefined ? {} : { instead }),
    declarations: declarationsOf(style, shared),
  };
}

/** `style attributes`, or the old attributes that declare it. */
function fromText({ members }: NamedStyle): string {
  const names = new Set<string>();
  for (const { styledTag, movables } of members) {
    for (const { from } of movables) {
      if (from.kind === 'style') names.add('style');
      else if (from.kind === 'name') names.add(`<${styledTag.element?.name}>`);
      else for (const name of from.names) names.add(name);
    }
  }
  return [...names].sort().join(', ');
}

export function declarationsOf({ movables }: NamedStyle, shared: string): string {
  const lines = movables.flatMap(({ declarations, cells = [], holder }) => [
    ...declarations.map((one) => `${declarationText(one, holder, shared)};\n`),
    ...cells.map((one) => `/* its cells: ${declarationText(one, holder, shared)} */\n`),
  ]);
  return lines.join('');
}

/** Places less to keep up: what goes out of the markup, less what is written. */
export function savedPlaces(style: NamedStyle): number {
  return (
    Math.round(takenOut(style.members)) -
    rulesOf(style).reduce((sum, { declarations }) => sum + declarations.length, 0)
  );
}

/** Characters less, about: indentation is not counted. */
export function savedBytes(style: NamedStyle, shared: string): number {
  let saved = 0;
  for (const { styledTag, movables } of style.members) {
    const tags = tagsOf(styledTag);
    for (const movable of movables) saved += tags * writtenLength(styledTag.tag?.attributes, movable);
    if (style.className !== undefined)
      saved -=
        tags *
        (style.className.length + (styledTag.tag?.attributes.has('class') === true ? 1 : ' class=""'.length));
  }
  for (const { selectors, declarations } of rulesOf(style)) {
    saved -= selectors.join(', ').length + 4;
    for (const { declaration, holder } of declarations)
      saved -= declarationText(declaration, holder, shared).length + 4;
  }
  return Math.round(saved);
}

function writtenLength(
  attributes: ReadonlyMap<string, { readonly start: number; readonly end: number }> | undefined,
  { from, declarations }: MovableDeclaration,
): number {
  if (from.kind === 'name') return 0;
  if (from.kind === 'style')
    return declarations.reduce((sum, { range }) => sum + range.end - range.start + 2, 0);
  return from.names.reduce((sum, name) => {
    const range = attributes?.get(name);
    return range === undefined ? sum : sum + range.end - range.start + 1;
  }, 0);
}

/** The first two tags. */
function suchAs(all: readonly { readonly styledTag: StyledTag }[], placeOf: PlaceOf): string[] {
  const found = new Set<string>();
  const first: Place[] = [];
  for (const { styledTag } of all) {
    // A build makes several tags of one.
    const place = placeOf(styledTag);
    if (found.has(showPlace(place))) continue;
    found.add(showPlace(place));
    first.push(place, ...styledTag.also.slice(0, 1));
    if (found.size === 2) break;
  }
  return first.sort(comparePlaces).slice(0, 2).map(showPlace);
}

function partEntry(parts: readonly GivenPart[], known: DraftStyle | undefined, placeOf: PlaceOf): DraftStyle {
  const [first] = parts;
  const { property, value } = first!.declaration;
  const elements = Math.round(sumOf(parts, ({ styledTag }) => tagsOf(styledTag)));
  return {
    id: partId(first!.key),
    home: 'already given',
    take: known?.take ?? true,
    ...(known?.reviewed === undefined ? {} : { reviewed: known.reviewed }),
    elements,
    pages: pagesOf(parts.map(({ styledTag }) => styledTag)).size,
    'out of': 'style',
    'such as': suchAs(parts, placeOf),
    saves: { places: elements, bytes: elements * (property.length + value.length + 4) },
    declarations: `${property}: ${value};\n`,
  };
}

function sectionEntry(value: NamedSection, known: DraftStyle | undefined): DraftStyle {
  const { name, colours, otherwise, rows } = value;
  const places = rows.reduce((all, { said }) => all + said.reduce((some, { own }) => some + own.times, 0), 0);
  const set = [
    ...(otherwise === undefined ? [] : [`:root { ${name}: ${otherwise}; }`]),
    ...[...colours].map(([section, colour]) => `.${section} { ${name}: ${colour}; }`),
  ];
  return {
    id: sectionId(value),
    home: 'values by section',
    name,
    take: known?.take ?? true,
    ...(known?.reviewed === undefined ? {} : { reviewed: known.reviewed }),
    selector: [...new Set(rows.map(({ base, suffix }) => base + suffix))].join(', '),
    'out of': `${places} places`,
    saves: { places: places - rows.length - set.length, bytes: 0 },
    declarations: set.map((one) => `${one}\n`).join(''),
  };
}

/** Half a place for a selector, a quarter for a word in a tag. */
function savedByIds({ ids, rules, tags }: NamedIdClass): number {
  const selectors = rules.reduce((all, { bases }) => all + bases.length - bases.length / ids.length, 0);
  return selectors / 2 - tags.length / 4;
}

function idsEntry(value: NamedIdClass, known: DraftStyle | undefined): DraftStyle {
  const { name, form, ids, rules, tags } = value;
  return {
    id: idClassId(value),
    home: 'class for ids',
    name,
    take: known?.take ?? true,
    ...(known?.reviewed === undefined ? {} : { reviewed: known.reviewed }),
    selector: rules.flatMap((own) => classSelectors(own, form, name)).join(', '),
    elements: tags.length,
    pages: new Set(tags.map(({ page }) => page)).size,
    'out of': ids.map((id) => `#${id}`).join(', '),
    'such as': tags.slice(0, 2).map((one) => showPlace(placeOfTag(one))),
    saves: { places: Math.floor(savedByIds(value)), bytes: 0 },
    declarations: rules
      .flatMap(({ rule, holder }) =>
        rule.declarations.map((one) => `${declarationText(one, holder, holder)};\n`),
      )
      .join(''),
  };
}

function placeOfTag({ page, element }: NamedIdClass['tags'][number]): Place {
  return placeIn(page.path, page.text, element.tag?.range.start ?? 0);
}

function classEntry(move: ClassMove, known: DraftStyle | undefined, model: SiteModel): DraftStyle {
  const { name, instead, rules, tags } = move;
  const elements = Math.round(sumOf(tags, ({ page, element }) => model.countOf(page, element)));
  const pages = tags.flatMap(({ page, element }) => [
    page.path,
    ...model.alsoAt(page, element).map(({ path }) => path),
  ]);
  return {
    id: classId(move),
    home: instead === undefined ? 'idle class' : 'counted class',
    take: known?.take ?? true,
    ...(known?.reviewed === undefined ? {} : { reviewed: known.reviewed }),
    selector: instead ?? `.${name}`,
    elements,
    pages: new Set(pages).size,
    'out of': `class="${name}"`,
    'such as': tags.slice(0, 2).map((one) => showPlace(placeOfTag(one))),
    saves: { places: 0, bytes: elements * (name.length + 1) },
    declarations: rules
      .flatMap(({ own }) =>
        own.rule.declarations.map((one) => `${declarationText(one, own.holder, own.holder)};\n`),
      )
      .join(''),
  };
}

function moveEntry(
  move: RuleMove,
  shared: string,
  known: DraftStyle | undefined,
  model: SiteModel,
): DraftStyle {
  const { selectors, conditions, place, replaced } = move;
  const owners = [...new Set(replaced.flatMap(({ said }) => said.map(({ own }) => own)))];
  const drops = replaced
    .filter(({ movable }) => movable.declarations.length === 0)
    .flatMap(({ said }) => said.flatMap(({ movable }) => movable.declarations))
    .map((one) => declarationText(one, shared, shared));
  return {
    id: moveId(move),
    home: homeOfMove(move),
    take: known?.take ?? true,
    ...(known?.reviewed === undefined ? {} : { reviewed: known.reviewed }),
    selector: [...conditions, selectors.join(', ')].join(' '),
    'out of': sourcesText(owners),
    ...(place.sheet === shared ? {} : { 'written into': place.sheet }),
    'such as': owners.slice(0, 2).map((own) => showPlace(movePlace(own, model))),
    saves: { places: movedCount(move) - writtenBy(move), bytes: bytesSaved(move) },
    ...(drops.length === 0 ? {} : { drops: drops.join('; ') }),
    declarations: replaced
      .flatMap(({ movable }) =>
        movable.declarations.map((one) => `${declarationText(one, movable.holder, shared)};\n`),
      )
      .join(''),
  };
}

/** `12 rules of theme/site.css and 30 style blocks`. */
function sourcesText(owners: readonly OwnRule[]): string {
  const parts = [...groupBy(owners, ({ sheet }) => sheet)].map(([sheet, own]) => {
    const times = own.reduce((all, one) => all + one.times, 0);
    const what = sheet === undefined ? 'style block' : 'rule';
    return `${times} ${what}${times === 1 ? '' : 's'}${sheet === undefined ? '' : ` of ${sheet}`}`;
  });
  return parts.join(' and ');
}

function homeOfMove({ selectors, replaced }: RuleMove): DraftStyle['home'] {
  const owners = replaced.flatMap(({ said }) => said.map(({ own }) => own));
  if (owners.some(({ sheet }) => sheet === undefined)) return 'from style blocks';
  const same = owners.every(
    ({ bases, suffix }) => bases.map((base) => base + suffix).join() === selectors.join(),
  );
  return same ? 'joined rule' : selectors.length > 1 ? 'grouped rule' : 'wider rule';
}

/** Places that hold it now. */
export function movedCount({ replaced }: RuleMove): number {
  return replaced.reduce(
    (all, { said }) =>
      all + said.reduce((some, { own, movable }) => some + own.times * movable.declarations.length, 0),
    0,
  );
}

function writtenBy({ replaced, place }: RuleMove): number {
  const there = place.kind === 'into' ? place.anchor!.said : [];
  return replaced
    .filter(({ movable }) => !there.some((one) => one.movable.key === movable.key))
    .reduce((all, { movable }) => all + movable.declarations.length, 0);
}

function bytesSaved({ replaced }: RuleMove): number {
  let saved = 0;
  for (const { movable, said } of replaced) {
    const length = movable.declarations.reduce((all, { range }) => all + range.end - range.start + 2, 0);
    saved += length * (said.reduce((all, { own }) => all + own.times, 0) - 1);
  }
  return saved;
}

/** The first place of a rule. */
export function movePlace({ sheet, places, rule }: OwnRule, { sources }: Pick<SiteModel, 'sources'>): Place {
  const { start } = rule.selectorRange;
  const [first] = places;
  return first === undefined
    ? placeIn(sheet!, sources.sheets.get(sheet!) ?? '', start)
    : placeIn(first.page.path, first.page.text, (first.reference.offset ?? 0) + start);
}
