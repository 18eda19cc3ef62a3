// Where the time of a command goes, added up over its threads.

export class Timings {
  readonly #parts: Map<string, number>;

  /** In: what another thread measured, to go on from. */
  constructor(parts: ReadonlyMap<string, number> = new Map()) {
    this.#parts = new Map(parts);
  }

  measure<T>(name: string, work: () => T): T {
    const start = performance.now();
    try {
      return work();
    } finally {
      this.add(name, performance.now() - start);
    }
  }

  async wait<T>(name: string, work: () => Promise<T>): Promise<T> {
    const start = performance.now();
    const result = await work();
    this.add(name, performance.now() - start);
    return result;
  }

  add(name: string, milliseconds: number): void {
    this.#parts.set(name, (this.#parts.get(name) ?? 0) + milliseconds);
  }

  merge(parts: ReadonlyMap<string, number>): void {
    for (const [name, milliseconds] of parts) this.add(name, milliseconds);
  }

  /** Milliseconds by part, in the order the parts came up. */
  get parts(): ReadonlyMap<string, number> {
    return this.#parts;
  }
}
