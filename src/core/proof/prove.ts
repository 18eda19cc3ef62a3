// Where two states of a site differ: the proof. It holds for every medium and state, since it compares what the
// cascade could decide, and says what it had to assume.

import { comparePaths } from '../base/source.js';
import type { SiteModel } from '../cascade/index.js';
import type { Page } from '../read/markup/index.js';
import type { Difference } from './describe.js';
import { assumptionsOf, emptyPart, mergeProofs, type ProofPart } from './part.js';
import { Prover, type ProverOptions } from './prover.js';
import { UnseenRules } from './unseen.js';

export interface Proof {
  /** By page. */
  readonly differences: readonly Difference[];
  readonly pages: number;
  readonly components: number;
  readonly elements: number;
  readonly assumptions: readonly string[];
}

export interface ProveOptions extends ProverOptions {
  /** Sees every page of the later state once; it is not kept. */
  readonly onPage?: (page: Page) => void;
  /** Hears what each page came to by itself; nothing of one that depends on all others. */
  readonly onProven?: (path: string, part: ProofPart | undefined) => void;
  /** Whether rules stay in words that style nothing but what an engine fills in. */
  readonly keepsUnseen?: boolean;
}

/**
 * Compares two states of a site.
 * In: two models that share one outcome table. Out: every difference by page and place; what was assumed.
 */
export function prove(before: SiteModel, after: SiteModel, options: ProveOptions = {}): Proof {
  const prover = new Prover(before, after, options);
  const late: [Page, Page][] = [];
  const whole = emptyPart();
  const unseen = options.keepsUnseen === true ? new UnseenRules() : undefined;
  for (const path of [...new Set([...before.paths, ...after.paths])]) {
    const [a, b] = [before.page(path), after.readOnce(path)];
    if (b !== undefined) options.onPage?.(b);
    if (a !== undefined && b !== undefined)
      unseen?.add(a, () => [before.sheetOrderOf(a), after.sheetOrderOf(b)]);
    const isDone = prover.add(path, a, b);
    if (!isDone && a !== undefined && b !== undefined) late.push([a, b]);
    const part = prover.take();
    options.onProven?.(path, isDone ? part : undefined);
    mergeProofs(whole, part);
  }
  for (const [a, b] of late) prover.addLate(a, b);
  whole.differences.push(...(unseen?.differences ?? []));
  return proofOf(mergeProofs(whole, prover.part));
}

/** The proof that a finished part amounts to. */
export function proofOf(part: ProofPart): Proof {
  const { pages, components, elements } = part;
  const differences = [...part.differences].sort((a, b) => comparePaths(a.page, b.page));
  return { differences, pages, components, elements, assumptions: assumptionsOf(part) };
}
