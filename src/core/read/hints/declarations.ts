// What an element's old attributes and its name say in CSS: author declarations of specificity 0 in front of all rules (HTML
// standard, "presentational hints").

import { attributeOf, hasTemplateText, type Page, type PageElement } from '../markup/index.js';
import { svgHints } from './svg.js';
import {
  borderWidth,
  type HintDeclaration,
  hasBorderColour,
  hasOddBorder,
  OLD_ATTRIBUTES,
  OLD_ELEMENTS,
  type OldElement,
  one,
} from './table.js';
import { pixels, wholeNumber } from './values.js';

/** One old attribute, or the element's own outdated name, and what it says in CSS. */
export interface Hint {
  /** `undefined` for the element's name. */
  readonly attribute: string | undefined;
  /** `undefined` where no CSS is known that declares exactly the same. */
  readonly declarations: readonly HintDeclaration[] | undefined;
  /** Of the element's hints, those that go together; see `OldAttribute`. */
  readonly group: string | undefined;
}

/** Whether an element's name or attributes could be styling at all. */
export function mayHaveHints({ name, attributes }: PageElement): boolean {
  if (replaceable(name) !== undefined) return true;
  const known = attributes.length === 0 ? undefined : OLD_ATTRIBUTES.get(name);
  return known !== undefined && attributes.some((one) => known.has(one.name));
}

/** Of an outdated element that may become a neutral one. */
function replaceable(name: string): OldElement | undefined {
  const found = OLD_ELEMENTS.get(name);
  return found?.neutral === undefined ? undefined : found;
}

/** In: an element. Out: its hints in source order, the element's name first. */
export function ownHints(page: Page, element: PageElement): Hint[] {
  if (element.namespace !== 'html') return [];
  const hints: Hint[] = [];
  const outdated = replaceable(element.name);
  if (outdated !== undefined)
    hints.push({ attribute: undefined, declarations: outdated.says, group: undefined });
  const known = OLD_ATTRIBUTES.get(element.name);
  if (known === undefined) return hints;
  for (const { name, value } of element.attributes) {
    const entry = known.get(name);
    if (entry === undefined) continue;
    const declarations = isExactHint(page, element, name) ? entry.says(value, element) : undefined;
    hints.push({ attribute: name, declarations, group: entry.group });
  }
  return hints;
}

/**
 * What an element's own name and attributes declare in CSS, in source order, and what its table declares to a cell. Attributes that
 * no CSS is known to match exactly are left out; see `isExactHint`. In: `table`, the table of a cell.
 */
export function hintDeclarations(
  page: Page,
  element: PageElement,
  table: PageElement | undefined = tableOf(page, element),
): readonly HintDeclaration[] {
  if (element.namespace === 'svg') return svgHints(element);
  if (element.namespace !== 'html') return NOTHING;
  const known = OLD_ATTRIBUTES.get(element.name);
  const outdated = OLD_ELEMENTS.get(element.name);
  if (known === undefined) return outdated?.says ?? NOTHING;
  let found: HintDeclaration[] | undefined;
  const add = (declarations: readonly HintDeclaration[] | undefined): void => {
    if (declarations === undefined || declarations.length === 0) return;
    found ??= [];
    found.push(...declarations);
  };
  if (table !== undefined) for (const { declarations } of cellHints(table)) add(declarations);
  add(outdated?.says);
  const sizedElsewhere = isSizedBySource(page, element);
  for (const { name, value } of element.attributes)
    if (!sizedElsewhere || !SIZES.has(name)) add(known.get(name)?.says(value, element));
  return found ?? NOTHING;
}

const NOTHING: readonly HintDeclaration[] = [];
const SIZES = new Set(['width', 'height']);

/** In a `<picture>` the sizes of the chosen `<source>` stand for the picture's own (HTML standard, "dimension attributes"). */
function isSizedBySource(page: Page, { name, parent }: PageElement): boolean {
  const picture = name === 'img' ? page.elements[parent] : undefined;
  if (picture?.name !== 'picture') return false;
  for (let at = picture.firstChild; at >= 0; at = page.elements[at]!.next) {
    const source = page.elements[at]!;
    // Template text may give it one.
    const isSized = source.templated !== 'no' || source.attributes.some(({ name: own }) => SIZES.has(own));
    if (source.name === 'source' && isSized) return true;
  }
  return false;
}

/** Whether an attribute is styling and nothing else, and CSS is known that declares exactly the same. */
export function isExactHint(page: Page, element: PageElement, attribute: string): boolean {
  const { namespace, name, attributes } = element;
  if (namespace !== 'html') return false;
  if (SIZES.has(attribute) && isSizedBySource(page, element)) return false;
  // In quirks mode browsers put a gap beside a picture for its attribute, whatever it floats by.
  if (page.quirks && name === 'img' && attribute === 'align') return false;
  // There too, a cell that must not break takes its width for the least.
  if (page.quirks && attribute === 'nowrap') return false;
  const entry = OLD_ATTRIBUTES.get(name)?.get(attribute);
  const value = attributeOf(attributes, attribute);
  // What template text makes of a value is not known.
  if (entry === undefined || value === undefined || hasTemplateText(value)) return false;
  return entry.says(value, { attributes }) !== undefined;
}

/** The table that a cell belongs to; `undefined` for what is no cell, or has none. */
export function tableOf(page: Page, cell: PageElement): PageElement | undefined {
  if (cell.name !== 'td' && cell.name !== 'th') return undefined;
  let at = cell.parent;
  while (at >= 0 && page.elements[at]!.name !== 'table') at = page.elements[at]!.parent;
  return page.elements[at];
}

/** `cellpadding` and `border` stand on the table and style its cells too. In: a table. Out: what it says of its cells. */
export function cellHints({ attributes }: PageElement): Hint[] {
  const hints: Hint[] = [];
  const padding = attributeOf(attributes, 'cellpadding');
  if (padding !== undefined && padding !== '') {
    const declarations = one('padding', pixels(Math.max(0, wholeNumber(padding) ?? 0)));
    hints.push({ attribute: 'cellpadding', declarations, group: undefined });
  }
  if (hasOddBorder(attributes) || borderWidth(attributes) === 0) return hints;
  const declarations = [
    ...one('border-width', '1px'),
    ...one('border-style', hasBorderColour(attributes) ? 'solid' : 'inset'),
    ...one('border-color', 'inherit'),
  ];
  hints.push({ attribute: 'border', declarations, group: undefined });
  return hints;
}

/**
 * The standard's words for how text is aligned, in place of a browser's own: those place the boxes inside too, and declare the
 * same where there is none.
 */
export function inStandardWords<One extends { readonly property: string; readonly value: string }>(
  declarations: readonly One[],
): readonly One[] {
  if (!declarations.some(({ value }) => OWN_WORD.test(value))) return declarations;
  return declarations.map((one) =>
    one.property === 'text-align' ? { ...one, value: one.value.replace(OWN_WORD, '$1') } : one,
  );
}

const OWN_WORD = /^-webkit-(center|left|right)$/;
