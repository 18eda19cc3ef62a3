// Sheets that pages load and nobody read: on another host, missing, or made when the page is. What such a sheet declares is not
// known, so beside it no declaration is without effect, and no rule may become weaker or stand for another.

import { getOrInsert } from '../base/get-or-insert.js';
import type { SiteModel } from '../cascade/index.js';
import type { Page } from '../read/markup/index.js';

/** The address of a sheet that styles a page, or could, and was not read. */
export function unreadSheetOf(model: SiteModel, page: Page): string | undefined {
  for (const { unread } of model.sheetOrdersOf(page)) if (unread[0] !== undefined) return unread[0].address;
  return undefined;
}

const known = new WeakMap<SiteModel, ReadonlySet<string>>();

/** Site paths of the sheets that style a page together with one that was not read. */
export function sheetsBesideUnread(model: SiteModel): ReadonlySet<string> {
  return getOrInsert(known, model, () => {
    const found = new Set<string>();
    for (const page of model.pages)
      if (unreadSheetOf(model, page) !== undefined)
        for (const { uses } of model.sheetOrdersOf(page))
          for (const { source } of uses) if (!source.isBlock) found.add(source.path);
    return found;
  });
}
