// One rule in place of what several declare: whether everything looks the same with it, and what it saves.

import {
  ALWAYS,
  type ComplexSelector,
  conditionTruth,
  NEVER,
  type Truth,
  type TruthTable,
} from '../../cascade/index.js';
import type { Declaration } from '../../read/sheets/index.js';
import type { Movable } from '../../stock/index.js';
import { type Census, type ElementGroup, holds } from '../census.js';
import { existingSelectorOf } from '../existing-selectors.js';
import { reachOf } from '../reach.js';
import type { Trial, Trials } from '../trial.js';
import type { OwnRule, Said } from './own-rules.js';
import { covers, hasClassesOf } from './selectors.js';

/** Where a new rule, or a new declaration of an old one, is to stand. */
export interface RulePlace {
  readonly sheet: string;
  /** `made`: into a rule that the search has made there before. */
  readonly kind: 'into' | 'made' | 'before' | 'behind' | 'end';
  /** The rule that it goes into, before or behind. */
  readonly anchor: OwnRule | undefined;
  /** Among the rules of the sheet. */
  readonly order: number;
}

export interface Candidate {
  /** As they would be written, without states. */
  readonly bases: readonly string[];
  readonly suffix: string;
  readonly conditions: readonly string[];
  readonly context: string;
  /** Whether the selector stands on one of the rules already, does so under a section, or was found for the elements. */
  readonly origin: 'own' | 'scoped' | 'found';
  /** By key of the movable declaration: those who say it, and could leave it to the new rule. */
  readonly said: ReadonlyMap<string, readonly Said[]>;
  /** By key of the movable declaration: how the new rule says it, where that is not in the words of those who say it. */
  readonly movables?: ReadonlyMap<string, Movable>;
}

/** One movable declaration of a new rule, and whose it replaces. */
export interface Replaced {
  readonly movable: Movable;
  readonly said: readonly Said[];
}

export interface Hit {
  readonly truth: Truth;
  readonly selector: ComplexSelector;
}

/** What a candidate's selectors match; `undefined` where that is not the same under every sheet order of an element. */
export function hitsOf(
  { bases, suffix, conditions }: Candidate,
  census: Census,
  around: (conditions: readonly string[]) => Truth,
): Map<ElementGroup, Hit[]> | undefined {
  const hits = new Map<ElementGroup, Hit[]>();
  for (const base of bases) {
    const [whole, plain] = [existingSelectorOf(base + suffix), existingSelectorOf(base)];
    if (whole === undefined || plain === undefined) return undefined;
    for (const { group } of reachOf(plain, census)) {
      const truths = new Set(
        group.readers.map((reader) => reader.matches(whole.selector, group.element.index)),
      );
      const [truth] = truths;
      if (truths.size !== 1 || truth === undefined) return undefined;
      if (truth === NEVER) continue;
      const when =
        truth === ALWAYS ? around(conditions) : group.readers[0]!.table.truths.and(truth, around(conditions));
      const known = hits.get(group) ?? [];
      known.push({ truth: when, selector: whole.selector });
      hits.set(group, known);
    }
  }
  return hits;
}

/** When `@media …` and the like around a rule hold. */
export function truthOf(conditions: readonly string[], truths: TruthTable): Truth {
  if (conditions.length === 0) return ALWAYS;
  return truths.and(
    ...conditions.map((text) => {
      const [, kind, rest] = /^@(\S+) ?([\s\S]*)$/.exec(text)!;
      return conditionTruth({ kind: kind as 'media', text: rest! }, truths);
    }),
  );
}

/** By group, the rules on trial that one rule with these movable declarations would be, where it is to stand. */
export function trialsOf(
  hits: ReadonlyMap<ElementGroup, readonly Hit[]>,
  movables: readonly Movable[],
  { sheet, order }: Pick<RulePlace, 'sheet' | 'order'>,
  trials: Trials,
): Map<ElementGroup, Trial[]> {
  return new Map(
    [...hits].map(([group, own]) => [
      group,
      own.flatMap(({ truth, selector: { specificity, pseudoElement } }) =>
        movables.map(({ key, declarations, holder }) =>
          trials.rule(key, declarations, holder, specificity, order, { sheet, truth, pseudoElement }),
        ),
      ),
    ]),
  );
}

export interface CandidateCheck {
  readonly trials: Trials;
  readonly isGone: (said: Said) => boolean;
  /** Whether so many more trials may be made of elements that could be almost anything. */
  readonly mayTryOpen: (trials: number) => boolean;
}

/** What so many rules could match may have any class: each trial of it takes as long as hundreds of others. */
const OPEN = 200;

