// Every declaration of a site and what became of it on each element, computed once for elements that are styled alike.

import { folderOf } from '../base/addresses.js';
import type { Page, PageElement } from '../read/markup/index.js';
import { ALWAYS, type SiteModel, type StyleReader, type Weighed } from './index.js';

/** Target to longhand to every declaration of it, strongest first. */
export type WeighedElement = ReadonlyMap<string, ReadonlyMap<string, readonly Weighed[]>>;

export interface Traced {
  readonly page: Page;
  readonly element: PageElement;
  readonly reader: StyleReader;
  readonly weighed: WeighedElement;
}

/** Calls `visit` for every element of every page, a component under the first set of sheets that pages show it with. */
export function traceSite(
  model: SiteModel,
  visit: (traced: Traced) => void,
  isWanted: (page: Page) => boolean = () => true,
): void {
  const known = new Map<string, WeighedElement>();
  for (const page of model.pages) {
    const [reader] = isWanted(page) ? model.readersOf(page) : [];
    if (reader === undefined) continue;
    for (const element of page.elements) {
      const key = alikeKey(reader, element);
      let weighed = known.get(key);
      if (weighed === undefined) {
        weighed = reader.weighed(element.index);
        known.set(key, weighed);
      }
      visit({ page, element, reader, weighed });
    }
  }
}

/** Equal keys: the same declarations in the same order. */
function alikeKey(reader: StyleReader, { index, style }: PageElement): string {
  const { hints } = reader.ownStyling(index);
  const own = hints.map(({ property, value }) => `${property}:${value}`).join(';');
  return `${reader.matchKey(index)}|${style === undefined ? '' : `${folderOf(reader.page.path)}|${style}`}|${own}`;
}

/** What became of a declaration on one element. */
export type Lot = 'wins' | 'waits' | 'beaten';

/** In: what the longhands of one declaration came to. Out: the best of it. */
export function lotOf(parts: readonly Weighed[]): Lot {
  const undefeated = parts.filter(({ beatenBy }) => beatenBy === undefined);
  if (undefeated.some(({ condition }) => condition === ALWAYS)) return 'wins';
  return undefeated.length > 0 ? 'waits' : 'beaten';
}

/** The declarations of one target of an element, each with its longhands. */
export function byDeclaration(lists: ReadonlyMap<string, readonly Weighed[]>): Map<object, Weighed[]> {
  const found = new Map<object, Weighed[]>();
  for (const list of lists.values()) {
    for (const one of list) {
      const { declaration } = one.entry;
      const known = found.get(declaration);
      if (known === undefined) found.set(declaration, [one]);
      else known.push(one);
    }
  }
  return found;
}
