// Who hears of each page that is read, wherever it is read: a command says it once, and every way into a site tells.

import { AsyncLocalStorage } from 'node:async_hooks';

type Watcher = (done: number, of: number) => void;

const watchers = new AsyncLocalStorage<Watcher>();

/** Runs a piece of work, and hears how many of its pages are read. */
export function watched<T>(watcher: Watcher, work: () => Promise<T>): Promise<T> {
  return watchers.run(watcher, work);
}

export function tellRead(done: number, of: number): void {
  watchers.getStore()?.(done, of);
}
