// What an element that was meant has instead, and who says so.

import { type Place, placeIn } from '../../base/source.js';
import { placeInSource, type Weighed } from '../../cascade/index.js';
import type { Kept } from '../../proof/index.js';

/** What elements have instead of what was asked. */
export interface Unmoved {
  readonly property: string;
  readonly value: string;
  readonly why:
    | 'style attribute'
    | 'old attribute'
    | 'stronger rule'
    | '!important'
    | 'platform rule'
    | 'sheet not linked';
  /** Of the rule that wins there, empty for the element itself. */
  readonly selector: string;
  readonly place: Place;
  readonly elements: number;
  readonly pages: number;
}

/** In: what was kept; the files that the change writes. Out: by who decides, most elements first. */
export function groupUnmoved(
  kept: readonly Kept[],
  edited: ReadonlySet<string>,
  isPlatform: (path: string) => boolean,
): Unmoved[] {
  const found = new Map<
    string,
    { one: Omit<Unmoved, 'elements' | 'pages'>; elements: Set<string>; pages: Set<string> }
  >();
  for (const each of kept) {
    const { page, element, winner, longhand, property } = each;
    const key = winner === undefined ? `none ${longhand}` : `${keyOf(winner)} ${property}`;
    let known = found.get(key);
    if (known === undefined) {
      known = { one: unmovedOf(each, edited, isPlatform), elements: new Set(), pages: new Set() };
      found.set(key, known);
    }
    known.elements.add(`${page.path} ${element.index}`);
    known.pages.add(page.path);
  }
  return [...found.values()]
    .map(({ one, elements, pages }) => ({ ...one, elements: elements.size, pages: pages.size }))
    .sort((a, b) => b.elements - a.elements);
}

function keyOf({ writtenIn, entry }: Weighed): string {
  const said = `${entry.declaration.property}:${entry.declaration.value}`;
  return writtenIn.kind === 'rule'
    ? `${writtenIn.use.source.path} ${writtenIn.rule.selector.text} ${said}`
    : `${writtenIn.kind} ${said}`;
}

function unmovedOf(
  { property, winner, page, element, reader }: Kept,
  edited: ReadonlySet<string>,
  isPlatform: (path: string) => boolean,
): Omit<Unmoved, 'elements' | 'pages'> {
  const here = placeIn(page.path, page.text, element.tag?.range.start ?? 0);
  const value = winner?.entry.declaration.value ?? '';
  const isLinked = reader.sheetOrder.uses.some(({ source }) => edited.has(source.path));
  if (winner === undefined || (!isLinked && winner.writtenIn.kind === 'rule'))
    return { property, value, why: 'sheet not linked', selector: '', place: here };
  const { writtenIn, entry, important } = winner;
  if (writtenIn.kind !== 'rule') {
    const why = writtenIn.kind === 'old attribute' ? 'old attribute' : 'style attribute';
    return { property, value, why, selector: '', place: here };
  }
  const { source } = writtenIn.use;
  const why = important ? '!important' : isPlatform(source.path) ? 'platform rule' : 'stronger rule';
  const place = placeInSource(source, entry.declaration.range.start);
  return { property, value, why, selector: writtenIn.rule.selector.text, place };
}
