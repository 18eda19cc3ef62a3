// Every style attribute of a site, cut into units, each with what forbids moving it.

import type { SiteModel, Stack } from '../cascade/index.js';
import {
  hasTemplateText,
  maskTemplateText,
  type Page,
  type PageElement,
  type SourceTag,
  valueOffset,
} from '../markup/index.js';
import { type Declaration, declarationValidity, isFinished, parseDeclarations } from '../sheets/index.js';
import type { SourceRange } from '../source.js';
import type { KeptReason } from './kept.js';
import type { SiteScripts } from './site-scripts.js';
import { type Unit, unitsOf } from './units.js';

/** One style attribute in the source. */
export interface Carrier {
  readonly page: Page;
  /** The first element made from the tag; `undefined` inside `<template>`. */
  readonly element: PageElement | undefined;
  readonly tag: SourceTag | undefined;
  /** The whole attribute in the source. */
  readonly range: SourceRange;
  readonly value: string;
  readonly declarations: readonly Declaration[];
  readonly units: readonly CarriedUnit[];
  /** The source of the value equals the value: offsets in it are offsets in the source. */
  readonly literal: boolean;
}

export interface CarriedUnit extends Unit {
  /** Why it must stay, known before any proof. */
  readonly objection: KeptReason | undefined;
}

/** All style attributes, by page and position. */
export function inlineCarriers(model: SiteModel, scripts: SiteScripts): Carrier[] {
  return model.pages.flatMap((page) =>
    pageCarriers(page, scripts, undecidedReason(page, model.stacksOf(page))),
  );
}

function pageCarriers(page: Page, scripts: SiteScripts, undecided: KeptReason | undefined): Carrier[] {
  const carriers: Carrier[] = [];
  const seen = new Set<SourceTag>();
  for (const element of page.elements) {
    if (element.style === undefined) continue;
    const range = element.tag?.attributes.get('style');
    // An attribute merged from a second <body> tag has no place of its own.
    if (element.tag === undefined || range === undefined || seen.has(element.tag)) continue;
    seen.add(element.tag);
    const { declarations, units: free } = readStyle(element.style, page.path);
    const literal = valueOffset(page, range, element.style) !== undefined;
    const blocked = undecided ?? wholeObjection(page, element);
    const units = free.map((unit) => {
      const objection = blocked ?? unitObjection(page, element, unit, scripts);
      return objection === undefined ? unit : { ...unit, objection };
    });
    carriers.push({
      page,
      element,
      tag: element.tag,
      range,
      value: element.style,
      declarations,
      units,
      literal,
    });
  }
  for (const { style, range } of page.inert) {
    const { declarations } = parseDeclarations(style);
    const units = unitsOf(declarations, page.path).map((unit) => ({
      ...unit,
      objection: { kind: 'in a template element' } as const,
    }));
    carriers.push({
      page,
      element: undefined,
      tag: undefined,
      range,
      value: style,
      declarations,
      units,
      literal: false,
    });
  }
  return carriers;
}

interface StyleRead {
  readonly declarations: readonly Declaration[];
  readonly units: readonly CarriedUnit[];
}

const MOST_READ = 20_000;
const styles = new Map<string, StyleRead>();

/** Years of pasting: the same few texts stand in attribute after attribute, and each is read once. */
export function readStyle(style: string, holder: string): StyleRead {
  const key = /url\(/i.test(style) ? `${holder}\0${style}` : style;
  let known = styles.get(key);
  if (known === undefined) {
    const declarations = declarationsOf(style);
    known = {
      declarations,
      units: unitsOf(declarations, holder).map((unit) => ({ ...unit, objection: undefined })),
    };
    if (styles.size >= MOST_READ) styles.clear();
    styles.set(key, known);
  }
  return known;
}

/** Template text in a value would be taken for braces: it is read as a word, and the value keeps it. */
function declarationsOf(style: string): Declaration[] {
  if (!hasTemplateText(style)) return parseDeclarations(style).declarations;
  const masked = maskTemplateText(style);
  return parseDeclarations(masked).declarations.map((one) => {
    const value = style.slice(
      masked.indexOf(one.value, one.range.start + one.property.length),
      one.range.end,
    );
    return { ...one, value };
  });
}

const DEEPEST = 500;

/** Why nothing on a page may be moved. In: the stacks it may be read under. */
export function undecidedReason(page: Page, stacks: readonly Stack[]): KeptReason | undefined {
  if (page.base !== undefined) return { kind: 'page undecided', why: 'it has a <base> element' };
  if (page.hasPolicy) return { kind: 'page undecided', why: 'it has a content security policy' };
  if (page.shadowRoots) return { kind: 'page undecided', why: 'it declares shadow roots' };
  // Chromium flattens what is nested deeper (a limit of its parser), and other browsers elsewhere.
  if (page.depth > DEEPEST) return { kind: 'page undecided', why: `it is nested ${page.depth} levels deep` };
  if (page.bare)
    return {
      kind: 'page undecided',
      why: 'nothing marks it as a whole page; if pages include it, name it under "components" in acervus.json',
    };
  if (page.kind === 'component' && page.sheets.length > 0)
    return { kind: 'page undecided', why: 'a component with a sheet of its own' };
  for (const stack of stacks) {
    if (stack.undecided !== undefined) return { kind: 'page undecided', why: stack.undecided };
    for (const { program, source } of stack.uses) {
      const [first] = program.sheet.undecided;
      if (first !== undefined) return { kind: 'page undecided', why: `${first.what} in ${source.path}` };
    }
  }
  return undefined;
}

function wholeObjection(page: Page, element: PageElement): KeptReason | undefined {
  if (element.templated === 'tag' || hasTemplateText(element.style ?? '')) return { kind: 'template text' };
  const written = element.attributes.find(({ name }) => name === 'class');
  if (written !== undefined && hasTemplateText(written.value)) return { kind: 'template text' };
  if (written !== undefined && element.tag?.attributes.get('class') === undefined)
    return { kind: 'no tag of its own' };
  const source = page.text[element.tag?.range.start ?? 0];
  return source === '<' ? undefined : { kind: 'no tag of its own' };
}

function unitObjection(
  page: Page,
  element: PageElement,
  unit: Unit,
  scripts: SiteScripts,
): KeptReason | undefined {
  for (const { property, value } of unit.declarations) {
    if (declarationValidity(property, value).complaint === 'unknown property')
      return { kind: 'not understood', property };
    if (!isFinished(value)) return { kind: 'unfinished value' };
    const address = addressObjection(property, value);
    if (address !== undefined) return { kind: 'address', why: address };
    const script = scripts.objection(page, element, property);
    if (script !== undefined) return script;
  }
  return undefined;
}

function addressObjection(property: string, value: string): string | undefined {
  if (!/url\(|image-set\(|src\(/i.test(value)) return undefined;
  if (property.startsWith('--')) return 'an address in a custom property resolves wherever it is used';
  if (/url\(\s*["']?\s*#/i.test(value)) return 'its address points into its own page';
  if (/image-set\(|src\(/i.test(value)) return 'an address outside url() is not rewritten';
  if (/url\([^)]*\\/i.test(value)) return 'its address is written with escapes';
  return undefined;
}
