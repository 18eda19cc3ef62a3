// The table of a family: many like rules, told once, with what differs from row to row.

export interface FamilyTable {
  /** Names its section in the sheet, and its custom properties. */
  readonly name: string;
  /** What a row is: a section of the site, a position among siblings, a state in the data. */
  readonly each: 'section' | 'position' | 'state';
  /** The element that a row is about, with `{row}` for its name; of positions, every one of the siblings. */
  readonly where: string;
  /** Row name to value name to value, in order. */
  readonly rows: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** Selector to declarations: `&` for the element itself, anything else inside it. `{ink}` stands for a row's value. */
  readonly rules: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** A medium in which none of it holds: `(max-width: 720px)`. */
  readonly off: string | undefined;
}

/** One rule as the table makes it. */
export interface FamilyRule {
  /** What it is in the table: a row, or a selector of its rules. */
  readonly key: string;
  readonly selector: string;
  readonly declarations: readonly string[];
  readonly off: boolean;
}

/** What is wrong with a table, said so that it can be mended; `undefined` for nothing. */
export function tableProblem({ each, where, rows, rules }: FamilyTable): string | undefined {
  if (each !== 'position' && !where.includes('{row}'))
    return `where: "${where}" has no {row} in it; write it where the name of the ${each} stands`;
  if (each === 'position' && where.includes('{row}'))
    return `where: "${where}" names every sibling, and the rows their positions; leave {row} out`;
  for (const [selector, declarations] of rules) {
    for (const [property, value] of declarations) {
      for (const name of namesIn(value))
        if (![...rows.values()].some((values) => values.has(name)))
          return `rules: ${selector}: ${property}: {${name}} is a value of no row`;
    }
  }
  return undefined;
}

export function namesIn(value: string): string[] {
  return [...value.matchAll(/\{([\w-]+)\}/g)].map(([, name]) => name!);
}
