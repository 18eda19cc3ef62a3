// What new names must fit: names in use, the platform's prefix, what attribute selectors look for, the house's own way.

import { compileSelectorList, type SiteModel } from '../cascade/index.js';
import { splitTokens } from '../markup/index.js';
import { type NameRules, readConvention, USUAL } from '../search/index.js';
import type { Site } from '../../site/rendering/load.js';

const CLASS = /\.(-?[_a-zA-Z][\w-]*)/g;
const known = new WeakMap<Site, NameRules>();

/** The rules for names on a site. */
export function namingRules(site: Site): NameRules {
  const remembered = known.get(site);
  if (remembered !== undefined) return remembered;
  const { naming = {} } = site.config;
  const read = readConvention(new Set([...sheetClasses(site, 'theme'), ...blockClasses(site)]));
  const rules: NameRules = {
    platform: sheetClasses(site, 'platform'),
    taken: namesInUse(site),
    sensitive: sensitiveTexts(site),
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
  known.set(site, rules);
  return rules;
}

/** Lower case: classes of the markup, of every sheet's selectors, and of template text. */
export function namesInUse(site: Site): Set<string> {
  const names = new Set<string>();
  for (const page of site.model.pages) {
    for (const { classes } of page.elements) for (const name of classes) names.add(name.toLowerCase());
  }
  for (const { selectors } of allRules(site)) {
    for (const text of selectors) for (const [, name] of text.matchAll(CLASS)) names.add(name!.toLowerCase());
  }
  return names;
}

function sheetClasses(site: Site, whose: 'platform' | 'theme'): Set<string> {
  const names = new Set<string>();
  for (const { path, owner } of site.sheets) {
    if (owner !== whose) continue;
    for (const { selectors } of site.model.sheetAt(path)?.sheet.rules ?? [])
      for (const text of selectors) for (const [, name] of text.matchAll(CLASS)) names.add(name!);
  }
  return names;
}

function blockClasses(site: Site): Set<string> {
  const names = new Set<string>();
  for (const page of site.model.pages) {
    for (const reference of page.sheets)
      if (reference.kind === 'block')
        for (const [, name] of reference.text.matchAll(/\.(-?[_a-zA-Z][\w-]*)(?=[^{};]*\{)/g))
          names.add(name!);
  }
  return names;
}

function* allRules(site: Site): Iterable<{ readonly selectors: readonly string[] }> {
  for (const path of site.model.sources.sheets.keys()) yield* site.model.sheetAt(path)?.sheet.rules ?? [];
  const seen = new Set<string>();
  for (const page of site.model.pages) {
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || seen.has(reference.text)) continue;
      seen.add(reference.text);
      yield* site.model.block(reference.text, page).sheet.rules;
    }
  }
}

/** What attribute selectors on `class` look for: a new name must not make them match. */
function sensitiveTexts(site: Site): { operator: string; value: string }[] {
  const found: { operator: string; value: string }[] = [];
  for (const { selectors } of allRules(site)) {
    for (const text of selectors) {
      if (!/\[\s*class\s*[*^$|]=/i.test(text)) continue;
      const list = compileSelectorList(text);
      if (list.kind === 'invalid') continue;
      for (const { compounds } of list.selectors) {
        for (const { rest } of compounds) {
          for (const simple of rest) {
            if (simple.kind === 'attribute' && simple.name === 'class' && simple.operator !== undefined) {
              for (const value of splitTokens(simple.value)) found.push({ operator: simple.operator, value });
            }
          }
        }
      }
    }
  }
  return found;
}

/** Custom properties that any sheet, page or script of a site names. */
export function customNames(model: SiteModel, themes: readonly string[]): Set<string> {
  const names = new Set<string>();
  const texts = [
    ...model.sources.sheets.values(),
    ...themes.map((path) => model.sources.sheets.get(path) ?? ''),
  ];
  for (const text of texts) for (const name of text.match(/--[\w-]+/g) ?? []) names.add(name);
  for (const text of model.sources.pages.values())
    if (text.includes('--')) for (const name of text.match(/--[a-zA-Z][\w-]*/g) ?? []) names.add(name);
  return names;
}
