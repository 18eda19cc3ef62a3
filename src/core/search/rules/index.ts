// Rules in one go. In: the rules that a developer owns, in sheets and in style blocks. Out: rules that take the place of
// several: what they have in common is said once, and each keeps its rest. The one that saves most is taken first, then the
// rest is looked at again.

import { ALWAYS, conditionTruth, type SiteModel, type Truth } from '../../cascade/index.js';
import { groupBy } from '../../group-by.js';
import type { KeptReason } from '../../stock/index.js';
import type { Census, ElementGroup } from '../census.js';
import { partsOf } from '../hooks.js';
import { areRivals } from '../rivals.js';
import type { Trials } from '../trial.js';
import { candidatesFor, elementsIn } from './candidates.js';
import { type OwnRule, ownRules, type Said } from './own-rules.js';
import {
  type Candidate,
  gainOf,
  type Hit,
  hitsOf,
  lostBy,
  type Replaced,
  type RulePlace,
  replace,
} from './weigh.js';

export { type BlockPlace, type OwnRule, ownRules, type Said } from './own-rules.js';
export type { Replaced, RulePlace } from './weigh.js';

/** One rule in place of what several say. */
export interface RuleMove {
  /** As they are written. */
  readonly selectors: readonly string[];
  /** `@media …` around it, the outermost first. */
  readonly conditions: readonly string[];
  readonly replaced: readonly Replaced[];
  readonly place: RulePlace;
  /** Less to keep up. */
  readonly gain: number;
}

export interface RuleSearch {
  readonly census: Census;
  readonly trials: Trials;
  /** Sheets that may be edited, that of the site first. */
  readonly sheets: readonly string[];
  /** Where rules go that no sheet of all their pages can take. */
  readonly shared: string;
  readonly atLeast: number;
  /** Whether a selector that was found for elements must not be used. */
  readonly isRefused: (selector: string) => boolean;
  /** Moves that are not to be proposed again, by `moveKey`. */
  readonly refused: ReadonlyMap<string, KeptReason>;
  /** Whether a person would have it. */
  readonly isWanted: (move: RuleMove) => boolean;
}

/** Beyond so many candidates, those that could save least are not tried. */
const MOST = 3000;

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
  search: RuleSearch,
): { readonly moves: readonly RuleMove[]; readonly pasted: readonly PastedRule[] } {
  const rules = ownRules(model, search.census, search.sheets);
  const book = new Book(model, rules, search);
  const moves = beatenMoves(rules, search);
  let queue = candidatesFor(rules, search.atLeast)
    .map(
      (candidate): Ranked => ({ candidate, parts: costOfReading(candidate), gain: book.mostOf(candidate) }),
    )
    .filter(({ gain }) => gain > 0)
    .sort(byGain)
    .slice(0, MOST);
  for (let found = -1; found < moves.length && queue.length > 0; ) {
    found = moves.length;
    // What could not be before may be possible now that other rules are gone.
    queue = takeFrom(queue, book, search, moves)
      .map((one) => ({ ...one, gain: book.mostOf(one.candidate) }))
      .sort(byGain);
  }
  return { moves, pasted: pastedIn(rules, book) };
}

function pastedIn(rules: readonly OwnRule[], book: Book): PastedRule[] {
  const left = rules
    .filter(({ sheet }) => sheet === undefined)
    .flatMap(({ said }) => said.filter((one) => !book.isGone(one)));
  const alike = groupBy(left, ({ own, unit }) => `${own.context}|${own.bases.join()}|${unit.key}`);
  const byRule = new Map<OwnRule, { times: number; declarations: number }>();
  for (const said of alike.values()) {
    const times = said.reduce((all, { own }) => all + own.times, 0);
    if (times < 2) continue;
    const [first] = said;
    const known = byRule.get(first!.own) ?? { times: 0, declarations: 0 };
    byRule.set(first!.own, {
      times: Math.max(times, known.times),
      declarations: known.declarations + times * first!.unit.declarations.length,
    });
  }
  return [...byRule].map(([own, counts]) => ({ own, ...counts }));
}

/** Out: the candidates that were not possible. */
function takeFrom(queue: Ranked[], book: Book, search: RuleSearch, moves: RuleMove[]): Ranked[] {
  const impossible: Ranked[] = [];
  for (let best = queue.shift(); best !== undefined; best = queue.shift()) {
    if (book.mostOf(best.candidate) <= 0) continue;
    const weighed = book.weigh(best.candidate);
    if (weighed === undefined) {
      impossible.push(best);
      continue;
    }

    const again = { ...best, gain: weighed.move.gain };
    if (queue[0] !== undefined && byGain(again, queue[0]) > 0) {
      insert(queue, again);
      continue;
    }
    if (!search.isWanted(weighed.move)) continue;
    book.take(weighed);
    moves.push(weighed.move);
    insert(queue, { ...again, gain: again.gain - 0.01 });
  }
  return impossible;
}

