// The house sheet as text, in parts; and what of one that is there came or went.

import { parseSheet } from '../../read/sheets/index.js';
import { variablesIn } from '../../read/sheets/variables.js';
import type { NamedValue } from '../values/index.js';
import { byPart, type StarterRule } from './choose.js';
import type { Wishes } from './wishes.js';

/** By this a sheet of ours is known. */
const TITLE = /^\/\* House sheet[ .]/;

export function isHouseSheet(text: string): boolean {
  return TITLE.test(text);
}

const PART_TITLES = { elements: 'elements', helpers: 'helpers', media: 'media' } as const;

export interface HouseSheet {
  readonly text: string;
  /** Each part by its name, as it stands in the text. */
  readonly parts: ReadonlyMap<string, string>;
  readonly values: readonly NamedValue[];
}

/** In: what was chosen; the values of the site. Values go along that a rule uses, or that are wanted. */
export function houseSheet(
  rules: readonly StarterRule[],
  named: readonly NamedValue[],
  wishes: Wishes,
): HouseSheet {
  const values = wantedValues(rules, named, wishes);
  const texts = new Map<string, string>();
  if (values.length > 0) texts.set('values', valuesText(values));
  for (const [part, own] of byPart(rules))
    if (part !== 'values') texts.set(PART_TITLES[part], rulesText(own));
  const parts = new Map(
    ['values', 'elements', 'helpers', 'media'].flatMap((part) => {
      const text = texts.get(part);
      return text === undefined ? [] : [[part, text] as const];
    }),
  );
  const body = [...parts].map(([part, text]) => `/* part: ${part} */\n\n${text}`);
  return { text: ['/* House sheet. */\n', ...body].join('\n'), parts, values };
}

function wantedValues(
  rules: readonly StarterRule[],
  named: readonly NamedValue[],
  { keep, leave }: Wishes,
): NamedValue[] {
  const byName = new Map(named.map((one) => [one.name, one]));
  const wanted = new Set(named.filter(({ name }) => keep.includes(name)).map(({ name }) => name));
  const open = [...rules.map(({ body }) => body), ...[...wanted].map((name) => byName.get(name)!.value)];
  for (let text = open.pop(); text !== undefined; text = open.pop())
    for (const name of variablesIn(text)) {
      const value = byName.get(name);
      if (value === undefined || wanted.has(name)) continue;
      wanted.add(name);
      open.push(value.value, ...value.sets.map((set) => set.value));
    }
  // Used on the site, by whatever: a colour of the house.
  for (const { name, uses } of named) if (uses > 1 && !leave.includes(name)) wanted.add(name);
  return named.filter(({ name }) => wanted.has(name));
}

function valuesText(values: readonly NamedValue[]): string {
  const block = (selector: string, lines: readonly string[], indent = ''): string =>
    `${indent}${selector} {\n${lines.map((line) => `${indent}  ${line};\n`).join('')}${indent}}\n`;
  const sets = new Map<string, string[]>();
  for (const { name, sets: own } of values)
    for (const { where, value } of own) sets.set(where, [...(sets.get(where) ?? []), `${name}: ${value}`]);
  const others = [...sets].map(([where, lines]) => {
    const media = ['dark', 'light'].includes(where) ? `@media (prefers-color-scheme: ${where})` : where;
    return media.startsWith('@') ? `${media} {\n${block(':root', lines, '  ')}}\n` : block(media, lines);
  });
  return [
    block(
      ':root',
      values.map(({ name, value }) => `${name}: ${value}`),
    ),
    ...others,
  ].join('\n');
}

function rulesText(rules: readonly StarterRule[]): string {
  return rules.map(ruleText).join('\n');
}

export function ruleText({ selectors, body, around }: StarterRule): string {
  const rule = `${selectors.join(',\n')} ${dedented(body)}\n`;
  return around.reduceRight(
    (text, condition) => `${condition} {\n${text.replace(/^(?=.)/gm, '  ')}}\n`,
    rule,
  );
}

/** A rule that stood within another block, or on one line, set out on lines of its own. */
function dedented(body: string): string {
  const lines = body.trimEnd().split('\n');
  const last = /^\s*/.exec(lines.at(-1)!)![0];
  return lines.map((line) => (line.startsWith(last) ? line.slice(last.length) : line.trimStart())).join('\n');
}

export interface Revision {
  readonly came: readonly string[];
  readonly went: readonly string[];
  readonly same: number;
}

/** In: the sheet as it was, and as it is now. What came and went is named by selector, or by the value's name. */
export function revisionOf(before: string, after: string): Revision {
  const [was, is] = [namesOf(before), namesOf(after)];
  return {
    came: [...is].filter((name) => !was.has(name)),
    went: [...was].filter((name) => !is.has(name)),
    same: [...is].filter((name) => was.has(name)).length,
  };
}

function namesOf(text: string): Set<string> {
  return new Set(
    parseSheet(text).rules.flatMap(({ selector, conditions, declarations }) => {
      const around = conditions.map(({ kind, text: of }) => `@${kind} ${of} `).join('');
      if (selector === ':root')
        return declarations.map(({ property, value }) => `${around}${property}: ${value}`);
      // As `ruleText` sets them out.
      return selector.split(/,[ \t]*\r?\n\s*/).map((one) => `${around}${one}`);
    }),
  );
}
