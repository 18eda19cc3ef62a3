// What tells the elements of a site apart, as numbers: what stands alike, under the same ancestors, with the same styling,
// is one form, on whatever page it stands.

import type { StyleReader } from '../cascade/index.js';
import { isOldAttribute, isWrittenOld } from '../hints/index.js';
import type { Page, PageElement } from '../markup/index.js';
import { ElementNames, Numbers, Remembered } from '../search/index.js';

/** So much styling below an element makes its id a place of its page. */
const MANY = 4;

export interface PageFacts {
  /** What all of the page is told by. */
  readonly root: string;
  /** By index, whether an element says of itself how it looks. */
  readonly styled: readonly boolean[];
  /** Whether the tag of an element may change. */
  readonly mayChange: (element: PageElement) => boolean;
}

export class Forms {
  readonly #names = new ElementNames();
  readonly #matches = new Numbers();
  readonly #above = new Numbers();
  readonly #places = new Numbers();
  readonly #says = new Remembered((attributes: PageElement['attributes']) =>
    attributes
      .filter(({ name }) => name === 'style' || isOldAttribute(name))
      .map(({ name, value }) => `${name}=${value}`)
      .join('\n'),
  );
  /** Forms of elements that stand around styled ones. */
  readonly #styled = new Set<number>();
  /** Ids of elements that styled ones stand in. */
  readonly #placeIds = new Set<string>();
  readonly #isShared: (id: string) => boolean;

  /** In: whether an id stands on several pages. */
  constructor(isShared: (id: string) => boolean) {
    this.#isShared = isShared;
  }

  /** Out: by index of the element, the number of its form, its place among its siblings counted in. */
  of(page: Page, reader: StyleReader, { root, styled, mayChange }: PageFacts): number[] {
    const ofChain: number[] = [];
    const below = stylingBelow(page, styled);
    return page.elements.map((element) => {
      const { index, parent, id } = element;
      const own = id !== undefined && this.#isPlace(id, below[index]!) ? `#${id}` : '';
      const matches = this.#matches.of(reader.matchKey(index));
      const above = parent < 0 ? root : ofChain[parent];
      const says = mayChange(element) ? tagsAt(element, page) : this.#saysOf(element);
      const chain = this.#above.of(`${above}|${this.#names.of(element)}|${own}|${matches}|${says}`);
      ofChain.push(chain);
      if (above === undefined || typeof above === 'string') return this.#places.of(`${chain}`);
      if (below[parent]! > 0) this.#styled.add(above);
      // Where something in a row is styled, a position may come to tell it.
      return this.#places.of(this.#styled.has(above) ? `${chain}|${placeOf(element)}` : `${chain}`);
    });
  }

  /** Ids on several pages that styling stands under. */
  get placeIds(): ReadonlySet<string> {
    return this.#placeIds;
  }

  /** Whether an id tells a part of the site by which a style could be found: where nothing is styled, none is looked for. */
  #isPlace(id: string, styled: number): boolean {
    if (!this.#isShared(id)) return styled >= MANY;
    if (styled > 0) this.#placeIds.add(id);
    return styled > 0 || this.#placeIds.has(id);
  }

  #saysOf({ attributes }: PageElement): string {
    return attributes.length === 0 ? '' : this.#says.of(attributes);
  }
}

/** What positions could tell an element by. */
function placeOf({ position, next }: PageElement): string {
  return `${position < 4 ? position : 4 + (position % 2)}${next < 0 ? '$' : ''}`;
}

/** The tags of an element: an edit of one is an edit of all that are written alike. */
function tagsAt({ tag, index }: PageElement, { text, contentEnds }: Page): string {
  const own = tag === undefined ? '' : text.slice(tag.range.start, tag.range.end);
  return `${own}${endTagAt(text, contentEnds[index]!)}`;
}

/** The end tag that begins at an offset; nothing where none does. */
export function endTagAt(text: string, offset: number): string {
  return text.startsWith('</', offset) ? text.slice(offset, text.indexOf('>', offset) + 1) : '';
}

/** Whether an element says of itself how it looks. */
export function isStyled(element: PageElement): boolean {
  return element.style !== undefined || isWrittenOld(element);
}

/** By index, how many elements below each element say how they look. */
function stylingBelow({ elements }: Page, styled: readonly boolean[]): number[] {
  const counts = elements.map(() => 0);
  for (let at = elements.length - 1; at > 0; at--) {
    const { parent } = elements[at]!;
    if (parent >= 0) counts[parent]! += counts[at]! + (styled[at] ? 1 : 0);
  }
  return counts;
}
