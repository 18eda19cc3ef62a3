// Exceptions by id that are stronger than they need to be: beside the rule that they are an exception to, at its strength,
// they lose to its states and media as it does, and need not declare those again.

import { groupBy } from '../../base/group-by.js';
import type { Truth } from '../../cascade/index.js';
import { compileSelector } from '../../cascade/index.js';
import { type Census, type ElementGroup, holds } from '../census.js';
import type { Trial, Trials } from '../trial.js';
import { hitsOf, lostBy, type Replaced, type RulePlace, trialsOf } from './candidate-check.js';
import type { OwnRule, Said } from './own-rules.js';
import { compoundTexts } from './selectors.js';

/** An exception beside its rule, and what need not be repeated. */
export interface Exception {
  readonly own: OwnRule;
  readonly bases: readonly string[];
  readonly replaced: readonly Replaced[];
  readonly place: RulePlace;
  readonly lost: readonly Said[];
  /** By group, the rules that reach it now. */
  readonly trials: ReadonlyMap<ElementGroup, readonly Trial[]>;
}

interface Sides {
  readonly rules: readonly OwnRule[];
  readonly census: Census;
  readonly trials: Trials;
  readonly isGone: (said: Said) => boolean;
  readonly when: (conditions: readonly string[]) => Truth;
}

export function exceptionsIn({ rules, ...sides }: Sides): Exception[] {
  const left = rules.filter(({ sheet, said }) => sheet !== undefined && !said.some(sides.isGone));
  const byBase = groupBy(
    left.filter(({ bases }) => bases.length === 1 && /^#[\w-]+/.test(bases[0]!)),
    ({ sheet, bases }) => `${sheet}|${bases[0]}`,
  );
  return [...byBase.values()].flatMap((same) => {
    const own = same.find(({ context }) => context === '|');
    const repeats = same.filter((one) => one !== own);
    return own === undefined || own.matched.size === 0 || repeats.length === 0
      ? []
      : (exceptionOf(own, repeats, left, sides) ?? []);
  });
}

function exceptionOf(
  own: OwnRule,
  repeats: readonly OwnRule[],
  rules: readonly OwnRule[],
  sides: Omit<Sides, 'rules'>,
): Exception | undefined {
  for (const general of rules) {
    if (general.sheet !== own.sheet || general.context !== own.context || general.bases.length !== 1)
      continue;
    if (general.bases[0]!.includes('#') || ![...own.matched].every((group) => general.matched.has(group)))
      continue;
    const place: RulePlace = {
      sheet: own.sheet!,
      kind: 'behind',
      anchor: general,
      order: general.order + 0.5,
    };
    for (const base of besideIt(own.bases[0]!, general.bases[0]!)) {
      const hits = hitsOf(
        { ...own, bases: [base], origin: 'own', said: new Map() },
        sides.census,
        sides.when,
      );
      if (hits === undefined || !sameGroups(hits, own.matched)) continue;
      const movables = own.said.map(({ movable }) => movable);
      const trials = trialsOf(hits, movables, place, sides.trials);
      // All of what repeats it may go, or only some.
      const needless = [repeats, ...repeats.map((one) => [one])].find((some) =>
        looksTheSame([own, ...some], trials),
      );
      if (needless === undefined) continue;
      const lost = needless.flatMap(({ said }) => said);
      return {
        own,
        bases: [base],
        replaced: replacedBy(own, lost),
        place,
        lost: [...own.said, ...lost],
        trials,
      };
    }
  }
  return undefined;
}

function replacedBy({ said }: OwnRule, lost: readonly Said[]): Replaced[] {
  return [
    ...said.map((one): Replaced => ({ movable: one.movable, said: [one] })),
    ...lost.map((one): Replaced => ({ movable: { ...one.movable, declarations: [] }, said: [one] })),
  ];
}

/** `#lead h2` beside `.band h2` is `.band:where(#lead) h2`, or `:where(#lead) .band h2`. */
function besideIt(exception: string, general: string): string[] {
  const id = /^#[\w-]+/.exec(exception)![0];
  const selector = compileSelector(general);
  if (selector === undefined || general.includes(':')) return [];
  const texts = compoundTexts(selector);
  const inside = texts.map((_, at) =>
    texts
      .map((text, i) => {
        const between = selector.combinators[i] ?? '';
        const behind = i === texts.length - 1 ? '' : between === ' ' ? ' ' : ` ${between} `;
        return `${text}${i === at ? `:where(${id})` : ''}${behind}`;
      })
      .join(''),
  );
  return [...inside, `:where(${id}) ${general}`];
}

function sameGroups(hits: ReadonlyMap<ElementGroup, unknown>, groups: ReadonlySet<ElementGroup>): boolean {
  return hits.size === groups.size && [...groups].every((group) => hits.has(group));
}

function looksTheSame(
  rules: readonly OwnRule[],
  trials: ReadonlyMap<ElementGroup, readonly Trial[]>,
): boolean {
  const affected = new Set(rules.flatMap(({ matched }) => [...matched]));
  return [...affected].every((group) => {
    const own = rules.filter(({ matched }) => matched.has(group));
    return holds(group, [], trials.get(group) ?? [], lostBy(own.flatMap(({ said }) => said)));
  });
}
