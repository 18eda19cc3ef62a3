// How threads divide the pages: each takes the next few from one shared counter, so that none waits for another.

/** Pages that a thread takes at once. */
const SHARE = 8;

/** Shared cells: how many pages are taken, how many are done. */
export function newCells(): Int32Array {
  return new Int32Array(new SharedArrayBuffer(8));
}

/** One of several parts of all pages, counted from 1: every so many-th page. */
export interface Share {
  readonly number: number;
  readonly of: number;
}

const ALL: Share = { number: 1, of: 1 };

/** How many of all pages are in a part. */
export function shareSize(count: number, { number, of }: Share = ALL): number {
  return Math.max(0, Math.ceil((count - number + 1) / of));
}

/** The pages of a part. */
export function inShare<Item>(all: readonly Item[], { number, of }: Share = ALL): Item[] {
  return all.filter((_, at) => at % of === number - 1);
}

/** Hands out the numbers of the pages that this thread is to do, in order; `onPage` hears how many all have done. */
export function* takeShares(
  cells: Int32Array,
  count: number,
  {
    share = ALL,
    onPage,
  }: { readonly share?: Share | undefined; readonly onPage?: (done: number) => void } = {},
): Generator<number> {
  const own = shareSize(count, share);
  for (;;) {
    const from = Atomics.add(cells, 0, SHARE);
    if (from >= own) return;
    for (let at = from; at < Math.min(own, from + SHARE); at++) {
      yield at * share.of + share.number - 1;
      onPage?.(Atomics.add(cells, 1, 1) + 1);
    }
  }
}
