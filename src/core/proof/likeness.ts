// Whether two elements look alike whose outcomes differ as they are written: found once for all that are written alike, where
// nothing around them counts.

import { getOrInsert, newMap } from '../base/get-or-insert.js';
import type { StyleReader } from '../cascade/index.js';
import { CustomProperties, type FileTexts } from './resolve.js';

/** A page in one state, read for its looks. */
export interface Looks {
  readonly reader: StyleReader;
  readonly values: CustomProperties;
}

export function looksOf(reader: StyleReader, texts: FileTexts, known: ReadonlySet<string>): Looks {
  return { reader, values: new CustomProperties(reader, texts, (name) => known.has(name)) };
}

export class Likeness {
  /** By the sheets of both states and what is compared: whether it is equal, or that it depends on the page. */
  readonly #found = new Map<string, Map<string, boolean | 'open'>>();

  /**
   * In: an element in each state; their outcome numbers, with how many names are known to be set inline: with each more, fewer
   * values are certain.
   */
  areEqual([was, i]: readonly [Looks, number], [is, j]: readonly [Looks, number], numbers: string): boolean {
    const sheetOrders = `${was.reader.sheetOrder.key}\n${is.reader.sheetOrder.key}`;
    const found = getOrInsert(this.#found, sheetOrders, newMap<string, boolean | 'open'>);
    const key = `${was.reader.wording(i)} ${is.reader.wording(j)} ${numbers}`;
    const told = found.get(key);
    if (typeof told === 'boolean') return told;
    const before = was.values.form(i, (name) => !is.values.mentions(name));
    const isEqual = before === is.values.form(j, (name) => !was.values.mentions(name));
    const isEverywhere = told === undefined && was.values.isOfRoot(i) && is.values.isOfRoot(j);
    found.set(key, isEverywhere ? isEqual : 'open');
    return isEqual;
  }
}
