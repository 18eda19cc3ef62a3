// A table becomes rules: each row sets its values as custom properties, and every rule is written once.

import { type FamilyRule, type FamilyTable, namesIn } from './table.js';

export function generateRules(table: FamilyTable): FamilyRule[] {
  const { name, rows, rules } = table;
  const property = (value: string): string => `--${name}-${value}`;
  const found: FamilyRule[] = [];
  for (const [row, values] of rows) {
    if (values.size === 0) continue;
    const declarations = [...values].map(([value, text]) => `${property(value)}: ${text}`);
    found.push({ key: `row ${row}`, selector: rowSelector(table, row), declarations, off: false });
  }
  for (const [part, declarations] of rules) {
    const needed = [...declarations.values()].flatMap(namesIn);
    // A row without a value that the rule needs is left as it is.
    const own = [...rows].filter(([, values]) => needed.every((one) => values.has(one))).map(([row]) => row);
    if (own.length === 0) continue;
    found.push({
      key: `rule ${part}`,
      selector: inside(anyOf(table, own), part),
      declarations: [...declarations].map(
        ([own, value]) =>
          `${own}: ${value.replace(/\{([\w-]+)\}/g, (_, one: string) => `var(${property(one)})`)}`,
      ),
      off: table.off !== undefined,
    });
  }
  return found;
}

/** The element of one row. */
export function rowSelector({ each, where, rows }: FamilyTable, row: string): string {
  if (each !== 'position') return where.replaceAll('{row}', row);
  return `${where}${positionOf(row, [...rows.keys()])}`;
}

/** `first`, `last`, `odd`, `3n+2` are positions; other names take turns in the order of the table. */
function positionOf(row: string, rows: readonly string[]): string {
  if (row === 'first' || row === 'last') return `:${row}-child`;
  if (/^(odd|even|[+-]?\d*n?\s*([+-]\s*\d+)?)$/i.test(row) && row !== '') return `:nth-child(${row})`;
  const turns = rows.filter((one) => !/^(first|last|odd|even|[+-]?\d*n?\s*([+-]\s*\d+)?)$/i.test(one));
  return `:nth-child(${turns.length === 1 ? 'n' : `${turns.length}n`}+${turns.indexOf(row) + 1})`;
}

/** The elements of several rows in one selector, as specific as that of a single row. */
function anyOf(table: FamilyTable, rows: readonly string[]): string {
  const [first, ...others] = rows.map((row) => rowSelector(table, row));
  if (first === undefined || others.length === 0) return first ?? table.where;
  if (table.each === 'position') {
    const positions = rows.map((row) => positionOf(row, [...table.rows.keys()]));
    return `${table.where}:is(${positions.join(', ')})`;
  }
  // What stands around the name is said once: `.kw-badge:is(.is-full, .is-free)`.
  const around = /^(.*?)((?:\.|#)[\w-]*\{row\}[\w-]*)(.*)$/.exec(table.where);
  if (around === null) return `:is(${[first, ...others].join(', ')})`;
  const [, before = '', named = '', after = ''] = around;
  return `${before}:is(${rows.map((row) => named.replace('{row}', row)).join(', ')})${after}`;
}

function inside(item: string, part: string): string {
  return part
    .split(/,(?![^(]*\))/)
    .map((one) => (one.includes('&') ? one.trim().replaceAll('&', item) : `${item} ${one.trim()}`))
    .join(', ');
}
