// Lists that are kept in order.

/** Puts one into a list that is in order, before those that are not before it. In: as for `Array.prototype.sort`. */
export function insertSorted<One>(list: One[], one: One, compare: (a: One, b: One) => number): void {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (compare(list[middle]!, one) < 0) low = middle + 1;
    else high = middle;
  }
  list.splice(low, 0, one);
}
