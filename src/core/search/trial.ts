// Rules that are not written yet, as the cascade will see them.

import { compileBlock, type TrialRule, type TruthTable } from '../cascade/index.js';
import type { Declaration } from '../sheets/index.js';

export type Trial = TrialRule;

/** Makes trial rules: one object for equal declarations, specificity and order. */
export class Trials {
  readonly #blocks = new Map<string, { readonly number: number; readonly block: Trial['block'] }>();
  readonly #known = new Map<string, Trial>();
  readonly #truths: TruthTable;

  constructor(truths: TruthTable) {
    this.#truths = truths;
  }

  /**
   * In: the normal form of the declarations; the declarations and the path their addresses are relative to; the selector's
   * specificity; its place among all new rules.
   */
  rule(
    form: string,
    declarations: readonly Declaration[],
    holder: string,
    specificity: number,
    order: number,
  ): Trial {
    let compiled = this.#blocks.get(form);
    if (compiled === undefined) {
      const block = compileBlock(declarations, holder, this.#truths);
      compiled = { number: this.#blocks.size, block };
      this.#blocks.set(form, compiled);
    }
    const key = `${compiled.number}.${specificity}.${order}`;
    let trial = this.#known.get(key);
    if (trial === undefined) {
      trial = { key, block: compiled.block, specificity, order, origin: { kind: 'trial rule' } };
      this.#known.set(key, trial);
    }
    return trial;
  }
}
