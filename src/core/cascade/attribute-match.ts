// How attribute selectors compare values.

import { attributeOf, type PageElement, splitTokens } from '../markup/index.js';

/** HTML attributes whose values selectors compare without case (HTML standard, "Case-sensitivity of selectors"). */
export const CASELESS = new Set(
  (
    'accept accept-charset align alink axis bgcolor charset checked clear codetype color compact declare defer dir ' +
    'direction disabled enctype face frame hreflang http-equiv lang language link media method multiple nohref ' +
    'noresize noshade nowrap readonly rel rev rules scope scrolling selected shape target text type valign valuetype vlink'
  ).split(' '),
);

/** In: the operator of the selector, and both values, lower case where case does not count. */
export function attributeMatches(operator: string, value: string, wanted: string): boolean {
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
