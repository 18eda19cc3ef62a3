// The state of a search of rules: what is declared no longer, what is declared instead, and what one rule more would save.

import { getOrInsert } from '../../base/get-or-insert.js';
import { type Compound, compileSelectorList, type SiteModel, type Truth } from '../../cascade/index.js';
import type { ElementGroup } from '../census.js';
import { areRivals } from '../rivals.js';
import {
  type Candidate,
  gainOf,
  type Hit,
  hitsOf,
  lostBy,
  mayLeave,
  type Replaced,
  type RulePlace,
  replace,
  truthOf,
} from './candidate-check.js';
import { elementsIn } from './candidates.js';
import { exceptionsIn } from './exceptions.js';
import { moveKey, type RuleMove, type RuleSearch } from './move.js';
import { isLoadedBy, type OwnRule, type Said } from './own-rules.js';
import { covers } from './selectors.js';
import { weakened } from './weaken.js';

/** A rule that could be taken, and what it reaches. */
export interface Weighed {
  readonly candidate: Candidate;
  readonly move: RuleMove;
  readonly hits: ReadonlyMap<ElementGroup, readonly Hit[]>;
}

/** So many trials are made of elements that may have any class: on most of them a rule cannot be moved safely at all. */
const MOST_OPEN = 2000;

export class SearchState {
  readonly #gone = new Set<Said>();
  readonly #hits = new Map<Candidate, Map<ElementGroup, Hit[]> | undefined>();
  readonly #made = new Map<string, RulePlace>();
  readonly #truths = new Map<string, Truth>();
  /** By two sheets; see `#isBeside`. */
  readonly #beside = new Map<string, boolean>();
  #last = 0;
  #openTrials = 0;

  constructor(
    readonly model: SiteModel,
    readonly rules: readonly OwnRule[],
    readonly search: RuleSearch,
  ) {}

  readonly isGone = (said: Said): boolean => this.#gone.has(said);

