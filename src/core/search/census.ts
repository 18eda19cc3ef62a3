// The elements of a site, counted by group: what stands alike, under the same ancestors, with the same styling.

import {
  aroundKey,
  type MatchedSheets,
  type OwnStyling,
  type SiteModel,
  type StyleReader,
  type TakenOut,
} from '../cascade/index.js';
import { hintDeclarations, neutralFor } from '../read/hints/index.js';
import type { Page, PageElement, SourceTag } from '../read/markup/index.js';
import type { Declaration } from '../read/sheets/index.js';
import { type MovableDeclaration, type StyledTag, undecidedReason } from '../stock/index.js';
import { ElementNames, Numbers, Remembered } from './element-names.js';
import type { Trial } from './trial.js';

/** Elements that no selector without positions tells apart, and that carry the same styling. */
export interface ElementGroup {
  readonly parent: ElementGroup | undefined;
  readonly children: ElementGroup[];
  /** The first of them, for asking: as it is on the site, and with the existing classes that it is to wear. */
  page: Page;
  element: PageElement;
  /** One for every different sheet order that may style it. */
  readers: readonly StyleReader[];
  matchedSheets: readonly MatchedSheets[];
  /** What they last were seen to declare for themselves. */
  own: OwnStyling | undefined;
  /** Their outcome numbers as the site is, by reader. */
  readonly original: readonly number[];
  /** The nearest table around a cell. */
  readonly table: ElementGroup | undefined;
  /** Where it is the same for all of them: on several pages, or on the only element. */
  readonly sharedId: string | undefined;
  readonly movables: readonly MovableDeclaration[];
  readonly styledTags: StyledTag[];
  /** Pairs of a number in `Census.pages` and an element's index. */
  readonly members: number[];
  count: number;
  /** Units that have found no home yet. */
  readonly left: Set<MovableDeclaration>;
  /** Rules that reach the group, and are not written yet. */
  readonly trials: Trial[];
  /** What rules that match it no longer declare. */
  readonly gone: Set<Declaration>;
}

export interface Census {
  readonly pages: readonly Page[];
  readonly groups: readonly ElementGroup[];
  readonly byName: ReadonlyMap<string, readonly ElementGroup[]>;
  readonly byClass: ReadonlyMap<string, readonly ElementGroup[]>;
}

/** In: the site, and every tag that carries styling. Pages that cannot be decided are not counted: nothing may reach them. */
export function takeCensus(model: SiteModel, styledTags: readonly StyledTag[]): Census {
  const byTag = new Map<SourceTag, StyledTag>();
  for (const styledTag of styledTags) if (styledTag.tag !== undefined) byTag.set(styledTag.tag, styledTag);
  const pages = model.pages.filter((page) => undecidedReason(page, model.sheetOrdersOf(page)) === undefined);
  const shared = new Set([...sharedIds(pages), ...(model.sources.sharedIds ?? []), ...scopeIds(styledTags)]);
  const known = new Map<string, ElementGroup>();
  const numbers = new Map<ElementGroup, number>();
  const groups: ElementGroup[] = [];
  const texts = new Numbers();
  const names = new ElementNames();
  const marks = new Remembered((styledTag: StyledTag) => styledTag.movables.map(movableMark).join('\n'));
  pages.forEach((page, pageNumber) => {
    const readers = model.readersOf(page);
    const ofPage: ElementGroup[] = [];
    const root = page.kind === 'component' ? 'fragment' : page.quirks ? 'quirks' : 'page';
    for (const element of page.elements) {
      const parent = element.parent < 0 ? undefined : ofPage[element.parent];
      const styledTag = element.tag && byTag.get(element.tag);
      const id = element.id !== undefined && shared.has(element.id) ? element.id : undefined;
      const above = parent === undefined ? `${root}${aroundKey(page, element)}` : numbers.get(parent);
      const matches =
        readers.length === 1
          ? readers[0]!.matchKey(element.index)
          : readers.map((reader) => reader.matchKey(element.index)).join('&');
      const says = styledTag === undefined ? `"${element.style ?? ''}` : marks.of(styledTag);
      const key = `${above}|${names.of(element)}|${id ?? ''}|${element.templated}|${matches}|${texts.of(says)}`;
      let group = known.get(key);
      if (group === undefined) {
        const matchedSheets = readers.map((reader) => reader.matchedSheets(element.index));
        group = newGroup(
          { page, element, parent, readers, matchedSheets, sharedId: id },
          styledTag?.movables ?? [],
        );
        known.set(key, group);
        numbers.set(group, groups.length);
        groups.push(group);
        parent?.children.push(group);
      }
      ofPage.push(group);
      group.count += model.countOf(page, element);
      group.members.push(pageNumber, element.index);
      if (styledTag?.element === element) group.styledTags.push(styledTag);
    }
  });
  return {
    pages,
    groups,
    byName: index(groups, ({ element }) => [element.name]),
    byClass: index(groups, ({ element }) => element.classes),
  };
}

