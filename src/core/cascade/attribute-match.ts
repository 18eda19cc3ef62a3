// How attribute selectors compare values.

import { attributeOf, type PageElement, splitTokens } from '../read/markup/index.js';
import type { Simple } from './selector-model.js';

export type AskedAttribute = Extract<Simple, { kind: 'attribute' }>;

/** HTML attributes whose values selectors compare without case (HTML standard, "Case-sensitivity of selectors"). */
const CASELESS = new Set(
  (
    'accept accept-charset align alink axis bgcolor charset checked clear codetype color compact declare defer dir ' +
    'direction disabled enctype face frame hreflang http-equiv lang language link media method multiple nohref ' +
    'noresize noshade nowrap readonly rel rev rules scope scrolling selected shape target text type valign valuetype vlink'
  ).split(' '),
);

/** Whether a value that stands in the file is one that a selector asks for. */
export function valueMatches(
  { name, operator, flag, value: wanted }: AskedAttribute,
  { namespace }: PageElement,
  value: string,
): boolean {
  if (operator === undefined) return true;
  const isCaseless =
    flag === 'i' || (flag !== 's' && namespace === 'html' && CASELESS.has(name.toLowerCase()));
  return isCaseless
    ? compares(operator, value.toLowerCase(), wanted.toLowerCase())
    : compares(operator, value, wanted);
}

function compares(operator: string, value: string, wanted: string): boolean {
  switch (operator) {
    case '=':
      return value === wanted;
    case '~=':
      return wanted !== '' && splitTokens(value).includes(wanted);
    case '|=':
      return value === wanted || value.startsWith(`${wanted}-`);
    case '^=':
      return wanted !== '' && value.startsWith(wanted);
    case '$=':
      return wanted !== '' && value.endsWith(wanted);
    case '*=':
      return wanted !== '' && value.includes(wanted);
    default:
      return false;
  }
}

/** Attributes that a browser sets and takes away as a person uses the page: states, whatever the file says. */
export function isChangedByBrowser({ namespace, name, attributes }: PageElement, attribute: string): boolean {
  if (namespace !== 'html') return false;
  if (attribute === 'open') return name === 'details' || name === 'dialog';
  // What a search or a fragment finds is shown (HTML standard, "The hidden attribute").
  return attribute === 'hidden' && attributeOf(attributes, 'hidden')?.trim().toLowerCase() === 'until-found';
}

/** Whether an element stands in what a person may edit (HTML standard, "contenteditable"). */
export function isEditable(elements: readonly PageElement[], index: number): boolean {
  for (let at = index; at >= 0; at = elements[at]!.parent) {
    const value = attributeOf(elements[at]!.attributes, 'contenteditable');
    if (value !== undefined) return value.trim().toLowerCase() !== 'false';
  }
  return false;
}
