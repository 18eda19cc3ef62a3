// What variables of the environment ask for.

import type { Followed } from '../../commands/shared/followed.js';
import type { Terminal } from './terminal.js';

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
