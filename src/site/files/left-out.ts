// Files that cannot be read as what they are named: left out, and told once at the end, so that one of them neither ends
// a run nor hides another.

import { AsyncLocalStorage } from 'node:async_hooks';

export type WhyLeftOut = 'holds no tag' | 'is no text' | 'leads out of the site';

/** By path. */
export type LeftOut = Map<string, WhyLeftOut>;

const running = new AsyncLocalStorage<LeftOut>();

/** Runs a piece of work. Out: its result; the files that it left out are in `leftOut`, also when it fails. */
export function noticeLeftOut<T>(leftOut: LeftOut, work: () => Promise<T>): Promise<T> {
  return running.run(leftOut, work);
}

export function leaveOut(file: string, why: WhyLeftOut): void {
  running.getStore()?.set(file, why);
}

/** What was left out so far. */
export function leftOutSoFar(): ReadonlyMap<string, WhyLeftOut> {
  return running.getStore() ?? new Map();
}
