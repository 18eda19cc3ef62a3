// A table becomes rules: each row sets its values as custom properties, and every rule is written once.

import { anyOf, insideOf, splitList } from './selectors.js';
import { type FamilyRule, type FamilyTable, namesIn, partValue } from './table.js';

export function generateRules(table: FamilyTable): FamilyRule[] {
  const { name, rows, rules } = table;
  const found: FamilyRule[] = [];
  for (const [row, values] of rows) {
    if (values.size === 0) continue;
    const declarations = [...values].map(([value, text]) => `${tokenName(name, value)}: ${text}`);
    found.push({ key: `row ${row}`, selector: rowSelector(table, row), declarations, off: false });
  }
  for (const [part, declarations] of rules) {
    const own = rowsWith(table, declarations);
    if (own.length === 0) continue;
    found.push({
      key: `rule ${part}`,
      selector: partSelector(table, own, part),
      declarations: declarationsOf(table, declarations),
      off: table.off !== undefined,
    });
  }
  return found;
}

/** The custom property that a row's value is written as. */
export function tokenName(family: string, value: string): string {
  return `--${family}-${value}`;
}

/** A row without a value that the rule needs is left as it is. */
export function rowsWith({ rows }: FamilyTable, declarations: ReadonlyMap<string, string>): string[] {
  const needed = [...declarations.values()].flatMap(namesIn);
  return [...rows].filter(([, values]) => needed.every((one) => values.has(one))).map(([row]) => row);
}

/** What a rule declares, each value of a row as its custom property. */
export function declarationsOf({ name }: FamilyTable, declarations: ReadonlyMap<string, string>): string[] {
  return [...declarations].map(
    ([property, value]) => `${property}: ${partValue(value, (one) => `var(${tokenName(name, one)})`)}`,
  );
}

/** The elements of one row. */
export function rowSelector(table: FamilyTable, row: string): string {
  return variantsOf(table, [row]).flat().join(', ');
}

/** What one rule of the table is about, in some of its rows. */
export function partSelector(table: FamilyTable, rows: readonly string[], part: string): string {
  const items = variantsOf(table, rows).map(anyOf);
  return splitList(part)
    .flatMap((one) => items.map((item) => insideOf(item, one)))
    .join(', ');
}

/** For each selector of `where`, what it is in each of the rows. */
function variantsOf({ each, where, rows }: FamilyTable, wanted: readonly string[]): string[][] {
  return splitList(where).map((one) => {
    if (each !== 'position') return wanted.map((row) => one.replaceAll('{row}', row));
    const positions = wanted.map((row) => positionOf(row, [...rows.keys()]));
    return [positions.length === 1 ? `${one}${positions[0]}` : `${one}:is(${positions.join(', ')})`];
  });
}

/** `first`, `last`, `odd`, `3n+2` are positions; other names take turns in the order of the table. */
function positionOf(row: string, rows: readonly string[]): string {
  if (row === 'first' || row === 'last') return `:${row}-child`;
  if (/^(odd|even|[+-]?\d*n?\s*([+-]\s*\d+)?)$/i.test(row) && row !== '') return `:nth-child(${row})`;
  const turns = rows.filter((one) => !/^(first|last|odd|even|[+-]?\d*n?\s*([+-]\s*\d+)?)$/i.test(one));
  return `:nth-child(${turns.length === 1 ? 'n' : `${turns.length}n`}+${turns.indexOf(row) + 1})`;
}
