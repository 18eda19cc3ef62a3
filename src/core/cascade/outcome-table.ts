// What one comparison shares: interned conditions, outcomes and compiled blocks.

import { folderOf, holdsAddress } from '../base/addresses.js';
import { BoundedMap } from '../base/bounded.js';
import type { HintDeclaration } from '../read/hints/index.js';
import { MatchKeys } from './match-keys.js';
import type { Untried } from './outcome-parts.js';
import { compileBlock } from './program.js';
import type { Block } from './rule-index.js';
import type { Boxes } from './text-only.js';
import { ALWAYS, type TruthTable } from './truth.js';
import { writtenDeclarations } from './written-style.js';

/** What one comparison shares: interned conditions, outcomes and compiled style attributes. */
export class OutcomeTable {
  readonly #numbers = new Map<string, number>();
  readonly #signatures = new Map<string, number>();
  readonly #blocks = new Map<string, Block>();
  readonly #untried = new BoundedMap<string, Untried>(5000);
  readonly #boxes = new Map<string, Boxes>();
  readonly matchKeys = new MatchKeys();

  constructor(readonly truths: TruthTable) {}

  intern(form: string): number {
    let number = this.#numbers.get(form);
    if (number === undefined) {
      number = this.#numbers.size;
      this.#numbers.set(form, number);
    }
    return number;
  }

  /** The number of an element's outcomes, computed once for all elements with the same matches and style. */
  bySignature(signature: string, compute: () => string): number {
    let number = this.#signatures.get(signature);
    if (number === undefined) {
      number = this.intern(compute());
      this.#signatures.set(signature, number);
    }
    return number;
  }

  /** What elements come to without a trial, computed once for all that are alike. */
  untriedBy(signature: string, compute: () => Untried): Untried {
    return this.#untried.get(signature, compute);
  }

  /** What the rules do that a key of them names, found once. */
  byMatches(matchKey: string, find: () => Boxes): Boxes {
    let boxes = this.#boxes.get(matchKey);
    if (boxes === undefined) {
      boxes = find();
      this.#boxes.set(matchKey, boxes);
    }
    return boxes;
  }

  inlineBlock(style: string, holder: string): Block {
    const key = holdsAddress(style) ? `${style}\0${folderOf(holder)}` : style;
    let block = this.#blocks.get(key);
    if (block === undefined) {
      block = compileBlock(writtenDeclarations(style), holder, this.truths);
      this.#blocks.set(key, block);
    }
    return block;
  }

  hintBlock(hints: readonly HintDeclaration[], holder: string): Block {
    const key = `old attributes ${hintForm(hints, holder)}`;
    let block = this.#blocks.get(key);
    if (block === undefined) {
      block = hintBlock(hints, holder, this.truths);
      this.#blocks.set(key, block);
    }
    return block;
  }
}

export function hintForm(hints: readonly HintDeclaration[], holder: string): string {
  const text = hints.map(({ property, value }) => `${property}:${value}`).join(';');
  return text.includes('url(') ? `${text} in ${folderOf(holder)}` : text;
}

/** What old attributes declare is always kept: no browser reads it as CSS. */
function hintBlock(hints: readonly HintDeclaration[], holder: string, truths: TruthTable): Block {
  const declarations = hints.map((hint) => ({ ...hint, important: false, range: { start: 0, end: 0 } }));
  const { normal } = compileBlock(declarations, holder, truths);
  return { normal: normal.map((entry) => ({ ...entry, supported: ALWAYS })), important: [] };
}
