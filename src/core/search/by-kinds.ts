// One rule for several kinds of element that all declare the same: `h1, h2, p { … }` in place of a class on each of them.

import { addTo, groupBy } from '../base/group-by.js';
import {
  isGeneric,
  type SelectorOptions,
  type SelectorRule,
  sectionOfSelector,
  specificityOf,
  writeSelector,
} from './by-selectors.js';
import type { Census, ElementGroup } from './census.js';
import { type ExistingSelector, existingSelectorOf, isPassing } from './existing-selectors.js';
import { elementCount, isFree, type Reached, reachOf, type Say, tryRule } from './reach.js';

/** Fewer kinds have a selector each, or a class. */
const FEWEST = 3;
/** What a new name costs a person beside its places: a list may be dearer by so much. */
const NAME = 1.5;

/** In: what existing selectors have left. Out: rules that declare the same on the names of elements, all of whose elements declare it. */
export function takeKinds(census: Census, options: SelectorOptions): SelectorRule[] {
  const taken: SelectorRule[] = [];
  for (const { names, keys } of kindsOf(census)) {
    const found = ruleFor(names, keys, census, options);
    if (found === undefined) continue;
    for (const { existingSelector, says, reached } of found)
      taken.push(...writeSelector({ existingSelector, keys, gain: 0, says }, reached, options));
  }
  return taken;
}

interface Kinds {
  readonly names: readonly string[];
  readonly keys: readonly string[];
}

/** Names of elements all of which say some movable declarations; those that say most first. */
function kindsOf({ groups, byName }: Census): Kinds[] {
  const byKey = new Map<string, ElementGroup[]>();
  for (const group of groups)
    for (const key of new Set([...group.left].filter(isFree).map((movable) => movable.key)))
      addTo(byKey, key, group);
  const found: { names: string[]; key: string }[] = [];
  for (const [key, own] of byKey) {
    const names: string[] = [];
    let count = 0;
    for (const [name, alike] of groupBy(own, ({ element }) => element.name)) {
      if (isGeneric(name) || !/^[a-z][a-z0-9]*$/.test(name) || alike.some(isPassing)) continue;
      if (elementCount(byName.get(name) ?? []) !== elementCount(alike)) continue;
      names.push(name);
      count += elementCount(alike);
    }
    // All of it, or a class is needed all the same.
    if (names.length < FEWEST || count !== elementCount(own)) continue;
    if (names.length / 2 <= 0.5 + count / 4 + NAME) found.push({ names: names.sort(), key });
  }
  return [...groupBy(found, ({ names }) => names.join()).values()]
    .map((same) => ({ names: same[0]!.names, keys: same.map(({ key }) => key).sort() }))
    .sort((a, b) => b.keys.length - a.keys.length || (a.names.join() < b.names.join() ? -1 : 1));
}

interface Found {
  readonly existingSelector: ExistingSelector;
  readonly says: readonly Say[];
  readonly reached: readonly Reached[];
}

function ruleFor(
  names: readonly string[],
  keys: readonly string[],
  census: Census,
  options: SelectorOptions,
): Found[] | undefined {
  const found: Found[] = [];
  for (const name of names) {
    const existingSelector = existingSelectorOf(name);
    if (existingSelector === undefined || keys.some((key) => options.isRefused(name, key))) return undefined;
    const reached = reachOf(existingSelector, census);
    const says: Say[] = [];
    for (const key of keys) {
      const order = options.order.peek(sectionOfSelector(existingSelector));
      const specificity = (strength: Say['strength']) => specificityOf(existingSelector, strength);
      const say = tryRule(key, { reached, specificity, order, trials: options.trials }, 1);
      if (say === undefined || !('members' in say) || say.strength !== 'plain') return undefined;
      says.push(say);
    }
    found.push({ existingSelector, says, reached });
  }
  return found;
}
