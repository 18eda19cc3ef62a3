// Rejects descendant selectors without a walk: a hashed set of all names on an element's ancestors, 256 bits each.
// Hot path: plain loops over typed arrays. A filter may say "perhaps" wrongly, never "no".

import { BoundedMap } from '../bounded.js';
import type { Page, PageElement } from '../markup/index.js';
import type { ComplexSelector } from './selector-model.js';

const WORDS = 8;

/** The names of an element's ancestors, as bits. */
export class AncestorFilter {
  readonly #bits: Int32Array;

  /** In: names besides its own that an element may come to have, with their signs. */
  private constructor(page: Page, given?: (element: PageElement) => Iterable<string>) {
    this.#bits = new Int32Array(page.elements.length * WORDS);
    for (const { index, parent } of page.elements) {
      if (parent < 0) continue;
      const own = index * WORDS;
      const above = parent * WORDS;
      for (let word = 0; word < WORDS; word++) this.#bits[own + word] = this.#bits[above + word]!;
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
    for (const bit of wanted) {
      if ((this.#bits[element * WORDS + (bit >> 5)]! & (1 << (bit & 31))) === 0) return false;
    }
    return true;
  }

  #addNames(at: number, { name, id, classes }: PageElement): void {
    this.#set(at, hash('', name));
    if (id !== undefined) this.#set(at, hash('#', id));
    for (const one of classes) this.#set(at, hash('.', one));
  }

  #set(at: number, bit: number): void {
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

/** A bit from 0 to 255 (FNV-1a over lower case, since quirks mode matches without case). */
function hash(sign: string, name: string): number {
  const key = sign + name;
  return hashes.peek(key) ?? hashes.get(key, () => bitOf(key.toLowerCase()));
}

function bitOf(text: string): number {
  let value = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) value = Math.imul(value ^ text.charCodeAt(i), 0x01000193);
  return ((value >>> 24) ^ (value >>> 16) ^ (value >>> 8) ^ value) & 255;
}
