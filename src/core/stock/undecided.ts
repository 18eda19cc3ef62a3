// Pages on which nothing may be moved, and why.

import type { Stack } from '../cascade/index.js';
import type { Page } from '../read/markup/index.js';
import type { KeptReason } from './kept.js';

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
  if (unread !== undefined) return { kind: 'page undecided', why: unread };
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
  if (page.kind === 'component' && stacks.length === 0)
    return { kind: 'page undecided', why: 'no page of the site could show it, so nothing can be compared' };
  for (const stack of stacks) {
    if (stack.undecided !== undefined) return { kind: 'page undecided', why: stack.undecided };
    for (const { program, source } of stack.uses) {
      const [first] = program.sheet.undecided;
      if (first !== undefined) return { kind: 'page undecided', why: `${first.what} in ${source.path}` };
    }
  }
  return undefined;
}
