// What an override has to beat on the elements that are meant, and what it has to leave standing above itself. Elements
// on which that is the same are one situation.

import {
  type ComplexSelector,
  implies,
  mayStandOn,
  NEVER,
  type SiteModel,
  type StyleReader,
  type Truth,
  undefeatedFor,
  type Weighed,
} from '../../cascade/index.js';
import { traceSite } from '../../cascade/trace-site.js';
import { isApart, isHidden, meet } from '../../proof/index.js';
import type { Page } from '../../read/markup/index.js';

/** One declaration that stands in the way, or above. */
export interface Rival {
  readonly one: Weighed;
  /** Whether its sheet comes behind the one that the override is written into. */
  readonly behind: boolean;
}

export interface Situation {
  readonly elements: number;
  /** What declares the asked longhands now; one for each that is declared. */
  readonly beat: readonly Rival[];
  /** What declares them in other media and states, and must go on doing so. */
  readonly keep: readonly Rival[];
}

export interface Rivals {
  /** Elements that are meant, by page. */
  readonly meant: ReadonlyMap<string, ReadonlySet<number>>;
  readonly elements: number;
  readonly situations: readonly Situation[];
  /** Ids that all meant elements stand in. */
  readonly ids: readonly string[];
}

export interface RivalsAsked {
  readonly selector: ComplexSelector;
  readonly longhands: ReadonlySet<string>;
  /** The medium that the override is for, `ALWAYS` for all. */
  readonly medium: Truth;
  /** Beat what other media and states declare, too. */
  readonly everywhere: boolean;
  readonly isOn: (page: Page) => boolean;
  /** The sheet of a page that it is written into; `undefined` for style blocks, which come last. */
  readonly sheetOf: (page: Page) => string | undefined;
}

export function findRivals(model: SiteModel, asked: RivalsAsked): Rivals {
  const { truths } = model.table;
  const meant = new Map<string, Set<number>>();
  const situations = new Map<string, { elements: number; beat: Rival[]; keep: Rival[] }>();
  let elements = 0;
  let ids: string[] | undefined;
  traceSite(
    model,
    ({ page, element, reader, weighed }) => {
      const matched = reader.matches(asked.selector, element.index);
      if (matched === NEVER || isHidden(matched, truths)) return;
      const known = meant.get(page.path);
      if (known === undefined) meant.set(page.path, new Set([element.index]));
      else known.add(element.index);
      elements++;
      ids = common(ids, idsAbove(page, element.index));
      const when = truths.and(matched, asked.medium);
      const [beat, keep]: [Rival[], Rival[]] = [[], []];
      for (const longhand of asked.longhands) {
        for (const one of undefeatedFor(weighed.get(asked.selector.pseudoElement), longhand, truths)) {
          const { condition } = one;
          if (isHidden(condition, truths) || !meet(condition, when, truths)) continue;
          const isMeant = asked.everywhere || !isApart(condition, when, asked.medium, truths);
          (isMeant ? beat : keep).push({ one, behind: isBehind(one, reader, asked.sheetOf(page)) });
          // What stands below one that holds wherever the override is to hold is beaten with it.
          if (isMeant && implies(when, condition, truths)) break;
        }
      }
      const key = `${beat.map(rivalKey).join('|')} under ${keep.map(rivalKey).join('|')}`;
      const same = situations.get(key);
      if (same === undefined) situations.set(key, { elements: 1, beat, keep });
      else same.elements++;
    },
    (page) => asked.isOn(page) && mayStandOn(page, model.sheetOrderOf(page), asked.selector),
  );
  return { meant, elements, situations: [...situations.values()], ids: ids ?? [] };
}

export function rivalKey({ one: { writtenIn, entry, longhand, condition }, behind }: Rival): string {
  const said = `${longhand} ${condition} ${behind}`;
  if (writtenIn.kind !== 'rule') return `${writtenIn.kind} ${entry.declaration.property} ${said}`;
  const { path, offset } = writtenIn.use.source;
  return `${path} ${offset + entry.declaration.range.start} ${writtenIn.rule.selector.text} ${said}`;
}

function isBehind(
  { writtenIn, weight }: Weighed,
  { sheetOrder }: StyleReader,
  sheet: string | undefined,
): boolean {
  if (writtenIn.kind !== 'rule' || sheet === undefined || writtenIn.use.source.path === sheet) return false;
  const own = sheetOrder.uses.findLastIndex(({ source }) => source.path === sheet);
  return own >= 0 && weight.at > own;
}

function common(known: readonly string[] | undefined, own: readonly string[]): string[] {
  return known === undefined ? [...own] : known.filter((id) => own.includes(id));
}

function idsAbove({ elements }: Page, index: number): string[] {
  const found: string[] = [];
  for (let at = elements[index]!.parent; at >= 0; at = elements[at]!.parent) {
    const { id } = elements[at]!;
    if (id !== undefined && /^[a-z][\w-]*$/i.test(id)) found.push(id);
  }
  return found;
}
