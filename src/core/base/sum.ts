/** The numbers of all, added up. */
export function sumOf<One>(all: Iterable<One>, of: (one: One) => number): number {
  let sum = 0;
  for (const one of all) sum += of(one);
  return sum;
}
