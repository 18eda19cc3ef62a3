// Rules that are not written yet, as the cascade will see them.

import { ALWAYS, compileBlock, type TrialPlace, type TrialRule, type TruthTable } from '../cascade/index.js';
import type { Declaration } from '../read/sheets/index.js';

export type Trial = TrialRule;

/** Makes trial rules: one object for equal declarations, specificity and order. */
export class Trials {
  readonly #blocks = new Map<string, { readonly number: number; readonly block: Trial['block'] }>();
  readonly #known = new Map<string, Trial>();
  readonly #truths: TruthTable;
  readonly #usual: TrialPlace | undefined;

  /** In: the sheet that rules are to stand in, behind its own; without one they stand behind all sheets. */
  constructor(truths: TruthTable, sheet?: string) {
    this.#truths = truths;
    this.#usual = sheet === undefined ? undefined : { sheet, truth: ALWAYS, pseudoElement: '' };
  }

  /**
   * In: the normal form of the declarations; the declarations and the path their addresses are relative to; the selector's
   * specificity; its place among all new rules, or among those of the sheet that it is to stand in.
   */
  rule(
    form: string,
    declarations: readonly Declaration[],
    holder: string,
    specificity: number,
    order: number,
    placed = this.#usual,
  ): Trial {
    let compiled = this.#blocks.get(form);
    if (compiled === undefined) {
      const block = compileBlock(declarations, holder, this.#truths);
      compiled = { number: this.#blocks.size, block };
      this.#blocks.set(form, compiled);
    }
    const where = placed === undefined ? '' : `.${placed.truth}.${placed.pseudoElement}.${placed.sheet}`;
    const key = `${compiled.number}.${specificity}.${order}${where}`;
    let trial = this.#known.get(key);
    if (trial === undefined) {
      trial = { key, block: compiled.block, specificity, order, writtenIn: { kind: 'trial rule' }, placed };
      this.#known.set(key, trial);
    }
    return trial;
  }
}
