// Why a class had to be made: what the simplest selectors that exist would have changed besides.

import { comparePaths } from '../base/source.js';
import type { ClassRule } from './by-classes.js';
import { partOfHook, specificityOf } from './by-hooks.js';
import type { Census, ElementGroup } from './census.js';
import type { RuleOrder } from './home.js';
import { hookOf, hooksOf, partsOf } from './hooks.js';
import { elementCount, freeUnit, looksTheSame, reachOf, rulesFor } from './reach.js';
import type { Trials } from './trial.js';

/** Of so many groups it is found out whether they would differ: enough to tell why not. */
const MOST_ASKED = 300;

/** One line, such as "td would also reach 14 elements that differ, such as on fares.html"; `undefined` where no hook fits all. */
export function whyNoHook(
  census: Census,
  { units, members }: ClassRule,
  trials: Trials,
  order: RuleOrder,
): string | undefined {
  const [first] = members;
  if (first === undefined) return undefined;
  const common = hooksOf(first)
    .filter((text) => !text.includes('>'))
    .sort((a, b) => partsOf(a) - partsOf(b))
    .slice(0, 8);
  for (const text of common) {
    const hook = hookOf(text);
    if (hook === undefined) continue;
    const reached = reachOf(hook, census);
    const groups = new Set(reached.map(({ group }) => group));
    if (!members.every((group) => groups.has(group))) continue;
    const specificity = specificityOf(hook, 'plain')!;
    const rules = rulesFor(units, specificity, order.peek(partOfHook(hook)), trials);
    const harmed = reached
      .slice(0, MOST_ASKED)
      .map(({ group }) => group)
      .filter((group) => !members.includes(group) && !looksTheSame(group, [], rules));
    if (harmed.length > 0)
      return `${text} would also reach ${reachText(harmed, reached.length > MOST_ASKED)}`;
    const tooWeak = units.some((unit) => members.some((group) => freeUnit(group, unit.key) !== undefined));
    if (tooWeak) return `${text} is too weak`;
  }
  return undefined;
}

/** In: whether there are others that were not asked. */
function reachText(harmed: readonly ElementGroup[], isMore: boolean): string {
  const [first] = harmed.map(({ page }) => page.path).sort(comparePaths);
  const count = elementCount(harmed);
  if (count === 1 && !isMore) return `an element of ${first} that differs`;
  return `${isMore ? `more than ${roundDown(count)}` : count} elements that differ, such as on ${first}`;
}

/** To its first digit: how many there were among those that were asked says nothing of the rest. */
function roundDown(count: number): number {
  const unit = 10 ** Math.floor(Math.log10(count));
  return Math.floor(count / unit) * unit;
}
