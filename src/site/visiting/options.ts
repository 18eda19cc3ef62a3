// What a visit can be asked.

import type { Box } from '../../core/ask/visit/box-schema.js';

export interface Bounds {
  readonly requests: number;
  /** Of all that is fetched, unpacked. */
  readonly bytes: number;
  readonly seconds: number;
}

/** What a visit is held to where nobody says otherwise. */
export const USUAL = {
  pages: 500,
  atOnce: 4,
  /** Milliseconds between requests; none for this machine and its house. */
  pause: 100,
  bounds: { requests: 10_000, bytes: 500_000_000, seconds: 3600 },
} as const satisfies { readonly bounds: Bounds; readonly [name: string]: unknown };

export interface VisitOptions {
  /** The most pages; as `USUAL` says without. */
  readonly pages?: number | undefined;
  /** Links to follow, one behind the other; any number without. */
  readonly depth?: number | undefined;
  /** Patterns of paths: only these pages, and none of those. */
  readonly match?: readonly string[] | undefined;
  readonly skip?: readonly string[] | undefined;
  /** Visit what robots.txt asks not to. */
  readonly ignoreRobots?: boolean | undefined;
  /** Fonts and pictures too. */
  readonly all?: boolean | undefined;
  /** Requests at a time; milliseconds between two. */
  readonly atOnce?: number | undefined;
  readonly pause?: number | undefined;
  readonly bounds?: Partial<Bounds> | undefined;
  /** Take pages as the installed Chromium shows them, after their scripts; at these widths. */
  readonly browser?: boolean | undefined;
  readonly widths?: readonly number[] | undefined;
  /** The developer's boxes; as configured or guessed without. */
  readonly own?: readonly Box[] | undefined;
  /** A cookie file in Netscape's form. */
  readonly cookies?: string | undefined;
  /** A file with lines of `name: value`. */
  readonly headers?: string | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
  /** Hears of each page. */
  readonly onPage?: ((done: number, of: number) => void) | undefined;
  /** Hears beforehand how much there is to fetch at most. */
  readonly onPlan?: ((plan: VisitPlan) => void) | undefined;
}

export interface VisitPlan {
  readonly pages: number;
  /** Whether the number is known, not a limit. */
  readonly isKnown: boolean;
  readonly bounds: Bounds;
  readonly pause: number;
  readonly goesOn: boolean;
}
