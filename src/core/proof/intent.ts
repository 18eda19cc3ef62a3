// The proof of a change that means to change something: every element that is meant has what was wished, or what it had,
// and that is told; and no other element differs at all.

import { NEVER, type SiteModel } from '../cascade/index.js';
import type { Difference, StyleDifference } from './describe.js';
import { isHiddenOnly } from './hidden.js';
import type { Proof } from './prove.js';
import { prove } from './prove.js';
import { type Granted, lookAtWishes, type Wish } from './wish.js';

/** An element, by its page and its index in the later state. */
export interface MovedElement {
  readonly page: string;
  readonly element: number;
}

export interface IntentProof extends Granted {
  readonly proof: Proof;
  /** What was not wished: none, in a change that may be made. */
  readonly strays: readonly Difference[];
}

/** Whether a change may be made as far as the proof goes. */
export function isAsWished({ strays, wrong }: Pick<IntentProof, 'strays' | 'wrong'>): boolean {
  return strays.length === 0 && wrong.length === 0;
}

export function proveWishes(before: SiteModel, after: SiteModel, wishes: readonly Wish[]): IntentProof {
  const proof = prove(before, after, { perPage: Number.POSITIVE_INFINITY });
  const granted = lookAtWishes(before, after, wishes);
  const strays: Difference[] = [];
  const moved = new Map(granted.moved.map((one) => [`${one.page} ${one.element}`, one]));
  for (const one of proof.differences) {
    const own = one.kind === 'style' ? wishes.filter((wish) => isWished(after, wish, one)) : [];
    if (one.kind !== 'style' || own.length === 0) strays.push(one);
    // What is taken out has no value that could be looked at: that it differs is all there is to see.
    else if (
      own.some(({ serves, values }) => serves !== true && !values.has(one.property)) &&
      !isHiddenOnly(one)
    )
      moved.set(`${one.page} ${one.element}`, { page: one.page, element: one.element });
  }
  return { ...granted, proof, strays, moved: [...moved.values()] };
}

/** Whether a difference is one that a wish asks for. */
function isWished(
  after: SiteModel,
  { isOn, longhands, selectors }: Wish,
  { page: path, element, target, property }: StyleDifference,
): boolean {
  if (!longhands.has(property)) return false;
  const page = after.page(path);
  if (page === undefined || (page.kind === 'page' && !isOn(page))) return false;
  return after
    .readersOf(page)
    .some((reader) =>
      selectors.some((one) => one.pseudoElement === target && reader.matches(one, element) !== NEVER),
    );
}

/** How many elements, of which pages, most first. */
export function elementsIn(moved: readonly MovedElement[]): {
  readonly elements: number;
  readonly pages: readonly { readonly path: string; readonly elements: number }[];
} {
  const pages = new Map<string, Set<number>>();
  for (const { page, element } of moved) {
    const known = pages.get(page);
    if (known === undefined) pages.set(page, new Set([element]));
    else known.add(element);
  }
  const counted = [...pages].map(([path, indexes]) => ({ path, elements: indexes.size }));
  return {
    elements: counted.reduce((sum, { elements }) => sum + elements, 0),
    pages: counted.sort((a, b) => b.elements - a.elements || (a.path < b.path ? -1 : 1)),
  };
}
