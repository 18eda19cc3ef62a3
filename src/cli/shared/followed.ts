// One declaration that is followed through the stages, for whoever asks why it was not moved.

import { readTraceTarget, Trace } from '../../core/trace.js';
import { UsageError } from '../../core/usage-error.js';
import type { Terminal } from './terminal.js';

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

/** `ACERVUS_LARGE_FROM`: from so many characters of pages on, the search reads excerpts of them. */
export function largeFrom({ environment }: Terminal): number | undefined {
  const given = Number(environment.ACERVUS_LARGE_FROM ?? Number.NaN);
  return Number.isNaN(given) ? undefined : given;
}

/** What `ACERVUS_TRACE` asks to follow, told on stderr. */
export function followedBy({ environment, warn }: Terminal): Followed | undefined {
  const declaration = environment.ACERVUS_TRACE;
  if (declaration === undefined || declaration === '') return undefined;
  return { declaration, onStep: (stage, what) => warn(`trace: ${stage}: ${what}\n`) };
}
