// The state of a cover while it is searched: which styles are open, what each row wears, and what that costs.

import { getOrInsert } from '../get-or-insert.js';
import type { Taste } from './cost.js';

export interface Saved {
  readonly open: ReadonlySet<Style>;
  readonly worn: readonly Worn[];
  readonly cost: number;
}

/** A set of atoms that is open, or was tried. */
interface Style {
  readonly number: number;
  readonly mask: bigint;
  /** Declarations in it. */
  readonly size: number;
  /** By row, whether all of it stands there; and the rows where it does. */
  readonly fits: Uint8Array;
  readonly rows: readonly number[];
  /** Elements that wear it, and the count in which that was found. */
  wearers: number;
  counted: number;
}

/** What a row wears, and what that costs it. */
interface Worn {
  readonly styles: readonly Style[];
  readonly cost: number;
}

/** Far above any cost: for a style that too few elements wear. */
const TOO_FEW = 1e9;

export class Covering {
  cost = 0;
  #open = new Set<Style>();
  #worn: Worn[] = [];
  #counts = 0;
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
    this.reset([]);
  }

  get rows(): number {
    return this.#masks.length;
  }

  reset(open: readonly bigint[]): void {
    this.#open = new Set(open.map((mask) => this.#styleOf(mask)));
    this.#worn = this.#masks.map((_, row) => this.#bestFor(row));
    this.#count();
  }

  /** The styles that some row wears, in a fixed order. */
  used(): bigint[] {
    return [...new Set(this.#worn.flatMap(({ styles }) => styles))].sort(byMask).map(({ mask }) => mask);
  }

  wornBy(row: number): readonly bigint[] {
    return this.#worn[row]!.styles.map(({ mask }) => mask);
  }

  open(mask: bigint): void {
    const style = this.#styleOf(mask);
    this.#open.add(style);
    for (const row of style.rows) this.#worn[row] = this.#bestFor(row);
    this.#count();
  }

  close(mask: bigint): void {
    const style = this.#styleOf(mask);
    this.#open.delete(style);
    for (const row of style.rows)
      if (this.#worn[row]!.styles.includes(style)) this.#worn[row] = this.#bestFor(row);
    this.#count();
  }

  /** Closes styles that overlap a new one, where the cover is cheaper without them. */
  prune(mask: bigint): void {
    for (const other of this.used()) {
      if (other === mask || (other & mask) === 0n) continue;
      const before = this.save();
      this.close(other);
      this.refill();
      if (this.cost >= before.cost - 1e-9) this.restore(before);
    }
  }

  /** Opens a style for what a row has lost, where that is cheaper than leaving it. */
  refill(): void {
    this.#masks.forEach((row, at) => {
      let bare = row;
      for (const { mask } of this.#worn[at]!.styles) bare &= ~mask;
      if (bare === 0n) return;
      const before = this.save();
      this.open(bare);
      if (this.cost >= before.cost - 1e-9) this.restore(before);
    });
  }

  save(): Saved {
    return { open: new Set(this.#open), worn: [...this.#worn], cost: this.cost };
  }

  restore({ open, worn, cost }: Saved): void {
    this.#open = new Set(open);
    this.#worn = [...worn];
    this.cost = cost;
  }

  #styleOf(mask: bigint): Style {
    return getOrInsert(this.#styles, mask, () => {
      const fits = Uint8Array.from(this.#masks, (row) => ((row & mask) === mask ? 1 : 0));
      const rows = this.#masks.flatMap((_, row) => (fits[row] === 1 ? [row] : []));
      const size = this.#sizeOf(mask);
      return { number: this.#styles.size, mask, size, fits, rows, wearers: 0, counted: 0 };
    });
  }

  #count(): void {
    const now = ++this.#counts;
    const used: Style[] = [];
    let cost = 0;
    this.#worn.forEach((worn, at) => {
      for (const style of worn.styles) {
        if (style.counted !== now) {
          style.counted = now;
          style.wearers = 0;
          used.push(style);
        }
        style.wearers += this.#elements[at]!;
      }
      cost += worn.cost;
    });
    const { style: each, declaration } = this.#taste;
    for (const { size, wearers } of used) {
      cost += each + declaration * size;
      if (wearers < this.#atLeast) cost += TOO_FEW;
    }
    this.cost = cost;
  }

  #rowCost(row: number, wears: readonly Style[]): number {
    let bare = this.#masks[row]!;
    for (const { mask } of wears) bare &= ~mask;
    const count = this.#elements[row]!;
    const { use, stay } = this.#taste;
    return use * wears.length * Math.log2(1 + count) + stay * this.#sizeOf(bare) * count;
  }

  #sizeOf(mask: bigint): number {
    return getOrInsert(this.#sizeOfMask, mask, () => {
      let size = 0;
      for (let rest = mask, bit = 0; rest !== 0n; rest >>= 1n, bit++)
        if (rest & 1n) size += this.#sizes[bit]!;
      return size;
    });
  }

  /** The open styles that a row wears at the least cost to itself. */
  #bestFor(row: number): Worn {
    const whole = this.#masks[row]!;
    const fitting = [...this.#open].filter(({ fits }) => fits[row] === 1).sort(byMask);
    const key = `${row}:${fitting.map(({ number }) => number).join()}`;
    let best = this.#rowCosts.get(key);
    if (best === undefined) {
      const styles = bestChoice(whole, fitting, (wears) => this.#rowCost(row, wears));
      best = { styles, cost: this.#rowCost(row, styles) };
      if (this.#rowCosts.size > 50_000) this.#rowCosts.clear();
      this.#rowCosts.set(key, best);
    }
    return best;
  }
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
