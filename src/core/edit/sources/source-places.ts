// Where the tags and sheets of built pages stand in the sources.

import type { KeptReason } from '../../base/reasons/index.js';
import { type Place, placeIn } from '../../base/source.js';
import type { Page, PageElement, SourceTag } from '../../read/markup/index.js';
import { isAgain, sourceNumberOf } from '../../read/markup/index.js';
import type { BuiltTags } from '../../stock/index.js';
import type { MarkedTag } from './mark.js';

export interface SourcePlacesData {
  /** By number, from 1; none for a number that is not in use. */
  readonly tags: ReadonlyMap<number, MarkedTag>;
  /** By path of a source, its text. */
  readonly sources: ReadonlyMap<string, string>;
  /** By number, what pages show of it. */
  readonly renderings: ReadonlyMap<number, Renderings>;
  /** By path of a built sheet, the source that it is a copy of. */
  readonly sheets: ReadonlyMap<string, string>;
}

/** Tags that are made of one, and the pages that they stand on. */
export interface Renderings {
  readonly tags: number;
  readonly pages: number;
}

export class SourcePlaces implements BuiltTags {
  readonly #fixed = new Map<number, KeptReason>();

  readonly #whole = new WeakMap<Page, readonly boolean[]>();

  constructor(readonly data: SourcePlacesData) {}

  /** On how many pages a tag of a source stands. */
  pagesOf(number: number): number {
    return this.data.renderings.get(number)?.pages ?? 0;
  }

  /**
   * What part of a tag of a source a tag of a page stands for: those of one source tag come to 1, exactly, since sums of these
   * are compared.
   */
  shareOf(page: Page, tag: SourceTag | undefined): number {
    const number = sourceNumberOf(page, tag);
    const all = (number === undefined ? undefined : this.data.renderings.get(number)?.tags) ?? 1;
    if (all === 1) return 1;
    return isAgain(page, tag) ? SMALL : 1 - (all - 1) * SMALL;
  }

  /** Whether one source writes an element with all elements in it. */
  isWritten(page: Page, { index }: PageElement): boolean {
    let whole = this.#whole.get(page);
    if (whole === undefined) {
      const own: (string | undefined)[] = [];
      // An element that the markup only implies is written where the one around it is.
      for (const { tag, parent } of page.elements)
        own.push(tag === undefined ? own[parent] : this.of(page, tag)?.tag.path);
      const found = own.map((path) => path !== undefined);
      for (let at = page.elements.length - 1; at > 0; at--) {
        const { parent } = page.elements[at]!;
        if (parent >= 0 && (!found[at]! || own[at] !== own[parent])) found[parent] = false;
      }
      this.#whole.set(page, found);
      whole = found;
    }
    return whole[index] === true;
  }

  /** The tag of a source that a tag of a page comes from; `undefined` where no source holds it. */
  of(
    page: Page,
    tag: SourceTag | undefined,
  ): { readonly number: number; readonly tag: MarkedTag } | undefined {
    const number = sourceNumberOf(page, tag);
    const found = number === undefined ? undefined : this.data.tags.get(number);
    return found === undefined ? undefined : { number: number!, tag: found };
  }

  /** Why a tag of a page must stay as it is; `undefined` where it may be edited. */
  objection(page: Page, tag: SourceTag | undefined): KeptReason | undefined {
    const sourcePlace = this.of(page, tag);
    return sourcePlace === undefined ? NO_SOURCE : this.#fixed.get(sourcePlace.number);
  }

  /** From now on a tag of a source stays as it is. */
  fix(number: number, reason: KeptReason): void {
    if (!this.#fixed.has(number)) this.#fixed.set(number, reason);
  }

  /** Where a tag of a page stands in the sources. */
  placeOf(page: Page, tag: SourceTag | undefined): Place | undefined {
    const sourcePlace = this.of(page, tag);
    return sourcePlace && this.placeOfNumber(sourcePlace.number);
  }

  placeOfNumber(number: number): Place | undefined {
    const tag = this.data.tags.get(number);
    return tag && placeIn(tag.path, this.data.sources.get(tag.path) ?? '', tag.range.start);
  }
}

/** So small that all renderings but one come to less than one; a power of two, so that their sum is exact. */
const SMALL = 2 ** -22;

const NO_SOURCE: KeptReason = { kind: 'no source' };