export function isOpen({ page, matchedSheets }: ElementGroup): boolean {
  // Asked of every element of a site: where no tag is open, the matches are not looked at.
  return page.hasTemplatedTags && matchedSheets.some(({ matched }) => matched().length > OPEN);
}

/** In: one movable declaration of a candidate, where the rule would stand. Out: whose place it can take; `undefined` where others would change. */
export function replace(
  key: string,
  said: readonly Said[],
  candidate: Candidate,
  hits: ReadonlyMap<ElementGroup, readonly Hit[]>,
  place: RulePlace,
  { trials, isGone, mayTryOpen }: CandidateCheck,
): Replaced | undefined {
  let takers = said.filter((one) => !isGone(one) && mayLeave(one, candidate, hits));
  const [first] = takers;
  if (first === undefined) return undefined;
  const movable = candidate.movables?.get(key) ?? first.movable;
  // What the rule that it goes into declares already is not repeated.
  const isThere =
    place.kind === 'into' &&
    place.anchor!.said.some((one) => one.movable.key === movable.key && !isGone(one));
  const trialsOn = (group: ElementGroup) =>
    (isThere ? [] : (hits.get(group) ?? [])).map(({ truth, selector }) =>
      trials.rule(movable.key, movable.declarations, movable.holder, selector.specificity, place.order, {
        sheet: place.sheet,
        truth,
        pseudoElement: selector.pseudoElement,
      }),
    );
  for (let round = 0; round < 5; round++) {
    if (takers.length === 0) return undefined;
    const affected = new Set([...hits.keys(), ...takers.flatMap(({ own }) => [...own.matched])]);
    const keep = new Set<Said>();
    // Asked first: where nothing may be tried any more, nothing else need be.
    const open = [...affected].filter(isOpen).length;
    if (open > 0 && !mayTryOpen(open)) return undefined;
    for (const group of affected) {
      const own = takers.filter((one) => one.own.matched.has(group));
      if (holds(group, [], trialsOn(group), lostBy(own))) continue;
      if (own.length === 0) return undefined;
      for (const one of own) keep.add(one);
    }
    if (keep.size === 0) return { movable, said: takers };
    takers = takers.filter((one) => !keep.has(one));
  }
  return undefined;
}

export function lostBy(said: readonly Said[]): Declaration[] {
  return said.flatMap(({ movable }) => [...movable.declarations]);
}

/** A rule leaves its place to one that matches all that it matches, and that says more of the elements than it does. */
export function mayLeave(
  { own }: Said,
  { bases, suffix, origin }: Candidate,
  hits: ReadonlyMap<ElementGroup, unknown>,
): boolean {
  const covered =
    suffix === own.suffix
      ? own.bases.every((narrow) => bases.some((wide) => covers(wide, narrow)))
      : own.bases.every((narrow) => bases.includes(narrow + own.suffix));
  // What nobody is seen to wear, scripts and contents give: without a class, a rule would mention others that they make.
  const isUnseen = own.matched.size === 0 && origin !== 'own';
  if (isUnseen && !own.bases.every((narrow) => bases.some((wide) => hasClassesOf(wide, narrow))))
    return false;
  if (own.matched.size === 0 || covered) return covered && [...own.matched].every((group) => hits.has(group));
  if (![...own.matched].every((group) => hits.has(group))) return false;
  // A style block speaks for its pages: under a scope that they have its selector declares the same.
  if (own.sheet === undefined && bases.some((wide) => own.bases.every((base) => wide.endsWith(` ${base}`))))
    return true;
  // Two names that the same elements wear today are not one name: the wider one takes in more than each of the others.
  return own.matched.size < hits.size;
}

/** Where nothing is to be left in the pages, what leaves a style block is a gain by itself. */
const OUT = 0.1;

/** What the hand would have less to keep up: declarations, and half of one for each selector. */
export function gainOf(
  replaced: readonly Replaced[],
  { bases }: Candidate,
  place: RulePlace,
  isGone: (said: Said) => boolean,
  everythingOut: boolean,
): number {
  let gain = place.kind === 'into' || place.kind === 'made' ? 0 : -bases.length / 2;
  const left = new Map<OwnRule, number>();
  for (const { movable, said } of replaced) {
    gain -= movable.declarations.length;
    for (const one of said) {
      gain += one.own.times * one.movable.declarations.length;
      if (everythingOut && one.own.sheet === undefined) gain += OUT;
      const rest = left.get(one.own) ?? one.own.said.filter((other) => !isGone(other)).length;
      left.set(one.own, rest - 1);
    }
  }
  for (const [own, rest] of left) if (rest === 0) gain += (own.times * own.bases.length) / 2;
  return gain;
}
