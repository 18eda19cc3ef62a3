// Budgets: what there may be at most of a few things that grow unseen.

import { compileSelectorList, specificityParts } from '../../cascade/index.js';
import { canonicalProperty, normalColour, normalValue } from '../../read/sheets/index.js';
import { coloursIn } from '../../stock/index.js';
import type { BudgetName, Budgets } from './budget-table.js';
import type { Debt, DebtSheet } from './debts.js';

export interface Spent {
  readonly name: BudgetName;
  readonly allowed: string;
  readonly spent: string;
  readonly isOver: boolean;
  /** Where most of it is, or the first beyond it. */
  readonly at?: string | undefined;
}

export interface BudgetInput {
  readonly debts: readonly Debt[];
  readonly sheets: readonly DebtSheet[];
  /** Bytes of the sheets that each page loads. */
  readonly bytesOf: () => readonly { readonly page: string; readonly bytes: number }[];
}

/** In: what is allowed, and what is there. Out: of each that is set, in the order of the configuration's schema. */
export function spentOf(budgets: Budgets, { debts, sheets, bytesOf }: BudgetInput): Spent[] {
  const found: Spent[] = [];
  const number = (name: BudgetName, allowed: number | undefined, spent: () => number, at?: string): void => {
    if (allowed === undefined) return;
    const is = spent();
    found.push({ name, allowed: String(allowed), spent: String(is), isOver: is > allowed, at });
  };
  number('inline', budgets.inline, () => inlineCount(debts));
  number('colours', budgets.colours, () => valuesIn(debts, sheets, colourOf).size);
  number('fontSizes', budgets.fontSizes, () => valuesIn(debts, sheets, fontSizeOf).size);
  if (budgets.strength !== undefined) {
    const strongest = strongestOf(sheets);
    const isOver = strongest !== undefined && compare(strongest.of, numbersOf(budgets.strength)) > 0;
    const spent = strongest?.of.join(',') ?? '0,0,0';
    found.push({ name: 'strength', allowed: budgets.strength, spent, isOver, at: strongest?.selector });
  }
  if (budgets.sheetBytes !== undefined) {
    const [most] = [...bytesOf()].sort((a, b) => b.bytes - a.bytes);
    number('sheetBytes', budgets.sheetBytes, () => most?.bytes ?? 0, most?.page);
  }
  return found;
}

function inlineCount(debts: readonly Debt[]): number {
  return debts
    .filter(({ kind }) => kind === 'inline style')
    .reduce((all, { declarations }) => all + Math.max(1, declarations.length), 0);
}

type Valued = { readonly property: string; readonly value: string };

function valuesIn(
  debts: readonly Debt[],
  sheets: readonly DebtSheet[],
  read: (one: Valued) => readonly string[],
): Set<string> {
  const own = debts.flatMap(({ kind, declarations }) =>
    kind === 'inline style' || kind === 'style block' ? declarations : [],
  );
  const ruled = sheets.flatMap(({ sheet }) => sheet.rules.flatMap(({ declarations }) => declarations));
  return new Set([...own, ...ruled].flatMap(read));
}

function colourOf({ property, value }: Valued): string[] {
  return coloursIn(property, value).flatMap(({ text }) => normalColour(text) ?? []);
}

function fontSizeOf({ property, value }: Valued): string[] {
  return canonicalProperty(property) === 'font-size' ? [normalValue('font-size', value, '')] : [];
}

type Strength = readonly [number, number, number];

function strongestOf(sheets: readonly DebtSheet[]): { of: Strength; selector: string } | undefined {
  let strongest: { of: Strength; selector: string } | undefined;
  for (const { sheet } of sheets)
    for (const { selector, scope } of sheet.rules) {
      const list = compileSelectorList(selector, {
        scoped: scope !== undefined,
        namespaces: sheet.namespaces,
      });
      if (list.kind !== 'list') continue;
      for (const { specificity, text } of list.selectors) {
        const of = specificityParts(specificity);
        if (strongest === undefined || compare(of, strongest.of) > 0) strongest = { of, selector: text };
      }
    }
  return strongest;
}

function numbersOf(text: string): Strength {
  const [ids = 0, classes = 0, types = 0] = text.split(',').map(Number);
  return [ids, classes, types];
}

function compare(a: Strength, b: Strength): number {
  return a[0] - b[0] || a[1] - b[1] || a[2] - b[2];
}