/** The first element of a group. */
type First = Pick<ElementGroup, 'page' | 'element' | 'parent' | 'readers' | 'matchedSheets' | 'sharedId'>;

function newGroup(first: First, movables: readonly MovableDeclaration[]): ElementGroup {
  const { element, parent, readers } = first;
  const isCell = element.name === 'td' || element.name === 'th';
  let table = isCell ? parent : undefined;
  while (table !== undefined && table.element.name !== 'table') table = table.parent;
  return {
    ...first,
    children: [],
    own: undefined,
    original: readers.map((reader) => reader.outcomeNumber(element.index)),
    table,
    movables,
    styledTags: [],
    members: [],
    count: 0,
    left: movables.length === 0 ? NO_UNITS : new Set(movables),
    trials: [],
    gone: new Set(),
  };
}

/** Most groups carry nothing; what is left only ever gets less. */
const NO_UNITS = new Set<MovableDeclaration>();

/** The pages that hold a group. */
export function pagesHolding({ members }: ElementGroup, { pages }: Census): Set<Page> {
  const found = new Set<Page>();
  for (let at = 0; at < members.length; at += 2) found.add(pages[members[at]!]!);
  return found;
}

function movableMark({ key, from, objection }: MovableDeclaration): string {
  return `${from.kind === 'attributes' ? from.names.join('+') : from.kind} ${key} ${objection?.kind ?? ''}`;
}

/** Ids that stand on several pages are places of the site; all others are one page's own. */
function sharedIds(pages: readonly Page[]): Set<string> {
  const first = new Map<string, Page>();
  const shared = new Set<string>();
  for (const page of pages) {
    for (const { id } of page.elements) {
      if (id === undefined || shared.has(id)) continue;
      const known = first.get(id);
      if (known === undefined) first.set(id, page);
      else if (known !== page) shared.add(id);
    }
  }
  return shared;
}

/** From this much styling below it on, an element's id is a place of its page. */
export const PLACE_FROM = 4;

/** Ids of one page that much styling stands under. */
function scopeIds(styledTags: readonly StyledTag[]): Set<string> {
  const counts = new Map<PageElement, number>();
  for (const { page, element } of styledTags) {
    for (let at = element?.parent ?? -1; at >= 0; at = page.elements[at]!.parent) {
      const above = page.elements[at]!;
      if (above.id !== undefined) counts.set(above, (counts.get(above) ?? 0) + 1);
    }
  }
  return new Set(
    [...counts].flatMap(([{ id }, count]) => (count >= PLACE_FROM && id !== undefined ? id : [])),
  );
}

function index(
  groups: readonly ElementGroup[],
  keysOf: (group: ElementGroup) => readonly string[],
): Map<string, ElementGroup[]> {
  const found = new Map<string, ElementGroup[]>();
  for (const group of groups) {
    for (const key of new Set(keysOf(group))) {
      const list = found.get(key);
      if (list === undefined) found.set(key, [group]);
      else list.push(group);
    }
  }
  return found;
}

/** The id that all elements of a group have. */
export function idOf({ sharedId, count, element }: ElementGroup): string | undefined {
  return sharedId ?? (count === 1 ? element.id : undefined);
}

