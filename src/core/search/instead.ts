// Why a class had to be made: what the simplest selectors that exist would have changed besides.

import type { ClassRule } from './by-classes.js';
import { partOfHook, specificityOf } from './by-hooks.js';
import type { Census, Kind } from './census.js';
import type { RuleOrder } from './home.js';
import { hookOf, hooksOf, partsOf } from './hooks.js';
import { bears, freeUnit, reachOf, rulesFor, sum } from './reach.js';
import type { Trials } from './trial.js';

/** Of so many kinds it is found out whether they would differ: enough to tell why not. */
const MOST_ASKED = 300;

/** One line, such as "td would also reach 14 elements of fares.html that differ"; `undefined` where no hook fits all. */
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
    const hook = hookOf(text, partsOf(text));
    if (hook === undefined) continue;
    const reached = reachOf(hook, census);
    const kinds = new Set(reached.map(({ kind }) => kind));
    if (!members.every((kind) => kinds.has(kind))) continue;
    const specificity = specificityOf(hook, 'plain')!;
    const rules = rulesFor(units, specificity, order.peek(partOfHook(hook)), trials);
    const harmed = reached
      .slice(0, MOST_ASKED)
      .map(({ kind }) => kind)
      .filter((kind) => !members.includes(kind) && !bears(kind, [], rules));
    const more = reached.length > MOST_ASKED ? 'more than ' : '';
    if (harmed.length > 0) return `${text} would also reach ${more}${reachText(harmed)}`;
    const deaf = units.some((unit) => members.some((kind) => freeUnit(kind, unit.key) !== undefined));
    if (deaf) return `${text} is too weak`;
  }
  return undefined;
}

function reachText(harmed: readonly Kind[]): string {
  const pages = new Set(harmed.flatMap(({ onPages }) => [...onPages]));
  const [first] = [...pages].map(({ path }) => path).sort();
  const count = sum(harmed);
  const where =
    pages.size === 1 ? first : `${first} and ${pages.size - 1} other page${pages.size === 2 ? '' : 's'}`;
  return `${count} element${count === 1 ? '' : 's'} of ${where} that ${count === 1 ? 'differs' : 'differ'}`;
}
