// Selectors against what no page shows: elements that scripts make, and documents that were not read.

import type { MadeElements } from '../stock/index.js';
import { existingSelectorOf } from './existing-selectors.js';

/**
 * Whether elements that a script makes may match a selector: a rule would style them too, and what they wear of their own was
 * never asked. A class on the elements that are there is right either way.
 */
export function mayMatchMade(selector: string, { tags, words }: MadeElements): boolean {
  const subject = tags.size === 0 ? undefined : existingSelectorOf(selector)?.selector.compounds.at(-1);
  if (subject === undefined) return false;
  const { type, id, classes } = subject;
  const isNamed = [...classes, ...(id === undefined ? [] : [id])].every((name) => words.has(name));
  return (type === undefined || tags.has(type) || tags.has('*')) && isNamed;
}

/** Whether a selector may match in a document of which only the text is known. */
export function mayMatchIn(selector: string, text: string): boolean {
  const subject = existingSelectorOf(selector)?.selector.compounds.at(-1);
  if (subject === undefined) return true;
  const { type, id, classes } = subject;
  const stands = (pattern: string, flags?: string): boolean => new RegExp(pattern, flags).test(text);
  const names = [...classes, ...(id === undefined ? [] : [id])];
  return (
    (type === undefined || stands(`<${type}(?![\\w-])`, 'i')) &&
    names.every((name) => stands(`(?<![\\w-])${name.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`))
  );
}