/** The groups of cells that a group of table has. */
export function cellGroups(table: ElementGroup): ElementGroup[] {
  const found: ElementGroup[] = [];
  const open = [...table.children];
  for (let group = open.pop(); group !== undefined; group = open.pop()) {
    if (group.table === table) found.push(group);
    open.push(...group.children);
  }
  return found;
}

/** The element as it is once movable declarations are taken off it. */
function altered(
  { element, movables }: ElementGroup,
  isGone: (movable: MovableDeclaration) => boolean,
): PageElement {
  const gone = movables.filter(isGone);
  if (gone.length === 0) return element;
  const names = new Set(gone.flatMap(({ from }) => (from.kind === 'attributes' ? from.names : [])));
  const neutral = gone.some(({ from }) => from.kind === 'name') ? neutralFor(element.name) : undefined;
  return {
    ...element,
    name: neutral ?? element.name,
    attributes: element.attributes.filter(({ name }) => !names.has(name)),
    style: styleWithout(element, movables, gone),
  };
}

function styleWithout(
  { style }: PageElement,
  movables: readonly MovableDeclaration[],
  gone: readonly MovableDeclaration[],
): string | undefined {
  const inStyle = movables.filter(({ from }) => from.kind === 'style');
  if (!gone.some(({ from }) => from.kind === 'style')) return style;
  const stay = inStyle
    .filter((movable) => !gone.includes(movable))
    .flatMap(({ declarations }) => declarations);
  if (stay.length === 0) return undefined;
  return stay
    .sort((a, b) => a.range.start - b.range.start)
    .map(({ property, value, important }) => `${property}:${value}${important ? '!important' : ''}`)
    .join(';');
}

/** The element as it is without the movable declarations that have a home, and without these. */
export function alteredElement(group: ElementGroup, taken: readonly MovableDeclaration[]): PageElement {
  return altered(group, (movable) => taken.includes(movable) || !group.left.has(movable));
}

/**
 * Whether the group looks as it does on the site.
 * In: movable declarations that are taken away besides those that have a home already, from the group or from its table; further rules;
 * declarations that rules lose besides those that they have lost already.
 */
export function holds(
  group: ElementGroup,
  taken: readonly MovableDeclaration[],
  further: readonly Trial[],
  lost: readonly Declaration[] = [],
): boolean {
  const own = ownStyling(group, taken);
  const trials = further.length === 0 ? group.trials : [...group.trials, ...further];
  const gone = group.gone.size + lost.length === 0 ? undefined : takenOut([...group.gone, ...lost]);
  return group.readers.every(
    (reader, at) => reader.trialNumber(group.matchedSheets[at]!, own, trials, gone) === group.original[at],
  );
}

const numbers = new WeakMap<Declaration, number>();
let last = 0;

function takenOut(declarations: readonly Declaration[]): TakenOut {
  const own = new Set(declarations);
  const numberOf = (one: Declaration): number => {
    const known = numbers.get(one) ?? ++last;
    numbers.set(one, known);
    return known;
  };
  const key = [...own].map(numberOf).sort((a, b) => a - b);
  return { key: key.join(), declarations: own };
}

/** What the group's elements would declare for themselves. Most groups carry nothing: theirs never changes. */
function ownStyling(group: ElementGroup, taken: readonly MovableDeclaration[]): OwnStyling {
  const bare =
    group.movables.length === 0 && (group.table === undefined || group.table.movables.length === 0);
  if (bare && group.own !== undefined) return group.own;
  const isGone = (movable: MovableDeclaration): boolean =>
    taken.includes(movable) || !movableHolder(group, movable).left.has(movable);
  const element = altered(group, isGone);
  const table = group.table && altered(group.table, isGone);
  group.own = { style: element.style, hints: hintDeclarations(group.page, element, table) };
  return group.own;
}

function movableHolder(group: ElementGroup, movable: MovableDeclaration): ElementGroup {
  return group.movables.includes(movable) ? group : group.table!;
}
