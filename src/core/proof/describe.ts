// What differs, told so that a person can mend it: the element, the property, and the declarations that decide.

import { type Place, placeIn } from '../base/source.js';
import {
  ALWAYS,
  type Outcome,
  type Outcomes,
  outcomesForm,
  placeInSource,
  type StyleReader,
  withoutIdle,
} from '../cascade/index.js';
import type { Page, PageElement } from '../read/markup/index.js';

export interface ShownOutcome {
  readonly value: string;
  readonly condition: string;
  /** The rule's selector, or `style attribute`. */
  readonly from: string;
  readonly place: Place;
}

export type Difference =
  | {
      readonly kind: 'page';
      readonly page: string;
      readonly what: string;
      /** Of one that is lost, the selector. */
      readonly rule?: string;
    }
  | {
      readonly kind: 'markup';
      readonly page: string;
      readonly what: string;
      readonly place: Place | undefined;
    }
  | {
      readonly kind: 'style';
      readonly page: string;
      readonly place: Place | undefined;
      /** Index of the element in the state after. */
      readonly element: number;
      readonly shown: string;
      readonly target: string;
      readonly property: string;
      readonly before: readonly ShownOutcome[];
      readonly after: readonly ShownOutcome[];
    };

export type StyleDifference = Extract<Difference, { kind: 'style' }>;

/** In: one element in both states, whose outcomes differ. Out: its differences, by target and property. */
export function describeElement(first: StyleReader, i: number, second: StyleReader, j: number): Difference[] {
  const a = first.outcomes(i);
  const b = second.outcomes(j);
  const { page } = second;
  const element = page.elements[j]!;
  const found: Difference[] = [];
  const add = (
    target: string,
    property: string,
    before: readonly ShownOutcome[],
    after: readonly ShownOutcome[],
  ): void => {
    const place = placeOf(page, element);
    const shown = showElement(element);
    found.push({
      kind: 'style',
      page: page.path,
      place,
      element: element.index,
      shown,
      target,
      property,
      before,
      after,
    });
  };
  for (const target of new Set([...a.keys(), ...b.keys()])) {
    const listsBefore: Outcomes = a.get(target) ?? new Map();
    const listsAfter: Outcomes = b.get(target) ?? new Map();
    for (const longhand of [...new Set([...listsBefore.keys(), ...listsAfter.keys()])].sort()) {
      const [one, two] = [listsBefore.get(longhand) ?? [], listsAfter.get(longhand) ?? []];
      const only = (list: readonly Outcome[]): Outcomes => new Map([[longhand, list]]);
      if (outcomesForm(only(one)) === outcomesForm(only(two))) continue;
      add(
        target,
        longhand,
        ...fromFirstDifference(shownOutcomes(first, i, one), shownOutcomes(second, j, two)),
      );
    }
  }
  // Only the order between two names of one computed value differs.
  if (found.length === 0) add('', 'order of logical, vendor or physical properties', [], []);
  return found;
}

/** A list as a person reads it. */
export function shownOutcomes(
  reader: StyleReader,
  element: number,
  list: readonly Outcome[],
): ShownOutcome[] {
  return withoutIdle(list).map((outcome) => ({
    value: `${outcome.entry.declaration.value}${outcome.important ? ' !important' : ''}`,
    condition: outcome.condition === ALWAYS ? '' : reader.table.truths.text(outcome.condition),
    from: outcome.writtenIn.kind === 'rule' ? outcome.writtenIn.rule.selector.text : outcome.writtenIn.kind,
    place: placeOfOutcome(reader, element, outcome),
  }));
}

export function placeOf(page: Page, element: PageElement | undefined): Place | undefined {
  for (let at = element; at !== undefined; at = page.elements[at.parent]) {
    if (at.tag !== undefined) return placeIn(page.path, page.text, at.tag.range.start);
  }
  return undefined;
}

function placeOfOutcome(reader: StyleReader, element: number, outcome: Outcome): Place {
  const { page } = reader;
  if (outcome.writtenIn.kind !== 'rule')
    return placeOf(page, page.elements[element]) ?? { path: page.path, line: 1, column: 1 };
  const { use } = outcome.writtenIn;
  return placeInSource(use.source, outcome.entry.declaration.range.start);
}

/** What both lists begin with decides nothing between them. */
function fromFirstDifference(a: ShownOutcome[], b: ShownOutcome[]): [ShownOutcome[], ShownOutcome[]] {
  let same = 0;
  while (
    same < a.length &&
    same < b.length &&
    a[same]!.value === b[same]!.value &&
    a[same]!.condition === b[same]!.condition
  )
    same++;
  // A list that ends in the other keeps its last entry, so that there is something to see.
  const from = Math.min(same, Math.max(0, a.length - 1), Math.max(0, b.length - 1));
  return [a.slice(from), b.slice(from)];
}

/** `td#x.a.b`, as short as it can be and still be found. */
export function showElement(element: PageElement): string {
  const id = element.id === undefined ? '' : `#${element.id}`;
  // Classes that template text makes are not there to be shown.
  const classes = element.templated === 'no' ? element.classes.slice(0, 3).map((name) => `.${name}`) : [];
  return `${element.name}${id}${classes.join('')}`;
}

/** One line: what differs, where, and which declarations decide. */
export function differenceText(difference: Difference): string {
  switch (difference.kind) {
    case 'page':
    case 'markup':
      return `${difference.page}: ${difference.what}`;
    case 'style': {
      const top = difference.after[0];
      const decided =
        top === undefined
          ? 'nothing sets it any more'
          : `${top.from} sets ${top.value}${top.condition === '' ? '' : ` when ${top.condition}`}`;
      return `${difference.property} of ${difference.shown}${difference.target} would change: ${decided}`;
    }
  }
}
