// What stands in thousands of tags alike is kept once: a site is held in memory as long as it is worked on.

import { BoundedMap } from '../../base/bounded.js';
import type { Attribute } from './page.js';
import { splitTokens } from './tokens.js';

const keptTokens = new BoundedMap<string, readonly string[]>(20_000);
const keptLists = new BoundedMap<string, readonly Attribute[]>(50_000);
const keptTexts = new BoundedMap<string, string>(50_000);
/** What is longer seldom stands twice. */
const LONG = 60;

/** One string for equal ones. The parser puts texts together letter by letter, which takes thirty times the room. */
export function kept<Text extends string | undefined>(text: Text): Text {
  if (text === undefined || text === '') return text;
  // Asked for a letter, a text that was put together becomes one piece.
  text.charCodeAt(0);
  return text.length > LONG ? text : (keptTexts.get(text, () => text) as Text);
}

/** One list for equal ones: the same few attributes stand on cell after cell. */
export function keptList(attributes: readonly Attribute[]): readonly Attribute[] {
  if (attributes.length === 0) return NO_ATTRIBUTES;
  let key = '';
  for (const { name, value } of attributes) key += `${name}\0${value}\0`;
  return keptLists.get(key, () => attributes.map(({ name, value }) => ({ name, value: kept(value) })));
}

const NO_ATTRIBUTES: readonly Attribute[] = [];

/** The words of an attribute, one list for equal texts. */
export function keptWords(text: string): readonly string[] {
  return keptTokens.get(text, () => splitTokens(text));
}
