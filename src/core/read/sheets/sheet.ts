// The model of one sheet: style rules in cascade order with the conditions around them, and what else it holds.

import type { SourceRange } from '../../base/source.js';

export interface Declaration {
  /** Lower case, except custom properties. */
  readonly property: string;
  /** As written, trimmed, without `!important`. */
  readonly value: string;
  readonly important: boolean;
  /** From the first letter of the name to the last of the value or of `!important`; the semicolon is outside. */
  readonly range: SourceRange;
}

/** A condition that a static reading leaves open: `@media print`, `@supports (display: grid)`. */
export interface RuleCondition {
  readonly kind: 'media' | 'supports' | 'container' | 'starting-style';
  readonly text: string;
}

/** The selectors of `@scope (start) to (end)`. */
export interface ScopePrelude {
  readonly start: string;
  readonly end: string | undefined;
}

export interface StyleRule {
  /** The selector list, as if nothing were nested. Within a scope it is relative to that. */
  readonly selector: string;
  /** Selector lists as written, from the outermost rule to this one; more than one where rules are nested. */
  readonly nesting: readonly string[];
  readonly selectorRange: SourceRange;
  /** The whole rule, to its closing brace. */
  readonly range: SourceRange;
  readonly declarations: readonly Declaration[];
  readonly conditions: readonly RuleCondition[];
  /** The scope around the rule, `undefined` outside `@scope`. */
  readonly scope: ScopePrelude | undefined;
  /** Full name of the layer, `undefined` outside layers. Anonymous layers have unique names. */
  readonly layer: string | undefined;
}

export interface ImportRule {
  readonly address: string;
  readonly conditions: readonly RuleCondition[];
  readonly layer: string | undefined;
  /** How many of the sheet's layers are named in front of it, by `@layer` statements. */
  readonly layersBefore: number;
  readonly range: SourceRange;
}

export type SheetDefectKind =
  | 'block never closed'
  | 'stray closing brace'
  | 'not a declaration'
  | 'rule without a block'
  | 'empty selector'
  | 'import too late';

export interface SheetDefect {
  readonly kind: SheetDefectKind;
  readonly detail: string;
  readonly range: SourceRange;
}

export interface Sheet {
  readonly text: string;
  readonly rules: readonly StyleRule[];
  readonly imports: readonly ImportRule[];
  /** Layer names in the order in which this sheet first names them, those of imports left out. */
  readonly layers: readonly string[];
  /** Prefix to address, the empty prefix for the default namespace. */
  readonly namespaces: ReadonlyMap<string, string>;
  /** `@font-face`, `@keyframes`, `@property` and other at-rules that style no element by themselves, as written. */
  readonly definitions: readonly string[];
  readonly defects: readonly SheetDefect[];
  /** Constructs that are not decided: a scope without a root, a layer under a condition. Pages that use the sheet are left alone. */
  readonly undecided: readonly { readonly what: string; readonly range: SourceRange }[];
}
