// What the cascade makes of an element: its outcome lists, and what they come from.

import type { HintDeclaration } from '../read/hints/index.js';
import type { Declaration } from '../read/sheets/index.js';
import type { RuleMatch } from './program-matches.js';
import type { Block, Entry, ProgramRule } from './rule-index.js';
import type { SheetUse } from './sheet-order.js';
import type { Truth } from './truth.js';

export type WrittenIn =
  | { readonly kind: 'old attribute' }
  | { readonly kind: 'style attribute' }
  | { readonly kind: 'trial rule' }
  | { readonly kind: 'rule'; readonly use: SheetUse; readonly rule: ProgramRule };

export interface Outcome {
  readonly longhand: string;
  readonly value: string;
  readonly important: boolean;
  readonly condition: Truth;
  readonly entry: Entry;
  readonly writtenIn: WrittenIn;
  /** Place in the cascade among all outcomes of the target: 0 is the strongest. */
  readonly rank: number;
}

/** Strongest first. */
export type OutcomeList = readonly Outcome[];

/** Longhand to list, for one target: `''` for the element, `::before` and so on for its pseudo-elements. */
export type Outcomes = ReadonlyMap<string, OutcomeList>;

export interface Matched extends RuleMatch {
  readonly use: SheetUse;
  /** Position of the use in the sheet order. */
  readonly at: number;
}

/** What an element declares for itself. */
export interface OwnStyling {
  readonly style: string | undefined;
  readonly hints: readonly HintDeclaration[];
}

/** What the sheets declare of an element. */
export interface MatchedSheets {
  /** The element's. */
  readonly index: number;
  /** Names every rule that matches. */
  readonly matchKey: string;
  readonly matched: () => readonly Matched[];
}

/** A rule that is not written yet, as far as the cascade sees it. */
export interface TrialRule {
  /** Names the declarations, the specificity and the order: equal keys style alike. */
  readonly key: string;
  readonly block: Block;
  readonly specificity: number;
  readonly order: number;
  readonly writtenIn: WrittenIn;
  /** Where it would stand, apart from behind all sheets, for the element itself, at any time. */
  readonly placed?: TrialPlace | undefined;
}

export interface TrialPlace {
  /** Site path of the sheet whose rules `order` counts; a sheet order that lacks it has the rule behind all sheets. */
  readonly sheet: string;
  /** When the rule holds for the element: its states, the media around the rule. */
  readonly truth: Truth;
  /** `::before`, or empty for the element itself. */
  readonly pseudoElement: string;
}

/** Declarations that are taken out of the rules that match an element, and a name for them. */
export interface TakenOut {
  readonly key: string;
  readonly declarations: ReadonlySet<Declaration>;
}
