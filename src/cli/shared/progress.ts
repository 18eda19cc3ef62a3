// How far a command is, said on stderr.

/** A line on stderr that says how far it is, once a command takes over a second; silent where stderr is no terminal. */
export class Progress {
  readonly #start = performance.now();
  #last = 0;
  #shown = false;

  say(text: string): void {
    if (this.#isDue()) this.#show(text);
  }

  /** `reading 120 of 1,169 pages, 4 s left`. */
  step(what: string, done: number, of: number): void {
    if (!this.#isDue()) return;
    const gone = performance.now() - this.#start;
    const left = Math.ceil(((gone / done) * (of - done)) / 1000);
    this.#show(
      `${what} ${done.toLocaleString('en')} of ${of.toLocaleString('en')} pages${left > 1 ? `, ${left} s left` : ''}`,
    );
  }

  #isDue(): boolean {
    const now = performance.now();
    return process.stderr.isTTY && now - this.#start >= 1000 && now - this.#last >= 100;
  }

  #show(text: string): void {
    this.#last = performance.now();
    this.#shown = true;
    process.stderr.write(`\r\u001b[K${text}`);
  }

  end(): void {
    if (this.#shown) process.stderr.write('\r\u001b[K');
  }
}
