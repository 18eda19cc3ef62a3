// Selectors as the matcher walks them, from right to left.

import type { PageElement } from '../read/markup/index.js';

export type Combinator = ' ' | '>' | '+' | '~';

export type Simple =
  | {
      readonly kind: 'attribute';
      readonly name: string;
      readonly operator: string | undefined;
      readonly value: string;
      readonly flag: string | undefined;
    }
  /** `:is()`, `:where()`, `:not()` and the nesting selector `&`. */
  | { readonly kind: 'among'; readonly negated: boolean; readonly selectors: readonly ComplexSelector[] }
  | { readonly kind: 'has'; readonly selectors: readonly ComplexSelector[] }
  | {
      readonly kind: 'nth';
      readonly a: number;
      readonly b: number;
      readonly last: boolean;
      readonly ofType: boolean;
      readonly of: readonly ComplexSelector[] | undefined;
    }
  | { readonly kind: 'empty' }
  | { readonly kind: 'root' }
  /** `:scope` inside `@scope`. */
  | { readonly kind: 'scope root' }
  | { readonly kind: 'any-link' }
  /** A pseudo-class that markup alone decides, mostly: see `static-states.ts`. */
  | { readonly kind: 'static'; readonly name: string; readonly argument: string; readonly text: string }
  /** A state, or a pseudo-class that this version leaves open. */
  | { readonly kind: 'state'; readonly text: string };

/** What a selector means depends on the rule around it. */
export interface SelectorContext {
  /** The compiled list of the rule around a nested one. */
  readonly parent?: readonly ComplexSelector[] | undefined;
  /** Inside `@scope`, `:scope` is its root. */
  readonly scoped?: boolean;
  /** Prefix to address; the empty prefix is the default. */
  readonly namespaces?: ReadonlyMap<string, string>;
  /** A build gives its classes names of their own. `isOpen`: nobody knows which of the sheet's they are, or whether they are. */
  readonly local?: { readonly sheet: string; readonly isOpen: boolean } | undefined;
}

export interface Compound {
  /** The address that elements must be of, empty for none; `undefined` for any. */
  readonly namespace: string | undefined;
  /** Lower case in HTML; `undefined` for any type. */
  readonly type: string | undefined;
  readonly writtenType: string | undefined;
  readonly id: string | undefined;
  readonly classes: readonly string[];
  readonly rest: readonly Simple[];
  /** An impossible compound such as `#a#b`. */
  readonly never: boolean;
}

export interface ComplexSelector {
  readonly text: string;
  /** From left to right; `combinators[i]` stands between compounds `i` and `i + 1`. */
  readonly compounds: readonly Compound[];
  readonly combinators: readonly Combinator[];
  /** `leading[i]` is the text of compounds 0 to i, for saying what is open. */
  readonly leading: readonly string[];
  /** In a relative selector (`:has(> a)`) the combinator before the first compound. */
  readonly relative: Combinator | undefined;
  /** ids × 2^20 + classes × 2^10 + types: Selectors 4 §17. */
  readonly specificity: number;
  /** `::before`, or empty for the element itself. */
  readonly pseudoElement: string;
  /** States that stand behind the pseudo-element: `::-webkit-scrollbar-thumb:hover`. */
  readonly pseudoStates: string;
}

export type CompiledList =
  | {
      readonly kind: 'list';
      readonly selectors: readonly ComplexSelector[] /** Some browsers may drop the whole rule. */;
      readonly unsure: boolean;
    }
  | { readonly kind: 'invalid'; readonly reason: string };

export const ONE_ID = 1 << 20;
export const ONE_CLASS = 1 << 10;
export const ONE_TYPE = 1;

export function specificityParts(specificity: number): [ids: number, classes: number, types: number] {
  return [specificity >> 20, (specificity >> 10) & 1023, specificity & 1023];
}

/** The addresses that `@namespace` names. */
export const NAMESPACES: Readonly<Record<PageElement['namespace'], string>> = {
  html: 'http://www.w3.org/1999/xhtml',
  svg: 'http://www.w3.org/2000/svg',
  mathml: 'http://www.w3.org/1998/Math/MathML',
};
