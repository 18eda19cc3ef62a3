// What a house wants less of, each with its place: what is written inline, in blocks, in old attributes, twice in sheets;
// names without a rule, colours without a name, importance, ids in selectors.

import { comparePlaces, type Place, placeIn } from '../../base/source.js';
import { writtenClasses } from '../../cascade/index.js';
import { writtenHints } from '../../read/hints/index.js';
import { hasTemplateText, type Page, type PageElement } from '../../read/markup/index.js';
import {
  canonicalProperty,
  type Declaration,
  normalColour,
  normalValue,
  parseDeclarations,
  parseSheet,
  type Sheet,
  type StyleRule,
} from '../../read/sheets/index.js';
import { coloursIn } from '../../stock/index.js';

export const DEBT_KINDS = [
  'inline style',
  'style block',
  'old attribute',
  'repeated declaration',
  'class without a rule',
  'unnamed colour',
  'importance',
  'id in a selector',
] as const;

export type DebtKind = (typeof DEBT_KINDS)[number];

export interface Debt {
  readonly kind: DebtKind;
  /** What is written, in words that stay the same when it moves to another line. */
  readonly item: string;
  readonly place: Place;
  /** The element, for what stands in a tag. */
  readonly element?: PageElement | undefined;
  readonly declarations: readonly Declaration[];
}

export interface DebtSheet {
  readonly path: string;
  /** The whole file's. */
  readonly text: string;
  readonly sheet: Sheet;
  /** Where in the file it begins; 0 but for a block of a page. */
  readonly offset: number;
}

export function placeOn({ path, text, offset }: DebtSheet, at: number): Place {
  return placeIn(path, text, offset + at);
}

/** A page's own blocks, without those that come from another file. */
export function blocksOf({ path, text, sheets }: Page): DebtSheet[] {
  return sheets.flatMap((one) =>
    one.kind === 'block' && one.offset !== undefined
      ? [{ path, text, sheet: parseSheet(one.text), offset: one.offset }]
      : [],
  );
}

/** What is looked at: pages and the developer's sheets; and what the whole site knows. */
export interface DebtInput {
  readonly pages: readonly Page[];
  readonly sheets: readonly DebtSheet[];
  /** Classes that a rule of any sheet names, or something on the page itself: its blocks, its scripts. */
  readonly knownOn: (page: Page) => (name: string) => boolean;
}

export function declarationForm({ property, value, important }: Declaration): string {
  const name = canonicalProperty(property);
  return `${name}: ${normalValue(name, value, '')}${important ? ' !important' : ''}`;
}

/** Without what is repeated between sheets: see `repetitions`. Out: by place. */
export function debtsOf({ pages, sheets, knownOn }: DebtInput): Debt[] {
  const debts: Debt[] = [];
  for (const page of pages) {
    const isKnownClass = knownOn(page);
    for (const element of page.elements) inTag(page, element, isKnownClass, debts);
    for (const block of blocksOf(page)) {
      const { rules } = block.sheet;
      for (const rule of rules)
        for (const one of rule.declarations)
          debts.push({
            kind: 'style block',
            item: `${rule.selector} { ${declarationForm(one)} }`,
            place: placeOn(block, one.range.start),
            declarations: [one],
          });
      for (const rule of rules) inRule(rule, (at) => placeOn(block, at), debts);
    }
  }
  for (const one of sheets) for (const rule of one.sheet.rules) inRule(rule, (at) => placeOn(one, at), debts);
  return debts.sort((a, b) => comparePlaces(a.place, b.place));
}

function inTag(
  page: Page,
  element: PageElement,
  isKnownClass: (name: string) => boolean,
  debts: Debt[],
): void {
  const { tag, style, classes, templated } = element;
  if (tag === undefined) return;
  const placeOf = (attribute: string): Place =>
    placeIn(page.path, page.text, (tag.attributes.get(attribute) ?? tag.range).start);
  if (style !== undefined && tag.attributes.has('style')) {
    const { declarations } = parseDeclarations(style);
    const isFilled = hasTemplateText(style);
    // What an engine writes into it is nobody's to count by.
    const item = isFilled
      ? 'with what an engine writes'
      : declarations.map(declarationForm).sort().join('; ');
    debts.push({
      kind: 'inline style',
      item,
      place: placeOf('style'),
      element,
      declarations: isFilled ? [] : declarations,
    });
    if (!isFilled) for (const one of declarations) colours(one, placeOf('style'), debts);
  }
  for (const item of writtenHints(element)) {
    const name = /^[\w-]+(?==)/.exec(item)?.[0] ?? '';
    debts.push({ kind: 'old attribute', item, place: placeOf(name), element, declarations: [] });
  }
  if (templated !== 'no') return;
  for (const name of classes)
    if (!isKnownClass(name))
      debts.push({
        kind: 'class without a rule',
        item: name,
        place: placeOf('class'),
        element,
        declarations: [],
      });
}

function inRule(rule: StyleRule, placeAt: (at: number) => Place, debts: Debt[]): void {
  const { selector } = rule;
  for (const one of rule.declarations) {
    if (one.important)
      debts.push({
        kind: 'importance',
        item: `${selector} { ${declarationForm(one)} }`,
        place: placeAt(one.range.start),
        declarations: [one],
      });
    colours(one, placeAt(one.range.start), debts);
  }
  if (/#[a-z_-]/i.test(selector.replace(/\[[^\]]*\]/g, '')))
    debts.push({
      kind: 'id in a selector',
      item: selector,
      place: placeAt(rule.selectorRange.start),
      declarations: [],
    });
}

/** Where a value is given a name, it has one. */
function colours(one: Declaration, place: Place, debts: Debt[]): void {
  if (one.property.startsWith('--')) return;
  for (const { text } of coloursIn(one.property, one.value)) {
    const colour = normalColour(text);
    if (colour !== undefined && colour !== '#000000/0')
      debts.push({ kind: 'unnamed colour', item: colour, place, declarations: [one] });
  }
}

/**
 * Declarations that more than one rule of the developer's sheets declares: all of them but the first, under its own conditions.
 * In: all of these sheets.
 */
export function repetitions(sheets: readonly DebtSheet[]): Debt[] {
  const found = new Map<string, Debt[]>();
  for (const sheet of sheets) {
    for (const rule of sheet.sheet.rules) {
      const around = rule.conditions.map((one) => `@${one.kind} ${one.text} `).join('');
      for (const one of rule.declarations) {
        if (one.property.startsWith('--')) continue;
        const item = around + declarationForm(one);
        const own = found.get(item) ?? [];
        own.push({
          kind: 'repeated declaration',
          item,
          place: placeOn(sheet, one.range.start),
          declarations: [one],
        });
        found.set(item, own);
      }
    }
  }
  return [...found.values()].flatMap((own) => own.slice(1));
}

/** Custom properties that give a colour a name: normal form to name. */
export function namedColours(sheets: readonly DebtSheet[]): Map<string, string> {
  const names = new Map<string, string>();
  for (const { sheet } of sheets)
    for (const rule of sheet.rules)
      for (const { property, value } of rule.declarations) {
        const colour = property.startsWith('--') ? normalColour(value.trim()) : undefined;
        if (colour !== undefined && !names.has(colour)) names.set(colour, property);
      }
  return names;
}

/** Classes that rules name. */
export function classesOf(sheets: Iterable<Sheet>): Set<string> {
  const names = new Set<string>();
  for (const { rules } of sheets)
    for (const { nesting } of rules)
      for (const text of nesting) for (const { name } of writtenClasses(text)) names.add(name);
  return names;
}
