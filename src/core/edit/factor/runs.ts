// Declarations that stand in a row in a source, with nothing between them.

import { groupBy } from '../../base/group-by.js';
import type { Declaration } from '../../read/sheets/index.js';

/** A declaration as it is written. */
export interface Written {
  readonly file: string;
  /** Offsets in the file: of the property, and behind the value with its importance. */
  readonly start: number;
  readonly end: number;
  /** On one line, with its importance: `color: $ink`. */
  readonly said: string;
  /** What came of it where it was met first, and the first selector of that rule. */
  readonly made: Declaration;
  readonly selector: string;
}

export type Run = readonly Written[];

/** In: what is written in one file, and its text. Out: rows of two and more, in order. */
export function runsOf(written: readonly Written[], textOf: (file: string) => string): Run[] {
  const runs: Run[] = [];
  for (const [file, own] of groupBy(written, (one) => one.file)) {
    const text = textOf(file);
    let run: Written[] = [];
    for (const one of [...own].sort((a, b) => a.start - b.start)) {
      const last = run.at(-1);
      if (last !== undefined && !/^\s*;\s*$/.test(text.slice(last.end, one.start))) {
        if (run.length > 1) runs.push(run);
        run = [];
      }
      run.push(one);
    }
    if (run.length > 1) runs.push(run);
  }
  return runs;
}
