// Which sets of movable declarations become classes: a cover of all rows at the least cost, improved until no exchange helps.
//
// Rows that share no movable declaration are searched apart. A set of movable declarations is a bit mask over the atoms of its part: movable declarations that always
// stand together.

import { type Cover, costOf, type Row, type SizeOf, type Taste } from './cost.js';
import { Covering } from './covering.js';

/** Above so many trials a part takes the first exchange that helps, not the best. */
const PATIENT = 4000;
/** At most so many different sets are tried in one part. */
const MOST_CANDIDATES = 1200;

/**
 * In: rows with different key sets; the taste; from how many elements on a style is worth making. Out: the cover,
 * never dearer than one style for each row; the same for equal input on any machine.
 */
export function coverRows(rows: readonly Row[], taste: Taste, sizeOf: SizeOf, atLeast: number): Cover {
  const styles: string[][] = [];
  const worn: number[][] = rows.map(() => []);
  for (const part of apart(rows)) {
    const own = part.map((at) => rows[at]!);
    const cover = coverPart(own, taste, sizeOf, atLeast);
    part.forEach((at, i) => {
      worn[at] = cover.worn[i]!.map((style) => style + styles.length);
    });
    for (const style of cover.styles) styles.push([...style]);
  }
  return { styles, worn };
}

/** Numbers of rows that have movable declarations in common, directly or through others. */
function apart(rows: readonly Row[]): number[][] {
  const partOf = rows.map((_, at) => at);
  const find = (at: number): number => {
    let root = at;
    while (partOf[root] !== root) root = partOf[root]!;
    partOf[at] = root;
    return root;
  };
  const first = new Map<string, number>();
  rows.forEach(({ keys }, at) => {
    for (const key of keys) {
      const other = first.get(key);
      if (other === undefined) first.set(key, at);
      else partOf[find(at)] = find(other);
    }
  });
  const parts = new Map<number, number[]>();
  rows.forEach((_, at) => {
    const part = parts.get(find(at));
    if (part === undefined) parts.set(find(at), [at]);
    else part.push(at);
  });
  return [...parts.values()];
}

function coverPart(rows: readonly Row[], taste: Taste, sizeOf: SizeOf, atLeast: number): Cover {
  const atoms = atomsOf(rows);
  const atomSizes = atoms.map((keys) => keys.reduce((sum, key) => sum + sizeOf(key), 0));
  const masks = rows.map(({ keys }) => {
    let mask = 0n;
    atoms.forEach((atom, bit) => {
      if (keys.includes(atom[0]!)) mask |= 1n << BigInt(bit);
    });
    return mask;
  });
  const counts = rows.map(({ count }) => count);
  const covering = new Covering(masks, counts, atomSizes, taste, atLeast);
  const candidates = candidatesOf(masks, counts, atoms.length);
  const starts: bigint[][] = [[...new Set(masks)]];
  if (rows.length * candidates.length < PATIENT * 4) {
    starts.push(
      [],
      atoms.map((_, bit) => 1n << BigInt(bit)),
    );
  }
  let best: readonly bigint[] = [];
  let least = Number.POSITIVE_INFINITY;
  for (const start of starts) {
    covering.reset(start);
    improve(covering, candidates);
    if (covering.cost < least - 1e-9) {
      least = covering.cost;
      best = covering.used();
    }
  }
  covering.reset(best);
  const used = covering.used();
  const cover = {
    styles: used.map((mask) => atoms.flatMap((keys, bit) => ((mask >> BigInt(bit)) & 1n ? keys : []))),
    worn: rows.map((_, row) => covering.wornBy(row).map((mask) => used.indexOf(mask))),
  };
  return cheapest(rows, cover, taste, sizeOf, atLeast);
}

/** The cover, or one style for each row where that should be cheaper. */
function cheapest(rows: readonly Row[], cover: Cover, taste: Taste, sizeOf: SizeOf, atLeast: number): Cover {
  const styles: string[][] = [];
  const worn = rows.map(({ keys, count }) => {
    if (count < atLeast) return [];
    styles.push([...keys]);
    return [styles.length - 1];
  });
  const plain = { styles, worn };
  return costOf(rows, plain, taste, sizeOf) < costOf(rows, cover, taste, sizeOf) - 1e-9 ? plain : cover;
}

/** Units that stand in exactly the same rows. */
function atomsOf(rows: readonly Row[]): string[][] {
  const rowsOfKey = new Map<string, string>();
  rows.forEach(({ keys }, at) => {
    for (const key of keys) rowsOfKey.set(key, `${rowsOfKey.get(key) ?? ''},${at}`);
  });
  const atoms = new Map<string, string[]>();
  for (const [key, where] of [...rowsOfKey].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const atom = atoms.get(where);
    if (atom === undefined) atoms.set(where, [key]);
    else atom.push(key);
  }
  return [...atoms.values()];
}

/** What rows have in common, what is left of them without it, and every atom: the most used first. */
function candidatesOf(masks: readonly bigint[], counts: readonly number[], atoms: number): bigint[] {
  const found = new Set<bigint>(masks);
  let fresh = [...found];
  while (fresh.length > 0 && found.size < MOST_CANDIDATES) {
    const next: bigint[] = [];
    for (const a of fresh) {
      for (const b of masks) {
        for (const mask of [a & b, a & ~b]) {
          if (mask === 0n || found.has(mask) || found.size >= MOST_CANDIDATES) continue;
          found.add(mask);
          next.push(mask);
        }
      }
    }
    fresh = next;
  }
  for (let bit = 0; bit < atoms; bit++) found.add(1n << BigInt(bit));
  const wearers = (mask: bigint): number =>
    masks.reduce((sum, row, at) => ((row & mask) === mask ? sum + counts[at]! : sum), 0);
  return [...found]
    .map((mask) => ({ mask, worth: wearers(mask) }))
    .sort((a, b) => b.worth - a.worth || (a.mask < b.mask ? -1 : 1))
    .map(({ mask }) => mask);
}

/** Adds, drops and exchanges styles as long as that makes the cover cheaper. */
function improve(covering: Covering, candidates: readonly bigint[]): void {
  const patient = candidates.length * covering.rows < PATIENT;
  for (let helped = true; helped; ) {
    helped = false;
    let least = covering.cost;
    let best: readonly bigint[] | undefined;
    const { mark } = covering;
    for (const move of movesOf(covering, candidates)) {
      move();
      if (covering.cost < least - 1e-9) {
        least = covering.cost;
        best = covering.opened();
        helped = true;
      }
      if (helped && !patient) break;
      covering.backTo(mark);
    }
    if (best !== undefined) covering.reset(best);
  }
}

function* movesOf(covering: Covering, candidates: readonly bigint[]): Iterable<() => void> {
  const open = covering.used();
  for (const mask of candidates) {
    if (open.includes(mask)) continue;
    yield () => {
      covering.open(mask);
      covering.prune(mask);
    };
  }
  for (const mask of open) {
    yield () => {
      covering.close(mask);
      covering.refill();
    };
  }
  for (const mask of open) {
    for (const other of candidates) {
      if (other === mask || (other & mask) === 0n || open.includes(other)) continue;
      yield () => {
        covering.close(mask);
        covering.open(other);
        covering.prune(other);
        covering.refill();
      };
    }
  }
}
