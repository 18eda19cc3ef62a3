// Pseudo-classes that markup alone decides: language, direction, and what form controls are.

import { DIGIT, either, isMadeOf, LOWER } from '../base/characters.js';
import { attributeOf, hasTemplateText, isLoose, type Page, type PageElement } from '../read/markup/index.js';

/** `open`: template text, a fragment's surroundings or the server's headers have a declare. */
export type Decided = 'yes' | 'no' | 'open';

export const STATIC_STATES = new Set([
  'lang',
  'dir',
  'disabled',
  'enabled',
  'required',
  'optional',
  'defined',
]);

/** The attributes that decide each, on the element or above it. */
export const DECIDING: Readonly<Record<string, readonly string[]>> = {
  lang: ['lang', 'xml:lang'],
  dir: ['dir', 'type'],
  disabled: ['disabled'],
  enabled: ['disabled'],
  required: ['required', 'type'],
  optional: ['required', 'type'],
};

/** In: the pseudo-class, lower case without its colon; its argument as written. */
export function decideState(page: Page, element: PageElement, name: string, argument: string): Decided {
  switch (name) {
    case 'lang':
      return matchesLanguage(page, element, argument);
    case 'dir':
      return matchesDirection(page, element, argument);
    case 'defined':
      return element.namespace !== 'html' || !element.name.includes('-') ? 'yes' : 'open';
    case 'disabled':
      return isDisabled(page, element);
    case 'enabled': {
      if (!DISABLEABLE.has(element.name) || element.namespace !== 'html') return couldBeCustom(element);
      const disabled = isDisabled(page, element);
      return disabled === 'open' ? 'open' : disabled === 'yes' ? 'no' : 'yes';
    }
    case 'required':
    case 'optional': {
      if (!REQUIRABLE.has(element.name) || element.namespace !== 'html') return couldBeCustom(element);
      const required = isRequired(element);
      if (required === 'open' || name === 'required') return required;
      return required === 'yes' ? 'no' : 'yes';
    }
    default:
      return 'open';
  }
}

const DISABLEABLE = new Set(['button', 'input', 'select', 'textarea', 'fieldset', 'optgroup', 'option']);
const REQUIRABLE = new Set(['input', 'select', 'textarea']);
const NEVER_REQUIRED = new Set(['hidden', 'range', 'color', 'submit', 'image', 'reset', 'button']);

/** A custom element may be a form control. */
function couldBeCustom({ name }: PageElement): Decided {
  return name.includes('-') ? 'open' : 'no';
}

/** An attribute's value; `open` where template text could give it. */
function readAttribute(element: PageElement, name: string): string | undefined | { readonly open: true } {
  const value = attributeOf(element.attributes, name);
  if (element.templated === 'tag' && value === undefined) return OPEN;
  return value !== undefined && element.templated !== 'no' && hasTemplateText(value) ? OPEN : value;
}

const OPEN = { open: true } as const;

/** HTML standard, "concept-element-disabled". */
function isDisabled(page: Page, element: PageElement): Decided {
  if (element.namespace !== 'html' || !DISABLEABLE.has(element.name)) return couldBeCustom(element);
  const own = readAttribute(element, 'disabled');
  if (own === OPEN) return 'open';
  if (own !== undefined) return 'yes';
  if (element.name === 'option') {
    const group = page.elements[element.parent];
    const above = group?.name === 'optgroup' ? readAttribute(group, 'disabled') : undefined;
    return above === OPEN ? 'open' : above === undefined ? 'no' : 'yes';
  }
  if (element.name === 'optgroup') return 'no';
  let child = element;
  for (let at = element.parent; at >= 0; at = child.parent) {
    const above = page.elements[at]!;
    if (above.name === 'fieldset') {
      const disabled = readAttribute(above, 'disabled');
      if (disabled === OPEN) return 'open';
      if (disabled !== undefined && !isFirstLegend(page, above, child)) return 'yes';
    }
    child = above;
  }
  return page.kind === 'component' || isLoose(page, element) ? 'open' : 'no';
}

function isFirstLegend(page: Page, fieldset: PageElement, child: PageElement): boolean {
  for (let at = fieldset.firstChild; at >= 0; at = page.elements[at]!.next)
    if (page.elements[at]!.name === 'legend') return at === child.index;
  return false;
}

function isRequired(element: PageElement): Decided {
  const type = readAttribute(element, 'type');
  const required = readAttribute(element, 'required');
  if (typeof type === 'object' || typeof required === 'object') return 'open';
  if (element.name === 'input' && NEVER_REQUIRED.has((type ?? '').trim().toLowerCase())) return 'no';
  return required === undefined ? 'no' : 'yes';
}

/** Selectors 4 §7.2, for plain language ranges. The nearest `lang` counts; without one, a header may tell. */
function matchesLanguage(page: Page, element: PageElement, argument: string): Decided {
  const ranges = argument.split(',').map((range) =>
    range
      .trim()
      .replace(/^(["'])(.*)\1$/, '$2')
      .toLowerCase(),
  );
  if (ranges.some((range) => !isMadeOf(range, either(LOWER, DIGIT, '-')))) return 'open';
  for (let at: PageElement | undefined = element; at !== undefined; at = page.elements[at.parent]) {
    const written = at.attributes.some(({ name }) => name === 'xml:lang') ? OPEN : readAttribute(at, 'lang');
    if (written === OPEN) return 'open';
    if (typeof written !== 'string') continue;
    const language = written.trim().toLowerCase();
    // A range may leave subtags in the middle out; only what begins alike is certainly the same.
    if (ranges.some((range) => language === range || language.startsWith(`${range}-`))) return 'yes';
    return ranges.some((range) => range.includes('-') && language.startsWith(`${range.split('-')[0]}-`))
      ? 'open'
      : 'no';
  }
  return 'open';
}

/** Selectors 4 §7.1: the nearest `dir`, left to right without one. */
function matchesDirection(page: Page, element: PageElement, argument: string): Decided {
  const wanted = argument.trim().toLowerCase();
  if (wanted !== 'ltr' && wanted !== 'rtl') return 'no';
  for (let at: PageElement | undefined = element; at !== undefined; at = page.elements[at.parent]) {
    const written = readAttribute(at, 'dir');
    if (written === OPEN) return 'open';
    const direction = typeof written === 'string' ? written.toLowerCase() : '';
    if (direction === 'ltr' || direction === 'rtl') return direction === wanted ? 'yes' : 'no';
    // By its text, or by what a slot is filled with; telephone numbers always run left to right.
    if (direction === 'auto' || at.name === 'bdi' || at.name === 'slot') return 'open';
    if (at.name === 'input') {
      const type = readAttribute(at, 'type');
      if (type === OPEN) return 'open';
      if (typeof type === 'string' && type.trim().toLowerCase() === 'tel')
        return wanted === 'ltr' ? 'yes' : 'no';
    }
  }
  if (page.kind === 'component' || isLoose(page, element)) return 'open';
  return wanted === 'ltr' ? 'yes' : 'no';
}
