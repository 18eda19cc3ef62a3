// Conditions under which something is said already: what is said again where one of them holds is never seen.

import { getOrInsert } from '../get-or-insert.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';

/** Up to so many are looked through one by one. */
const FEW = 12;

/** Where any class may be given, thousands of rules may say one thing of one element, each under a condition of its own. */
export class Held {
  readonly #conditions: Truth[] = [];
  #index: Index | undefined;

  constructor(readonly truths: TruthTable) {}

  add(condition: Truth): void {
    this.#conditions.push(condition);
  }

  /** Whether one of them holds wherever a condition does, as far as what they are made of tells. */
  covers(condition: Truth): boolean {
    if (condition === NEVER) return true;
    const all = this.#conditions;
    if (all.length <= FEW) return all.some((one) => this.truths.implies(condition, one));
    this.#index ??= new Index(this.truths);
    for (const one of all.slice(this.#index.size)) this.#index.add(one);
    return this.#index.covers(condition);
  }
}

class Index {
  size = 0;
  /** Those that are one thing, and what makes an alternative hold. */
  readonly #single = new Set<Truth>();
  /** By its last part, what is made of several. */
  readonly #joint = new Map<Truth, (readonly Truth[])[]>();

  constructor(readonly truths: TruthTable) {}

  add(condition: Truth): void {
    this.size++;
    const parts = this.truths.jointParts(condition);
    if (parts.length > 1) getOrInsert(this.#joint, parts.at(-1)!, () => []).push(parts);
    else for (const one of [condition, ...this.truths.alternatives(condition)]) this.#single.add(one);
  }

  covers(condition: Truth): boolean {
    if (this.#single.has(ALWAYS)) return true;
    const parts = this.truths.jointParts(condition);
    return parts.some(
      (part) =>
        this.#single.has(part) ||
        this.#joint.get(part)?.some((all) => all.every((one) => parts.includes(one))) === true,
    );
  }
}
