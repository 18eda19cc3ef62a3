// The state of a cover while it is searched: which styles are open, what each row has, and what that costs.

import { getOrInsert } from '../base/get-or-insert.js';
import type { Taste } from './cost.js';

/** A set of atoms that is open, or was tried. */
interface Style {
  readonly number: number;
  readonly mask: bigint;
  /** Declarations in it. */
  readonly size: number;
  /** By row, whether all of it stands there; and the rows where it does. */
  readonly fits: Uint8Array;
  readonly rows: readonly number[];
  /** Elements that wear it. */
  wearers: number;
}

/** What a row has, and what that costs it. */
interface Worn {
  readonly styles: readonly Style[];
  /** What none of them covers. */
  readonly bare: bigint;
  /** What it costs, in parts. */
  readonly parts: number;
}

const NOTHING: Worn = { styles: [], bare: 0n, parts: 0 };

/** Far above any cost: for a style that too few elements wear. */
const TOO_FEW = 1e9;

/** Costs are counted in so small parts of one, so that sums are exact and a step can be taken back. */
const PARTS = 2 ** 20;

export class Covering {
  readonly #open = new Set<Style>();
  /** By row, the open styles that fit it, by their masks. */
  readonly #fitting: Style[][];
  readonly #worn: Worn[];
  /** What rows and styles cost, in parts; and how many styles too few elements wear. */
  #parts = 0;
  #tooFew = 0;
  /** What was done since the last reset, to take it back from the end. */
  readonly #done: (() => void)[] = [];
  readonly #masks: readonly bigint[];
  readonly #elements: readonly number[];
  readonly #sizes: readonly number[];
  readonly #taste: Taste;
  readonly #atLeast: number;
  readonly #styles = new Map<bigint, Style>();
  readonly #sizeOfMask = new Map<bigint, number>();
  readonly #rowCosts = new Map<string, Worn>();

  /** In: the atoms of each row and how many elements it has; the declarations of each atom. */
  constructor(
    masks: readonly bigint[],
    counts: readonly number[],
    sizes: readonly number[],
    taste: Taste,
    atLeast: number,
  ) {
    this.#masks = masks;
    this.#elements = counts;
    this.#sizes = sizes;
    this.#taste = taste;
    this.#atLeast = atLeast;
    this.#fitting = masks.map(() => []);
    this.#worn = masks.map(() => NOTHING);
    this.reset([]);
  }

  get rows(): number {
    return this.#masks.length;
  }

  get cost(): number {
    return this.#parts / PARTS + this.#tooFew * TOO_FEW;
  }

