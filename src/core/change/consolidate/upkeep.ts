// How many places hold a written declaration that the developer owns.

import type { SiteModel } from '../../cascade/index.js';
import { writtenHints } from '../../read/hints/index.js';
import { type Page, type SourceTag, styleAsWritten } from '../../read/markup/index.js';
import { readStyle, sheetsFromSelf, stylesFromSelf, tagsOf } from '../../stock/index.js';

/** Declarations, and old attributes, by what holds them. */
export interface Upkeep {
  readonly tags: number;
  readonly blocks: number;
  readonly sheets: number;
  /** Pages that would pass a policy of `style-src 'self'`. */
  readonly fromSelf: number;
}

export function totalOf({ tags, blocks, sheets }: Upkeep): number {
  return tags + blocks + sheets;
}

/** Counts up one state of a site, page by page. */
export class UpkeepCount {
  #tags = 0;
  #blocks = 0;
  #fromSelf = 0;
  /** Pages whose sheets would pass such a policy. */
  readonly #linking = new Set<string>();
  readonly #model: SiteModel;

  constructor(model: SiteModel) {
    this.#model = model;
  }

  add(page: Page): void {
    this.#tags += inTags(page, this.#model);
    this.#blocks += inBlocks(page, this.#model);
    if (sheetsFromSelf(page)) this.#linking.add(page.path);
    if (page.kind === 'page' && stylesFromSelf(page) && this.#hasBareLikes(page)) this.#fromSelf++;
  }

  /** Whether no tag that was cut out of a page has a style. */
  #hasBareLikes(page: Pick<Page, 'path'>): boolean {
    return this.#model.likeTagsOf(page).every(({ style }) => style === undefined);
  }

  /** In: the sheets that may be edited. */
  of(themes: readonly string[]): Upkeep {
    let sheets = 0;
    for (const path of themes)
      for (const { declarations } of this.#model.sheetAt(path)?.sheet.rules ?? [])
        sheets += declarations.length;
    const { leftOut = [] } = this.#model.sources;
    let fromSelf = this.#fromSelf;
    for (const [path, page] of leftOut)
      if (page.fromSelf && this.#linking.has(page.like) && this.#hasBareLikes({ path })) fromSelf++;
    // Shares of tags come to whole ones, but for what only some states of a page show.
    return { tags: Math.round(this.#tags), blocks: this.#blocks, sheets, fromSelf };
  }
}

/** The upkeep of a whole state. */
export function upkeepOf(model: SiteModel, themes: readonly string[]): Upkeep {
  const count = new UpkeepCount(model);
  for (const page of model.pages) count.add(page);
  return count.of(themes);
}

function inTags(page: Page, model: SiteModel): number {
  let count = 0;
  const seen = new Set<SourceTag>();
  for (const element of page.elements) {
    const tags = tagsOf({ also: model.alsoAt(page, element), share: model.shareOf(page, element.tag) });
    count += tags * writtenHints(element).length;
    const style = styleAsWritten(element);
    if (style === undefined || element.tag === undefined || seen.has(element.tag)) continue;
    seen.add(element.tag);
    count += tags * readStyle(style, page.path).declarations.length;
  }
  for (const { style } of page.inert) count += readStyle(style, page.path).declarations.length;
  return count;
}

function inBlocks(page: Page, model: SiteModel): number {
  let count = 0;
  for (const reference of page.sheets) {
    if (reference.kind !== 'block') continue;
    for (const { declarations } of model.block(reference.text, page).sheet.rules)
      count += declarations.length;
  }
  return count * model.pagesLike(page);
}

/** Characters of all pages and of these sheets. */
export function sizeOf({ sources }: SiteModel, themes: readonly string[]): number {
  let size = 0;
  for (const text of sources.pages.values()) size += text.length;
  for (const path of themes) size += sources.sheets.get(path)?.length ?? 0;
  return size;
}
