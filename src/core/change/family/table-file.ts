// The table file of a family: YAML or JSON, short, checked, and no programming language.

import { Document, isMap, parseDocument, type YAMLMap } from 'yaml';
import { z } from 'zod';
import { hasOneOf } from '../../base/characters.js';
import { firstIssue, sharedPath } from '../../base/choices.js';
import { UsageError } from '../../base/usage-error.js';
import { isFinished } from '../../read/sheets/index.js';
import { type FamilyTable, generateRules, negated, selectorProblem, tableProblem } from './index.js';

const STRINGS = /"[^"]*"|'[^']*'/g;

const word = z.string().regex(/^[a-zA-Z][\w-]*$/, 'expected a word of letters, digits, - and _');
const text = z
  .union([z.string(), z.number()])
  .transform(String)
  .refine(
    (one) => one.trim() !== '' && isFinished(one) && !hasOneOf(one.replace(STRINGS, ''), '{};!'),
    'expected one whole value of CSS, without braces, semicolons and !important',
  );
const told = z
  .union([z.string(), z.number()])
  .transform(String)
  .refine(
    (one) => one.trim() !== '' && !hasOneOf(one.replace(/\{[\w-]+\}/g, '').replace(STRINGS, ''), '{};'),
    'expected a value of CSS, in which {name} stands for a value of the row',
  );

export const familySchema = z
  .strictObject({
    $schema: z.string().optional(),
    format: z.literal(1),
    family: word.describe('Its name: of its section in the sheet, and of its custom properties.'),
    into: sharedPath.optional().describe('The sheet to write into. Default: the shared sheet.'),
    each: z
      .enum(['section', 'position', 'state'])
      .describe('What a row is: a section of the site, a position among siblings, a state in the data.'),
    where: z
      .string()
      .min(1)
      .describe(
        'The element a row is about: ".sk-{row}" for sections and states; every one of the siblings for positions.',
      ),
    rows: z
      .record(z.string().min(1), z.record(word, text))
      .refine((rows) => Object.keys(rows).length > 0, 'expected at least one row')
      .describe(
        'Row by row its values by name. Of positions: first, last, odd, even, 3n+2, or any names, which take turns.',
      ),
    rules: z
      .record(
        z.string().min(1),
        z.record(z.string().regex(/^-{0,2}[a-z][\w-]*$/i, 'expected a property'), told),
      )
      .refine((rules) => Object.keys(rules).length > 0, 'expected at least one rule')
      .describe(
        '"&" for the element itself, any other selector inside it, to declarations; {name} is a value.',
      ),
    off: z.string().min(1).optional().describe('A medium in which none of it holds: "(max-width: 720px)".'),
  })
  .describe('The table of a family');

export interface ReadFamily {
  readonly table: FamilyTable;
  readonly into: string | undefined;
}

/** In: the file's text, and its name for messages. Throws `UsageError` naming the key. */
export function parseFamily(source: string, file: string): ReadFamily {
  const document = parseDocument(source);
  const [error] = document.errors;
  if (error !== undefined) {
    const [line] = error.message.split('\n');
    throw new UsageError('family-yaml', { file, problem: line ?? '' });
  }
  const result = familySchema.safeParse(document.toJS());
  if (!result.success) throw new UsageError('family-invalid', { file, problem: firstIssue(result.error) });
  const { family, each, where, rows, rules, off, into } = result.data;
  const inOrder = (key: string): string[] => keysInOrder(document.get(key, true));
  const map = <T>(record: Readonly<Record<string, T>>, keys: readonly string[]): Map<string, T> =>
    new Map(keys.flatMap((key) => (record[key] === undefined ? [] : [[key, record[key]]])));
  const table: FamilyTable = {
    name: family,
    each,
    where,
    rows: new Map(
      [...map(rows, inOrder('rows'))].map(([row, values]) => [row, new Map(Object.entries(values))]),
    ),
    rules: new Map(
      [...map(rules, inOrder('rules'))].map(([part, all]) => [part, new Map(Object.entries(all))]),
    ),
    off,
  };
  const problem =
    tableProblem(table) ??
    (off !== undefined && negated(off) === undefined ? `off: "${off}" is no media query` : undefined) ??
    generateRules(table)
      .map(({ selector }) => selectorProblem(selector))
      .find((one) => one !== undefined);
  if (problem !== undefined) throw new UsageError('family-invalid', { file, problem });
  return { table, into };
}

/** As they are written: a plain object would put numbers first. */
function keysInOrder(node: unknown): string[] {
  const { items } = node as { items?: readonly { readonly key: { readonly value?: unknown } | string }[] };
  return (items ?? []).map(({ key }) => String(typeof key === 'object' ? key.value : key));
}

/** The file of a table that was found. */
export function familyText({ name, each, where, rows, rules, off }: FamilyTable, into: string): string {
  const plain = (map: ReadonlyMap<string, ReadonlyMap<string, string>>): Map<string, Map<string, string>> =>
    new Map([...map].map(([key, values]) => [key, new Map(values)]));
  const document = new Document({
    format: 1,
    family: name,
    into,
    each,
    where,
    rows: plain(rows),
    rules: plain(rules),
    ...(off === undefined ? {} : { off }),
  });
  // A row is one line: the table is read down its left edge.
  for (const key of ['rows', 'rules'])
    for (const { value } of (document.get(key) as YAMLMap).items) if (isMap(value)) value.flow = true;
  document.commentBefore = ` Add a row and run "acervus family" on this file again. {name} stands for a value of the row.`;
  return document.toString({ lineWidth: 0, singleQuote: true });
}
