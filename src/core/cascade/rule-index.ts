// The rules of a sheet, one entry per complex selector, found by the rarest part of their last compound.

import type { Declaration, StyleRule } from '../read/sheets/index.js';
import type { ComplexSelector } from './selector-model.js';
import type { Truth } from './truth.js';

/** One longhand that a declaration sets. */
export interface Entry {
  readonly longhand: string;
  readonly value: string;
  /** Open where some browsers may drop the declaration. */
  readonly supported: Truth;
  readonly declaration: Declaration;
}

/** The declarations of one rule or style attribute as longhands, in source order. */
export interface Block {
  readonly normal: readonly Entry[];
  readonly important: readonly Entry[];
}

/** Where a scoped rule holds: from an element that matches `start` down to those that match `end`. */
export interface RuleScope {
  readonly start: readonly ComplexSelector[];
  readonly end: readonly ComplexSelector[];
}

export interface ProgramRule {
  readonly selector: ComplexSelector;
  readonly scope: RuleScope | undefined;
  readonly rule: StyleRule;
  /** Position of the rule in the sheet; the selectors of one list share it. */
  readonly order: number;
  readonly condition: Truth;
  /** Its declarations, read the first time they are asked for. */
  readonly block: () => Block;
}

/** A rule, and the selector it is found and asked by. */
export interface Indexed {
  readonly rule: ProgramRule;
  readonly asked: ComplexSelector;
  /** Names wanted on ancestors; see `ancestor-filter.ts`. */
  readonly above: Int32Array;
}

/** Finds the rules that could match an element by the rarest part of their last compound. */
export class RuleIndex {
  readonly #ids = new Map<string, Indexed[]>();
  readonly #classes = new Map<string, Indexed[]>();
  readonly #types = new Map<string, Indexed[]>();
  readonly #rest: Indexed[] = [];

  constructor(rules: readonly Indexed[]) {
    for (const at of rules) {
      const { asked: selector } = at;
      const last = selector.compounds.at(-1)!;
      const only = last.rest.length === 1 && last.rest[0]!.kind === 'among' ? last.rest[0] : undefined;
      const [first] = last.classes;
      // Keys are folded, since quirks mode matches without case; the matcher compares exactly where it must.
      if (last.id !== undefined) add(this.#ids, last.id.toLowerCase(), at);
      else if (first !== undefined) add(this.#classes, first.toLowerCase(), at);
      else if (last.type !== undefined) add(this.#types, last.type, at);
      else if (only?.kind !== 'among' || only.negated || !this.#addChoices(only.selectors, at))
        this.#rest.push(at);
    }
  }

  /** `:is(.a, .b)` and `&` are found under each of their choices, when each has a key. */
  #addChoices(choices: readonly ComplexSelector[], at: Indexed): boolean {
    const lasts = choices.map(({ compounds }) => compounds.at(-1)!);
    if (lasts.some(({ id, classes, type }) => id === undefined && classes.length === 0 && type === undefined))
      return false;
    for (const { id, classes, type } of lasts) {
      if (id !== undefined) add(this.#ids, id.toLowerCase(), at);
      else if (classes[0] !== undefined) add(this.#classes, classes[0].toLowerCase(), at);
      else add(this.#types, type!, at);
    }
    return true;
  }

  /** Calls `visit` with every rule that could match, some of them more than once. */
  candidates(
    id: string | undefined,
    classes: readonly string[],
    type: string,
    visit: (entry: Indexed) => void,
  ): void {
    if (id !== undefined) this.#ids.get(id.toLowerCase())?.forEach(visit);
    for (const name of classes) this.#classes.get(name.toLowerCase())?.forEach(visit);
    this.#types.get(type.toLowerCase())?.forEach(visit);
    this.#rest.forEach(visit);
  }

  ofClass(name: string, visit: (entry: Indexed) => void): void {
    this.#classes.get(name.toLowerCase())?.forEach(visit);
  }

  ofId(id: string, visit: (entry: Indexed) => void): void {
    this.#ids.get(id.toLowerCase())?.forEach(visit);
  }

  /** Every rule: for elements whose classes or id template text may add. */
  all(visit: (entry: Indexed) => void): void {
    for (const bucket of [this.#ids, this.#classes, this.#types])
      for (const rules of bucket.values()) rules.forEach(visit);
    this.#rest.forEach(visit);
  }
}

function add(bucket: Map<string, Indexed[]>, key: string, entry: Indexed): void {
  const rules = bucket.get(key);
  if (rules === undefined) bucket.set(key, [entry]);
  else if (rules.at(-1) !== entry) rules.push(entry);
}
