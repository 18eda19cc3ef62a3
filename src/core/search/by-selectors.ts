// The third home: selectors made of what the markup has already. The existing selector that replaces most is taken first, then the
// rest is looked at again.

import { insertSorted } from '../base/sorted.js';
import { ONE_CLASS } from '../cascade/index.js';
import type { MovableDeclaration } from '../stock/index.js';
import type { Trace } from '../stock/trace.js';
import type { Census, ElementGroup } from './census.js';
import {
  type ExistingSelector,
  existingSelectorOf,
  existingSelectorsOf,
  saysNothing,
} from './existing-selectors.js';
import type { RuleOrder } from './home.js';
import {
  elementCount,
  isFree,
  type Reached,
  type Refusal,
  reachOf,
  rulesFor,
  type Say,
  type Strength,
  settle,
  tryRule,
} from './reach.js';
import { areRivals } from './rivals.js';
import type { Trials } from './trial.js';

/** A rule on a selector that exists. */
export interface SelectorRule {
  readonly selector: string;
  readonly strength: Strength;
  readonly says: readonly Say[];
  readonly part: 'elements' | 'components' | 'overrides' | 'positions';
  readonly order: number;
}

/** Beyond so many existing selectors, those that could replace least are not tried. */
const MOST_HOOKS = 1500;

interface Candidate {
  readonly existingSelector: ExistingSelector;
  /** How many elements that it reaches declare each movable declaration. */
  readonly keys: readonly string[];
  /** Declarations it would replace: at most, then exactly. */
  gain: number;
  says: readonly Say[] | undefined;
}

export interface SelectorOptions {
  readonly atLeast: number;
  readonly trials: Trials;
  readonly order: RuleOrder;
  readonly isRefused: (selector: string, key: string) => boolean;
  /** Whether a script of the site may put elements in or move them where these stand. */
  readonly isMoved: (group: ElementGroup) => boolean;
  /** Only these are looked at. */
  readonly keys?: ReadonlySet<string> | undefined;
  readonly trace?: Trace | undefined;
}

export function takeSelectors(census: Census, options: SelectorOptions): SelectorRule[] {
  const taken: SelectorRule[] = [];
  const queue = candidatesOf(census, options);
  const reach = new Map<ExistingSelector, readonly Reached[]>();
  for (let best = queue[0]; best !== undefined; best = queue[0]) {
    // Every rule that is written takes something from those behind it: the first is weighed again before it is taken.
    const reached = reach.get(best.existingSelector) ?? reachOf(best.existingSelector, census);
    reach.set(best.existingSelector, reached);
    const says = saysOf(best, reached, options);
    queue.shift();
    const gain = gainOf(says, options.atLeast) - vagueness(best.existingSelector) - leavings(says);
    if (gain <= 0 || isChance(best.existingSelector, says, reached, options.atLeast)) continue;
    const again: Candidate = { ...best, gain, says };
    if (queue[0] !== undefined && byGain(again, queue[0]) > 0) {
      insertSorted(queue, again, byGain);
      continue;
    }
    taken.push(...writeSelector(again, reached, options));
    insertSorted(queue, { ...again, gain: gain - 1 }, byGain);
  }
  return taken;
}

function candidatesOf(census: Census, { atLeast, keys }: SelectorOptions): Candidate[] {
  const found = new Map<string, Map<string, { count: number; size: number }>>();
  for (const group of census.groups) {
    const free = [...group.left].filter((movable) => isFree(movable) && (keys?.has(movable.key) ?? true));
    if (free.length === 0) continue;
    for (const text of existingSelectorsOf(group)) {
      const counts = found.get(text) ?? new Map<string, { count: number; size: number }>();
      found.set(text, counts);
      for (const movable of free) {
        const known = counts.get(movable.key);
        if (known === undefined) counts.set(movable.key, { count: group.count, size: sizeOf(movable) });
        else known.count += group.count;
      }
    }
  }
  const candidates: Candidate[] = [];
  for (const [text, counts] of found) {
    const enough = [...counts].filter(([, { count }]) => count >= atLeast);
    const existingSelector = enough.length === 0 ? undefined : existingSelectorOf(text);
    if (existingSelector === undefined) continue;
    const gain = enough.reduce((all, [, { count, size }]) => all + count * size, 0);
    candidates.push({ existingSelector, keys: enough.map(([key]) => key).sort(), gain, says: undefined });
  }
  return candidates.sort(byGain).slice(0, MOST_HOOKS);
}