/** What a later rule of the same selector beats goes, and nothing takes its place. */
function beatenMoves(rules: readonly OwnRule[], { isWanted, refused }: RuleSearch): RuleMove[] {
  return rules.flatMap((own) => {
    if (own.beaten.length === 0) return [];
    const unit = {
      key: own.beaten.map(({ property, value }) => `${property}:${value}`).join('; '),
      declarations: [],
      holder: own.holder,
    };
    const move: RuleMove = {
      selectors: own.bases.map((base) => base + own.suffix),
      conditions: own.conditions,
      replaced: [{ unit, said: [{ own, unit: { ...unit, declarations: own.beaten } }] }],
      place: { sheet: own.sheet ?? '', kind: 'into', anchor: own, order: own.order },
      gain: own.times * own.beaten.length,
    };
    return refused.has(moveKey(move)) || !isWanted(move) ? [] : [move];
  });
}

/** By which a move is known from one search to the next. */
export function moveKey({ selectors, conditions, replaced }: RuleMove): string {
  return `${conditions.join(' ')} ${selectors.join(', ')} {${replaced.map(({ unit }) => unit.key).join('; ')}}`;
}

interface Weighed {
  readonly candidate: Candidate;
  readonly move: RuleMove;
  readonly hits: ReadonlyMap<ElementGroup, readonly Hit[]>;
}

/** The state of the search: what is said no longer, and what is said instead. */
class Book {
  readonly #gone = new Set<Said>();
  readonly #hits = new Map<Candidate, Map<ElementGroup, Hit[]> | undefined>();
  readonly #made = new Map<string, RulePlace>();
  readonly #truths = new Map<string, Truth>();
  #last = 0;

  constructor(
    readonly model: SiteModel,
    readonly rules: readonly OwnRule[],
    readonly search: RuleSearch,
  ) {}

  readonly isGone = (said: Said): boolean => this.#gone.has(said);

