// What is worth remembering, and no more of it than fits: a map that begins anew when it is full.

export class BoundedMap<Key, Value> {
  readonly #values = new Map<Key, Value>();

  /** In: how many entries are kept at most. */
  constructor(readonly most: number) {}

  /** The known value, or the one that is found now. `undefined` is not remembered. */
  get(key: Key, find: () => Value): Value {
    const known = this.#values.get(key);
    if (known !== undefined) return known;
    const found = find();
    this.set(key, found);
    return found;
  }

  peek(key: Key): Value | undefined {
    return this.#values.get(key);
  }

  set(key: Key, value: Value): void {
    if (this.#values.size >= this.most) this.#values.clear();
    this.#values.set(key, value);
  }
}
