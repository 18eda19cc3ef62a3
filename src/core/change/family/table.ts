// The table of a family: many like rules, told once, with what differs from row to row.

import { either, hasOneOf, SPACE } from '../../base/characters.js';
import { compileSelectorList } from '../../cascade/index.js';
import { declarationValidity, isFinished, isKnownProperty } from '../../read/sheets/index.js';
import { Token, tokenize, tokenText } from '../../read/sheets/tokens.js';

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

/** What is wrong with what a table declares, so that it can be mended; `undefined` for nothing. */
export function tableProblem({ each, where, rows, rules }: FamilyTable): string | undefined {
  if (each !== 'position' && !where.includes('{row}'))
    return `where: "${where}" has no {row} in it; write it where the name of the ${each} stands`;
  if (each === 'position' && where.includes('{row}'))
    return `where: "${where}" names every sibling, and the rows their positions; leave {row} out`;
  for (const [selector, declarations] of rules) {
    for (const [property, value] of declarations) {
      const problem = valueProblem(property, value, rows);
      if (problem !== undefined) return `rules: ${selector}: ${property}: ${problem}`;
    }
  }
  return undefined;
}

/** Whether a selector that a table makes is none. */
export function selectorProblem(selector: string): string | undefined {
  const list = compileSelectorList(selector);
  return list.kind === 'invalid' ? `"${selector}" is no selector` : undefined;
}

function valueProblem(property: string, value: string, rows: FamilyTable['rows']): string | undefined {
  if (!property.startsWith('-') && !isKnownProperty(property)) return 'is no property of CSS';
  for (const name of namesIn(value)) {
    if (![...rows.values()].some((values) => values.has(name))) return `{${name}} is a value of no row`;
    if (!standsAlone(value, name))
      return `{${name}} is put in as a whole value, not as part of one; write the rest of it into the rows`;
  }
  for (const [row, values] of rows) {
    if (!namesIn(value).every((name) => values.has(name))) continue;
    const said = partValue(value, (name) => values.get(name) ?? '').replace(/\s*!\s*important\s*$/i, '');
    const fits = isFinished(said) && declarationValidity(property, said).complaint !== 'unfitting value';
    if (!fits) return `does not take "${said}", as row ${row} has it`;
  }
  return undefined;
}

/** A custom property is put in as tokens: `{gap}px` is none, and in a string there is nothing to put in. */
function standsAlone(value: string, name: string): boolean {
  const mark = `var(--${name})`;
  const text = value.replaceAll(`{${name}}`, mark);
  const tokens = tokenize(text);
  let seen = 0;
  for (let at = 0; at < tokens.count; at++) {
    if (tokenText(tokens, at).toLowerCase() !== 'var(' || !text.startsWith(mark, tokens.starts[at])) continue;
    seen++;
    const [before, behind] = [
      text[tokens.starts[at]! - 1] ?? ' ',
      text[tokens.starts[at]! + mark.length] ?? ' ',
    ];
    if (!hasOneOf(before, either(SPACE, '(,/*+-')) || !hasOneOf(behind, either(SPACE, '),/*!'))) return false;
    if (tokens.types[at - 1] === Token.Hash) return false;
  }
  return seen === value.split(`{${name}}`).length - 1;
}

/** A value of a rule with each `{name}` replaced. */
export function partValue(value: string, replace: (name: string) => string): string {
  return value.replace(/\{([\w-]+)\}/g, (_, name: string) => replace(name));
}

export function namesIn(value: string): string[] {
  return [...value.matchAll(/\{([\w-]+)\}/g)].map(([, name]) => name!);
}
