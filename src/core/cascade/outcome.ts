// Outcome lists: for one element, or a pseudo-element of it, and one longhand, every declaration that could win,
// strongest first, each with its condition, down to the first unconditional one.

import { folderOf, holdsAddress } from '../addresses.js';
import { hintDeclarations } from '../hints/index.js';
import type { Page } from '../markup/index.js';
import { hasTemplateText } from '../markup/index.js';
import { interactionGroup, isTooDeep } from '../sheets/index.js';
import { blockWithout, fullLayer, ofElement, trialContribution } from './contributions.js';
import { type Direction, Directions, physicalName } from './direction.js';
import { type Sides, sidesOf, withoutInitial } from './initial.js';
import { Matcher, type MatcherOptions } from './matcher.js';
import { type Contribution, inCascadeOrder, UNLAYERED } from './order.js';
import type {
  Matched,
  MatchedSheets,
  Outcome,
  OutcomeList,
  Outcomes,
  OwnStyling,
  TakenOut,
  TrialRule,
} from './outcome-model.js';
import { hintForm, type OutcomeTable } from './outcome-table.js';
import type { ComplexSelector } from './selector-model.js';
import type { Stack } from './stack.js';
import { blockHasOwnWords, inStandardWords, mayAnimate, OWN_WORD, programHasOwnWords } from './telling.js';
import { holdsTextOnly } from './text-only.js';
import { ALWAYS, type Truth, type TruthTable } from './truth.js';
import { type Weighed, weighEntries } from './weigh.js';

/** What is known of an element that makes two ways of saying one. */
interface Telling {
  readonly plainly: boolean;
  readonly direction: Direction | undefined;
  readonly sides: Sides;
}

/** Reads the outcomes of one page's elements over one stack. */
export class StyleReader {
  readonly #matcher: Matcher;
  /** Whether anything but the cascade asks for importance: what is animated, and what scripts write. */
  readonly #weightTells: boolean;
  readonly #directions: Directions;
  readonly #and: (a: Truth, b: Truth) => Truth;

  constructor(
    readonly page: Page,
    readonly stack: Stack,
    readonly table: OutcomeTable,
    options: MatcherOptions = {},
  ) {
    this.#matcher = new Matcher(page, table.truths, { ...options, scripts: stack.scripts });
    this.#directions = new Directions(page, stack);
    this.#and = (a, b) => table.truths.and(a, b);
    this.#weightTells =
      page.kind === 'component' ||
      page.scripts.length > 0 ||
      stack.uses.some(({ program }) => mayAnimate(program));
  }

