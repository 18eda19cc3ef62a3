// What was made of files, remembered until one of those that it was made of is another.

import { BoundedMap } from '../../core/base/bounded.js';
import type { Files } from './compile-options.js';

interface Made<Value> {
  readonly value: Value;
  /** What was read on the way, and what was looked for and not there. */
  readonly reads: ReadonlyMap<string, Buffer | undefined>;
}

/** Of the same files the same comes: those of a site, of a change that is to be made in it, of a commit. */
export class ByReads<Value> {
  readonly #known: BoundedMap<string, Made<Value>>;

  /** In: how many are kept at most. */
  constructor(most: number) {
    this.#known = new BoundedMap(most);
  }

  get(key: string, files: Files, make: (files: Files) => Value): Value {
    const known = this.#known.peek(key);
    if (known !== undefined && [...known.reads].every(([file, was]) => isSame(was, files.read(file))))
      return known.value;
    const reads = new Map<string, Buffer | undefined>();
    const read = (file: string): Buffer | undefined => {
      if (!reads.has(file)) reads.set(file, files.read(file));
      return reads.get(file);
    };
    const value = make({ read });
    this.#known.set(key, { value, reads });
    return value;
  }
}

function isSame(one: Buffer | undefined, other: Buffer | undefined): boolean {
  return one === undefined || other === undefined ? one === other : one.equals(other);
}
