// Where the tags and sheets of built pages stand in the sources.

import type { Page, SourceTag } from '../markup/index.js';
import { originOf } from '../markup/index.js';
import { type Place, placeIn } from '../source.js';
import type { BuiltTags, KeptReason } from '../stock/index.js';
import type { OriginTag } from './mark.js';

export interface OriginsData {
  /** By number, from 1; none for a number that is not in use. */
  readonly tags: ReadonlyMap<number, OriginTag>;
  /** By path of a source, its text. */
  readonly sources: ReadonlyMap<string, string>;
  /** By path of a built sheet, the source that it is a copy of. */
  readonly sheets: ReadonlyMap<string, string>;
}

export class Origins implements BuiltTags {
  readonly #fixed = new Map<number, KeptReason>();

  constructor(readonly data: OriginsData) {}

  /** The tag of a source that a tag of a page comes from; `undefined` where no source holds it. */
  of(page: Page, tag: SourceTag | undefined): { readonly number: number; readonly tag: OriginTag } | undefined {
    const number = originOf(page, tag);
    const found = number === undefined ? undefined : this.data.tags.get(number);
    return found === undefined ? undefined : { number: number!, tag: found };
  }

  /** Why a tag of a page must stay as it is; `undefined` where it may be edited. */
  objection(page: Page, tag: SourceTag | undefined): KeptReason | undefined {
    const origin = this.of(page, tag);
    return origin === undefined ? NO_SOURCE : this.#fixed.get(origin.number);
  }

  /** From now on a tag of a source stays as it is. */
  fix(number: number, reason: KeptReason): void {
    if (!this.#fixed.has(number)) this.#fixed.set(number, reason);
  }

  /** Where a tag of a page stands in the sources. */
  placeOf(page: Page, tag: SourceTag | undefined): Place | undefined {
    const origin = this.of(page, tag);
    return origin && this.placeOfNumber(origin.number);
  }

  placeOfNumber(number: number): Place | undefined {
    const tag = this.data.tags.get(number);
    return tag && placeIn(tag.path, this.data.sources.get(tag.path) ?? '', tag.range.start);
  }
}

const NO_SOURCE: KeptReason = { kind: 'no source' };
