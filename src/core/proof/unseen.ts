// What no file shows: the content that an engine puts into its pages. No element of it can be compared; so what mentions none
// that anybody sees has to stay in words, on every page that is filled.

import { getOrInsert } from '../base/get-or-insert.js';
import type { ProgramRule, SheetOrder, SheetUse } from '../cascade/index.js';
import { namesOn, type Page } from '../read/markup/index.js';
import { covers } from '../search/index.js';
import type { Difference } from './describe.js';

/** A rule that a page has no more. */
interface Lost {
  readonly selector: ProgramRule['selector'];
  readonly property: string;
}

/** Gathers page after page what two states of a site say, and tells in the end what is lost. */
export class UnseenRules {
  readonly #names = new Set<string>();
  readonly #known = new Map<string, readonly Lost[]>();
  readonly #lost: { readonly page: Page; readonly rules: readonly Lost[] }[] = [];

  /** In: a page before; its sheets in both states, asked for where they count. */
  add(page: Page, sheetOrders: () => readonly [SheetOrder, SheetOrder]): void {
    for (const name of namesOn(page)) this.#names.add(name);
    if (page.kind !== 'page' || !page.isFilled || page.isMail) return;
    const [before, after] = sheetOrders();
    if (before.ownKey === after.ownKey) return;
    const rules = getOrInsert(this.#known, `${before.ownKey}\n${after.ownKey}`, () => lostIn(before, after));
    if (rules.length > 0) this.#lost.push({ page, rules });
  }

  /** Out: one difference for each page, of what is declared to no element that any file shows. */
  get differences(): Difference[] {
    return this.#lost.flatMap(({ page, rules }): Difference | readonly [] => {
      const lost = rules.find(({ selector }) => !this.#isSeen(selector));
      if (lost === undefined) return [];
      const { selector, property } = lost;
      const what = `${selector.text} would give no ${property} any more to what is filled in`;
      return { kind: 'page', page: page.path, what, rule: selector.text };
    });
  }

  /** Whether somebody has all that the last part asks for: then the elements themselves are compared. */
  #isSeen({ compounds }: ProgramRule['selector']): boolean {
    const { type, id, classes } = compounds.at(-1)!;
    const asked = [
      ...(type === undefined ? [] : [type.toLowerCase()]),
      ...(id === undefined ? [] : [`#${id.toLowerCase()}`]),
      ...classes.map((name) => `.${name.toLowerCase()}`),
    ];
    return asked.every((name) => this.#names.has(name));
  }
}

/** Under each condition, which selectors set a property. */
type Said = Map<string, Map<string, ProgramRule['selector']>>;

function lostIn(before: SheetOrder, after: SheetOrder): Lost[] {
  const [was, is] = [saidIn(usesOnlyIn(before, after)), saidIn(after.uses)];
  return [...was].flatMap(([place, selectors]) => {
    const left = is.get(place) ?? new Map<string, ProgramRule['selector']>();
    const property = place.slice(place.lastIndexOf(' ') + 1);
    return [...selectors.values()].flatMap((selector) => {
      const isLeft = left.has(selector.text) || [...left.keys()].some((wide) => covers(wide, selector.text));
      return isLeft ? [] : { selector, property };
    });
  });
}

/** Sheets that the other state has not: what it has as they are is not lost. */
function usesOnlyIn({ uses }: SheetOrder, other: SheetOrder): SheetUse[] {
  const keys = new Set(other.uses.map(({ key }) => key));
  return uses.filter(({ key }) => !keys.has(key));
}

function saidIn(uses: readonly SheetUse[]): Said {
  const found: Said = new Map();
  for (const { program, condition, layer } of uses)
    for (const { selector, rule, block } of program.rules) {
      const around = [...rule.conditions.map(({ kind, text }) => `@${kind} ${text}`), layer ?? ''].join(' ');
      const { normal, important } = block();
      for (const { longhand } of [...normal, ...important]) {
        const place = `${String(condition)} ${around} ${longhand}`;
        const known = getOrInsert(found, place, () => new Map<string, ProgramRule['selector']>());
        known.set(selector.text, selector);
      }
    }
  return found;
}
