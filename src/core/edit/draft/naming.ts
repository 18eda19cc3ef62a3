// What new names must fit: names in use, the platform's prefix, what attribute selectors look for, the house's own way.

import { compileSelectorList, eachCompound, type SiteModel, writtenClasses } from '../../cascade/index.js';
import { splitTokens } from '../../read/markup/index.js';
import type { StyleRule } from '../../read/sheets/index.js';
import { type Convention, type NameRules, readConvention, USUAL } from '../../search/index.js';

/** How a house wants names built, as far as it says so. */
export interface NamingOptions {
  readonly prefix?: string | undefined;
  readonly suffix?: string | undefined;
  readonly separator?: Convention['separator'] | undefined;
  readonly stems?: { readonly [Stem in keyof Convention['stems']]?: string | undefined } | undefined;
}

/** Whose a sheet is. */
export interface OwnedSheet {
  readonly path: string;
  readonly owner: 'platform' | 'theme';
}

/** The rules for names on a site. In: `unread documents`, texts of documents that were not read: what stands in them is in use. */
export function namingRules(
  model: SiteModel,
  sheets: readonly OwnedSheet[],
  naming: NamingOptions,
  unreadDocuments: readonly string[],
): NameRules {
  const classesOf = (owner: OwnedSheet['owner']): Set<string> =>
    classesIn(
      sheets.flatMap((sheet) =>
        sheet.owner === owner ? (model.sheetAt(sheet.path)?.sheet.rules ?? []) : [],
      ),
    );
  const read = readConvention(new Set([...classesOf('theme'), ...classesIn(blockRules(model))]));
  return {
    platform: classesOf('platform'),
    taken: new Set([...namesInUse(model), ...unreadDocuments.flatMap(wordsOf)]),
    sensitive: sensitiveTexts(model),
    convention: {
      prefix: naming.prefix ?? read.prefix,
      suffix: naming.suffix ?? USUAL.suffix,
      separator: naming.separator ?? read.separator,
      stems: {
        colour: naming.stems?.colour ?? USUAL.stems.colour,
        font: naming.stems?.font ?? USUAL.stems.font,
        shadow: naming.stems?.shadow ?? USUAL.stems.shadow,
        space: naming.stems?.space ?? USUAL.stems.space,
        size: naming.stems?.size ?? USUAL.stems.size,
        corner: naming.stems?.corner ?? USUAL.stems.corner,
      },
    },
  };
}

function wordsOf(text: string): string[] {
  return text.toLowerCase().match(/[\p{L}\p{N}_-]+/gu) ?? [];
}

/** Lower case: classes of the markup, of every sheet's selectors, and of template text. */
export function namesInUse(model: SiteModel): Set<string> {
  const names = new Set<string>();
  for (const page of model.pages)
    for (const { classes } of page.elements) for (const name of classes) names.add(name.toLowerCase());
  for (const name of classesIn(allRules(model))) names.add(name.toLowerCase());
  return names;
}

function classesIn(rules: Iterable<StyleRule>): Set<string> {
  const texts = new Set<string>();
  for (const { nesting } of rules) for (const text of nesting) texts.add(text);
  return new Set([...texts].flatMap((text) => writtenClasses(text).map(({ name }) => name)));
}

function* allRules(model: SiteModel): Iterable<StyleRule> {
  for (const path of model.sources.sheets.keys()) yield* model.sheetAt(path)?.sheet.rules ?? [];
  yield* blockRules(model);
}

function* blockRules(model: SiteModel): Iterable<StyleRule> {
  const seen = new Set<string>();
  for (const page of model.pages) {
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || seen.has(reference.text)) continue;
      seen.add(reference.text);
      yield* model.block(reference.text, page).sheet.rules;
    }
  }
}

/** What attribute selectors on `class` look for: a new name must not make them match. */
function sensitiveTexts(model: SiteModel): { operator: string; value: string }[] {
  const found: { operator: string; value: string }[] = [];
  for (const { nesting } of allRules(model)) {
    for (const text of nesting) {
      if (!/\[\s*class\s*[*^$|]=/i.test(text)) continue;
      const list = compileSelectorList(text);
      if (list.kind === 'invalid') continue;
      for (const selector of list.selectors)
        eachCompound(selector, ({ rest }) => {
          for (const simple of rest)
            if (simple.kind === 'attribute' && simple.name === 'class' && simple.operator !== undefined)
              for (const value of splitTokens(simple.value)) found.push({ operator: simple.operator, value });
        });
    }
  }
  return found;
}

/** Custom properties that any sheet, page or script of a site names. */
export function customNames({ sources }: SiteModel): Set<string> {
  const names = new Set<string>();
  for (const text of sources.sheets.values())
    for (const name of text.match(/--[\w-]+/g) ?? []) names.add(name);
  for (const text of sources.pages.values())
    if (text.includes('--')) for (const name of text.match(/--[a-zA-Z][\w-]*/g) ?? []) names.add(name);
  return names;
}
