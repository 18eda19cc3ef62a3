// The proof of a change that means to change something: every element meant differs in what was asked and in nothing
// else, and no other element differs at all.

import type { SiteModel } from '../cascade/index.js';
import type { Difference } from './describe.js';
import type { Proof } from './prove.js';
import { prove } from './prove.js';

export type StyleDifference = Extract<Difference, { kind: 'style' }>;

export interface Intent {
  /** In: a page, an index of an element in the later state, and a target. */
  readonly isMeant: (page: string, element: number, target: string) => boolean;
  /** Whether a longhand was asked to change. */
  readonly isAsked: (longhand: string) => boolean;
}

export interface IntentProof {
  readonly proof: Proof;
  /** What was asked, and happened. */
  readonly moved: readonly StyleDifference[];
  /** What was not asked: none, in a change that may be made. */
  readonly strays: readonly Difference[];
}

export function proveIntent(before: SiteModel, after: SiteModel, intent: Intent): IntentProof {
  const proof = prove(before, after, { perPage: Number.POSITIVE_INFINITY });
  const moved: StyleDifference[] = [];
  const strays: Difference[] = [];
  for (const one of proof.differences) {
    const asked =
      one.kind === 'style' &&
      intent.isAsked(one.property) &&
      intent.isMeant(one.page, one.element, one.target);
    if (asked) moved.push(one);
    else strays.push(one);
  }
  return { proof, moved, strays };
}

/** How many elements, of which pages, most first. */
export function elementsIn(differences: readonly StyleDifference[]): {
  readonly elements: number;
  readonly pages: readonly { readonly path: string; readonly elements: number }[];
} {
  const pages = new Map<string, Set<number>>();
  for (const { page, element } of differences) {
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
