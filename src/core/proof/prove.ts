// Where two states of a site differ: the proof. It holds for every medium and state, since it compares what the
// cascade could decide, and says what it had to assume.

import {
  type Outcome,
  type Outcomes,
  outcomesForm,
  type SiteModel,
  type Stack,
  StyleReader,
  withoutIdle,
} from '../cascade/index.js';
import type { Page, PageElement } from '../markup/index.js';
import { comparePaths, type Place, placeIn } from '../source.js';
import { keptText, undecidedReason } from '../stock/index.js';
import { alignPages } from './align.js';

export interface ShownOutcome {
  readonly value: string;
  readonly condition: string;
  /** The rule's selector, or `style attribute`. */
  readonly from: string;
  readonly place: Place;
}

export type Difference =
  | { readonly kind: 'page'; readonly page: string; readonly what: string }
  | {
      readonly kind: 'markup';
      readonly page: string;
      readonly what: string;
      readonly place: Place | undefined;
    }
  | {
      readonly kind: 'style';
      readonly page: string;
      readonly place: Place | undefined;
      /** Index of the element in the state after. */
      readonly element: number;
      readonly shown: string;
      readonly target: string;
      readonly property: string;
      readonly before: readonly ShownOutcome[];
      readonly after: readonly ShownOutcome[];
    };

export interface Proof {
  readonly differences: readonly Difference[];
  readonly pages: number;
  readonly components: number;
  readonly componentPaths: ReadonlySet<string>;
  readonly elements: number;
  readonly assumptions: readonly string[];
}

export interface ProveOptions {
  /** At most this many style differences are described for one page; the rest are counted. */
  readonly perPage?: number;
  readonly onPage?: (done: number, of: number) => void;
}

/**
 * Compares two states of a site.
 * In: two models that share one outcome table. Out: every difference by page and place; what was assumed.
 */
export function prove(before: SiteModel, after: SiteModel, options: ProveOptions = {}): Proof {
  return new Prover(before, after, options).run();
}

class Prover {
  readonly #differences: Difference[] = [];
  readonly #unread = new Map<string, number>();
  readonly #told = new Set<string>();
  readonly #newClasses: ReadonlySet<string>;
  readonly #before: SiteModel;
  readonly #after: SiteModel;
  readonly #options: ProveOptions;
  #elements = 0;
  #templated = false;
  #scripted = 0;

  constructor(before: SiteModel, after: SiteModel, options: ProveOptions) {
    this.#before = before;
    this.#after = after;
    this.#options = options;
    this.#newClasses = newClassNames(before, after);
  }

  run(): Proof {
    const paths = [...new Set([...this.#before.pages, ...this.#after.pages].map(({ path }) => path))].sort(
      comparePaths,
    );
    let pages = 0;
    paths.forEach((path, at) => {
      const a = this.#before.page(path);
      const b = this.#after.page(path);
      if (a === undefined || b === undefined) {
        this.#differences.push({
          kind: 'page',
          page: path,
          what: a === undefined ? 'the page is new' : 'the page is gone',
        });
      } else {
        if (a.kind === 'page') pages++;
        if (a.scripts.length > 0) this.#scripted++;
        this.#comparePage(a, b);
      }
      this.#options.onPage?.(at + 1, paths.length);
    });
    return {
      differences: this.#differences,
      pages,
      components: paths.length - pages,
      componentPaths: this.#after.sources.components,
      elements: this.#elements,
      assumptions: this.#assumptions(),
    };
  }

