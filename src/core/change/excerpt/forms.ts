// What tells the elements of a site apart, as numbers: what stands alike, under the same ancestors, with the same styling,
// is one form, on whatever page it stands.

import type { StyleReader } from '../../cascade/index.js';
import { isOldAttribute, isWrittenOld } from '../../read/hints/index.js';
import type { Page, PageElement } from '../../read/markup/index.js';
import { PLACE_FROM } from '../../search/census.js';
import { ElementNames, Numbers } from '../../search/index.js';
import type { Overview } from './look-over.js';
import type { TagForm } from './tag-form.js';

export interface PageFacts {
  /** What all of the page is told by. */
  readonly root: string;
  /** By index, whether an element declares for itself how it looks. */
  readonly styled: readonly boolean[];
  /** By index, the tags of an element where they may change. */
  readonly tags: readonly (TagForm | undefined)[];
}

export class Forms {
  readonly #names = new ElementNames();
  readonly #matches = new Numbers();
  readonly #above = new Numbers();
  readonly #places = new Numbers();
  /** Forms of elements that stand around styled ones. */
  readonly #styled = new Set<number>();
  /** Ids of elements that styled ones stand in. */
  readonly #placeIds = new Set<string>();
  readonly #site: Overview;

  constructor(site: Overview) {
    this.#site = site;
  }

  /** Out: by index of the element, the number of its form, its place among its siblings counted in. */
  of(page: Page, reader: StyleReader, { root, styled, tags }: PageFacts): number[] {
    const ofChain: number[] = [];
    const owns: string[] = [];
    const scopes: string[] = [];
    const below = stylingBelow(page, styled);
    const words = wordsOfStyled(page, styled);
    return page.elements.map((element) => {
      const { index, parent, id } = element;
      const matches = this.#matches.of(reader.matchKey(index));
      owns.push(`${this.#names.of(element)}|${matches}|${saysOf(element)}`);
      ofChain.push(this.#above.of(`${parent < 0 ? root : ofChain[parent]!}|${owns[index]}`));
      const scope = scopes[parent] ?? '';
      scopes.push(id !== undefined && this.#isPlace(id, below[index]!) ? `${scope}#${id}` : scope);
      if (parent >= 0 && below[parent]! > 0) this.#styled.add(ofChain[parent]!);
      const isInRow = parent >= 0 && this.#styled.has(ofChain[parent]!);
      // What changes in one tag changes in all that are written alike; those below it do not differ by that.
      const written = tags[index]?.text ?? '';
      // No rule for what is styled anywhere on the site finds the element by its name or a class.
      if (parent >= 0 && !isInRow && !shares(element, this.#site.styledWords))
        return this.#places.of(`${root}|${owns[parent]}|${owns[index]}|${written}`);
      // A rule for what is styled in one part of the site could reach these too.
      const inPart = shares(element, words) ? scopes[index]! : '';
      // Where something in a row is styled, a position may come to tell it.
      const inRow = isInRow ? placeOf(element) : '';
      return this.#places.of(`${ofChain[index]}|${inRow}|${inPart}|${written}`);
    });
  }

  /** Ids on several pages that styling stands under. */
  get placeIds(): ReadonlySet<string> {
    return this.#placeIds;
  }

  /** Whether an id tells a part of the site by which a style could be found: where nothing is styled, none is looked for. */
  #isPlace(id: string, styled: number): boolean {
    if (!this.#site.sharedIds.has(id)) return styled >= PLACE_FROM;
    if (styled > 0) this.#placeIds.add(id);
    return styled > 0 || this.#placeIds.has(id);
  }
}

/** The names and classes of the elements that say how they look. */
function wordsOfStyled({ elements }: Page, styled: readonly boolean[]): ReadonlySet<string> {
  const own = elements.filter(({ index }) => styled[index]);
  return new Set(own.flatMap(({ name, classes }) => [name, ...classes.map((one) => `.${one}`)]));
}

/** Whether a selector by name or class that finds one of these elements could find an element. */
function shares({ name, classes }: PageElement, words: ReadonlySet<string>): boolean {
  return words.has(name) || classes.some((one) => words.has(`.${one}`));
}

/** The attributes by which an element may say how it looks. */
function saysOf({ attributes }: PageElement): string {
  let text = '';
  for (const { name, value } of attributes)
    if (name === 'style' || isOldAttribute(name)) text += `${name}=${value}\n`;
  return text;
}

/** What positions could tell an element by. */
function placeOf({ position, next }: PageElement): string {
  return `${position < 4 ? position : 4 + (position % 2)}${next < 0 ? '$' : ''}`;
}

/** Whether an element declares for itself how it looks. */
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
