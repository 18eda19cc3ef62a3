// What rules declared for elements before an update, and something else declares after it: looked at moment by moment, on every
// element.

import {
  eachMoment,
  type SiteModel,
  type StyleReader,
  undefeatedFor,
  type Weighed,
} from '../../cascade/index.js';
import { isHidden } from '../../proof/index.js';
import type { Page } from '../../read/markup/index.js';
import type { StyleRule } from '../../read/sheets/index.js';
import { pairElements } from './pairs.js';

export interface Loss {
  readonly property: string;
  /** What stands there after the update. */
  readonly by: Weighed;
  /** Whether its sheet comes behind the rule's own. */
  readonly behind: boolean;
  readonly page: string;
  readonly element: number;
}

/** One element before and after. */
interface Pair {
  readonly first: StyleReader;
  readonly i: number;
  readonly second: StyleReader;
  readonly j: number;
}

/** In: rules of the earlier state, with the sheet each stands in. Out: what each loses to another rule's value. */
export function lossesOf(
  before: SiteModel,
  after: SiteModel,
  rules: ReadonlyMap<StyleRule, string>,
): Map<StyleRule, Loss[]> {
  const found = new Map<StyleRule, Loss[]>();
  /** Of elements that are styled alike before, and alike after. */
  const alike = new Map<string, readonly (readonly [StyleRule, Omit<Loss, 'page' | 'element'>])[]>();
  for (const page of before.pages) {
    const later = after.page(page.path);
    const [first] = before.readersOf(page);
    const [second] = later === undefined ? [] : after.readersOf(later);
    if (later === undefined || first === undefined || second === undefined) continue;
    for (const [i, j] of pairsOf(page, later)) {
      const key = `${first.outcomeNumber(i)} ${second.outcomeNumber(j)} ${first.matchKey(i)}`;
      let losses = alike.get(key);
      if (losses === undefined) {
        losses =
          first.outcomeNumber(i) === second.outcomeNumber(j)
            ? []
            : lossesOn({ first, i, second, j }, rules, before);
        alike.set(key, losses);
      }
      for (const [rule, loss] of losses)
        found.set(rule, [...(found.get(rule) ?? []), { ...loss, page: page.path, element: i }]);
    }
  }
  return found;
}

function pairsOf(page: Page, later: Page): Iterable<readonly [number, number]> {
  return page.text === later.text
    ? page.elements.map(({ index }) => [index, index] as const)
    : pairElements(page, later);
}

function lossesOn(
  { first, i, second, j }: Pair,
  rules: ReadonlyMap<StyleRule, string>,
  { table: { truths } }: SiteModel,
): (readonly [StyleRule, Omit<Loss, 'page' | 'element'>])[] {
  const found = new Map<string, readonly [StyleRule, Omit<Loss, 'page' | 'element'>]>();
  const [was, is] = [first.weighed(i), second.weighed(j)];
  for (const [target, lists] of was) {
    for (const longhand of lists.keys()) {
      const shown = (list: readonly Weighed[]): Weighed[] =>
        list.filter(({ condition }) => !isHidden(condition, truths));
      const before = shown(undefeatedFor(lists, longhand, truths));
      if (!before.some((one) => ownRule(one, rules) !== undefined)) continue;
      const now = shown(undefeatedFor(is.get(target), longhand, truths));
      const pairs = eachMoment(
        truths,
        [...before, ...now].map(({ condition }) => condition),
        (holds) => [
          before.find(({ condition }) => holds(condition)),
          now.find(({ condition }) => holds(condition)),
        ],
      );
      for (const [had, has] of pairs ?? []) {
        const rule = had && ownRule(had, rules);
        if (had === undefined || rule === undefined || has === undefined) continue;
        if (has.value === had.value && has.entry.longhand === had.entry.longhand) continue;
        const { property } = had.entry.declaration;
        const behind = isBehind(has, second, rules.get(rule)!);
        found.set(`${property} ${has.rank} ${rule.range.start}`, [rule, { property, by: has, behind }]);
      }
    }
  }
  return [...found.values()];
}

function ownRule({ writtenIn }: Weighed, rules: ReadonlyMap<StyleRule, string>): StyleRule | undefined {
  return writtenIn.kind === 'rule' && rules.has(writtenIn.rule.rule) ? writtenIn.rule.rule : undefined;
}

function isBehind({ weight }: Weighed, { sheetOrder }: StyleReader, sheet: string): boolean {
  return weight.at > sheetOrder.uses.findLastIndex(({ source }) => source.path === sheet);
}