  /** Every rule that matches, or could. */
  matched(index: number): Matched[] {
    const found: Matched[] = [];
    const { truths } = this.table;
    this.stack.uses.forEach((use, at) => {
      const { matches } = use.program;
      for (const part of [
        matches.local(this.#matcher, this.page, index, this.#and),
        matches.rest(this.#matcher, this.page, index, this.#and),
      ]) {
        for (const { rule, truth, scopeDistance } of part)
          found.push({ use, at, rule, truth: truths.and(truth, use.condition), scopeDistance });
      }
    });
    return found;
  }

  /** The number of everything that could style the element: equal numbers, equal outcomes. */
  outcomeNumber(index: number): number {
    return this.trialNumber(this.matchedSheets(index), this.ownStyling(index), []);
  }

  /** What the sheets say of an element, for asking again and again what would become of it. */
  matchedSheets(index: number): MatchedSheets {
    let matched: readonly Matched[] | undefined;
    return {
      index,
      matchKey: this.matchKey(index),
      matched: () => {
        matched ??= this.matched(index);
        return matched;
      },
    };
  }

  /** What the element says of itself. */
  ownStyling(index: number): OwnStyling {
    const element = this.page.elements[index]!;
    return { style: element.style, hints: hintDeclarations(this.page, element) };
  }

  /** Whether lines of text are all that stands in an element. */
  holdsTextOnly(index: number): boolean {
    return holdsTextOnly({ page: this.page, stack: this.stack, matched: (at) => this.matched(at) }, index);
  }

  /**
   * The outcome number that the element would have if it said something else of itself, and if further rules matched it.
   * In: `trials`, each for the element itself and behind all sheets of the stack in the order of their `order`, unless it
   * has a place; declarations that the rules no longer hold.
   */
  trialNumber(
    { index, matchKey, matched }: MatchedSheets,
    { style, hints }: OwnStyling,
    trials: readonly TrialRule[],
    gone?: TakenOut,
  ): number {
    let signature = matchKey;
    if (style !== undefined) signature += `|${holdsAddress(style) ? folderOf(this.page.path) : ''}|${style}`;
    if (hints.length > 0) signature += `|old ${hintForm(hints, this.page.path)}`;
    for (const { key, placed } of trials)
      signature += placed === undefined ? `|+${key}` : `|+${key}@${this.#useOf(placed.sheet)}`;
    if (gone !== undefined && gone.declarations.size > 0) signature += `|-${gone.key}`;
    const plainly = this.#hasOwnWords({ style, hints }, trials) && this.holdsTextOnly(index);
    if (plainly) signature += '|text only';
    const matters = this.#directions.matters({ style, hints }, trials);
    const direction = matters ? this.#directions.of(index) : undefined;
    if (direction !== undefined) signature += `|${direction}`;
    const sides = sidesOf(this.page.elements[index]!);
    if (sides !== 'unknown') signature += `|${sides}`;
    if (!this.#weightTells) signature += '|weight aside';
    return this.table.bySignature(signature, () =>
      formOf(
        this.#lists({ style, hints }, matched(), trials, { plainly, direction, sides }, gone),
        style,
        this.#weightTells,
      ),
    );
  }

  /** Names every rule that matches: sheets that do not touch the element leave no trace. */
  matchKey(index: number): string {
    let signature = this.stack.layersKey;
    for (const { program, key } of this.stack.uses) {
      const { matches } = program;
      const local = matches.keyOf(matches.local(this.#matcher, this.page, index, this.#and));
      const rest = matches.keyOf(matches.rest(this.#matcher, this.page, index, this.#and));
      if (local !== 0 || rest !== 0) signature += `|${key} ${local} ${rest}`;
    }
    return signature;
  }

  /** Whether a selector that no sheet holds matches an element. */
  matches(selector: ComplexSelector, index: number): Truth {
    return this.#matcher.match(selector, index);
  }

  /** The outcome lists by target, for showing and for planning. */
  outcomes(index: number): Map<string, Outcomes> {
    const own = this.ownStyling(index);
    const plainly = this.#hasOwnWords(own, []) && this.holdsTextOnly(index);
    return this.#lists(own, this.matched(index), [], {
      plainly,
      direction: undefined,
      sides: 'unknown',
    });
  }

  /** Every declaration that says anything of the element, strongest first, those that never win too. */
  weighed(index: number): Map<string, Map<string, Weighed[]>> {
    const targets = new Map<string, Map<string, Weighed[]>>();
    const contributions = this.#contributions(this.ownStyling(index), this.matched(index), []);
    for (const [target, own] of contributions) targets.set(target, weighEntries(own, this.table.truths));
    return targets;
  }

  /** Position in the stack of the sheet that a trial rule is to stand in. */
  #useOf(sheet: string): number {
    const at = this.stack.uses.findIndex(({ source }) => source.path === sheet && !source.isBlock);
    return at < 0 ? Number.MAX_SAFE_INTEGER : at;
  }

  #lists(
    own: OwnStyling,
    matched: readonly Matched[],
    trials: readonly TrialRule[],
    { plainly, direction, sides }: Telling,
    gone?: TakenOut,
  ): Map<string, Outcomes> {
    const targets = new Map<string, Outcomes>();
    for (const [target, contributions] of this.#contributions(own, matched, trials, gone)) {
      const lists = buildLists(contributions, this.table.truths, direction);
      if (target !== '') {
        targets.set(target, lists);
        continue;
      }
      const told = withoutInitial(lists, sides);
      targets.set(target, plainly ? inStandardWords(told) : told);
    }
    return targets;
  }

  /** Whether anything that may style an element speaks of text in a browser's own words. */
  #hasOwnWords({ style, hints }: OwnStyling, trials: readonly TrialRule[]): boolean {
    return (
      hints.some(({ value }) => OWN_WORD.test(value)) ||
      (style?.includes('-webkit-') ?? false) ||
      trials.some(({ block }) => blockHasOwnWords(block)) ||
      this.stack.uses.some(({ program }) => programHasOwnWords(program))
    );
  }

  #contributions(
    { style, hints }: OwnStyling,
    matched: readonly Matched[],
    trials: readonly TrialRule[],
    gone?: TakenOut,
  ): Map<string, Contribution[]> {
    const targets = new Map<string, Contribution[]>();
    const add = (target: string, contribution: Contribution): void => {
      const list = targets.get(target);
      if (list === undefined) targets.set(target, [contribution]);
      else list.push(contribution);
    };
    for (const { use, at, rule, truth, scopeDistance } of matched) {
      const name = fullLayer(use, rule);
      const contribution: Contribution = {
        origin: { kind: 'rule', use, rule },
        block: gone === undefined ? rule.block() : blockWithout(rule.block(), gone),
        truth,
        layerName: name,
        layer: name === undefined ? UNLAYERED : (this.stack.layers.get(name) ?? 0),
        specificity: rule.selector.specificity,
        scopeDistance,
        at,
        order: rule.order,
      };
      add(rule.selector.pseudoElement, contribution);
    }
    for (const trial of trials)
      add(
        trial.placed?.pseudoElement ?? '',
        trialContribution(
          trial,
          trial.placed === undefined ? Number.MAX_SAFE_INTEGER : this.#useOf(trial.placed.sheet),
        ),
      );
    const own: Contribution[] = [];
    if (style !== undefined && !isOpaque(style))
      own.push(ofElement('style attribute', this.table.inlineBlock(style, this.page.path)));
    if (hints.length > 0) own.push(ofElement('old attribute', this.table.hintBlock(hints, this.page.path)));
    for (const contribution of own) add('', contribution);
    return targets;
  }
}

function formOf(
  lists: ReadonlyMap<string, Outcomes>,
  style: string | undefined,
  weightTells: boolean,
): string {
  const parts: string[] = [];
  for (const [target, outcomes] of [...lists].sort(([a], [b]) => (a < b ? -1 : 1)))
    if (outcomes.size > 0) parts.push(`${target}{${outcomesForm(outcomes, weightTells)}}`);
  if (style !== undefined && isOpaque(style)) parts.push(`style as written ${style}`);
  return parts.join('\n');
}

/** Whether a style attribute is not read: it is equal to itself only. */
export function isOpaque(style: string): boolean {
  return hasTemplateText(style) || isTooDeep(style);
}

function buildLists(
  contributions: readonly Contribution[],
  truths: TruthTable,
  direction: Direction | undefined,
): Map<string, Outcome[]> {
  const lists = new Map<string, Outcome[]>();
  const closed = new Set<string>();
  /** Longhands of which something rolls back its layer: below it counts in which layer a value stands. */
  const rolledBack = new Set<string>();
  let rank = 0;
  const take = (contribution: Contribution, important: boolean): void => {
    const entries = important ? contribution.block.important : contribution.block.normal;
    for (let i = entries.length - 1; i >= 0; i--) {
      const entry = entries[i]!;
      const longhand = direction === undefined ? entry.longhand : physicalName(entry.longhand, direction);
      if (closed.has(longhand)) continue;
      const condition = truths.and(contribution.truth, entry.supported);
      const rollsBack = entry.value === 'revert-layer';
      const layer = `in ${contribution.origin.kind} ${contribution.layer}`;
      const value = rollsBack
        ? `revert-layer ${layer}`
        : rolledBack.has(longhand)
          ? `${entry.value} ${layer}`
          : entry.value;
      if (rollsBack) rolledBack.add(longhand);
      let list = lists.get(longhand);
      if (list === undefined) {
        list = [];
        lists.set(longhand, list);
      }
      // Under the same condition the stronger one hides the weaker, unless it makes room for it.
      const hides = (outcome: Outcome): boolean =>
        outcome.condition === condition && !outcome.value.startsWith('revert-layer in ');
      if (list.some(hides)) continue;
      list.push({
        longhand,
        value,
        important,
        condition,
        entry,
        origin: contribution.origin,
        rank: rank++,
      });
      if (condition === ALWAYS && !rollsBack) closed.add(longhand);
    }
  };
  for (const { contribution, important } of inCascadeOrder(contributions)) take(contribution, important);
  return lists;
}

/**
 * The list without entries that cannot change the result: those that give what the unconditional one below them gives.
 * Only for a longhand that no other name competes with.
 */
export function withoutIdle(list: OutcomeList): Outcome[] {
  const left: Outcome[] = [];
  for (const outcome of [...list].reverse()) {
    const below = left.at(-1);
    const idle =
      below?.condition === ALWAYS && below.value === outcome.value && below.important === outcome.important;
    if (!idle) left.push(outcome);
  }
  return inOrderOfConditions(left.reverse());
}

/** Which of several that follow each other and say the same decides makes no difference. */
function inOrderOfConditions(list: Outcome[]): Outcome[] {
  const says = ({ value, important }: Outcome): string => `${important} ${value}`;
  for (let start = 0; start < list.length; ) {
    let end = start + 1;
    while (end < list.length && says(list[end]!) === says(list[start]!)) end++;
    if (end - start > 1) {
      const run = list.slice(start, end).sort((a, b) => Number(a.condition) - Number(b.condition));
      list.splice(start, run.length, ...run);
    }
    start = end;
  }
  return list;
}

/**
 * The canonical text of the outcomes of one target. Longhands stand alone, except where two names may set one computed
 * value (logical and physical, vendor variants): then their order in the cascade is part of the form.
 */
export function outcomesForm(outcomes: Outcomes, weightTells = true): string {
  const names = [...outcomes.keys()].sort();
  const parts = names.map((name) => `${name}=${listForm(outcomes.get(name)!, weightTells)}`);
  const all = outcomes.has('all');
  const groups = new Map<string, { kinds: Set<string>; members: string[] }>();
  for (const name of names) {
    const { name: group, kind } = all ? { name: 'all', kind: name } : interactionGroup(name);
    const known = groups.get(group);
    if (known === undefined) groups.set(group, { kinds: new Set([kind]), members: [name] });
    else {
      known.kinds.add(kind);
      known.members.push(name);
    }
  }
  for (const [group, { kinds, members }] of groups) {
    if (members.length < 2 || (kinds.size < 2 && !kinds.has('vendor'))) continue;
    parts.push(`~${group}=${cascadeOrder(members.flatMap((name) => outcomes.get(name)!))}`);
  }
  return parts.join(';');
}

function listForm(list: OutcomeList, weightTells: boolean): string {
  if (list.length === 1) return outcomeForm(list[0]!, weightTells);
  return withoutIdle(list)
    .map((one) => outcomeForm(one, weightTells))
    .join('|');
}

function outcomeForm({ value, important, condition }: Outcome, weightTells: boolean): string {
  return `${value}${important && weightTells ? '!' : ''}${condition === ALWAYS ? '' : `?${condition}`}`;
}

function cascadeOrder(outcomes: readonly Outcome[]): string {
  return [...outcomes]
    .sort((a, b) => a.rank - b.rank)
    .map((outcome) => `${outcome.longhand}:${outcomeForm(outcome, true)}`)
    .join('|');
}
