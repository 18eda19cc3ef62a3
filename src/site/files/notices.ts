// What a run has to say beside its result: files that were left out, and files that had other names. Told once at the end, so
// that one of them neither ends a run nor hides another.

import { AsyncLocalStorage } from 'node:async_hooks';

export type WhyLeftOut =
  | 'holds no tag'
  | 'is no text'
  | 'mixes two encodings'
  | 'leads out of the site'
  | 'is there under two names (a link)'
  /** What a compiler says of it. */
  | (string & {});

export interface Notices {
  /** By path. */
  readonly leftOut: Map<string, WhyLeftOut>;
  /** Files that were hard links: what was written is under this name only. */
  readonly unlinked: Set<string>;
}

const running = new AsyncLocalStorage<Notices>();

export function noNotices(): Notices {
  return { leftOut: new Map(), unlinked: new Set() };
}

/** Runs a piece of work. Out: its result; what there is to say is in `notices`, also when it fails. */
export function withNotices<T>(notices: Notices, work: () => Promise<T>): Promise<T> {
  return running.run(notices, work);
}

export function leaveOut(file: string, why: WhyLeftOut): void {
  running.getStore()?.leftOut.set(file, why);
}

export function noteUnlinked(file: string): void {
  running.getStore()?.unlinked.add(file);
}

/** What was left out so far. */
export function leftOutSoFar(): ReadonlyMap<string, WhyLeftOut> {
  return running.getStore()?.leftOut ?? new Map();
}
