// Chains of elements around a place, put together from the files that they stand in, outermost first.

import { getOrInsert } from '../../base/get-or-insert.js';
import {
  type Chain,
  isLoose,
  isSurelyAround,
  isSurelyIn,
  type Page,
  type PageElement,
} from '../markup/index.js';

/** A way up from a place: the elements around it, and the whole page at its end; none where something else may be around. */
export interface Way {
  readonly elements: readonly PageElement[];
  readonly root: Page | undefined;
}

export const ANYWHERE: Way = { elements: [], root: undefined };

/** The elements of one file around an offset of it, from the one that holds it; whether they are all of this file. */
export function elementsAround(
  page: Page,
  holder: number,
  offset: number,
): { readonly elements: readonly PageElement[]; readonly isSure: boolean } {
  const place = { tag: { range: { start: offset } }, index: holder } as PageElement;
  if (isLoose(page, place)) return { elements: [], isSure: false };
  const found: PageElement[] = [];
  for (let at = holder; at >= 0; at = page.elements[at]!.parent) {
    const element = page.elements[at]!;
    if (isLoose(page, element) || !isSurelyAround(page, element, place) || !isSurelyIn(page, element, place))
      return { elements: found.reverse(), isSure: false };
    found.push(element);
  }
  return { elements: found.reverse(), isSure: true };
}

/** The parser puts something in between, or ends them, whatever comes. */
const INNERMOST = new Set([
  'html',
  'head',
  'table',
  'thead',
  'tbody',
  'tfoot',
  'colgroup',
  'select',
  'frameset',
]);
const OF_HEAD = new Set(['title', 'meta', 'base', 'link', 'style', 'script', 'noscript', 'template']);
const ANY = new Set(['p', 'head', 'select', 'template', 'noscript', 'colgroup', 'textarea', 'title']);
/** They are ended by one of their kind, anywhere in them or at the top. */
const NOT_IN_ITSELF = new Set(['a', 'button', 'nobr', 'form']);
const NOT_AT_TOP = /^(?:li|dt|dd|td|th|tr|option|optgroup|h[1-6])$/;

/** Whether all that a part holds belongs into a head. */
export function isOfHead({ elements }: Page): boolean {
  return elements.every(({ name }) => OF_HEAD.has(name));
}

/** Whether the parser leaves what a part holds in the elements around it. */
export function takesIn({ elements }: Way, part: Page): boolean {
  const innermost = elements.at(-1);
  if (innermost === undefined) return true;
  if (innermost.name === 'head') return isOfHead(part);
  if (INNERMOST.has(innermost.name) || innermost.namespace !== 'html') return false;
  return elements.every(
    ({ name }) =>
      !ANY.has(name) &&
      !(NOT_IN_ITSELF.has(name) && part.elements.some((one) => one.name === name)) &&
      !(NOT_AT_TOP.test(name) && part.elements.some((one) => one.parent < 0 && one.name === name)),
  );
}

/** Different ways as chains, each once. In: a page of the site, for what pages have besides elements. */
export function chainsOf(ways: readonly Way[], part: Page): Chain[] {
  const found = new Map<string, Chain & { readonly roots: string[] }>();
  for (const way of ways) {
    const chain = chainOf(way, part);
    const { roots } = getOrInsert(found, chain.key, () => ({ ...chain, roots: [] }));
    const path = way.root?.path;
    if (path !== undefined && !roots.includes(path)) roots.push(path);
  }
  return [...found.values()];
}

function chainOf({ elements, root }: Way, part: Page): Omit<Chain, 'roots'> {
  const key = `${root === undefined ? '*' : root.quirks ? 'q' : ''}${elements.map(formOf).join('>')}`;
  const page: Page = {
    ...part,
    text: '',
    kind: root === undefined ? 'component' : 'page',
    quirks: (root ?? part).quirks,
    elements: elements.map((element, index) => alone(element, index, elements.length)),
    holdsEngineText: true,
    looseFrom: undefined,
    wrapped: [],
    around: undefined,
  };
  return { page, key };
}

/** Of its children the one on the way is known, and nothing of those beside it. */
function alone(element: PageElement, index: number, count: number): PageElement {
  return {
    ...element,
    index,
    parent: index - 1,
    previous: -1,
    next: -1,
    firstChild: index + 1 < count ? index + 1 : -1,
    position: 1,
    hasText: true,
    hasTemplateText: true,
    tag: undefined,
    surelyUntil: Number.POSITIVE_INFINITY,
  };
}

function formOf({ name, namespace, attributes, templated, engine }: PageElement): string {
  const own = attributes.map((one) => `${one.name}=${JSON.stringify(one.value)}`);
  const may = engine === undefined ? '' : `~${templated}${engine.mayHave?.join('.') ?? '*'}`;
  return `${namespace === 'html' ? '' : namespace}${name}[${own.join()}]${may}`;
}
