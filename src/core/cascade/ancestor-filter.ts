// Rejects descendant selectors without a walk: a hashed set of all names on an element's ancestors, some hundred bits each.
// Hot path: plain loops over typed arrays. A filter may declare "perhaps" wrongly, never "no".

import { BoundedMap } from '../base/bounded.js';
import type { Page, PageElement } from '../read/markup/index.js';
import type { ComplexSelector } from './selector-model.js';

/** Of a page as it is, and with all that scripts may give. */
const FEW = 256;
const MANY = 2048;

/** The names of an element's ancestors, as bits. */
export class AncestorFilter {
  readonly #bits: Int32Array;
  readonly #size: number;
  readonly #words: number;

  /** In: names besides its own that an element may come to have, with their signs. */
  private constructor(page: Page, given?: (element: PageElement) => Iterable<string>) {
    this.#size = given === undefined ? FEW : MANY;
    const words = this.#size >> 5;
    this.#words = words;
    this.#bits = new Int32Array(page.elements.length * words);
    for (const { index, parent } of page.elements) {
      if (parent < 0) continue;
      const own = index * words;
      const above = parent * words;
      for (let word = 0; word < words; word++) this.#bits[own + word] = this.#bits[above + word]!;
      this.#addNames(own, page.elements[parent]!);
      if (given !== undefined)
        for (const name of given(page.elements[parent]!)) this.#set(own, hash(name[0]!, name.slice(1)));
    }
  }

  static readonly #filters = new WeakMap<Page, AncestorFilter>();

  /** Out: `undefined` for a fragment, whose ancestors are not all in the file. */
  static of(page: Page): AncestorFilter | undefined {
    if (page.kind === 'component') return undefined;
    let filter = AncestorFilter.#filters.get(page);
    if (filter === undefined) {
      filter = new AncestorFilter(page);
      AncestorFilter.#filters.set(page, filter);
    }
    return filter;
  }

  /** In: a whole page; the names, `.a` and `#b`, that scripts may give to each element. */
  static withGiven(page: Page, given: (element: PageElement) => Iterable<string>): AncestorFilter {
    return new AncestorFilter(page, given);
  }

  /** Whether all of the wanted names could stand on ancestors of the element. */
  mayHave(element: number, wanted: Int32Array): boolean {
    const last = this.#size - 1;
    for (const one of wanted) {
      const bit = one & last;
      if ((this.#bits[element * this.#words + (bit >> 5)]! & (1 << (bit & 31))) === 0) return false;
    }
    return true;
  }

  #addNames(at: number, { name, id, classes, engine }: PageElement): void {
    this.#set(at, hash('', name));
    if (id !== undefined) this.#set(at, hash('#', id));
    for (const one of classes) this.#set(at, hash('.', one));
    for (const one of engine?.mayHave ?? []) this.#set(at, hash('.', one));
  }

  #set(at: number, hashed: number): void {
    const bit = hashed & (this.#size - 1);
    this.#bits[at + (bit >> 5)]! |= 1 << (bit & 31);
  }
}

/** The bits of every name that a selector wants on ancestors of its subject. */
export function wantedAncestors({ compounds, combinators }: ComplexSelector): Int32Array {
  const bits = new Set<number>();
  let above = false;
  for (let at = compounds.length - 2; at >= 0; at--) {
    // What stands beside an ancestor, or beside the subject, is not above it.
    const combinator = combinators[at];
    if (combinator === '+' || combinator === '~') continue;
    above = true;
    const { type, id, classes } = compounds[at]!;
    if (type !== undefined) bits.add(hash('', type));
    if (id !== undefined) bits.add(hash('#', id));
    for (const one of classes) bits.add(hash('.', one));
  }
  return above ? Int32Array.from(bits) : NONE;
}

const NONE = new Int32Array(0);
const hashes = new BoundedMap<string, number>(100_000);

/** A bit from 0 to 2047, folded for smaller sets (FNV-1a over lower case, since quirks mode matches without case). */
function hash(sign: string, name: string): number {
  const key = sign + name;
  return hashes.peek(key) ?? hashes.get(key, () => bitOf(key.toLowerCase()));
}

function bitOf(text: string): number {
  let value = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) value = Math.imul(value ^ text.charCodeAt(i), 0x01000193);
  return ((value >>> 22) ^ (value >>> 11) ^ value) & (MANY - 1);
}
