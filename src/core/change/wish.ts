// What was typed, read once for every command: who is meant, where, in which medium, and what they must get.

import {
  ALWAYS,
  type ComplexSelector,
  conditionTruth,
  type Truth,
  type TruthTable,
} from '../cascade/index.js';
import type { DeclarationChange } from '../edit/text/index.js';
import type { Wish, Wished } from '../proof/index.js';
import type { Page } from '../read/markup/index.js';
import { everyLonghand, expandDeclaration } from '../read/sheets/index.js';

export interface Typed {
  readonly selectors: readonly ComplexSelector[];
  readonly changes: readonly DeclarationChange[];
  readonly medium: Truth;
  readonly isOn?: (page: Page) => boolean;
  readonly everywhere?: boolean;
  readonly othersStay?: true;
  /** The files that the declarations are written into, for addresses in them. */
  readonly holders?: readonly string[];
  readonly token?: string | undefined;
  readonly serves?: true;
}

export function wishOf(typed: Typed): Wish {
  const { selectors, changes, medium, isOn, everywhere = false, holders = [''], token } = typed;
  const { othersStay, serves } = typed;
  const values = new Map<string, Wished>();
  for (const { property, value } of changes) {
    if (value === undefined) continue;
    // Of two that set one longhand the later is meant.
    const [first = [], ...others] = holders.map((holder) => expandDeclaration(property, value, holder));
    for (const [at, { longhand, value: form, unsettled }] of first.entries()) {
      const or = new Set(others.flatMap((parts) => parts[at]?.value ?? []));
      if (!unsettled) values.set(longhand, { value: form, property, ...(or.size > 0 ? { or } : {}) });
    }
  }
  return {
    selectors,
    isOn: isOn ?? (() => true),
    medium,
    everywhere,
    values,
    longhands: new Set(changes.flatMap(({ property }) => everyLonghand(property))),
    token,
    ...(othersStay === undefined ? {} : { othersStay }),
    ...(serves === undefined ? {} : { serves }),
  };
}

/** In: a media query as it is typed, with or without `@media`. */
export function mediumOf(text: string | undefined, truths: TruthTable): Truth {
  return text === undefined ? ALWAYS : conditionTruth({ kind: 'media', text: bareMedium(text) }, truths);
}

export function bareMedium(text: string): string {
  return text.replace(/^\s*@media\s*/i, '').trim();
}
