// What becomes of a rule when the platform is updated.

import type { Beaten } from '../override/index.js';
import type { WrittenRule } from '../restyle/index.js';
import type { Successor } from './successors.js';

/** A rule as it is to be written to win again. */
export interface Fix {
  readonly selector: string;
  /** Properties that take importance. */
  readonly important: readonly string[];
}

export type Fate =
  | { readonly kind: 'holds' }
  /** It names a class that the new platform does not. */
  | { readonly kind: 'name gone'; readonly names: readonly Successor[]; readonly likely: string | undefined }
  | { readonly kind: 'matches nothing'; readonly likely: string | undefined }
  | {
      readonly kind: 'beaten';
      /** Those that lose, the one that loses on most elements first. */
      readonly properties: readonly string[];
      readonly by: Beaten;
      readonly elements: number;
      readonly fix: Fix | undefined;
    }
  | { readonly kind: 'not needed' };

export interface Outlasting {
  readonly written: WrittenRule;
  readonly fate: Fate;
  /** Elements that it reaches now. */
  readonly elements: number;
  readonly pages: number;
}
