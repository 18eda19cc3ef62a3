// Pages on which nothing may be moved, and why.

import { type KeptReason, undecidedText } from '../base/reasons/index.js';
import type { Stack } from '../cascade/index.js';
import type { Page } from '../read/markup/index.js';

const DEEPEST = 500;

/** Why nothing on a page may be moved. In: the stacks it may be read under. */
export function undecidedReason(page: Page, stacks: readonly Stack[]): KeptReason | undefined {
  return undecidedUnless(page, stacks, page.unread);
}

/** The same, where it is known better why the elements of the page cannot be read. */
export function undecidedUnless(
  page: Page,
  stacks: readonly Stack[],
  unread: string | undefined,
): KeptReason | undefined {
  const why = unread ?? undecidedPage(page, stacks);
  return why === undefined ? undefined : { kind: 'page undecided', why };
}

function undecidedPage(page: Page, stacks: readonly Stack[]): string | undefined {
  if (page.base !== undefined) return undecidedText('base', {});
  if (page.hasPolicy) return undecidedText('policy', {});
  if (page.shadowRoots) return undecidedText('shadow roots', {});
  // Chromium flattens what is nested deeper (a limit of its parser), and other browsers elsewhere.
  if (page.depth > DEEPEST) return undecidedText('nested deep', { depth: page.depth });
  if (page.bare) return undecidedText('no whole page', {});
  if (page.kind === 'component' && stacks.length === 0) return undecidedText('shown nowhere', {});
  for (const stack of stacks) {
    if (stack.undecided !== undefined) return stack.undecided;
    for (const { program, source } of stack.uses) {
      const [first] = program.sheet.undecided;
      if (first !== undefined)
        return undecidedText('sheet undecided', { what: first.what, sheet: source.path });
    }
  }
  return undefined;
}
