// How old attributes and elements are counted and told: as they are written.

import type { PageElement } from '../markup/index.js';
import { OLD_ATTRIBUTES, OLD_ELEMENTS } from './table.js';

/** What an element carries of them, as a person would write it (`bgcolor="#eef"`, `<center>`), its name first. */
export function writtenHints(element: PageElement): string[] {
  if (element.namespace !== 'html') return NONE;
  const known = OLD_ATTRIBUTES.get(element.name);
  const isOld = OLD_ELEMENTS.has(element.name);
  if (known === undefined && !isOld) return NONE;
  const written = isOld ? [`<${element.name}>`] : [];
  for (const { name, value } of element.attributes) if (known?.has(name)) written.push(`${name}="${value}"`);
  return written;
}

/** Whether it carries any. */
export function isWrittenOld({ namespace, name, attributes }: PageElement): boolean {
  if (namespace !== 'html') return false;
  if (OLD_ELEMENTS.has(name)) return true;
  const known = attributes.length === 0 ? undefined : OLD_ATTRIBUTES.get(name);
  return known !== undefined && attributes.some((one) => known.has(one.name));
}

const NONE: string[] = [];
