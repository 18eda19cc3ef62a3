// Which of the elements that wear a style shows it best: one that is seen, that has little else, and that is no whole page.

import { type AtRest, subtreeEnd } from '../../cascade/index.js';
import type { Page, PageElement } from '../../read/markup/index.js';

export interface Chosen {
  readonly page: Page;
  /** Its index. */
  readonly element: number;
}

/** So many of a page are looked at, and so many of the site: the first are as good as others. */
const OF_A_PAGE = 3;
const OF_ALL = 24;

const SHOWS = new Set([
  'img',
  'svg',
  'picture',
  'video',
  'canvas',
  'input',
  'select',
  'textarea',
  'button',
  'hr',
  'progress',
  'meter',
]);

export class ExampleChooser {
  best: Chosen | undefined;
  #least = Number.POSITIVE_INFINITY;
  #seen = 0;
  #page: Page | undefined;
  #onPage = 0;
  readonly #names: ReadonlySet<string>;

  /** In: the names of all styles. */
  constructor(names: ReadonlySet<string>) {
    this.#names = names;
  }

  offer(page: Page, element: number, rest: AtRest): void {
    this.#onPage = page === this.#page ? this.#onPage + 1 : 1;
    this.#page = page;
    if (this.#onPage > OF_A_PAGE || this.#seen >= OF_ALL) return;
    this.#seen++;
    const cost = this.#costOf(page, element, rest);
    if (cost >= this.#least) return;
    this.#least = cost;
    this.best = { page, element };
  }

  #costOf(page: Page, element: number, rest: AtRest): number {
    const { elements } = page;
    const own = elements[element]!;
    const end = subtreeEnd(elements, own);
    const within = end - element;
    const text = page.texts
      .filter(({ parent }) => parent >= element && parent < end)
      .reduce((all, { value }) => all + value.trim().length, 0);
    const shows = text > 0 || elements.slice(element, end).some(({ name }) => SHOWS.has(name));
    const others = own.classes.filter((name) => this.#names.has(`.${name}`)).length;
    return (
      (isHidden(page, element, rest) ? 1000 : 0) +
      (shows ? 0 : 100) +
      (within > 60 ? 40 + within / 10 : within / 10) +
      (text > 300 ? 5 : 0) +
      (own.style === undefined ? 0 : 4) +
      2 * others
    );
  }
}

function isHidden({ elements }: Page, element: number, rest: AtRest): boolean {
  for (let at = element; at >= 0; at = elements[at]!.parent)
    if (
      isMarkedHidden(elements[at]!) ||
      rest.at(at, 'display') === 'none' ||
      ['head', 'template', 'noscript'].includes(elements[at]!.name)
    )
      return true;
  return false;
}

/** HTML standard, "The hidden attribute". */
function isMarkedHidden({ attributes }: PageElement): boolean {
  return attributes.some(({ name }) => name === 'hidden');
}
