// Lists under keys, in the order in which they come up.

export function groupBy<Item, Key>(items: Iterable<Item>, keyOf: (item: Item) => Key): Map<Key, Item[]> {
  const groups = new Map<Key, Item[]>();
  for (const item of items) addTo(groups, keyOf(item), item);
  return groups;
}

/** Puts an item into the list under a key. */
export function addTo<Key, Item>(groups: Map<Key, Item[]>, key: Key, item: Item): void {
  const group = groups.get(key);
  if (group === undefined) groups.set(key, [item]);
  else group.push(item);
}