  /** No rule can save more than this. */
  mostOf(candidate: Candidate): number {
    const replaced: Replaced[] = [];
    for (const [key, said] of candidate.said) {
      const left = said.filter((one) => !this.#gone.has(one));
      if (left.length > 0)
        replaced.push({ movable: candidate.movables?.get(key) ?? left[0]!.movable, said: left });
    }
    const into = { kind: 'into', sheet: '', anchor: undefined, order: 0 } as const;
    const most = this.#gainOf(replaced, candidate, into);
    return isJoin(candidate) ? most + replaced.length : most;
  }

  weigh(candidate: Candidate): Weighed | undefined {
    const hits = this.#hitsOf(candidate);
    if (hits === undefined) return undefined;
    const written = candidate.bases.map((base) => base + candidate.suffix);
    if (candidate.origin !== 'own' && written.some((selector) => this.search.isRefused(selector)))
      return undefined;
    let best: Weighed | undefined;
    for (const place of this.#placesFor(candidate, hits)) {
      // In a document that loads the sheet and was not read, a rule that is new there could match.
      if (
        place.kind === 'end' &&
        place.sheet === this.search.shared &&
        written.some(this.search.isSeenElsewhere)
      )
        continue;
      const replaced = this.#replacedAt(candidate, hits, place);
      if (replaced.length === 0 || (candidate.origin !== 'own' && !isMeant(replaced, hits))) continue;
      if (candidate.origin === 'found' && !speaksOfThem(candidate, replaced)) continue;
      if (!this.#isFoundBy(replaced, place)) continue;
      const gain = this.#gainOf(withoutSaid(replaced, place), candidate, place);
      if (gain <= (best?.move.gain ?? 0)) continue;
      const move: RuleMove = { selectors: written, conditions: candidate.conditions, replaced, place, gain };
      if (this.search.refused.has(moveKey(move))) continue;
      best = { candidate, move, hits };
    }
    return best;
  }

  take({ candidate, move, hits }: Weighed): void {
    const { trials } = this.search;
    for (const { movable, said } of move.replaced) {
      for (const one of said) {
        this.#gone.add(one);
        for (const group of one.own.matched)
          for (const declaration of lostBy([one])) group.gone.add(declaration);
      }
      if (isSaidThere(movable, move.place)) continue;
      for (const [group, own] of hits)
        for (const { truth, selector } of own) {
          const placed = {
            sheet: move.place.sheet,
            truth,
            pseudoElement: selector.pseudoElement,
          };
          group.trials.push(
            trials.rule(
              movable.key,
              movable.declarations,
              movable.holder,
              selector.specificity,
              move.place.order,
              placed,
            ),
          );
        }
    }
    if (move.place.kind !== 'into') this.#made.set(idOf(candidate), { ...move.place, kind: 'made' });
  }

  /** Rules as weak as they may be; nothing else may come to win or lose. */
  weaken(): RuleMove[] {
    const { census, trials, isWanted, refused } = this.search;
    return this.rules.flatMap((own) => {
      const weak = weakened(own, census, trials, (conditions) => this.#when(conditions));
      if (weak === undefined) return [];
      const { bases, replaced, place } = weak;
      const selectors = bases.map((base) => base + own.suffix);
      const move: RuleMove = { selectors, conditions: own.conditions, replaced, place, gain: 0 };
      if (refused.has(moveKey(move)) || !isWanted(move)) return [];
      for (const said of own.said) this.#gone.add(said);
      for (const group of own.matched) for (const one of lostBy(own.said)) group.gone.add(one);
      for (const [group, some] of weak.trials) group.trials.push(...some);
      return [move];
    });
  }

  /** Nothing is to be left in the pages. */
  get #everythingOut(): boolean {
    return this.search.atLeast === 1;
  }

  #gainOf(replaced: readonly Replaced[], candidate: Candidate, place: RulePlace): number {
    return gainOf(replaced, candidate, place, this.isGone, this.#everythingOut);
  }

  /** Exceptions by id that stand beside their rule; what they need not repeat goes. */
  besideTheirRules(): RuleMove[] {
    const { census, trials, isWanted, refused } = this.search;
    const when = (conditions: readonly string[]): Truth => this.#when(conditions);
    const found = exceptionsIn({ rules: this.rules, census, trials, isGone: this.isGone, when });
    return found.flatMap(({ own, bases, replaced, place, lost, trials: reached }) => {
      const written = bases.map((base) => base + own.suffix);
      const gain = replaced.length - own.said.length;
      const move: RuleMove = { selectors: written, conditions: own.conditions, replaced, place, gain };
      if (refused.has(moveKey(move)) || !isWanted(move)) return [];
      for (const said of lost) this.#gone.add(said);
      for (const said of lost)
        for (const group of said.own.matched) for (const one of lostBy([said])) group.gone.add(one);
      for (const [group, some] of reached) group.trials.push(...some);
      return [move];
    });
  }

  #replacedAt(
    candidate: Candidate,
    hits: ReadonlyMap<ElementGroup, readonly Hit[]>,
    place: RulePlace,
  ): Replaced[] {
    const replaced: Replaced[] = [];
    const weighing = {
      trials: this.search.trials,
      isGone: this.isGone,
      mayTryOpen: (trials: number) => {
        this.#openTrials += trials;
        return this.#openTrials <= MOST_OPEN;
      },
    };
    for (const [key, said] of candidate.said) {
      // What the rule says that it goes into stays, unless it says it in other words from now on.
      const others = said.filter(
        ({ own }) => candidate.movables !== undefined || own !== place.anchor || place.kind !== 'into',
      );
      const one = replace(key, others, candidate, hits, place, weighing);
      if (one === undefined) continue;
      const leaves = this.#everythingOut && one.said.some(({ own }) => own.sheet === undefined);
      const isGiven = isSaidThere(one.movable, place) || one.movable.declarations.length === 0;
      if (leaves || isGiven || isJoin(candidate) || timesOf(one) > 1) replaced.push(one);
    }
    return isJoin(candidate) ? replaced : withoutRivals(replaced);
  }

  #hitsOf(candidate: Candidate): Map<ElementGroup, Hit[]> | undefined {
    if (!this.#hits.has(candidate))
      this.#hits.set(
        candidate,
        hitsOf(candidate, this.search.census, (conditions) => this.#when(conditions)),
      );
    return this.#hits.get(candidate);
  }

  #when(conditions: readonly string[]): Truth {
    const key = conditions.join('\n');
    let truth = this.#truths.get(key);
    if (truth === undefined) {
      truth = truthOf(conditions, this.model.table.truths);
      this.#truths.set(key, truth);
    }
    return truth;
  }

