// Which sheets a page uses.

import { fileAt } from '../../core/base/addresses.js';
import type { SiteSources, SiteStyles } from '../../core/cascade/index.js';
import { saysWhatAllLink } from '../../core/edit/text/index.js';
import { isGiven, isPlainLink, type Page } from '../../core/read/markup/index.js';

/** The sheet files that style a page. */
export function sheetsUsed(page: Page, styles: SiteStyles): Set<string> {
  const used = styles
    .sheetOrderOf(page)
    .uses.flatMap(({ source: { path, isBlock } }) => (isBlock ? [] : path));
  return new Set(used);
}

/** The sheets that a page links plainly, in order. */
export function plainLinksOf(page: Page, copies: SiteSources['copies']): string[] {
  return page.sheets.flatMap((one) =>
    one.kind === 'link' && isPlainLink(one)
      ? (fileAt(one.address, page.path, (address) => copies.get(address)) ?? [])
      : [],
  );
}

/** By all pages, or by different ones: how many use each sheet, and each list of sheets that some link plainly. */
export class SheetUses {
  readonly counts = new Map<string, number>();
  readonly #links = new Map<string, readonly string[]>();

  note(page: Page, styles: SiteStyles, sources: Pick<SiteSources, 'copies' | 'link'>): void {
    if (page.kind !== 'page' && !page.sheets.some(isGiven)) return;
    for (const file of sheetsUsed(page, styles)) this.#count(file, 1);
    if (saysWhatAllLink(page, sources)) this.#link(plainLinksOf(page, sources.copies));
  }

  get links(): (readonly string[])[] {
    return [...this.#links.values()];
  }

  add(counts: ReadonlyMap<string, number>, links: readonly (readonly string[])[]): void {
    for (const [file, pages] of counts) this.#count(file, pages);
    for (const one of links) this.#link(one);
  }

  #count(file: string, pages: number): void {
    this.counts.set(file, (this.counts.get(file) ?? 0) + pages);
  }

  #link(files: readonly string[]): void {
    this.#links.set(files.join('\n'), files);
  }
}
