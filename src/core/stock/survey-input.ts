// What a survey is made from.

import type { SheetShelf } from './links.js';
import type { StockData } from './statistics.js';

export interface SurveyInput {
  readonly stock: StockData;
  readonly shelf: SheetShelf;
  /** Paths of the sheets that the developer may edit. */
  readonly themes: readonly string[];
  /** The words in the strings of a linked script; `undefined` for one that is not there. */
  readonly scriptWords: (path: string) => ReadonlySet<string> | undefined;
  /** The text of a script of the site's own; `undefined` for libraries. */
  readonly scriptText: (path: string) => string | undefined;
}
