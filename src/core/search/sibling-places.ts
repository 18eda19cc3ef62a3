// Where elements stand among their siblings, and the pseudo-classes that count so.

import type { Page, PageElement } from '../read/markup/index.js';
import type { Census, ElementGroup } from './census.js';

/** Numbers among the siblings, from 1: from both ends, and among those of the same name. */
export interface Place {
  readonly start: number;
  readonly end: number;
  readonly ofType: number;
}

/** A pseudo-class, and which numbers it takes. */
export interface Pattern {
  readonly text: string;
  readonly takes: (place: Place) => boolean;
  /** How many stand in turn; 0 for a place at an end. */
  readonly period: number;
  /** Counts every sibling: that means something where things of one kind stand in a row. */
  readonly countsAll: boolean;
}

const LONGEST_PERIOD = 8;

/** The simplest first. */
export const PATTERNS: readonly Pattern[] = [
  { text: ':first-child', takes: ({ start }) => start === 1, period: 0, countsAll: false },
  { text: ':last-child', takes: ({ end }) => end === 1, period: 0, countsAll: false },
  ...counting('child', ({ start }) => start),
  // Behind a first row that is none of them.
  {
    text: ':nth-child(2n+3)',
    takes: ({ start }) => start > 1 && start % 2 === 1,
    period: 2,
    countsAll: true,
  },
  at(':not(:first-child)', ({ start }) => start > 1),
  at(':nth-child(n+3)', ({ start }) => start > 2),
  ...[2, 3, 4].map((one) => at(`:nth-child(${one})`, ({ start }) => start === one)),
  at(':nth-last-child(2)', ({ end }) => end === 2),
  { ...at(':first-of-type', ({ ofType }) => ofType === 1), countsAll: false },
  ...counting('of-type', ({ ofType }) => ofType),
];

function at(text: string, takes: Pattern['takes']): Pattern {
  return { text, takes, period: 0, countsAll: true };
}

function counting(what: 'child' | 'of-type', numberOf: (place: Place) => number): Pattern[] {
  const found: Pattern[] = [];
  for (let period = 2; period <= LONGEST_PERIOD; period++)
    for (let offset = 1; offset <= period; offset++) {
      const shown =
        period === 2 ? (offset === 1 ? 'odd' : 'even') : `${period}n${offset === period ? '' : `+${offset}`}`;
      found.push({
        text: `:nth-${what}(${shown})`,
        takes: (place) => numberOf(place) % period === offset % period,
        period,
        countsAll: what === 'child',
      });
    }
  return found;
}

/** Where one element stands, or the one around it that is counted. */
export interface SiblingPlace {
  readonly group: ElementGroup;
  readonly place: Place;
  /** Whether all siblings have one name, or are cells. */
  readonly even: boolean;
  /** Names the row of siblings. */
  readonly row: number;
  readonly length: number;
}

interface Row {
  readonly length: number;
  readonly even: boolean;
  readonly ofType: ReadonlyMap<number, number>;
}

interface Known {
  readonly ofGroup: Map<ElementGroup, Map<number, readonly SiblingPlace[] | undefined>>;
  /** By page number and parent. */
  readonly rows: Map<number, Row>;
}

const known = new WeakMap<Census, Known>();

/**
 * Every element of the groups. In: how many steps up the element is that is counted, 0 for the elements themselves.
 * Out: `undefined` where template text may put others between them, or nothing stands so far up.
 */
export function siblingPlaces(
  census: Census,
  groups: Iterable<ElementGroup>,
  depth: number,
): SiblingPlace[] | undefined {
  const kept: Known = known.get(census) ?? { ofGroup: new Map(), rows: new Map() };
  known.set(census, kept);
  const found: SiblingPlace[] = [];
  for (const group of groups) {
    const byDepth = kept.ofGroup.get(group) ?? new Map<number, readonly SiblingPlace[] | undefined>();
    kept.ofGroup.set(group, byDepth);
    if (!byDepth.has(depth)) byDepth.set(depth, placesOfGroup(census, group, depth, kept));
    const own = byDepth.get(depth);
    if (own === undefined) return undefined;
    for (const one of own) found.push(one);
  }
  return found;
}

function placesOfGroup(
  { pages }: Census,
  group: ElementGroup,
  depth: number,
  kept: Known,
): SiblingPlace[] | undefined {
  const found: SiblingPlace[] = [];
  for (let i = 0; i < group.members.length; i += 2) {
    const pageNumber = group.members[i]!;
    const page = pages[pageNumber]!;
    let element = page.elements[group.members[i + 1]!];
    let parent = element && page.elements[element.parent];
    for (let up = 0; up < depth; up++) {
      if (parent?.hasTemplateText === true) return undefined;
      element = parent;
      parent = element && page.elements[element.parent];
    }
    if (element === undefined || parent === undefined || parent.hasTemplateText) return undefined;
    const row = rowOf(page, pageNumber, element, kept);
    found.push({
      group,
      place: {
        start: element.position,
        end: row.length - element.position + 1,
        ofType: row.ofType.get(element.index)!,
      },
      even: row.even,
      row: pageNumber * MOST_ELEMENTS + element.parent,
      length: row.length,
    });
  }
  return found;
}

/** More than any page has: a page's number and an element's make one number. */
const MOST_ELEMENTS = 2 ** 26;

/** The siblings of an element: how many, whether they are of one kind, and their numbers among those of their name. */
function rowOf(page: Page, pageNumber: number, element: PageElement, { rows }: Known): Row {
  const key = pageNumber * MOST_ELEMENTS + element.parent + 1;
  let row = rows.get(key);
  if (row === undefined) {
    let name: string | undefined;
    let even = true;
    let length = 0;
    const counts = new Map<string, number>();
    const ofType = new Map<number, number>();
    const first = element.parent < 0 ? element.index : page.elements[element.parent]!.firstChild;
    for (let at = first; at >= 0; at = page.elements[at]!.next) {
      const sibling = page.elements[at]!;
      length++;
      const own = sibling.name === 'th' ? 'td' : sibling.name;
      even &&= name === undefined || name === own;
      name = own;
      counts.set(sibling.name, (counts.get(sibling.name) ?? 0) + 1);
      ofType.set(at, counts.get(sibling.name)!);
    }
    row = { length, even, ofType };
    rows.set(key, row);
  }
  return row;
}