  /** Opens these styles and no others. */
  reset(open: readonly bigint[]): void {
    for (const style of this.#styles.values()) style.wearers = 0;
    this.#open.clear();
    for (const mask of open) this.#open.add(this.#styleOf(mask));
    const inOrder = [...this.#open].sort(byMask);
    this.#parts = 0;
    this.#tooFew = 0;
    for (let row = 0; row < this.rows; row++) {
      this.#fitting[row] = inOrder.filter(({ fits }) => fits[row] === 1);
      this.#worn[row] = NOTHING;
      this.#wear(row, this.#bestFor(row));
    }
    this.#done.length = 0;
  }

  /** The styles that some row has, in a fixed order. */
  used(): bigint[] {
    return [...new Set(this.#worn.flatMap(({ styles }) => styles))].sort(byMask).map(({ mask }) => mask);
  }

  wornBy(row: number): readonly bigint[] {
    return this.#worn[row]!.styles.map(({ mask }) => mask);
  }

  open(mask: bigint): void {
    const style = this.#styleOf(mask);
    if (this.#open.has(style)) return;
    this.#add(style);
    this.#done.push(() => this.#remove(style));
    for (const row of style.rows) this.#change(row);
  }

  close(mask: bigint): void {
    const style = this.#styleOf(mask);
    if (!this.#open.has(style)) return;
    this.#remove(style);
    this.#done.push(() => this.#add(style));
    for (const row of style.rows) if (this.#worn[row]!.styles.includes(style)) this.#change(row);
  }

  /** Closes styles that overlap a new one, where the cover is cheaper without them. */
  prune(mask: bigint): void {
    for (const other of this.used()) {
      if (other === mask || (other & mask) === 0n) continue;
      this.#keepIfCheaper(() => {
        this.close(other);
        this.refill();
      });
    }
  }

  /** Opens a style for what a row has lost, where that is cheaper than leaving it. */
  refill(): void {
    for (let row = 0; row < this.rows; row++) {
      const { bare } = this.#worn[row]!;
      if (bare !== 0n) this.#keepIfCheaper(() => this.open(bare));
    }
  }

  /** How far it has come since the last reset. */
  get mark(): number {
    return this.#done.length;
  }

  /** Takes back what was done behind a mark. */
  backTo(mark: number): void {
    while (this.#done.length > mark) this.#done.pop()!();
  }

  /** The open styles. */
  opened(): bigint[] {
    return [...this.#open].map(({ mask }) => mask);
  }

  #keepIfCheaper(step: () => void): void {
    const { cost, mark } = this;
    step();
    if (this.cost >= cost - 1e-9) this.backTo(mark);
  }

  #add(style: Style): void {
    this.#open.add(style);
    for (const row of style.rows) {
      const own = this.#fitting[row]!;
      let at = own.length;
      while (at > 0 && own[at - 1]!.mask > style.mask) at--;
      own.splice(at, 0, style);
    }
  }

  #remove(style: Style): void {
    this.#open.delete(style);
    for (const row of style.rows) {
      const own = this.#fitting[row]!;
      own.splice(own.indexOf(style), 1);
    }
  }

  /** A row has what is best for it now. */
  #change(row: number): void {
    const before = this.#worn[row]!;
    const best = this.#bestFor(row);
    if (best === before) return;
    this.#wear(row, best);
    this.#done.push(() => this.#wear(row, before));
  }

  #wear(row: number, worn: Worn): void {
    const before = this.#worn[row]!;
    const elements = this.#elements[row]!;
    for (const style of before.styles) this.#count(style, -elements);
    for (const style of worn.styles) this.#count(style, elements);
    this.#parts += worn.parts - before.parts;
    this.#worn[row] = worn;
  }

  #count(style: Style, elements: number): void {
    const before = style.wearers;
    const after = before + elements;
    style.wearers = after;
    if ((before === 0) !== (after === 0)) {
      const { style: each, declaration } = this.#taste;
      const own = inParts(each + declaration * style.size);
      this.#parts += after === 0 ? -own : own;
    }
    const isFew = (count: number): number => (count > 0 && count < this.#atLeast ? 1 : 0);
    this.#tooFew += isFew(after) - isFew(before);
  }

  #styleOf(mask: bigint): Style {
    return getOrInsert(this.#styles, mask, () => {
      const fits = Uint8Array.from(this.#masks, (row) => ((row & mask) === mask ? 1 : 0));
      const rows = this.#masks.flatMap((_, row) => (fits[row] === 1 ? [row] : []));
      return { number: this.#styles.size, mask, size: this.#sizeOf(mask), fits, rows, wearers: 0 };
    });
  }

  #bareOf(row: number, wears: readonly Style[]): bigint {
    let bare = this.#masks[row]!;
    for (const { mask } of wears) bare &= ~mask;
    return bare;
  }

  #rowCost(row: number, wears: readonly Style[]): number {
    const count = this.#elements[row]!;
    const { use, stay } = this.#taste;
    const bare = this.#sizeOf(this.#bareOf(row, wears));
    return use * wears.length * Math.log2(1 + count) + stay * bare * count;
  }

  #sizeOf(mask: bigint): number {
    return getOrInsert(this.#sizeOfMask, mask, () => {
      let size = 0;
      for (let rest = mask, bit = 0; rest !== 0n; rest >>= 1n, bit++)
        if (rest & 1n) size += this.#sizes[bit]!;
      return size;
    });
  }

  /** The open styles that a row has at the least cost to itself. */
  #bestFor(row: number): Worn {
    const fitting = this.#fitting[row]!;
    let key = `${row}`;
    for (const { number } of fitting) key += `,${number}`;
    return getOrInsert(this.#rowCosts, key, () => {
      const styles = bestChoice(this.#masks[row]!, fitting, (wears) => this.#rowCost(row, wears));
      if (this.#rowCosts.size > 50_000) this.#rowCosts.clear();
      return { styles, bare: this.#bareOf(row, styles), parts: inParts(this.#rowCost(row, styles)) };
    });
  }
}

function inParts(cost: number): number {
  return Math.round(cost * PARTS);
}

function byMask(a: Style, b: Style): number {
  return a.mask < b.mask ? -1 : 1;
}

/** Above so many styles that fit a row, they are taken greedily. */
const MOST_FITTING = 10;

function bestChoice(
  whole: bigint,
  fitting: readonly Style[],
  costOf: (wears: readonly Style[]) => number,
): readonly Style[] {
  let best: readonly Style[] = [];
  let least = costOf(best);
  if (fitting.length > MOST_FITTING) return greedyChoice(fitting, costOf);
  const visit = (from: number, wears: readonly Style[], bare: bigint): void => {
    for (let at = from; at < fitting.length; at++) {
      const style = fitting[at]!;
      if ((style.mask & bare) === 0n) continue;
      const more = [...wears, style];
      const cost = costOf(more);
      if (cost < least - 1e-9) {
        least = cost;
        best = more;
      }
      visit(at + 1, more, bare & ~style.mask);
    }
  };
  visit(0, [], whole);
  return best;
}

function greedyChoice(
  fitting: readonly Style[],
  costOf: (wears: readonly Style[]) => number,
): readonly Style[] {
  let wears: readonly Style[] = [];
  let least = costOf(wears);
  for (;;) {
    let next: readonly Style[] | undefined;
    for (const style of fitting) {
      const cost = costOf([...wears, style]);
      if (cost < least - 1e-9) {
        least = cost;
        next = [...wears, style];
      }
    }
    if (next === undefined) return wears;
    wears = next;
  }
}
