// The state of a cover while it is searched: which styles are open, what each row wears, and what that costs.

import type { Taste } from './cost.js';

export interface Saved {
  readonly open: ReadonlySet<bigint>;
  readonly worn: readonly (readonly bigint[])[];
  readonly cost: number;
}

/** Far above any cost: for a style that too few elements wear. */
const TOO_FEW = 1e9;

export class Covering {
  cost = 0;
  #open = new Set<bigint>();
  #worn: (readonly bigint[])[] = [];
  readonly #masks: readonly bigint[];
  readonly #counts: readonly number[];
  readonly #sizes: readonly number[];
  readonly #taste: Taste;
  readonly #atLeast: number;
  readonly #rowCosts = new Map<string, readonly bigint[]>();

  /** In: the atoms of each row and how many elements it has; the declarations of each atom. */
  constructor(
    masks: readonly bigint[],
    counts: readonly number[],
    sizes: readonly number[],
    taste: Taste,
    atLeast: number,
  ) {
    this.#masks = masks;
    this.#counts = counts;
    this.#sizes = sizes;
    this.#taste = taste;
    this.#atLeast = atLeast;
    this.reset([]);
  }

  get rows(): number {
    return this.#masks.length;
  }

  reset(open: readonly bigint[]): void {
    this.#open = new Set(open);
    this.#worn = this.#masks.map((_, row) => this.#bestFor(row));
    this.#count();
  }

  /** The styles that some row wears, in a fixed order. */
  used(): bigint[] {
    return [...new Set(this.#worn.flat())].sort((a, b) => (a < b ? -1 : 1));
  }

  wornBy(row: number): readonly bigint[] {
    return this.#worn[row]!;
  }

  open(mask: bigint): void {
    this.#open.add(mask);
    this.#masks.forEach((row, at) => {
      if ((row & mask) === mask) this.#worn[at] = this.#bestFor(at);
    });
    this.#count();
  }

  close(mask: bigint): void {
    this.#open.delete(mask);
    this.#worn.forEach((wears, at) => {
      if (wears.includes(mask)) this.#worn[at] = this.#bestFor(at);
    });
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
      for (const mask of this.#worn[at]!) bare &= ~mask;
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

  #count(): void {
    const wearers = new Map<bigint, number>();
    let cost = 0;
    this.#worn.forEach((wears, at) => {
      for (const mask of wears) wearers.set(mask, (wearers.get(mask) ?? 0) + this.#counts[at]!);
      cost += this.#rowCost(at, wears);
    });
    for (const [mask, elements] of wearers) {
      cost += this.#taste.style + this.#taste.declaration * this.#sizeOf(mask);
      if (elements < this.#atLeast) cost += TOO_FEW;
    }
    this.cost = cost;
  }

  #rowCost(row: number, wears: readonly bigint[]): number {
    let bare = this.#masks[row]!;
    for (const mask of wears) bare &= ~mask;
    const count = this.#counts[row]!;
    const { use, stay } = this.#taste;
    return use * wears.length * Math.log2(1 + count) + stay * this.#sizeOf(bare) * count;
  }

  #sizeOf(mask: bigint): number {
    let size = 0;
    for (let rest = mask, bit = 0; rest !== 0n; rest >>= 1n, bit++) if (rest & 1n) size += this.#sizes[bit]!;
    return size;
  }

  /** The open styles that a row wears at the least cost to itself. */
  #bestFor(row: number): readonly bigint[] {
    const whole = this.#masks[row]!;
    const fitting = [...this.#open]
      .filter((mask) => (whole & mask) === mask)
      .sort((a, b) => (a < b ? -1 : 1));
    const key = `${row}:${fitting.join()}`;
    let best = this.#rowCosts.get(key);
    if (best === undefined) {
      best = bestChoice(whole, fitting, (wears) => this.#rowCost(row, wears));
      if (this.#rowCosts.size > 50_000) this.#rowCosts.clear();
      this.#rowCosts.set(key, best);
    }
    return best;
  }
}

/** Above so many styles that fit a row, they are taken greedily. */
const MOST_FITTING = 10;

function bestChoice(
  whole: bigint,
  fitting: readonly bigint[],
  costOf: (wears: readonly bigint[]) => number,
): readonly bigint[] {
  let best: readonly bigint[] = [];
  let least = costOf(best);
  if (fitting.length > MOST_FITTING) return greedyChoice(fitting, costOf);
  const visit = (from: number, wears: readonly bigint[], bare: bigint): void => {
    for (let at = from; at < fitting.length; at++) {
      const mask = fitting[at]!;
      if ((mask & bare) === 0n) continue;
      const more = [...wears, mask];
      const cost = costOf(more);
      if (cost < least - 1e-9) {
        least = cost;
        best = more;
      }
      visit(at + 1, more, bare & ~mask);
    }
  };
  visit(0, [], whole);
  return best;
}

function greedyChoice(
  fitting: readonly bigint[],
  costOf: (wears: readonly bigint[]) => number,
): readonly bigint[] {
  let wears: readonly bigint[] = [];
  let least = costOf(wears);
  for (;;) {
    let next: readonly bigint[] | undefined;
    for (const mask of fitting) {
      const cost = costOf([...wears, mask]);
      if (cost < least - 1e-9) {
        least = cost;
        next = [...wears, mask];
      }
    }
    if (next === undefined) return wears;
    wears = next;
  }
}
