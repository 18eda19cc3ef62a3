// Pages on which nothing may be moved, and why.

import { type KeptReason, undecidedText } from '../base/reasons/index.js';
import type { SheetOrder } from '../cascade/index.js';
import type { Page } from '../read/markup/index.js';

const DEEPEST = 500;

/** Why nothing on a page may be moved. In: the sheet orders it may be read under. */
export function undecidedReason(page: Page, sheetOrders: readonly SheetOrder[]): KeptReason | undefined {
  return undecidedUnless(page, sheetOrders, page.unread);
}

/** The same, where it is known better why the elements of the page cannot be read. */
export function undecidedUnless(
  page: Page,
  sheetOrders: readonly SheetOrder[],
  unread: string | undefined,
): KeptReason | undefined {
  const why = unread ?? undecidedPage(page, sheetOrders);
  return why === undefined ? undefined : { kind: 'page undecided', why };
}

function undecidedPage(page: Page, sheetOrders: readonly SheetOrder[]): string | undefined {
  if (page.base !== undefined) return undecidedText('base', {});
  if (page.hasPolicy) return undecidedText('policy', {});
  if (page.shadowRoots) return undecidedText('shadow roots', {});
  // Chromium flattens what is nested deeper (a limit of its parser), and other browsers elsewhere.
  if (page.depth > DEEPEST) return undecidedText('nested deep', { depth: page.depth });
  if (page.bare) return undecidedText('no whole page', {});
  if (page.kind === 'component' && sheetOrders.length === 0) return undecidedText('shown nowhere', {});
  for (const sheetOrder of sheetOrders) {
    if (sheetOrder.undecided !== undefined) return sheetOrder.undecided;
    for (const { program, source } of sheetOrder.uses) {
      const [first] = program.sheet.undecided;
      if (first !== undefined)
        return undecidedText('sheet undecided', { what: first.what, sheet: source.path });
    }
  }
  return undefined;
}
