// Whether an element holds lines of text alone. There a browser's own words for aligned text say what the standard's do.

import { startsWithAny } from '../base/phrases.js';
import type { Page, PageElement } from '../read/markup/index.js';
import type { Matched } from './outcome-model.js';
import type { SheetOrder } from './sheet-order.js';

interface Reading {
  readonly page: Page;
  readonly sheetOrder: SheetOrder;
  readonly boxes: (index: number) => Boxes;
}

/** What the rules that match an element do beside styling its text. */
export interface Boxes {
  /** One puts something in front of its text, or behind it. */
  readonly putsIn: boolean;
  /** One makes a box of it, or could. */
  readonly makes: boolean;
}

export function boxesOf(matched: readonly Matched[]): Boxes {
  return { putsIn: !matched.every(putsNothingIn), makes: matched.some(makesBox) };
}

/** Elements that stand in a line of text unless a rule declares otherwise. */
const IN_LINE = new Set([
  'a',
  'abbr',
  'acronym',
  'b',
  'bdi',
  'bdo',
  'big',
  'br',
  'cite',
  'code',
  'del',
  'dfn',
  'em',
  'font',
  'i',
  'img',
  'ins',
  'kbd',
  'mark',
  'nobr',
  'q',
  's',
  'samp',
  'small',
  'span',
  'strike',
  'strong',
  'sub',
  'sup',
  'time',
  'tt',
  'u',
  'var',
  'wbr',
]);
/** What makes a box of them, or could. */
const BOXES = /^(display|float|position|all|--.*)$/;
/** Of so many elements inside it is not asked. */
const MOST_INSIDE = 200;

/** Whether no box stands in an element, or could: neither an element nor what a script or a rule puts in. */
export function holdsTextOnly(reading: Reading, index: number): boolean {
  const { page, sheetOrder } = reading;
  if (page.kind !== 'page' || sheetOrder.scripts.fills) return false;
  const { elements } = page;
  let left = MOST_INSIDE;
  const isText = (element: PageElement): boolean => {
    if (element.hasTemplateText || element.templated !== 'no' || left-- === 0) return false;
    if (reading.boxes(element.index).putsIn) return false;
    for (let at = element.firstChild; at >= 0; at = elements[at]!.next) {
      const child = elements[at]!;
      if (child.namespace !== 'html' || !IN_LINE.has(child.name)) return false;
      if (/display|float|position|all\s*:/i.test(child.style ?? '')) return false;
      if (reading.boxes(at).makes || !isText(child)) return false;
    }
    return true;
  };
  return isText(elements[index]!);
}

function putsNothingIn({ rule }: Matched): boolean {
  return !startsWithAny(rule.selector.pseudoElement, ['::before', '::after', '::marker', '::first-']);
}

function makesBox({ rule }: Matched): boolean {
  const { normal, important } = rule.block();
  const boxes = ({ longhand }: { readonly longhand: string }): boolean => BOXES.test(longhand);
  return normal.some(boxes) || important.some(boxes);
}
