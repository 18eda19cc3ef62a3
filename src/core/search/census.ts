// The elements of a site, counted by kind: what stands alike, under the same ancestors, with the same styling.

import {
  hintDeclarations,
  OUTDATED_ELEMENTS,
  type OwnStyling,
  type SiteModel,
  type Standing,
  type StyleReader,
} from '../cascade/index.js';
import type { Page, PageElement, SourceTag } from '../markup/index.js';
import { type CarriedUnit, type Carrier, undecidedReason } from '../stock/index.js';
import type { Trial } from './trial.js';

/** Elements that no selector without positions tells apart, and that carry the same styling. */
export interface Kind {
  readonly parent: Kind | undefined;
  readonly children: Kind[];
  /** The first of them, for asking: as it is on the site, and with the existing classes that it is to wear. */
  page: Page;
  element: PageElement;
  /** One for every different stack of sheets that may style it. */
  readers: readonly StyleReader[];
  standings: readonly Standing[];
  /** What they last were seen to say of themselves. */
  own: OwnStyling | undefined;
  /** Their outcome numbers as the site is, by reader. */
  readonly original: readonly number[];
  /** The nearest table around a cell. */
  readonly table: Kind | undefined;
  /** Where it is the same for all of them: on several pages, or on the only element. */
  readonly sharedId: string | undefined;
  readonly units: readonly CarriedUnit[];
  readonly carriers: Carrier[];
  /** Pairs of a number in `Census.pages` and an element's index. */
  readonly members: number[];
  count: number;
  readonly onPages: Set<Page>;
  /** Units that have found no home yet. */
  readonly left: Set<CarriedUnit>;
  /** Rules that reach the kind, and are not written yet. */
  readonly trials: Trial[];
}

export interface Census {
  readonly pages: readonly Page[];
  readonly kinds: readonly Kind[];
  readonly byName: ReadonlyMap<string, readonly Kind[]>;
  readonly byClass: ReadonlyMap<string, readonly Kind[]>;
}

/** In: the site, and every tag that carries styling. Pages that cannot be decided are not counted: nothing may reach them. */
export function takeCensus(model: SiteModel, carriers: readonly Carrier[]): Census {
  const byTag = new Map<SourceTag, Carrier>();
  for (const carrier of carriers) if (carrier.tag !== undefined) byTag.set(carrier.tag, carrier);
  const pages = model.pages.filter((page) => undecidedReason(page, model.stacksOf(page)) === undefined);
  const shared = sharedIds(pages);
  const known = new Map<string, Kind>();
  const numbers = new Map<Kind, number>();
  const kinds: Kind[] = [];
  pages.forEach((page, pageNumber) => {
    const readers = model.readersOf(page);
    const ofPage: Kind[] = [];
    const root = page.kind === 'component' ? 'fragment' : page.quirks ? 'quirks' : 'page';
    for (const element of page.elements) {
      const parent = element.parent < 0 ? undefined : ofPage[element.parent];
      const carrier = element.tag && byTag.get(element.tag);
      const standings = readers.map((reader) => reader.standing(element.index));
      const key = [
        parent === undefined ? root : numbers.get(parent),
        `${element.namespace === 'html' ? '' : element.namespace}${element.name}`,
        element.id !== undefined && shared.has(element.id) ? element.id : '',
        element.classes.join('.'),
        element.templated,
        element.attributes.length === 0
          ? ''
          : hookAttributes(element)
              .map(({ name, value }) => `${name}=${value}`)
              .join(),
        standings.length === 1 ? standings[0]!.ground : standings.map(({ ground }) => ground).join('&'),
        carrier === undefined ? '' : carrier.units.map(unitMark).join('\n'),
        carrier === undefined ? (element.style ?? '') : '',
      ].join('\0');
      let kind = known.get(key);
      if (kind === undefined) {
        const id = element.id !== undefined && shared.has(element.id) ? element.id : undefined;
        kind = newKind(page, element, parent, readers, standings, carrier, id);
        known.set(key, kind);
        numbers.set(kind, kinds.length);
        kinds.push(kind);
        parent?.children.push(kind);
      }
      ofPage.push(kind);
      kind.count++;
      kind.onPages.add(page);
      kind.members.push(pageNumber, element.index);
      if (carrier?.element === element) kind.carriers.push(carrier);
    }
  });
  return {
    pages,
    kinds,
    byName: index(kinds, ({ element }) => [element.name]),
    byClass: index(kinds, ({ element }) => element.classes),
  };
}

/** Attributes that say what an element is, and that a selector may ask for. */
const HOOK_ATTRIBUTES = new Set(['type', 'role', 'dir', 'scope', 'rel', 'open']);

export function hookAttributes({ attributes }: PageElement): PageElement['attributes'] {
  return attributes.filter(({ name }) => HOOK_ATTRIBUTES.has(name));
}

