// Rules in one go. In: the rules that a developer owns, in sheets and in style blocks. Out: rules that take the place of
// several: what they have in common is declared once, and each keeps its rest. The one that saves most is taken first, then the
// rest is looked at again.

import { groupBy } from '../../base/group-by.js';
import { insertSorted } from '../../base/sorted.js';
import type { SiteModel } from '../../cascade/index.js';
import { partsOf } from '../existing-selectors.js';
import { type Candidate, isOpen } from './candidate-check.js';
import { candidatesFor } from './candidates.js';
import { moveKey, type RuleMove, type RuleSearch } from './move.js';
import type { OwnRule } from './own-rules.js';
import { idOf, SearchState } from './search-state.js';

export type { Replaced, RulePlace } from './candidate-check.js';
export { moveKey, type RuleMove, type RuleSearch } from './move.js';
export { type BlockPlace, type OwnRule, ownRules, type Said } from './own-rules.js';
export { covers } from './selectors.js';

/** Beyond so many candidates, those that could save least are not tried. */
const MOST = 3000;
/** Where elements may have any class, most candidates could only be refused, and each takes long. */
const MOST_WHERE_OPEN = 60;

interface Ranked {
  readonly candidate: Candidate;
  readonly parts: number;
  gain: number;
}

/** What stands in several style blocks and has to stay there. */
export interface PastedRule {
  readonly own: OwnRule;
  /** In how many blocks. */
  readonly times: number;
  readonly declarations: number;
}

export function findRuleMoves(
  model: SiteModel,
  rules: readonly OwnRule[],
  search: RuleSearch,
): { readonly moves: readonly RuleMove[]; readonly pasted: readonly PastedRule[] } {
  const state = new SearchState(model, rules, search);
  const moves = [...beatenMoves(rules, search), ...(search.weaken ? state.weaken() : [])];
  let queue = candidatesFor(rules, search.atLeast)
    .map(
      (candidate): Ranked => ({ candidate, parts: costOfReading(candidate), gain: state.mostOf(candidate) }),
    )
    .filter(({ gain }) => gain > 0)
    .sort(byGain)
    .slice(0, search.census.groups.some(isOpen) ? MOST_WHERE_OPEN : MOST);
  for (let found = -1; found < moves.length && queue.length > 0; ) {
    found = moves.length;
    // What could not be before may be possible now that other rules are gone.
    queue = takeFrom(queue, state, search, moves)
      .map((one) => ({ ...one, gain: state.mostOf(one.candidate) }))
      .sort(byGain);
  }
  moves.push(...state.besideTheirRules());
  return { moves, pasted: pastedIn(rules, state, search.atLeast) };
}

function pastedIn(rules: readonly OwnRule[], state: SearchState, atLeast: number): PastedRule[] {
  const left = rules
    .filter(({ sheet }) => sheet === undefined)
    .flatMap(({ said }) => said.filter((one) => !state.isGone(one)));
  const alike = groupBy(left, ({ own, movable }) => `${own.context}|${own.bases.join()}|${movable.key}`);
  const byRule = new Map<OwnRule, { times: number; declarations: number }>();
  for (const said of alike.values()) {
    const times = said.reduce((all, { own }) => all + own.times, 0);
    if (times < Math.min(2, atLeast)) continue;
    const [first] = said;
    const known = byRule.get(first!.own) ?? { times: 0, declarations: 0 };
    byRule.set(first!.own, {
      times: Math.max(times, known.times),
      declarations: known.declarations + times * first!.movable.declarations.length,
    });
  }
  return [...byRule].map(([own, counts]) => ({ own, ...counts }));
}

/** Out: the candidates that were not possible. */
function takeFrom(queue: Ranked[], state: SearchState, search: RuleSearch, moves: RuleMove[]): Ranked[] {
  const impossible: Ranked[] = [];
  for (let best = queue.shift(); best !== undefined; best = queue.shift()) {
    if (state.mostOf(best.candidate) <= 0) continue;
    const weighed = state.weigh(best.candidate);
    if (weighed === undefined) {
      impossible.push(best);
      continue;
    }

    const again = { ...best, gain: weighed.move.gain };
    if (queue[0] !== undefined && byGain(again, queue[0]) > 0) {
      insertSorted(queue, again, byGain);
      continue;
    }
    if (!search.isWanted(weighed.move)) continue;
    state.take(weighed);
    moves.push(weighed.move);
    insertSorted(queue, { ...again, gain: again.gain - 0.01 }, byGain);
  }
  return impossible;
}

/** What a later rule of the same selector beats goes, and nothing takes its place. */
function beatenMoves(rules: readonly OwnRule[], { isWanted, refused }: RuleSearch): RuleMove[] {
  return rules.flatMap((own) => {
    if (own.beaten.length === 0) return [];
    const movable = {
      key: own.beaten.map(({ property, value }) => `${property}:${value}`).join('; '),
      declarations: [],
      holder: own.holder,
    };
    const move: RuleMove = {
      selectors: own.bases.map((base) => base + own.suffix),
      conditions: own.conditions,
      replaced: [{ movable, said: [{ own, movable: { ...movable, declarations: own.beaten } }] }],
      place: { sheet: own.sheet ?? '', kind: 'into', anchor: own, order: own.order },
      gain: own.times * own.beaten.length,
    };
    return refused.has(moveKey(move)) || !isWanted(move) ? [] : [move];
  });
}

/** What is there already is known to people: a selector that was found must be better. */
const FOUND = 3;

function costOfReading({ bases, origin }: Candidate): number {
  if (origin === 'scoped') return 2;
  return bases.reduce((all, base) => all + partsOf(base), 0) + (origin === 'found' ? FOUND : 0);
}

function byGain(a: Ranked, b: Ranked): number {
  return b.gain - a.gain || a.parts - b.parts || (idOf(a.candidate) < idOf(b.candidate) ? -1 : 1);
}
