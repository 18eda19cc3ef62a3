// Rules that are stronger than their work asks: without ids, `!important` and names of elements beside a class, where
// everything looks the same.

import { compileSelectorList, specificityParts, type Truth } from '../../cascade/index.js';
import type { Declaration } from '../../read/sheets/index.js';
import { type Census, type ElementGroup, holds } from '../census.js';
import type { Trial, Trials } from '../trial.js';
import {
  type Candidate,
  hitsOf,
  lostBy,
  type Replaced,
  type RulePlace,
  trialsOf,
} from './candidate-check.js';
import type { OwnRule } from './own-rules.js';
import { weakerSelectors } from './selectors.js';

/** A rule as weak as it may be. */
export interface Weakened {
  readonly own: OwnRule;
  readonly bases: readonly string[];
  readonly replaced: readonly Replaced[];
  readonly place: RulePlace;
  /** By group, the rules that reach it now. */
  readonly trials: ReadonlyMap<ElementGroup, readonly Trial[]>;
}

export function weakened(
  own: OwnRule,
  census: Census,
  trials: Trials,
  around: (conditions: readonly string[]) => Truth,
): Weakened | undefined {
  if (own.sheet === undefined || own.matched.size === 0 || !isStrong(own)) return undefined;
  const place: RulePlace = { sheet: own.sheet, kind: 'before', anchor: own, order: own.order - 0.5 };
  const weaker = own.bases.map(weakerSelectors);
  const most = Math.max(...weaker.map((texts) => texts.length));
  for (let at = 0; at <= most; at++) {
    const bases = weaker.map((texts, i) => texts[at] ?? own.bases[i]!);
    for (const important of [false, true]) {
      if (important && at === most) continue;
      const replaced = own.said.map(
        (said): Replaced => ({
          movable: {
            ...said.movable,
            key: `${said.movable.key}${important ? '' : ' weaker'}`,
            declarations: said.movable.declarations.map((one) =>
              important ? one : { ...one, important: false },
            ),
          },
          said: [said],
        }),
      );
      const candidate: Candidate = { ...own, bases, origin: 'own', said: new Map() };
      const hits = hitsOf(candidate, census, around);
      const movables = replaced.map(({ movable }) => movable);
      const reached = hits && trialsOf(hits, movables, place, trials);
      if (hits === undefined || reached === undefined || hits.size > 2 * own.matched.size) continue;
      const lost: Declaration[] = lostBy(own.said);
      const affected = new Set([...hits.keys(), ...own.matched]);
      if (
        ![...affected].every((group) =>
          holds(group, [], reached.get(group) ?? [], own.matched.has(group) ? lost : []),
        )
      )
        continue;
      return { own, bases, replaced, place, trials: reached };
    }
  }
  return undefined;
}

function isStrong({ bases, rule }: OwnRule): boolean {
  if (rule.declarations.some(({ important }) => important)) return true;
  return bases.some((text) => {
    const list = compileSelectorList(text);
    const [selector] = list.kind === 'list' ? list.selectors : [];
    const [ids, classes] = selector === undefined ? [0, 0] : specificityParts(selector.specificity);
    return (ids > 0 && (selector?.compounds.length ?? 0) > 1) || classes > 2;
  });
}
