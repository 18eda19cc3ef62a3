// Outcome lists: for one element, or a pseudo-element of it, and one longhand, every declaration that could win,
// strongest first, each with its condition, down to the first unconditional one.

import { folderOf, holdsAddress } from '../base/addresses.js';
import { getOrInsert } from '../base/get-or-insert.js';
import { hintDeclarations } from '../read/hints/index.js';
import type { Page } from '../read/markup/index.js';
import { makesRoom, StrongerConditions } from './can-win.js';
import { blockWithout, fullLayer, ofElement, trialContribution } from './contributions.js';
import { type Direction, Directions, physicalName } from './direction.js';
import { type Sides, sidesOf, withoutInitial } from './initial.js';
import { Matcher } from './matcher.js';
import type { MatcherOptions } from './name-match.js';
import { type Contribution, inCascadeOrder, UNLAYERED } from './order.js';
import { outcomesForm } from './outcome-form.js';
import type {
  Matched,
  MatchedSheets,
  Outcome,
  Outcomes,
  OwnStyling,
  TakenOut,
  TrialRule,
} from './outcome-model.js';
import {
  byCluster,
  clusterOf,
  isUndivided,
  matchedIn,
  type OutcomeParts,
  partsForm,
  partsOf,
  partsWith,
  type Touched,
  touchedBy,
} from './outcome-parts.js';
import { hintForm, type OutcomeTable } from './outcome-table.js';
import type { ComplexSelector } from './selector-model.js';
import type { SheetOrder } from './sheet-order.js';
import {
  blockHasOwnWords,
  INHERITS_BORDER,
  inStandardWords,
  mayAnimate,
  mayInheritBorders,
  OWN_WORD,
  programHasOwnWords,
} from './telling.js';
import { type Boxes, boxesOf, holdsTextOnly } from './text-only.js';
import { ALWAYS, type Truth, type TruthTable } from './truth.js';
import { type Weighed, weighEntries } from './weigh.js';
import { isOpaque } from './written-style.js';

/** What is known of an element that makes two ways of saying one. */
interface Telling {
  readonly plainly: boolean;
  readonly direction: Direction | undefined;
  readonly sides: Sides;
}

/** Reads the outcomes of one page's elements over one sheet order. */
export class StyleReader {
  readonly #matcher: Matcher;
  /** Whether anything but the cascade asks for importance: what is animated, and what scripts write. */
  readonly #weightTells: boolean;
  readonly #directions: Directions;
  readonly #and: (a: Truth, b: Truth) => Truth;
  /** The name of no match under the layers of the page. */
  readonly #noMatch: string;
  /** By sheet of the sheet order; see `ProgramMatches.chainsOf`. */
  #chains: readonly Int32Array[] | undefined;
  /** Whether a sheet mentions text in a browser's own words. */
  readonly #sheetsHaveOwnWords: boolean;
  readonly #widthsInherit: boolean;

  constructor(
    readonly page: Page,
    readonly sheetOrder: SheetOrder,
    readonly table: OutcomeTable,
    options: MatcherOptions = {},
  ) {
    this.#matcher = new Matcher(page, table.truths, { ...options, scripts: sheetOrder.scripts });
    this.#directions = new Directions(page, sheetOrder);
    this.#and = (a, b) => table.truths.and(a, b);
    this.#sheetsHaveOwnWords = sheetOrder.uses.some(({ program }) => programHasOwnWords(program));
    this.#widthsInherit =
      sheetOrder.uses.some(({ program }) => mayInheritBorders(program)) ||
      page.elements.some(({ style }) => style !== undefined && INHERITS_BORDER.test(style));
    this.#noMatch = table.matchKeys.with('', sheetOrder.layersKey, 0);
    this.#weightTells =
      page.kind === 'component' ||
      page.scripts.length > 0 ||
      sheetOrder.uses.some(({ program }) => mayAnimate(program));
  }