  /** No rule can save more than this. */
  mostOf(candidate: Candidate): number {
    const replaced: Replaced[] = [];
    for (const said of candidate.said.values()) {
      const left = said.filter((one) => !this.#gone.has(one));
      if (left.length > 0) replaced.push({ unit: left[0]!.unit, said: left });
    }
    const into = { kind: 'into', sheet: '', anchor: undefined, order: 0 } as const;
    const most = gainOf(replaced, candidate, into, this.isGone);
    return isJoin(candidate) ? most + replaced.length : most;
  }

  weigh(candidate: Candidate): Weighed | undefined {
    const hits = this.#hitsOf(candidate);
    if (hits === undefined) return undefined;
    const written = candidate.bases.map((base) => base + candidate.suffix);
    if (candidate.found && written.some((selector) => this.search.isRefused(selector))) return undefined;
    let best: Weighed | undefined;
    for (const place of this.#placesFor(candidate)) {
      const replaced = this.#replacedAt(candidate, hits, place);
      if (replaced.length === 0 || (candidate.found && !isMeant(replaced, hits))) continue;
      const gain = gainOf(withoutSaid(replaced, place), candidate, place, this.isGone);
      if (gain <= (best?.move.gain ?? 0)) continue;
      const move: RuleMove = { selectors: written, conditions: candidate.conditions, replaced, place, gain };
      if (this.search.refused.has(moveKey(move))) continue;
      best = { candidate, move, hits };
    }
    return best;
  }

  take({ candidate, move, hits }: Weighed): void {
    const { trials } = this.search;
    for (const { unit, said } of move.replaced) {
      for (const one of said) {
        this.#gone.add(one);
        for (const group of one.own.matched)
          for (const declaration of lostBy([one])) group.gone.add(declaration);
      }
      for (const [group, own] of hits)
        for (const { truth, selector } of own) {
          const placed = { sheet: move.place.sheet, truth, pseudoElement: selector.pseudoElement };
          group.trials.push(
            trials.rule(
              unit.key,
              unit.declarations,
              unit.holder,
              selector.specificity,
              move.place.order,
              placed,
            ),
          );
        }
    }
    if (move.place.kind !== 'into') this.#made.set(idOf(candidate), { ...move.place, kind: 'made' });
  }

  #replacedAt(
    candidate: Candidate,
    hits: ReadonlyMap<ElementGroup, readonly Hit[]>,
    place: RulePlace,
  ): Replaced[] {
    const replaced: Replaced[] = [];
    const weighing = { model: this.model, trials: this.search.trials, isGone: this.isGone };
    for (const said of candidate.said.values()) {
      const others = said.filter(({ own }) => own !== place.anchor || place.kind !== 'into');
      const one = replace(others, candidate, hits, place, weighing);
      if (one !== undefined && (isJoin(candidate) || timesOf(one) > 1)) replaced.push(one);
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
    if (conditions.length === 0) return ALWAYS;
    const key = conditions.join('\n');
    let truth = this.#truths.get(key);
    if (truth === undefined) {
      const { truths } = this.model.table;
      const parts = conditions.map((text) => {
        const [, kind, rest] = /^@(\S+) ?([\s\S]*)$/.exec(text)!;
        return conditionTruth({ kind: kind as 'media', text: rest! }, truths);
      });
      truth = truths.and(...parts);
      this.#truths.set(key, truth);
    }
    return truth;
  }

  /** The likeliest first. */
  #placesFor(candidate: Candidate): RulePlace[] {
    const made = this.#made.get(idOf(candidate));
    const left = [...candidate.said.values()].flat().filter((one) => !this.#gone.has(one));
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

  /** The sheet that all of these pages load already, else the shared one. */
  #sheetOf(pages: readonly SiteModel['pages'][number][]): string {
    const { sheets, shared } = this.search;
    const isLoaded = (sheet: string): boolean =>
      pages.every((page) =>
        this.model
          .stacksOf(page)
          .every(({ uses }) =>
            uses.some(
              ({ source, condition }) => source.path === sheet && !source.isBlock && condition === ALWAYS,
            ),
          ),
      );
    return sheets.find(isLoaded) ?? shared;
  }
}

/** Whether all that is said comes from rules of one selector. */
function isJoin({ said, bases }: Candidate): boolean {
  return [...said.values()].flat().every(({ own }) => own.sheet !== undefined && sameList(own.bases, bases));
}

/** Of what one rule cannot say together, that which most say. */
function withoutRivals(replaced: readonly Replaced[]): Replaced[] {
  const kept: Replaced[] = [];
  const inOrder = [...replaced].sort((a, b) => timesOf(b) - timesOf(a) || (a.unit.key < b.unit.key ? -1 : 1));
  for (const one of inOrder) if (!kept.some(({ unit }) => areRivals(unit, one.unit))) kept.push(one);
  return kept;
}

function timesOf({ said }: Replaced): number {
  return said.reduce((all, { own }) => all + own.times, 0);
}

function idOf({ bases, context }: Candidate): string {
  return `${context}|${bases.join()}`;
}

function sameList(a: readonly string[], b: readonly string[]): boolean {
  return a.length === b.length && a.every((one, at) => one === b[at]);
}

/** What the rule that it goes into says already costs nothing. */
function withoutSaid(replaced: readonly Replaced[], { anchor, kind }: RulePlace): Replaced[] {
  if (kind !== 'into' || anchor === undefined) return [...replaced];
  return replaced.map(({ unit, said }) =>
    anchor.said.some((one) => one.unit.key === unit.key)
      ? { unit: { ...unit, declarations: [] }, said }
      : { unit, said },
  );
}

/** A selector that was found for elements says something of most that it reaches, and of none what another takes back. */
function isMeant(replaced: readonly Replaced[], hits: ReadonlyMap<ElementGroup, unknown>): boolean {
  const served = new Set(replaced.flatMap(({ said }) => said.flatMap(({ own }) => [...own.matched])));
  return elementsIn(served) * 2 >= elementsIn(hits.keys());
}

/** What is there already is known to people: a selector that was found must be better. */
const FOUND = 3;

function costOfReading({ bases, found }: Candidate): number {
  return bases.reduce((all, base) => all + partsOf(base), 0) + (found ? FOUND : 0);
}

function byGain(a: Ranked, b: Ranked): number {
  return b.gain - a.gain || a.parts - b.parts || (idOf(a.candidate) < idOf(b.candidate) ? -1 : 1);
}

function insert(queue: Ranked[], one: Ranked): void {
  let low = 0;
  let high = queue.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (byGain(queue[middle]!, one) < 0) low = middle + 1;
    else high = middle;
  }
  queue.splice(low, 0, one);
}
