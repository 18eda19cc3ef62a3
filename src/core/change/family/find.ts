// Families that somebody copied out by hand: the same rules again and again under other names, with other values.

import { DIGIT, trimmedAfter } from '../../base/characters.js';
import { withSingleSpaces } from '../../base/phrases.js';
import type { SiteModel } from '../../cascade/index.js';
import type { StyleRule } from '../../read/sheets/index.js';
import { listItems, normalColour } from '../../read/sheets/index.js';
import type { FamilyTable } from './table.js';

export interface CopiedFamily {
  readonly path: string;
  readonly table: FamilyTable;
  /** The rules that it stands for. */
  readonly rules: readonly StyleRule[];
}

/** Fewer rows are written by hand as quickly. */
const LEAST_ROWS = 3;

interface Member {
  readonly row: string;
  readonly rules: { readonly pattern: string; readonly rule: StyleRule }[];
}

/** In: the theme's sheets. Out: families of at least three rows whose rules differ in nothing but a name and values. */
export function findFamilies(model: SiteModel, themes: readonly string[]): CopiedFamily[] {
  return themes.flatMap((path) => {
    const rules = model.sheetAt(path)?.sheet.rules ?? [];
    const members = new Map<string, Member>();
    for (const rule of rules) {
      const named = nameOf(rule);
      if (named === undefined) continue;
      const known = members.get(named.name) ?? { row: named.name, rules: [] };
      known.rules.push({ pattern: named.pattern, rule });
      members.set(named.name, known);
    }
    const alike = new Map<string, Member[]>();
    for (const member of members.values()) {
      const key = `${stemOf(member.row)} ${member.rules.map(({ pattern, rule }) => `${pattern} { ${rule.declarations.map(({ property, important }) => property + important).join()} }`).join(' ')}`;
      alike.set(key, [...(alike.get(key) ?? []), member]);
    }
    const text = model.sources.sheets.get(path) ?? '';
    return [...alike.values()].flatMap((group) => {
      const table = group.length < LEAST_ROWS || isMade(text, group) ? undefined : tableOf(group, path);
      return table === undefined
        ? []
        : [{ path, table, rules: group.flatMap(({ rules: own }) => own.map(({ rule }) => rule)) }];
    });
  });
}

/** Rules that a family wrote are no copies. */
function isMade(text: string, [first]: readonly Member[]): boolean {
  const at = first!.rules[0]!.rule.range.start;
  const before = text.lastIndexOf('/* family ', at);
  return before >= 0 && text.lastIndexOf('/* end of family ', at) < before;
}

/** `.sk-tarbek h3`: the row is `sk-tarbek`, the pattern `{row} h3`. Only rules that hold always. */
function nameOf({
  selector,
  nesting,
  conditions,
  layer,
  scope,
  declarations,
}: StyleRule): { name: string; pattern: string } | undefined {
  if (nesting.length > 1 || conditions.length > 0 || declarations.length === 0) return undefined;
  if (layer !== undefined || scope !== undefined || listItems(selector).length > 1) return undefined;
  const match = /^(?:body)?\.([a-z][\w-]*)(?=$|[\s>+~:.])/i.exec(selector);
  if (match === null) return undefined;
  return { name: match[1]!, pattern: withSingleSpaces(selector.replace(`.${match[1]}`, '{row}')) };
}

/** `sk-tarbek` and `sk-ulvay` begin alike; so do `tile-1` and `tile-2`. */
function stemOf(name: string): string {
  const cut = name.lastIndexOf('-');
  return cut < 0 ? trimmedAfter(name, DIGIT) : name.slice(0, cut + 1);
}

function tableOf(group: readonly Member[], path: string): FamilyTable | undefined {
  const stem = stemOf(group[0]!.row);
  if (stem === '') return undefined;
  const names = group.map(({ row }) => row.slice(stem.length));
  const rows = new Map(names.map((name) => [name, new Map<string, string>()]));
  const vectors = new Map<string, string>();
  const rules = new Map<string, Map<string, string>>();
  for (const [at, { pattern, rule }] of group[0]!.rules.entries()) {
    const body = /^(?:body)?\{row\}(.*)$/.exec(pattern)?.[1] ?? '';
    const part = body === '' ? '&' : /^ [^>+~]/.test(body) ? body.trim() : `&${body}`;
    const declarations = new Map<string, string>();
    for (const [i, { property, important }] of rule.declarations.entries()) {
      const values = group.map((member) => member.rules[at]!.rule.declarations[i]!.value);
      const words = values.map((value) => value.split(/\s+(?![^(]*\))/));
      if (words.some((own) => own.length !== words[0]!.length)) return undefined;
      const written = words[0]!.map((word, w) => {
        const column = words.map((own) => own[w]!);
        if (column.every((other) => other === word)) return word;
        const key = column.join('\0');
        let name = vectors.get(key);
        if (name === undefined) {
          name = freeName(nameFor(property, column), new Set(vectors.values()));
          vectors.set(key, name);
          for (const [row, value] of column.entries()) rows.get(names[row]!)!.set(name, value);
        }
        return `{${name}}`;
      });
      declarations.set(property, `${written.join(' ')}${important ? ' !important' : ''}`);
    }
    if (rules.has(part)) return undefined;
    rules.set(part, declarations);
  }
  // Rules that differ in nothing but the name are a group, not a family.
  if (vectors.size === 0) return undefined;
  const where = `${group[0]!.rules[0]!.pattern.startsWith('body') ? 'body' : ''}.${stem}{row}`;
  // A prefix of two letters names nothing: then the sheet does.
  const word = trimmedAfter(stem, '-_').toLowerCase();
  const sheet = path
    .split('/')
    .at(-1)!
    .replace(/\.css$/i, '')
    .replace(/[^\w-]/g, '-');
  const name = word.length > 2 ? word : sheet;
  return { name, each: 'section', where, rows, rules, off: undefined };
}

function nameFor(property: string, values: readonly string[]): string {
  if (!values.every((value) => normalColour(value) !== undefined))
    return property.replace(/^.*-(?=[a-z]+$)/, '');
  if (property === 'color') return 'ink';
  if (property.startsWith('background')) return 'ground';
  return property.startsWith('border') || property.startsWith('outline') ? 'line' : 'tint';
}

function freeName(name: string, taken: ReadonlySet<string>): string {
  for (let n = 1; ; n++) {
    const candidate = n === 1 ? name : `${name}-${n}`;
    if (!taken.has(candidate)) return candidate;
  }
}