function newKind(
  page: Page,
  element: PageElement,
  parent: Kind | undefined,
  readers: readonly StyleReader[],
  standings: readonly Standing[],
  carrier: Carrier | undefined,
  sharedId: string | undefined,
): Kind {
  const isCell = element.name === 'td' || element.name === 'th';
  let table = isCell ? parent : undefined;
  while (table !== undefined && table.element.name !== 'table') table = table.parent;
  const units = carrier?.units ?? [];
  return {
    parent,
    children: [],
    page,
    element,
    readers,
    standings,
    own: undefined,
    original: readers.map((reader) => reader.outcomeNumber(element.index)),
    table,
    sharedId,
    units,
    carriers: [],
    members: [],
    count: 0,
    onPages: new Set(),
    left: new Set(units),
    trials: [],
  };
}

function unitMark({ key, from, objection }: CarriedUnit): string {
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

function index(kinds: readonly Kind[], keysOf: (kind: Kind) => readonly string[]): Map<string, Kind[]> {
  const found = new Map<string, Kind[]>();
  for (const kind of kinds) {
    for (const key of new Set(keysOf(kind))) {
      const list = found.get(key);
      if (list === undefined) found.set(key, [kind]);
      else list.push(kind);
    }
  }
  return found;
}

/** The id that all elements of a kind have. */
export function idOf({ sharedId, count, element }: Kind): string | undefined {
  return sharedId ?? (count === 1 ? element.id : undefined);
}

/** The kinds of cells that a kind of table has. */
export function cellKinds(table: Kind): Kind[] {
  const found: Kind[] = [];
  const open = [...table.children];
  for (let kind = open.pop(); kind !== undefined; kind = open.pop()) {
    if (kind.table === table) found.push(kind);
    open.push(...kind.children);
  }
  return found;
}

/** The element as it is once units are taken off it. */
function altered({ element, units }: Kind, isGone: (unit: CarriedUnit) => boolean): PageElement {
  const gone = units.filter(isGone);
  if (gone.length === 0) return element;
  const names = new Set(gone.flatMap(({ from }) => (from.kind === 'attributes' ? from.names : [])));
  const neutral = gone.some(({ from }) => from.kind === 'name')
    ? OUTDATED_ELEMENTS.get(element.name)?.neutral
    : undefined;
  return {
    ...element,
    name: neutral ?? element.name,
    attributes: element.attributes.filter(({ name }) => !names.has(name)),
    style: styleWithout(element, units, gone),
  };
}

function styleWithout(
  { style }: PageElement,
  units: readonly CarriedUnit[],
  gone: readonly CarriedUnit[],
): string | undefined {
  const inStyle = units.filter(({ from }) => from.kind === 'style');
  if (!gone.some(({ from }) => from.kind === 'style')) return style;
  const stay = inStyle.filter((unit) => !gone.includes(unit)).flatMap(({ declarations }) => declarations);
  if (stay.length === 0) return undefined;
  return stay
    .sort((a, b) => a.range.start - b.range.start)
    .map(({ property, value, important }) => `${property}:${value}${important ? '!important' : ''}`)
    .join(';');
}

/** The element as it is without the units that have a home, and without these. */
export function alteredElement(kind: Kind, taken: readonly CarriedUnit[]): PageElement {
  return altered(kind, (unit) => taken.includes(unit) || !kind.left.has(unit));
}

/**
 * Whether the kind looks as it does on the site.
 * In: units that are taken away besides those that have a home already, from the kind or from its table; further rules.
 */
export function holds(kind: Kind, taken: readonly CarriedUnit[], further: readonly Trial[]): boolean {
  const own = ownStyling(kind, taken);
  const trials = further.length === 0 ? kind.trials : [...kind.trials, ...further];
  return kind.readers.every(
    (reader, at) => reader.trialNumber(kind.standings[at]!, own, trials) === kind.original[at],
  );
}

/** What the kind's elements would say of themselves. Most kinds carry nothing: theirs never changes. */
function ownStyling(kind: Kind, taken: readonly CarriedUnit[]): OwnStyling {
  const bare = kind.units.length === 0 && (kind.table === undefined || kind.table.units.length === 0);
  if (bare && kind.own !== undefined) return kind.own;
  const isGone = (unit: CarriedUnit): boolean =>
    taken.includes(unit) || !unitHolder(kind, unit).left.has(unit);
  const element = altered(kind, isGone);
  const table = kind.table && altered(kind.table, isGone);
  kind.own = { style: element.style, hints: hintDeclarations(kind.page, element, table) };
  return kind.own;
}

function unitHolder(kind: Kind, unit: CarriedUnit): Kind {
  return kind.units.includes(unit) ? kind : kind.table!;
}