  /** The likeliest first. */
  #placesFor(candidate: Candidate, hits: ReadonlyMap<ElementGroup, readonly Hit[]>): RulePlace[] {
    const made = this.#made.get(idOf(candidate));
    const left = [...candidate.said.values()]
      .flat()
      .filter((one) => !this.#gone.has(one) && mayLeave(one, candidate, hits));
    if (left.length === 0) return [];
    const inSheets = left.filter(({ own }) => own.sheet !== undefined).map(({ own }) => own);
    const pages = new Set(left.flatMap(({ own }) => own.places.map(({ page }) => page)));
    const step = ++this.#last * 1e-6;
    const places: RulePlace[] = made === undefined ? [] : [made];
    const sheet = inSheets.length > 0 ? inSheets[0]!.sheet! : this.#sheetOf([...pages]);
    const own = inSheets.filter((one) => one.sheet === sheet).sort((a, b) => a.order - b.order);
    for (const rule of this.rules) {
      if (
        rule.sheet !== sheet ||
        rule.context !== candidate.context ||
        !sameList(rule.bases, candidate.bases)
      )
        continue;
      if (rule.said.every((one) => this.#gone.has(one))) continue;
      places.push({ sheet, kind: 'into', anchor: rule, order: rule.order + 0.4 + step });
    }
    const [first, last] = [own[0], own.at(-1)];
    if (first !== undefined)
      places.push({ sheet, kind: 'before', anchor: first, order: first.order - 0.5 + step });
    if (last !== undefined && last !== first)
      places.push({ sheet, kind: 'behind', anchor: last, order: last.order + 0.5 + step });
    if (first === undefined) {
      const order = Math.min(...left.map(({ own: rule }) => rule.order));
      places.push({ sheet, kind: 'end', anchor: undefined, order: 1e6 + order + step });
    }
    return places;
  }

  /** Whether every page that gives rules away has the sheet that they go into. */
  #isFoundBy(replaced: readonly Replaced[], { sheet }: RulePlace): boolean {
    const { shared, mayLink } = this.search;
    const losing = replaced.flatMap(({ said }) => said.map(({ own }) => own));
    const pages = new Set(losing.flatMap(({ places }) => places.map(({ page }) => page)));
    const sheets = new Set(losing.flatMap((own) => own.sheet ?? []));
    return (
      [...sheets].every((one) => one === sheet || this.#isBeside(one, sheet)) &&
      [...pages].every((page) => (sheet === shared && mayLink(page)) || isLoadedBy(this.model, sheet, [page]))
    );
  }

  /** Whether all pages that load a sheet load another one, too. */
  #isBeside(one: string, other: string): boolean {
    return getOrInsert(this.#beside, `${one}\n${other}`, () => {
      const pages = this.search.census.pages.filter((page) =>
        this.model.sheetOrdersOf(page).some(({ uses }) => uses.some(({ source }) => source.path === one)),
      );
      return isLoadedBy(this.model, other, pages);
    });
  }

  /** The sheet that all of these pages load already, else the shared one. */
  #sheetOf(pages: readonly SiteModel['pages'][number][]): string {
    const { sheets, shared } = this.search;
    return sheets.find((sheet) => isLoadedBy(this.model, sheet, pages)) ?? shared;
  }
}

/** Whether the rule that a move goes into declares it already. */
function isSaidThere({ key }: Replaced['movable'], { kind, anchor }: RulePlace): boolean {
  return kind === 'into' && anchor!.said.some(({ movable }) => movable.key === key);
}

/** Whether all that is declared comes from rules of one selector. */
function isJoin({ said, bases }: Candidate): boolean {
  return [...said.values()].flat().every(({ own }) => own.sheet !== undefined && sameList(own.bases, bases));
}

/** Of what one rule cannot declare together, that which most declare. */
function withoutRivals(replaced: readonly Replaced[]): Replaced[] {
  const kept: Replaced[] = [];
  const inOrder = [...replaced].sort(
    (a, b) => timesOf(b) - timesOf(a) || (a.movable.key < b.movable.key ? -1 : 1),
  );
  for (const one of inOrder) if (!kept.some(({ movable }) => areRivals(movable, one.movable))) kept.push(one);
  return kept;
}

function timesOf({ said }: Replaced): number {
  return said.reduce((all, { own }) => all + own.times, 0);
}

/** By which a rule is known while it is searched. */
export function idOf({ bases, context }: Candidate): string {
  return `${context}|${bases.join()}`;
}

function sameList(a: readonly string[], b: readonly string[]): boolean {
  return a.length === b.length && a.every((one, at) => one === b[at]);
}

/** What the rule that it goes into declares already costs nothing. */
function withoutSaid(replaced: readonly Replaced[], { anchor, kind }: RulePlace): Replaced[] {
  if (kind !== 'into' || anchor === undefined) return [...replaced];
  return replaced.map(({ movable, said }) =>
    anchor.said.some((one) => one.movable.key === movable.key)
      ? { movable: { ...movable, declarations: [] }, said }
      : { movable, said },
  );
}

/** A selector that was found for elements says something of most that it reaches, and of none what another takes back. */
function isMeant(replaced: readonly Replaced[], hits: ReadonlyMap<ElementGroup, unknown>): boolean {
  const served = new Set(replaced.flatMap(({ said }) => said.flatMap(({ own }) => [...own.matched])));
  return elementsIn(served) * 2 >= elementsIn(hits.keys());
}

/**
 * What people wrote in a sheet they meant: a selector that was found takes the place of such rules by a class or an id, or where it
 * asks for less of what they ask. A class that they ask for is no element's name in some place.
 */
function speaksOfThem({ bases }: Candidate, replaced: readonly Replaced[]): boolean {
  const [subject] = bases.flatMap((base) => lastOf(base) ?? []);
  if (subject === undefined || subject.id !== undefined || subject.classes.length > 0) return true;
  return replaced.every(({ said }) =>
    said.every(({ own }) =>
      own.bases.every((narrow) => {
        const names = lastOf(narrow)?.classes.length ?? 0;
        const isKin = names === 0 && subject.rest.length === 0;
        return own.sheet === undefined || isKin || bases.some((wide) => covers(wide, narrow));
      }),
    ),
  );
}

function lastOf(selector: string): Compound | undefined {
  const list = compileSelectorList(selector);
  return list.kind === 'list' ? list.selectors[0]?.compounds.at(-1) : undefined;
}
