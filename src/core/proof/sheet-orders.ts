// Whether two sheet orders are the same, and what could not be compared in them.

import {
  changedSelectors,
  eachRuleCompound,
  mayMatchOn,
  mayStandOn,
  type Program,
  type SheetOrder,
} from '../cascade/index.js';
import type { Page } from '../read/markup/index.js';
import { undecidedUnless } from '../stock/index.js';

/** The same sheets to the letter, in the same order under the same conditions. */
export function isSameSheetOrder(a: SheetOrder, b: SheetOrder): boolean {
  if (a.key === b.key) return true;
  return (
    a.uses.length === b.uses.length &&
    sheetOrdersDiffer(a, b) === undefined &&
    a.uses.every(({ program, condition, layer, source }, at) => {
      const other = b.uses[at]!;
      return (
        program.sheet.text === other.program.sheet.text &&
        source.path === other.source.path &&
        condition === other.condition &&
        layer === other.layer
      );
    })
  );
}

/** Out: what else than rules differs, in words. */
export function sheetOrdersDiffer(a: SheetOrder, b: SheetOrder): string | undefined {
  const unread = ({ unread: list }: SheetOrder): string =>
    list
      .filter(({ why }) => why === 'elsewhere')
      .map(({ address }) => address)
      .join('\n');
  if (unread(a) !== unread(b)) return 'it links other sheets that could not be read';
  const definitions = ({ uses, layersKey }: SheetOrder): string => {
    const texts = uses.flatMap(({ program, condition, layer, source }) =>
      program.sheet.definitions.map(
        (text) =>
          `${condition}${layer ?? ''}${text.toLowerCase().includes('url(') ? source.path : ''}${text}`,
      ),
    );
    // Of definitions in layers the one in the strongest layer counts: then the order of the layers is part of them.
    const isLayered = uses.some(
      ({ program, layer }) =>
        program.sheet.definitions.length > 0 &&
        (layer !== undefined || program.sheet.definitions.some((text) => text.startsWith('@layer '))),
    );
    return [...texts, ...(isLayered ? [layersKey] : [])].join('\n');
  };
  if (definitions(a) !== definitions(b)) return 'its @font-face, @keyframes or other definitions changed';
  return undefined;
}

/** Whether no rule that came, went or changed could match on a page of which that is known without looking into it. */
export function isUntouched(page: Page, [before, after]: readonly [SheetOrder, SheetOrder]): boolean {
  if (page.outline === undefined) return false;
  const changed = changedSelectors(before, after);
  return changed?.every((one) => !mayStandOn(page, before, one)) === true;
}

/** Whether nothing but where a page's sheets are found, or whether they count, is in doubt. */
function isSwitchedOnly(page: Page, sheetOrders: readonly SheetOrder[]): boolean {
  const plain = { ...page, base: undefined, hasPolicy: false };
  return undecidedUnless(plain, sheetOrders, page.unread) === undefined;
}

/**
 * Whether a page that stays as it is looks as it did whichever of the site's sheets it really has: no rule that came or went
 * could match on it. In: the sheet orders of all pages in both states, its own among them; class names that no engine can know.
 */
export function isBeyondReach(
  page: Page,
  pairs: readonly (readonly [SheetOrder, SheetOrder])[],
  fresh: ReadonlySet<string>,
): boolean {
  const [own] = pairs;
  if (own === undefined || !isSwitchedOnly(page, [own[0], own[1]])) return false;
  const mayMatch = mayMatchOn(page, own[0].scripts, fresh);
  return pairs.every(([before, after]) => changedSelectors(before, after)?.some(mayMatch) === false);
}

/** Every class that a rule names anywhere: as a condition on the parent, in `:is()`, at the root of its scope. */
export function noteNames({ uses }: SheetOrder, names: Set<string>, seen: WeakSet<Program>): void {
  for (const { program } of uses) {
    if (seen.has(program)) continue;
    seen.add(program);
    for (const rule of program.rules)
      eachRuleCompound(rule, ({ classes }) => {
        for (const name of classes) names.add(name);
      });
  }
}
