// Whether a declaration can ever win. It cannot where a stronger one of the same longhand holds whenever it does.

import { getOrInsert } from '../base/get-or-insert.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';

/** What decides it, of a declaration. */
export interface Contender {
  readonly value: string;
  readonly condition: Truth;
}

/** `revert-layer` beats nothing: it makes room for what its layer hides (CSS Cascading 5 §7.3.5). */
export function makesRoom(value: string): boolean {
  return value === 'revert-layer';
}

/**
 * The strongest declaration that holds whenever a weaker one does, so that the weaker one can never win.
 * In: the condition of the weaker one; the stronger ones, strongest first.
 */
export function beaterOf<Stronger extends Contender>(
  condition: Truth,
  stronger: readonly Stronger[],
  truths: TruthTable,
): Stronger | undefined {
  return stronger.find((one) => !makesRoom(one.value) && truths.implies(condition, one.condition));
}

/** In: a declaration; those that are stronger, strongest first, as far as they can win themselves. */
export function canWin(
  { condition }: Contender,
  stronger: readonly Contender[],
  truths: TruthTable,
): boolean {
  return condition !== NEVER && beaterOf(condition, stronger, truths) === undefined;
}

/** Up to so many conditions are looked through one by one. */
const FEW = 12;

/**
 * The conditions of the stronger declarations of one longhand, to ask `canWin` of very many weaker ones: where a printed class
 * may be any class, an element has thousands of conditional declarations.
 */
export class StrongerConditions {
  readonly #conditions: Truth[] = [];
  #index: Index | undefined;

  constructor(readonly truths: TruthTable) {}

  add({ value, condition }: Contender): void {
    if (!makesRoom(value)) this.#conditions.push(condition);
  }

  /** Whether a weaker declaration under this condition can win. */
  letWin(condition: Truth): boolean {
    if (condition === NEVER) return false;
    const all = this.#conditions;
    if (all.length <= FEW) return !all.some((one) => this.truths.implies(condition, one));
    this.#index ??= new Index(this.truths);
    for (const one of all.slice(this.#index.size)) this.#index.add(one);
    return !this.#index.covers(condition);
  }
}

/** Finds a condition that another one implies without looking at all of them. */
class Index {
  size = 0;
  /** Conditions that are one thing, and each alternative of those that have some. */
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