function byGain(a: Candidate, b: Candidate): number {
  return (
    b.gain - a.gain ||
    a.existingSelector.parts - b.existingSelector.parts ||
    (a.existingSelector.text < b.existingSelector.text ? -1 : a === b ? 0 : 1)
  );
}

function saysOf(
  { existingSelector, keys }: Candidate,
  reached: readonly Reached[],
  options: SelectorOptions,
): Say[] {
  const order = options.order.peek(sectionOfSelector(existingSelector));
  const says: Say[] = [];
  for (const key of keys) {
    if (options.isRefused(existingSelector.text, key)) continue;
    const saying = {
      reached,
      specificity: (strength: Strength) => specificityOf(existingSelector, strength),
      order,
      trials: options.trials,
    };
    const say = tryRule(key, saying, options.atLeast);
    if (options.trace?.knows(key)) options.trace.say('search', triedText(existingSelector.text, say));
    if (say !== undefined && 'members' in say) says.push(say);
  }
  return withoutRivals(says);
}

function triedText(selector: string, say: Say | Refusal | undefined): string {
  if (say === undefined) return `tried ${selector}: too few of what it reaches say it`;
  if ('members' in say)
    return `tried ${selector} (${say.strength}): it would do for ${elementCount(say.members)} elements`;
  const { element, page } = say.group;
  return `tried ${selector}: <${element.name}> on ${page.path} would look different`;
}

/** Of says that one rule cannot hold together, those that replace most. */
function withoutRivals(says: readonly Say[]): Say[] {
  const kept: Say[] = [];
  const inOrder = [...says].sort(
    (a, b) => gainOf([b], 2) - gainOf([a], 2) || (a.movable.key < b.movable.key ? -1 : 1),
  );
  for (const say of inOrder) if (!kept.some(({ movable }) => areRivals(movable, say.movable))) kept.push(say);
  return kept;
}

/** What saying a class again costs beside a scope that would do as well. */
const SAID_AGAIN = 0.6;

/** What a selector costs that declares little of what the elements are. */
function vagueness({ selector, text }: ExistingSelector): number {
  const parent = selector.combinators.at(-1) === '>' ? selector.compounds.at(-2)! : undefined;
  const plain = parent !== undefined && parent.classes.length === 0 && parent.id === undefined;
  return (plain ? 0.6 : 0) + (isBare(text) ? 0.6 : 0);
}

/** `td`, wherever it stands. */
function isBare(text: string): boolean {
  return /^[a-z][a-z0-9]*$/.test(text);
}

/** At most so much, for a rule on many things leaves something of most of them. */
const MOST_LEFT = 1.5;

/** What elements still declare needs a selector of its own: half a place for every different rest. */
function leavings(says: readonly Say[]): number {
  const keys = new Set(says.map(({ movable }) => movable.key));
  const rests = new Set<string>();
  for (const { members } of says)
    for (const { left } of members) {
      const rest = [...left]
        .filter((movable) => isFree(movable) && !keys.has(movable.key))
        .map(({ key }) => key);
      if (rest.length > 0) rests.add(rest.sort().join('\n'));
    }
  return Math.min(rests.size / 2, MOST_LEFT);
}

/** Elements that do not mention what is in them. */
const GENERIC = new Set(['div', 'span', 'section', 'article', 'font', 'center']);

export function isGeneric(name: string): boolean {
  return GENERIC.has(name);
}

