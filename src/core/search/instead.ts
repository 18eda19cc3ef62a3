// Why a class had to be made: what the simplest selectors that exist would have changed besides.

import { comparePaths } from '../base/source.js';
import type { ClassRule } from './by-classes.js';
import { sectionOfSelector, specificityOf } from './by-selectors.js';
import type { Census, ElementGroup } from './census.js';
import { existingSelectorOf, existingSelectorsOf, partsOf } from './existing-selectors.js';
import type { RuleOrder } from './home.js';
import { elementCount, freeMovable, looksTheSame, reachOf, rulesFor } from './reach.js';
import type { Trials } from './trial.js';

/** Of so many groups it is found out whether they would differ: enough to tell why not. */
const MOST_ASKED = 300;

/** One line, such as "td would also reach 14 elements that differ, such as on fares.html"; `undefined` where no existing selector fits all. */
export function whyNoSelector(
  census: Census,
  { movables, members }: ClassRule,
  trials: Trials,
  order: RuleOrder,
): string | undefined {
  const [first] = members;
  if (first === undefined) return undefined;
  const common = existingSelectorsOf(first)
    .filter((text) => !text.includes('>'))
    .sort((a, b) => partsOf(a) - partsOf(b))
    .slice(0, 8);
  for (const text of common) {
    const existingSelector = existingSelectorOf(text);
    if (existingSelector === undefined) continue;
    const reached = reachOf(existingSelector, census);
    const groups = new Set(reached.map(({ group }) => group));
    if (!members.every((group) => groups.has(group))) continue;
    const specificity = specificityOf(existingSelector, 'plain')!;
    const rules = rulesFor(movables, specificity, order.peek(sectionOfSelector(existingSelector)), trials);
    const harmed = reached
      .slice(0, MOST_ASKED)
      .map(({ group }) => group)
      .filter((group) => !members.includes(group) && !looksTheSame(group, [], rules));
    if (harmed.length > 0)
      return `${text} would also reach ${reachText(harmed, reached.length > MOST_ASKED)}`;
    const tooWeak = movables.some((movable) =>
      members.some((group) => freeMovable(group, movable.key) !== undefined),
    );
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

/** To its first digit: how many there were among those that were asked does not mention the rest. */
function roundDown(count: number): number {
  const movable = 10 ** Math.floor(Math.log10(count));
  return Math.floor(count / movable) * movable;
}
