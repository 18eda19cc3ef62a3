// What an element looks like as long as nobody does anything: one value for a property, where that can be declared.

import type { StyleReader } from './outcome.js';
import type { Outcome } from './outcome-model.js';
import { ALWAYS, type Truth, type TruthTable } from './truth.js';

/** The value at rest: on a screen, in no state, with custom properties put in; `undefined` where nothing declares it for certain. */
export class AtRest {
  readonly #reader: StyleReader;
  readonly #truths: TruthTable;
  readonly #known = new Map<string, string | undefined>();

  constructor(reader: StyleReader, truths: TruthTable) {
    this.#reader = reader;
    this.#truths = truths;
  }

  at(index: number, longhand: string): string | undefined {
    const value = this.#rawAt(index, longhand);
    return value === undefined || !value.includes('var(') ? value : this.#filled(index, value, 0);
  }

  #rawAt(index: number, longhand: string): string | undefined {
    const key = `${this.#reader.outcomeNumber(index)} ${longhand}`;
    if (this.#known.has(key)) return this.#known.get(key);
    const list: readonly Outcome[] = this.#reader.outcomes(index).get('')?.get(longhand) ?? [];
    const value = list.find(({ condition }) => this.#holds(condition))?.value;
    this.#known.set(key, value);
    return value;
  }

  #holds(condition: Truth): boolean {
    if (condition === ALWAYS) return true;
    return (
      this.#truths.settle(condition, (literal) => {
        if (/:link|:any-link|@media (?:screen|all)\b/.test(literal)) return true;
        if (/^the browser (?:keeps|knows) /.test(literal)) return true;
        return false;
      }) === ALWAYS
    );
  }

  #filled(index: number, value: string, depth: number): string | undefined {
    if (depth > 20) return undefined;
    let isKnown = true;
    const text = value.replace(
      /var\(\s*(--[^\s,)]+)\s*(?:,([^()]*))?\)/g,
      (_, name: string, other?: string) => {
        const own = this.#customAt(index, name) ?? other?.trim();
        if (own === undefined) isKnown = false;
        return own ?? '';
      },
    );
    if (!isKnown) return undefined;
    return text.includes('var(') ? this.#filled(index, text, depth + 1) : text;
  }

  #customAt(index: number, name: string): string | undefined {
    const { elements } = this.#reader.page;
    for (let at = index; at >= 0; at = elements[at]!.parent) {
      const value = this.#rawAt(at, name);
      if (value !== undefined) return value.trim();
    }
    return undefined;
  }
}
