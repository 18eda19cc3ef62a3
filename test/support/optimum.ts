// The exact optimum of a small cover, by branch and bound: written for comparing, not for use.

import { type Cover, costOf, type Row, type Taste } from '../../src/core/search/cost.js';

/**
 * The least cost of covering the rows, whatever sets the styles are.
 * In: up to twelve rows, every key one declaration; the cost of any cover, from which better ones are sought. Rows are
 * served in order; a row may wear any set that fits it, one that is open for its use alone, a new one for all it costs.
 */
export function leastCost(rows: readonly Row[], taste: Taste, atLeast: number, known: number): number {
  const keys = [...new Set(rows.flatMap((row) => row.keys))].sort();
  const bits = rows.map((row) => row.keys.reduce((mask, key) => mask | (1 << keys.indexOf(key)), 0));
  const order = rows.map((_, at) => at).sort((a, b) => rows[b]!.keys.length - rows[a]!.keys.length || a - b);
  const uses = rows.map(({ count }) => taste.use * Math.log2(1 + count));
  // Whatever is opened, a row pays for at least one class, or for what stays of its own.
  const least = rows.map((row, at) => Math.min(uses[at]!, taste.stay * row.count));
  const rest = order.map((_, i) => order.slice(i).reduce((sum, at) => sum + least[at]!, 0));
  let best = known + 1e-9;
  const wearers = new Map<number, number>();
  const seen = new Map<string, number>();
  // A key that no open set brings to some row to come is written once more, or stays there.
  const bound = (depth: number): number => {
    const open = [...wearers].filter(([, count]) => count > 0).map(([set]) => set);
    const missing = new Map<number, number>();
    for (let i = depth; i < order.length; i++) {
      const row = bits[order[i]!]!;
      let held = 0;
      for (const set of open) if ((set & row) === set) held |= set;
      for (let bare = row & ~held; bare !== 0; bare &= bare - 1) {
        const low = bare & -bare;
        missing.set(low, (missing.get(low) ?? 0) + taste.stay * rows[order[i]!]!.count);
      }
    }
    let sum = rest[depth] ?? 0;
    for (const stays of missing.values()) sum += Math.min(taste.declaration, stays);
    return missing.size > 0 ? sum + Math.min(taste.style, taste.stay) : sum;
  };
  const serve = (depth: number, cost: number): void => {
    if (cost + bound(depth) >= best - 1e-9) return;
    const row = order[depth];
    if (row === undefined) {
      if ([...wearers.values()].every((count) => count === 0 || count >= atLeast)) best = cost;
      return;
    }
    const open = [...wearers]
      .filter(([, count]) => count > 0)
      .map(([set, count]) => `${set}.${Math.min(count, atLeast)}`);
    const state = `${depth} ${open.sort().join()}`;
    if ((seen.get(state) ?? Number.POSITIVE_INFINITY) <= cost) return;
    seen.set(state, cost);
    cover(bits[row]!, bits[row]!, cost, row, depth);
  };
  // Covers the lowest bare bit of a row by a set that holds it, or leaves it bare.
  const cover = (whole: number, bare: number, cost: number, row: number, depth: number): void => {
    if (cost + (rest[depth + 1] ?? 0) >= best - 1e-9) return;
    if (bare === 0) {
      serve(depth + 1, cost);
      return;
    }
    const low = bare & -bare;
    const { count } = rows[row]!;
    const others = whole & ~low;
    for (let more = others; ; more = (more - 1) & others) {
      const set = more | low;
      const wearing = wearers.get(set) ?? 0;
      // A new set takes in what is covered already only for rows to come.
      if (
        wearing > 0 ||
        (set & ~bare) === 0 ||
        order.slice(depth + 1).some((at) => (bits[at]! & set) === set)
      ) {
        const opening = wearing > 0 ? 0 : taste.style + taste.declaration * size(set);
        wearers.set(set, wearing + count);
        cover(whole, bare & ~set, cost + opening + uses[row]!, row, depth);
        wearers.set(set, wearing);
      }
      if (more === 0) break;
    }
    cover(whole, bare & ~low, cost + taste.stay * count, row, depth);
  };
  serve(0, 0);
  return Math.min(best, known);
}

function size(set: number): number {
  let count = 0;
  for (let rest = set; rest !== 0; rest &= rest - 1) count++;
  return count;
}

/** One class for every row that enough elements carry. */
export function onePerSet(rows: readonly Row[], taste: Taste, atLeast: number): number {
  const styles: string[][] = [];
  const worn = rows.map(({ keys, count }) => {
    if (count < atLeast) return [];
    styles.push([...keys]);
    return [styles.length - 1];
  });
  const cover: Cover = { styles, worn };
  return costOf(rows, cover, taste, () => 1);
}

/** Rows as sites have them: a few looks, with declarations more or less. */
export function randomRows(random: {
  number(below: number): number;
  chance(percent: number): boolean;
}): Row[] {
  const all = ['a', 'b', 'c', 'd', 'e', 'f'].slice(0, 4 + random.number(3));
  const wanted = 2 + random.number(11);
  const found = new Map<string, Row>();
  const bases = Array.from({ length: 1 + random.number(3) }, () => all.filter(() => random.chance(45)));
  for (let tries = 0; tries < wanted * 4 && found.size < wanted; tries++) {
    const base = bases[random.number(bases.length)]!;
    const keys = all
      .filter((key) => (base.includes(key) ? random.chance(80) : random.chance(20)))
      .slice(0, 4);
    if (keys.length === 0) continue;
    found.set(keys.join(), { keys, count: 1 + random.number(random.chance(30) ? 60 : 6) });
  }
  return [...found.values()];
}
