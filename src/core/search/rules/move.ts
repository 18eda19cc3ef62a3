// One rule in place of several, and what a search for such rules is given.

import type { KeptReason } from '../../base/reasons/index.js';
import type { Page } from '../../read/markup/index.js';

import type { Census } from '../census.js';
import type { Trials } from '../trial.js';
import type { Replaced, RulePlace } from './candidate-check.js';

/** One rule in place of what several declare. */
export interface RuleMove {
  /** As they are written. */
  readonly selectors: readonly string[];
  /** `@media …` around it, the outermost first. */
  readonly conditions: readonly string[];
  readonly replaced: readonly Replaced[];
  readonly place: RulePlace;
  /** Less to keep up. */
  readonly gain: number;
}

export interface RuleSearch {
  readonly census: Census;
  readonly trials: Trials;
  /** Sheets that may be edited, that of the site first. */
  readonly sheets: readonly string[];
  /** Where rules go that no sheet of all their pages can take. */
  readonly shared: string;
  readonly atLeast: number;
  /** Whether a selector that was found for elements must not be used. */
  readonly isRefused: (selector: string) => boolean;
  /** Whether a page could link the shared sheet, or does. */
  readonly mayLink: (page: Page) => boolean;
  /** Whether a selector may match in a document that loads the shared sheet and was not read. */
  readonly isSeenElsewhere: (selector: string) => boolean;
  /** Moves that are not to be proposed again, by `moveKey`. */
  readonly refused: ReadonlyMap<string, KeptReason>;
  /** Whether a person would have it. */
  readonly isWanted: (move: RuleMove) => boolean;
  /** Whether rules become as weak as their work allows. */
  readonly weaken: boolean;
}

/** By which a move is known from one search to the next. */
export function moveKey({ selectors, conditions, replaced }: RuleMove): string {
  return `${conditions.join(' ')} ${selectors.join(', ')} {${replaced.map(({ movable }) => movable.key).join('; ')}}`;
}
