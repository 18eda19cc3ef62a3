// How far a command is, said on stderr.

import { grouped } from '../../core/base/grouped.js';
import { watched } from '../../site/files/watch.js';
import type { Terminal } from './terminal.js';

/** A line that says how far a command is, once it takes over a second; silent where nobody watches. */
export class Progress {
  readonly #terminal: Terminal;
  readonly #start = performance.now();
  #last = 0;
  #shown = false;

  constructor(terminal: Terminal) {
    this.#terminal = terminal;
  }

  readonly say = (text: string): void => {
    if (this.#isDue()) this.#show(text);
  };

  /** Out: what says `reading 120 of 1,169 pages, 4 s left`. */
  readonly steps = (what: string) => {
    let begun: { readonly time: number; readonly done: number } | undefined;
    return (done: number, of: number): void => {
      begun ??= { time: performance.now(), done };
      if (!this.#isDue()) return;
      const each = (performance.now() - begun.time) / Math.max(1, done - begun.done);
      const left = Math.ceil((each * (of - done)) / 1000);
      this.#show(`${what} ${grouped(done)} of ${grouped(of)} pages${left > 1 ? `, ${left} s left` : ''}`);
    };
  };

  #isDue(): boolean {
    const now = performance.now();
    return this.#terminal.isWatched && now - this.#start >= 1000 && now - this.#last >= 100;
  }

  #show(text: string): void {
    this.#last = performance.now();
    this.#shown = true;
    this.#terminal.warn(`\r\u001b[K${text}`);
  }

  end(): void {
    if (this.#shown) this.#terminal.warn('\r\u001b[K');
  }
}

/** Runs a piece of work with its progress shown; the line is gone when it ends, however it ends. */
export async function withProgress<T>(
  terminal: Terminal,
  first: string,
  work: (progress: Progress) => Promise<T>,
): Promise<T> {
  const progress = new Progress(terminal);
  progress.say(first);
  try {
    return await watched(progress.steps('reading'), () => work(progress));
  } finally {
    progress.end();
  }
}