  /** Every rule that matches, or could. */
  matched(index: number): Matched[] {
    const found: Matched[] = [];
    const { truths } = this.table;
    this.sheetOrder.uses.forEach((use, at) => {
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

  /** What the sheets declare of an element, for asking again and again what would become of it. */
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

  /** What the element declares for itself. */
  ownStyling(index: number): OwnStyling {
    const element = this.page.elements[index]!;
    return { style: element.style, hints: hintDeclarations(this.page, element) };
  }

  /** Whether lines of text are all that stands in an element. */
  holdsTextOnly(index: number): boolean {
    const boxes = (at: number): Boxes =>
      this.table.byMatches(this.matchKey(at), () => boxesOf(this.matched(at)));
    return holdsTextOnly({ page: this.page, sheetOrder: this.sheetOrder, boxes }, index);
  }

  /**
   * The outcome number that the element would have if it said something else of itself, and if further rules matched it.
   * In: `trials`, each for the element itself and behind all sheets of the sheet order in the order of their `order`, unless it
   * has a place; declarations that the rules no longer hold.
   */
  trialNumber(
    { index, matchKey, matched }: MatchedSheets,
    { style, hints }: OwnStyling,
    trials: readonly TrialRule[],
    gone?: TakenOut,
  ): number {
    let signature = matchKey;
    const own = { style, hints };
    if (style !== undefined) signature += `|${holdsAddress(style) ? folderOf(this.page.path) : ''}|${style}`;
    if (hints.length > 0) signature += `|old ${hintForm(hints, this.page.path)}`;
    const telling = this.#telling(index, own, trials);
    if (telling.plainly) signature += '|text only';
    if (telling.direction !== undefined) signature += `|${telling.direction}`;
    if (telling.sides !== 'unknown') signature += `|${telling.sides}`;
    if (!this.#weightTells) signature += '|weight aside';
    const untried = (): OutcomeParts => this.#parts(own, matched(), [], telling);
    const isTried = trials.length > 0 || (gone !== undefined && gone.declarations.size > 0);
    if (!isTried) return this.table.bySignature(signature, () => formOf(untried(), style));
    let tried = signature;
    for (const { key, placed } of trials)
      tried += placed === undefined ? `|+${key}` : `|+${key}@${this.#useOf(placed.sheet)}`;
    if (gone !== undefined && gone.declarations.size > 0) tried += `|-${gone.key}`;
    return this.table.bySignature(tried, () => {
      const known = this.table.untriedBy(signature, () => ({
        parts: untried(),
        matched: byCluster(matched()),
      }));
      const touched = touchedBy(trials, gone, known.matched);
      if (touched === undefined || isUndivided(known.parts))
        return formOf(this.#parts(own, matched(), trials, telling, gone), style);
      const asked = matchedIn(known.matched, touched);
      return formOf(
        partsWith(known.parts, touched, this.#parts(own, asked, trials, telling, gone, touched)),
        style,
      );
    });
  }

  /** What of an element's outcomes tells nothing. */
  #telling(index: number, own: OwnStyling, trials: readonly TrialRule[]): Telling {
    const matters = this.#directions.matters(own, trials);
    return {
      plainly: this.#hasOwnWords(own, trials) && this.holdsTextOnly(index),
      direction: matters ? this.#directions.of(index) : undefined,
      sides: sidesOf(this.page.elements[index]!, this.#widthsInherit),
    };
  }

  /** In: `touched`, what alone is asked for. */
  #parts(
    own: OwnStyling,
    matched: readonly Matched[],
    trials: readonly TrialRule[],
    telling: Telling,
    gone?: TakenOut,
    touched?: Touched,
  ): OutcomeParts {
    return partsOf(this.#lists(own, matched, trials, telling, gone, touched), this.#weightTells, (text) =>
      this.table.intern(text),
    );
  }

  /** Names every rule that matches: sheets that do not touch the element leave no trace. */
  matchKey(index: number): string {
    let name = this.#noMatch;
    this.#chains ??= this.sheetOrder.uses.map(({ program }) =>
      program.matches.chainsOf(this.page, this.#matcher),
    );
    for (let at = 0; at < this.sheetOrder.uses.length; at++) {
      const { program, key } = this.sheetOrder.uses[at]!;
      const chain = this.#chains[at]![index]!;
      const matches = program.matches.keyAt(chain, this.#matcher, this.page, index, this.#and);
      if (matches !== 0) name = this.table.matchKeys.with(name, key, matches);
    }
    return name;
  }

  /** Whether a selector that no sheet holds matches an element. */
  matches(selector: ComplexSelector, index: number): Truth {
    return this.#matcher.match(selector, index);
  }

  /** How the text of an element's outcomes is put together, but for what its number tells. */
  wording(index: number): string {
    return `${this.page.kind} ${this.#weightTells} ${sidesOf(this.page.elements[index]!, this.#widthsInherit)}`;
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

  /**
   * The outcome lists by target as their number tells them, but for initial values: values may be put in first.
   * Out: `form`, the text of one of them, once they are.
   */
  told(index: number): {
    readonly targets: ReadonlyMap<string, Outcomes>;
    readonly form: (target: string, outcomes: Outcomes) => string;
  } {
    const own = this.ownStyling(index);
    const { sides, ...telling } = this.#telling(index, own, []);
    return {
      targets: this.#lists(own, this.matched(index), [], { ...telling, sides: 'unknown' }),
      form: (target, outcomes) =>
        outcomesForm(target === '' ? withoutInitial(outcomes, sides) : outcomes, this.#weightTells),
    };
  }

  /** Every declaration that declares anything of the element, strongest first, those that never win too. */
  weighed(index: number): Map<string, Map<string, Weighed[]>> {
    const targets = new Map<string, Map<string, Weighed[]>>();
    const contributions = this.#contributions(this.ownStyling(index), this.matched(index), []);
    for (const [target, own] of contributions) targets.set(target, weighEntries(own, this.table.truths));
    return targets;
  }

  /** Position in the sheet order of the sheet that a trial rule is to stand in. */
  #useOf(sheet: string): number {
    const at = this.sheetOrder.uses.findIndex(({ source }) => source.path === sheet && !source.isBlock);
    return at < 0 ? Number.MAX_SAFE_INTEGER : at;
  }

  #lists(
    own: OwnStyling,
    matched: readonly Matched[],
    trials: readonly TrialRule[],
    { plainly, direction, sides }: Telling,
    gone?: TakenOut,
    touched?: Touched,
  ): Map<string, Outcomes> {
    const targets = new Map<string, Outcomes>();
    for (const [target, contributions] of this.#contributions(own, matched, trials, gone, touched)) {
      const lists = buildLists(contributions, this.table.truths, direction, touched?.get(target));
      if (target !== '') {
        targets.set(target, lists);
        continue;
      }
      const told = withoutInitial(lists, sides);
      targets.set(target, plainly ? inStandardWords(told) : told);
    }
    return targets;
  }

  /** Whether anything that may style an element mentions text in a browser's own words. */
  #hasOwnWords({ style, hints }: OwnStyling, trials: readonly TrialRule[]): boolean {
    return (
      this.#sheetsHaveOwnWords ||
      hints.some(({ value }) => OWN_WORD.test(value)) ||
      (style?.includes('-webkit-') ?? false) ||
      trials.some(({ block }) => blockHasOwnWords(block))
    );
  }

  #contributions(
    { style, hints }: OwnStyling,
    matched: readonly Matched[],
    trials: readonly TrialRule[],
    gone?: TakenOut,
    touched?: Touched,
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
        writtenIn: { kind: 'rule', use, rule },
        block: gone === undefined ? rule.block() : blockWithout(rule.block(), gone),
        truth,
        layerName: name,
        layer: name === undefined ? UNLAYERED : (this.sheetOrder.layers.get(name) ?? 0),
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
    for (const contribution of own) if (touched === undefined || touched.has('')) add('', contribution);
    return targets;
  }
}

/** The canonical text of all that an element comes to. In: its style attribute, which may be one that is not read. */
function formOf(parts: OutcomeParts, style: string | undefined): string {
  const form = partsForm(parts);
  return style !== undefined && isOpaque(style) ? `${form}\nstyle as written ${style}` : form;
}

function buildLists(
  contributions: readonly Contribution[],
  truths: TruthTable,
  direction: Direction | undefined,
  asked?: ReadonlySet<string>,
): Map<string, Outcome[]> {
  const lists = new Map<string, Outcome[]>();
  const stronger = new Map<string, StrongerConditions>();
  const closed = new Set<string>();
  /** Longhands of which something rolls back its layer: below it counts in which layer a value stands. */
  const rolledBack = new Set<string>();
  let rank = 0;
  const take = (contribution: Contribution, important: boolean): void => {
    const entries = important ? contribution.block.important : contribution.block.normal;
    for (let i = entries.length - 1; i >= 0; i--) {
      const entry = entries[i]!;
      if (asked !== undefined && !asked.has(clusterOf(entry.longhand))) continue;
      const longhand = direction === undefined ? entry.longhand : physicalName(entry.longhand, direction);
      if (closed.has(longhand)) continue;
      const condition = truths.and(contribution.truth, entry.supported);
      const rollsBack = makesRoom(entry.value);
      const layer = `in ${contribution.writtenIn.kind} ${contribution.layer}`;
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
      const before = getOrInsert(stronger, longhand, () => new StrongerConditions(truths));
      if (!before.letWin(condition)) continue;
      before.add({ value: entry.value, condition });
      list.push({
        longhand,
        value,
        important,
        condition,
        entry,
        writtenIn: contribution.writtenIn,
        rank: rank++,
      });
      if (condition === ALWAYS && !rollsBack) closed.add(longhand);
    }
  };
  for (const { contribution, important } of inCascadeOrder(contributions)) take(contribution, important);
  return lists;
}
