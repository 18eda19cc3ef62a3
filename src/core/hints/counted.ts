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

const NONE: string[] = [];
