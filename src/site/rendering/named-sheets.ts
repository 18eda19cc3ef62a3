// Which sheets style which files, as the configuration says.

import type { Config } from '../config.js';
import { globs } from '../files/owner.js';

/** Sheets of files, in their order. */
export interface NamedSheets {
  readonly isMeant: (file: string) => boolean;
  readonly sheets: readonly string[];
}

export function namedSheets({ sheets }: Config): NamedSheets[] {
  return Object.entries(sheets ?? {}).map(([pattern, own]) => ({ isMeant: globs([pattern]), sheets: own }));
}
