// Templates that nothing shows how to link a sheet from: where rules would go, no page would find them.

import { fileAt } from '../../core/base/addresses.js';
import { hasBehind, linkOn } from '../../core/edit/text/index.js';
import { mayShow, type Page } from '../../core/read/markup/index.js';
import type { Site } from './load.js';

/** Whether pages with styles are made of templates, and none of these could link the shared sheet. */
export function isUnlinkable({ model, shared }: Site): boolean {
  const copyOf = (address: string): string | undefined => model.copyOf(address);
  const pages = model.pages.filter(({ kind }) => kind === 'page');
  const reachesSheet = (page: Page): boolean =>
    page.sheets.some((one) => one.kind === 'link' && fileAt(one.address, page.path, copyOf) === shared) ||
    hasBehind(model, page, shared) ||
    linkOn(model, page, shared).edit !== undefined;
  // A person who names the sheets sees to how they are linked.
  if ((model.sources.given?.size ?? 0) > 0) return false;
  return (
    pages.some(mayShow) &&
    !pages.some(reachesSheet) &&
    model.pages.some(({ elements }) => elements.some(({ style }) => style !== undefined))
  );
}
