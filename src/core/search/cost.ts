// What a set of styles costs: the one formula that the search makes small, and the three tastes that weigh it.

/** Weights, in movable declarations of one declaration written in a sheet. */
export interface Taste {
  /** Of every style, for its name and its place in somebody's head. */
  readonly style: number;
  readonly declaration: number;
  /** Of a class on elements that stand alike; see `costOf`. */
  readonly use: number;
  /** Of a declaration that stays on one element. */
  readonly stay: number;
}

export const TASTES = {
  'whole looks': { style: 0.5, declaration: 1, use: 4, stay: 4 },
  balanced: { style: 0.5, declaration: 1, use: 1, stay: 4 },
  'small pieces': { style: 0.5, declaration: 1, use: 0.2, stay: 4 },
} as const satisfies Readonly<Record<string, Taste>>;

export type TasteName = keyof typeof TASTES;

/** Elements that carry the same set of movable declarations. */
export interface Row {
  /** Keys of the movable declarations. */
  readonly keys: readonly string[];
  /** How many elements carry them. */
  readonly count: number;
}

/** Which styles, and which of them each row has. */
export interface Cover {
  readonly styles: readonly (readonly string[])[];
  /** By row: numbers of styles. */
  readonly worn: readonly (readonly number[])[];
}

/** Declarations of a movable declaration; most are one. */
export type SizeOf = (key: string) => number;

/**
 * style × styles + declaration × declarations in them + use × Σ over rows of (classes × log2(1 + elements))
 * + stay × declarations left on elements.
 *
 * Uses weigh by the logarithm: a class pasted on the hundredth cell of a table is hardly another thought. What stays
 * weighs in full, for each of its copies has to be kept up.
 */
export function costOf(rows: readonly Row[], { styles, worn }: Cover, taste: Taste, sizeOf: SizeOf): number {
  const worth = styles.map((keys) => taste.style + taste.declaration * sizeAll(keys, sizeOf));
  const used = new Set<number>();
  let cost = 0;
  rows.forEach((row, at) => {
    for (const style of worn[at]!) used.add(style);
    cost += rowCost(
      row,
      worn[at]!.map((style) => styles[style]!),
      taste,
      sizeOf,
    );
  });
  for (const style of used) cost += worth[style]!;
  return cost;
}

/** The part of the cost that one row brings about. */
export function rowCost(
  { keys, count }: Row,
  wears: readonly (readonly string[])[],
  taste: Taste,
  sizeOf: SizeOf,
): number {
  let stays = 0;
  for (const key of keys) if (!wears.some((style) => style.includes(key))) stays += sizeOf(key);
  return taste.use * wears.length * Math.log2(1 + count) + taste.stay * stays * count;
}

export function sizeAll(keys: readonly string[], sizeOf: SizeOf): number {
  return keys.reduce((sum, key) => sum + sizeOf(key), 0);
}
