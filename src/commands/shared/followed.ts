// One declaration that is followed through the stages, for whoever asks why it was not moved.

import { UsageError } from '../../core/base/usage-error.js';
import { readTraceTarget, Trace } from '../../core/stock/trace.js';

export interface Followed {
  /** A place and a property, such as `page.html:12:5 color`. */
  readonly declaration: string;
  /** Hears what each stage makes of it. */
  readonly onStep: (stage: string, what: string) => void;
}

/** Throws `UsageError` for what names no declaration. */
export function follow(followed: Followed | undefined): Trace | undefined {
  if (followed === undefined) return undefined;
  const target = readTraceTarget(followed.declaration);
  if (target === undefined) throw new UsageError('trace-place', { given: followed.declaration });
  return new Trace(target, followed.onStep);
}