  #comparePage(before: Page, after: Page): void {
    this.#elements += before.elements.length;
    const contexts = this.#contexts(before, after);
    const same = before.text === after.text && contexts.every(([a, b]) => isSameStack(a, b));
    for (const [a, b] of contexts) {
      this.#noteUnread(before, a);
      if (same) continue;
      const problem = stacksDiffer(a, b);
      if (problem !== undefined) this.#differences.push({ kind: 'page', page: before.path, what: problem });
    }
    if (same) return;
    const undecided = undecidedReason(before, this.#before) ?? undecidedReason(after, this.#after);
    if (undecided !== undefined) {
      this.#differences.push({
        kind: 'page',
        page: before.path,
        what: `it changed, and ${keptText(undecided)}`,
      });
      return;
    }
    const alignment = alignPages(before, after);
    if (alignment.kind === 'moved') {
      const place =
        placeOf(after, after.elements[alignment.after ?? -1]) ??
        placeOf(before, before.elements[alignment.before ?? -1]);
      this.#differences.push({ kind: 'markup', page: before.path, what: alignment.what, place });
      return;
    }
    if (before.hasTemplatedTags) this.#templated = true;
    const options = { neverTemplated: this.#newClasses };
    for (const [a, b] of contexts) {
      const first = new StyleReader(before, a, this.#before.table, options);
      const second = new StyleReader(after, b, this.#after.table, options);
      // A link or style element shows nothing, unless a rule gives it a box.
      for (const [reader, indexes] of [
        [second, alignment.added],
        [first, alignment.removed],
      ] as const) {
        const isShown = (index: number): boolean =>
          ['display', 'all'].some((name) => reader.outcomes(index).get('')?.has(name));
        const shown = indexes.find(
          (index) => isShown(index) || isShown(Math.max(0, reader.page.elements[index]!.parent)),
        );
        if (shown === undefined) continue;
        const element = reader.page.elements[shown];
        const what = `a rule shows the <${element?.name}> that came or went, or the space around it`;
        this.#differences.push({
          kind: 'markup',
          page: before.path,
          what,
          place: placeOf(reader.page, element),
        });
      }
      let described = 0;
      for (const [i, j] of alignment.pairs) {
        if (first.outcomeNumber(i) === second.outcomeNumber(j)) continue;
        if (++described > (this.#options.perPage ?? 50)) continue;
        this.#describe(first, i, second, j);
      }
    }
  }

  /** The stacks to compare under: the page's own, or for a component those of every page that may include it. */
  #contexts(before: Page, after: Page): (readonly [Stack, Stack])[] {
    if (before.kind === 'page' && after.kind === 'page')
      return [[this.#before.stackOf(before), this.#after.stackOf(after)]];
    const pairs = new Map<string, readonly [Stack, Stack]>();
    for (const page of this.#before.pages) {
      const other = this.#after.page(page.path);
      if (page.kind !== 'page' || other?.kind !== 'page') continue;
      const [a, b] = [this.#before.stackOf(page), this.#after.stackOf(other)];
      pairs.set(`${a.key}\n${b.key}`, [a, b]);
    }
    return [...pairs.values()];
  }

  #describe(first: StyleReader, i: number, second: StyleReader, j: number): void {
    const a = first.outcomes(i);
    const b = second.outcomes(j);
    const element = second.page.elements[j]!;
    let found = false;
    for (const target of new Set([...a.keys(), ...b.keys()])) {
      const listsBefore: Outcomes = a.get(target) ?? new Map();
      const listsAfter: Outcomes = b.get(target) ?? new Map();
      for (const longhand of [...new Set([...listsBefore.keys(), ...listsAfter.keys()])].sort()) {
        const [one, two] = [listsBefore.get(longhand) ?? [], listsAfter.get(longhand) ?? []];
        const only = (list: readonly Outcome[]): Outcomes => new Map([[longhand, list]]);
        if (outcomesForm(only(one)) === outcomesForm(only(two))) continue;
        found = true;
        this.#push(
          second.page,
          element,
          target,
          longhand,
          ...fromFirstDifference(this.#show(first, i, one), this.#show(second, j, two)),
        );
      }
    }
    // Only the order between two names of one computed value differs.
    if (!found)
      this.#push(second.page, element, '', 'order of logical, vendor or physical properties', [], []);
  }

  #push(
    page: Page,
    element: PageElement,
    target: string,
    property: string,
    before: ShownOutcome[],
    after: ShownOutcome[],
  ): void {
    const difference: Difference = {
      kind: 'style',
      page: page.path,
      place: placeOf(page, element),
      element: element.index,
      shown: showElement(element),
      target,
      property,
      before,
      after,
    };
    // A component differs alike under many pages' sheets: it is told once.
    const key = JSON.stringify([page.path, element.index, target, property, before, after]);
    if (this.#told.has(key)) return;
    this.#told.add(key);
    this.#differences.push(difference);
  }

  #show(reader: StyleReader, element: number, list: readonly Outcome[]): ShownOutcome[] {
    return withoutIdle(list).map((outcome) => ({
      value: `${outcome.entry.declaration.value}${outcome.important ? ' !important' : ''}`,
      condition: outcome.condition === 1 ? '' : reader.table.truths.text(outcome.condition),
      from: outcome.origin.kind === 'rule' ? outcome.origin.rule.selector.text : 'style attribute',
      place: placeOfOutcome(reader, element, outcome),
    }));
  }

  #noteUnread(page: Page, stack: Stack): void {
    if (page.kind !== 'page') return;
    for (const { address, why } of stack.unread)
      if (why === 'elsewhere') this.#unread.set(address, (this.#unread.get(address) ?? 0) + 1);
  }

  #assumptions(): string[] {
    const found: string[] = [];
    for (const [address, pages] of [...this.#unread].sort(([a], [b]) => comparePaths(a, b))) {
      found.push(
        `${address} (on ${count(pages, 'page')}) is on another host and was not read: taken to style nothing that moved`,
      );
    }
    if (this.#scripted > 0)
      found.push(`scripts run on ${count(this.#scripted, 'page')}: taken to do the same as before`);
    if (this.#templated) found.push('template text is taken never to produce a class name that is new');
    return found;
  }
}

export function count(number: number, word: string): string {
  return `${number} ${word}${number === 1 ? '' : 's'}`;
}

/** The same sheets to the letter, in the same order under the same conditions. */
function isSameStack(a: Stack, b: Stack): boolean {
  if (a.key === b.key) return true;
  return (
    a.uses.length === b.uses.length &&
    stacksDiffer(a, b) === undefined &&
    a.uses.every(({ program, condition, layer, source }, at) => {
      const other = b.uses[at]!;
      return (
        program.sheet.text === other.program.sheet.text &&
        source.path === other.source.path &&
        condition === other.condition &&
        layer === other.layer
      );
    })
  );
}

function stacksDiffer(a: Stack, b: Stack): string | undefined {
  const unread = ({ unread: list }: Stack): string =>
    list
      .filter(({ why }) => why === 'elsewhere')
      .map(({ address }) => address)
      .join('\n');
  if (unread(a) !== unread(b)) return 'it links other sheets that could not be read';
  const definitions = ({ uses }: Stack): string =>
    uses
      .flatMap(({ program, condition, source }) =>
        program.sheet.definitions.map(
          (text) => `${condition}${/url\(/i.test(text) ? source.path : ''}${text}`,
        ),
      )
      .join('\n');
  if (definitions(a) !== definitions(b)) return 'its @font-face, @keyframes or other definitions changed';
  return undefined;
}

/** Class names that rules of the later state mention and the earlier state does not know at all. */
function newClassNames(before: SiteModel, after: SiteModel): ReadonlySet<string> {
  const known = new Set<string>();
  const mentioned = new Set<string>();
  for (const page of before.pages)
    for (const { classes } of page.elements) for (const name of classes) known.add(name);
  for (const [model, names] of [
    [before, known],
    [after, mentioned],
  ] as const) {
    const seen = new Set<unknown>();
    for (const page of model.pages) {
      if (page.kind !== 'page') continue;
      for (const { program } of model.stackOf(page).uses) {
        if (seen.has(program)) continue;
        seen.add(program);
        for (const { selector } of program.rules)
          for (const { classes } of selector.compounds) for (const name of classes) names.add(name);
      }
    }
  }
  for (const name of known) mentioned.delete(name);
  return mentioned;
}

function placeOf(page: Page, element: PageElement | undefined): Place | undefined {
  for (let at = element; at !== undefined; at = page.elements[at.parent]) {
    if (at.tag !== undefined) return placeIn(page.path, page.text, at.tag.range.start);
  }
  return undefined;
}

function placeOfOutcome(reader: StyleReader, element: number, outcome: Outcome): Place {
  const { page } = reader;
  if (outcome.origin.kind === 'style attribute')
    return placeOf(page, page.elements[element]) ?? { path: page.path, line: 1, column: 1 };
  const { use } = outcome.origin;
  const text = use.source.path === page.path ? page.text : use.program.sheet.text;
  return placeIn(use.source.path, text, use.source.offset + outcome.entry.declaration.range.start);
}

/** What both lists begin with decides nothing between them. */
function fromFirstDifference(a: ShownOutcome[], b: ShownOutcome[]): [ShownOutcome[], ShownOutcome[]] {
  let same = 0;
  while (
    same < a.length &&
    same < b.length &&
    a[same]!.value === b[same]!.value &&
    a[same]!.condition === b[same]!.condition
  )
    same++;
  // A list that ends in the other keeps its last entry, so that there is something to see.
  const from = Math.min(same, Math.max(0, a.length - 1), Math.max(0, b.length - 1));
  return [a.slice(from), b.slice(from)];
}

/** `td#x.a.b`, as short as it can be and still be found. */
export function showElement(element: PageElement): string {
  const id = element.id === undefined ? '' : `#${element.id}`;
  // Classes that template text makes are not there to be shown.
  const classes = element.templated === 'no' ? element.classes.slice(0, 3).map((name) => `.${name}`) : [];
  return `${element.name}${id}${classes.join('')}`;
}
