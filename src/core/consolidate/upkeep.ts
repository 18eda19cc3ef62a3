// How many places hold a written declaration that the developer owns.

import type { SiteModel } from '../cascade/index.js';
import { writtenHints } from '../hints/index.js';
import type { Page, SourceTag } from '../markup/index.js';
import { readStyle } from '../stock/index.js';

/** Counts up one state of a site, page by page. */
export class UpkeepCount {
  #inPages = 0;
  readonly #model: SiteModel;

  constructor(model: SiteModel) {
    this.#model = model;
  }

  add(page: Page): void {
    this.#inPages += inPage(page, this.#model);
  }

  /** In: the sheets that may be edited. Out: declarations in attributes, blocks and sheets, and old attributes. */
  of(themes: readonly string[]): number {
    let upkeep = this.#inPages;
    for (const path of themes)
      for (const { declarations } of this.#model.sheetAt(path)?.sheet.rules ?? [])
        upkeep += declarations.length;
    return upkeep;
  }
}

/** The upkeep of a whole state. */
export function upkeepOf(model: SiteModel, themes: readonly string[]): number {
  const count = new UpkeepCount(model);
  for (const page of model.pages) count.add(page);
  return count.of(themes);
}

function inPage(page: Page, model: SiteModel): number {
  let count = 0;
  const seen = new Set<SourceTag>();
  for (const element of page.elements) {
    count += writtenHints(element).length;
    if (element.style === undefined || element.tag === undefined || seen.has(element.tag)) continue;
    seen.add(element.tag);
    count += readStyle(element.style, page.path).declarations.length;
  }
  for (const { style } of page.inert) count += readStyle(style, page.path).declarations.length;
  for (const reference of page.sheets) {
    if (reference.kind !== 'block') continue;
    for (const { declarations } of model.block(reference.text, page).sheet.rules)
      count += declarations.length;
  }
  return count;
}

/** Characters of all pages and of these sheets. */
export function sizeOf({ sources }: SiteModel, themes: readonly string[]): number {
  let size = 0;
  for (const text of sources.pages.values()) size += text.length;
  for (const path of themes) size += sources.sheets.get(path)?.length ?? 0;
  return size;
}
