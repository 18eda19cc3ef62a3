// How threads divide the pages: each takes the next few from one shared counter, so that none waits for another.

/** Pages that a thread takes at once. */
const SHARE = 8;

/** Shared cells: how many pages are taken, how many are done. */
export function newCells(): Int32Array {
  return new Int32Array(new SharedArrayBuffer(8));
}

/** Hands out the numbers of the pages that this thread is to do, in order; `onPage` hears how many all have done. */
export function* takeShares(
  cells: Int32Array,
  count: number,
  onPage?: (done: number) => void,
): Generator<number> {
  for (;;) {
    const from = Atomics.add(cells, 0, SHARE);
    if (from >= count) return;
    for (let number = from; number < Math.min(count, from + SHARE); number++) {
      yield number;
      onPage?.(Atomics.add(cells, 1, 1) + 1);
    }
  }
}