/** A rule on every element of a name is about what they all are, or it is chance. */
function isChance(
  { text }: ExistingSelector,
  says: readonly Say[],
  reached: readonly Reached[],
  atLeast: number,
): boolean {
  if (saysNothing(text)) return atLeast > 1 || isBare(text);
  if (!isBare(text)) return false;
  if (isGeneric(text)) return true;
  const most = Math.max(0, ...says.map(({ members }) => elementCount(members)));
  return most < MOSTLY * elementCount(reached.map(({ group }) => group));
}

const MOSTLY = 0.6;

/** Of a style that is to leave the markup at any price, the first is a gain too. */
function gainOf(says: readonly Say[], atLeast: number): number {
  const kept = atLeast === 1 ? 0 : 1;
  const saved = says.reduce(
    (all, { movable, members }) => all + (elementCount(members) - kept) * sizeOf(movable),
    0,
  );
  return (
    saved - (says.some(({ strength }) => strength === 'twice' || strength === 'thrice') ? SAID_AGAIN : 0)
  );
}

export function sizeOf({ declarations, cells }: MovableDeclaration): number {
  return declarations.length + (cells?.length ?? 0);
}

/** Rules on the element's name, wherever it stands, come before those on classes. */
export function sectionOfSelector({ selector }: ExistingSelector): 'elements' | 'components' {
  return selector.compounds.at(-1)!.classes.length === 0 ? 'elements' : 'components';
}

/** What `hookText` weighs; `undefined` where the strength cannot be written. */
export function specificityOf({ selector }: ExistingSelector, strength: Strength): number | undefined {
  const hasClass = (selector.compounds.at(-1)?.classes.length ?? 0) > 0;
  switch (strength) {
    case 'plain':
      return selector.specificity;
    case 'weak':
      return 0;
    case 'twice':
      return hasClass ? selector.specificity + ONE_CLASS : undefined;
    case 'thrice':
      return hasClass ? selector.specificity + 2 * ONE_CLASS : undefined;
  }
}

/** One rule for every strength that the movable declarations ask for. */
export function writeSelector(
  { existingSelector, says }: Candidate,
  reached: readonly Reached[],
  options: SelectorOptions,
): SelectorRule[] {
  const rules: SelectorRule[] = [];
  for (const strength of new Set((says ?? []).map((say) => say.strength))) {
    const own = says!.filter((say) => say.strength === strength);
    const part =
      strength === 'twice' || strength === 'thrice' ? 'overrides' : sectionOfSelector(existingSelector);
    const order = options.order.next(part);
    const specificity = specificityOf(existingSelector, strength)!;
    const members = new Set(own.flatMap((say) => say.members));
    for (const { group, unsure } of reached) {
      if (unsure) continue;
      const taken = members.has(group)
        ? own.flatMap((say) => (say.members.includes(group) ? movableLike(group, say.movable) : []))
        : [];
      const rulesHere = rulesFor(
        own.map(({ movable }) => movable),
        specificity,
        order,
        options.trials,
      );
      settle(group, taken, rulesHere);
    }
    rules.push({ selector: selectorText(existingSelector.text, strength), strength, says: own, part, order });
  }
  return rules;
}

function movableLike({ left }: ElementGroup, { key }: MovableDeclaration): MovableDeclaration[] {
  return [...left].filter((movable) => movable.key === key && movable.objection === undefined).slice(0, 1);
}

/** A existing selector as it is written at a strength. */
export function selectorText(text: string, strength: Strength): string {
  if (strength === 'plain') return text;
  if (strength === 'weak') return `:where(${text})`;
  const last = /\.-?[a-zA-Z_][\w-]*(?=(:[^ ]*)?$)/.exec(text);
  if (last === null) return text;
  const again = last[0].repeat(strength === 'twice' ? 1 : 2);
  return `${text.slice(0, last.index)}${again}${text.slice(last.index)}`;
}
