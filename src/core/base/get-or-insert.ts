// `Map.prototype.getOrInsertComputed` of the coming standard (https://tc39.es/proposal-upsert/), for maps of maps.

interface Keyed<Key, Value> {
  get(key: Key): Value | undefined;
  set(key: Key, value: Value): unknown;
}

/** The value of a key, put in now where there is none. */
export function getOrInsert<Key, Value>(map: Keyed<Key, Value>, key: Key, find: () => Value): Value {
  let value = map.get(key);
  if (value === undefined) {
    value = find();
    map.set(key, value);
  }
  return value;
}

export const newMap = <Key, Value>(): Map<Key, Value> => new Map();
