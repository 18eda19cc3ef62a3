// A wish: who is meant, and what they must get, in which medium. What became of it is looked at on every element that is
// meant, at every moment: what it had there before, and what it has there now.

import { SPACE, without } from '../base/characters.js';
import {
  type ComplexSelector,
  eachMoment,
  excludes,
  featuresOf,
  type Holds,
  implies,
  mayStandOn,
  NEVER,
  type SheetOrder,
  type SiteModel,
  StyleReader,
  type Truth,
  type TruthTable,
  undefeatedFor,
  type Weighed,
} from '../cascade/index.js';
import { isGiven, type Page, type PageElement, pagesThatShow } from '../read/markup/index.js';
import { expandDeclaration } from '../read/sheets/index.js';
import { alignPages } from './align.js';
import { isHidden } from './hidden.js';

export interface Wished {
  readonly value: string;
  readonly property: string;
  /** Values of other wishes for the same elements: one in two rows of a family gets one of both. */
  readonly or?: ReadonlySet<string>;
}

export interface Wish {
  /** The elements, and pseudo-elements, that are meant, with their states. */
  readonly selectors: readonly ComplexSelector[];
  readonly isOn: (page: Page) => boolean;
  /** The medium that is meant, `ALWAYS` for all. */
  readonly medium: Truth;
  /** What other media and states declare is meant to go, too. */
  readonly everywhere: boolean;
  /** What other media and states declare must stay; what only a script could bring about may go. */
  readonly othersStay?: true;
  /** Longhand to the value that it is to get, in normal form, and the property that was typed. */
  readonly values: ReadonlyMap<string, Wished>;
  /** Every longhand that may change: those, and what is taken out. */
  readonly longhands: ReadonlySet<string>;
  /** The value is to come by this custom property. */
  readonly token?: string | undefined;
  /** It serves another wish: its elements are not counted. */
  readonly serves?: true;
}

/** An element that has something else than was wished, as it had before. */
export interface Kept {
  readonly page: Page;
  /** As it is after the change. */
  readonly element: PageElement;
  readonly reader: StyleReader;
  readonly property: string;
  readonly longhand: string;
  /** What it has instead; `undefined` where nothing says anything. */
  readonly winner: Weighed | undefined;
}

export interface Granted {
  /** How many elements are meant. */
  readonly meant: number;
  /** Those that have what was wished, at some moment, and had not. */
  readonly moved: readonly { readonly page: string; readonly element: number }[];
  /** Those that keep what they had although the wish is for them. */
  readonly kept: readonly Kept[];
  /** In words: what became neither what was wished nor stayed. Empty for a change that may be made. */
  readonly wrong: readonly string[];
}

/**
 * Whether a condition is a moment of its own beside the one that is meant, as a state or another medium is: what holds in
 * it stays. What asks of a medium what the wish asks too (how wide it is) is no moment of its own.
 */
export function isApart(condition: Truth, meant: Truth, medium: Truth, truths: TruthTable): boolean {
  const asked = featuresOf(medium, truths);
  const rest = truths.settle(condition, (literal) => {
    // What browsers know is the same at every moment.
    if (/^the browser (keeps|resets|knows) /.test(literal)) return true;
    const own = featuresOf(truths.literal(literal), truths);
    return own.size > 0 && [...own].every((feature) => asked.has(feature)) ? true : undefined;
  });
  return !implies(meant, rest, truths);
}

/** Whether two conditions may hold together. */
export function meet(one: Truth, other: Truth, truths: TruthTable): boolean {
  return !excludes(one, other, truths);
}

/** Looks at every wish on every element that it means. */
export function lookAtWishes(before: SiteModel, after: SiteModel, wishes: readonly Wish[]): Granted {
  const looking = new Looking(before, after);
  for (const wish of wishes) looking.look(wish);
  return looking.granted();
}

/** What one element came to. */
interface Verdict {
  readonly moved: boolean;
  readonly kept: readonly Pick<Kept, 'property' | 'longhand' | 'winner'>[];
  readonly wrong: readonly string[];
}

interface Both {
  readonly reader: StyleReader;
  readonly index: number;
}

class Looking {
  readonly #before: SiteModel;
  readonly #after: SiteModel;
  readonly #meant = new Set<string>();
  readonly #moved = new Map<string, { page: string; element: number }>();
  readonly #kept: Kept[] = [];
  readonly #wrong = new Set<string>();

  constructor(before: SiteModel, after: SiteModel) {
    this.#before = before;
    this.#after = after;
  }

  granted(): Granted {
    return {
      meant: this.#meant.size,
      moved: [...this.#moved.values()],
      kept: this.#kept,
      wrong: [...this.#wrong],
    };
  }

  look(wish: Wish): void {
    const verdicts = new Map<string, Verdict>();
    for (const page of this.#before.pages) {
      // A component may be on a page that is meant.
      if (page.kind === 'page' && !wish.isOn(page)) continue;
      const sheetOrder = this.#before.sheetOrderOf(page);
      if (!wish.selectors.some((one) => mayStandOn(page, sheetOrder, one))) continue;
      this.#lookAtPage(page, wish, verdicts);
    }
  }

  #lookAtPage(page: Page, wish: Wish, verdicts: Map<string, Verdict>): void {
    const later = this.#after.page(page.path);
    const { truths } = this.#before.table;
    let pairs: ReadonlyMap<number, number> | undefined;
    for (const [first, second] of readerPairs(this.#before, this.#after, page, later)) {
      for (const element of page.elements) {
        for (const selector of wish.selectors) {
          const matched = first.matches(selector, element.index);
          if (matched === NEVER || isHidden(matched, truths)) continue;
          if (wish.serves !== true) this.#meant.add(`${page.path} ${element.index}`);
          if (wish.values.size === 0) continue;
          pairs ??= alignedPairs(page, later);
          const own = pairs.get(element.index);
          if (own === undefined || later === undefined) {
            this.#wrong.add(`${page.path}: its markup would change`);
            return;
          }
          const key = `${first.outcomeNumber(element.index)} ${second.outcomeNumber(own)} ${matched} ${selector.text}`;
          // What a custom property comes to depends on what the element stands in.
          let verdict = wish.token === undefined ? verdicts.get(key) : undefined;
          if (verdict === undefined) {
            const both = [
              { reader: first, index: element.index },
              { reader: second, index: own },
            ] as const;
            verdict = this.#judge(both, selector, matched, wish);
            verdicts.set(key, verdict);
          }
          this.#note(verdict, { page: later, reader: second, element: later.elements[own]! }, wish);
        }
      }
    }
  }

  #note(
    { moved, kept, wrong }: Verdict,
    where: Pick<Kept, 'page' | 'reader' | 'element'>,
    { serves }: Wish,
  ): void {
    const [{ path: page }, { index: element }] = [where.page, where.element];
    for (const one of wrong) this.#wrong.add(`${page}: ${one}`);
    if (serves === true) return;
    if (moved) this.#moved.set(`${page} ${element}`, { page, element });
    for (const one of kept) this.#kept.push({ ...one, ...where });
  }

  #judge(
    [was, is]: readonly [Both, Both],
    selector: ComplexSelector,
    matched: Truth,
    { values, medium, everywhere, othersStay, token }: Wish,
  ): Verdict {
    const { truths } = this.#before.table;
    const when = truths.and(matched, medium);
    const [earlier, later] = [was, is].map(({ reader, index }) =>
      reader.weighed(index).get(selector.pseudoElement),
    );
    let moved = false;
    const kept = new Map<string, Pick<Kept, 'property' | 'longhand' | 'winner'>>();
    const wrong = new Set<string>();
    for (const [longhand, { value, property, or }] of values) {
      const [before, now] = [earlier, later].map((lists) =>
        undefeatedFor(lists, longhand, truths).filter(({ condition }) => !isHidden(condition, truths)),
      ) as [Weighed[], Weighed[]];
      const standing = (
        list: readonly Weighed[],
        { reader, index }: Both,
        holds: Holds,
      ): { one: Weighed | undefined; text: string } => {
        const one = list.find(({ condition }) => holds(condition));
        if (one === undefined || token === undefined || !isToken(one, token))
          return { one, text: shownValue(one, longhand) };
        const set = tokenSetter({ reader, index }, token, holds);
        return { one: set, text: set === undefined ? 'unset' : shown(longhand, putIn(one, set)) };
      };
      const tokens = token === undefined ? [] : [was, is].flatMap((one) => tokenConditions(one, token));
      const conditions = [when, ...[...before, ...now].map(({ condition }) => condition), ...tokens];
      const wished = [value, ...(or ?? [])].map((one) => shown(longhand, one));
      const isWished = (text: string): boolean => wished.includes(text);
      const kind = `the browser keeps ${property}: `;
      const looks = eachMoment(
        truths,
        conditions,
        (holds) => {
          const had = standing(before, was, holds);
          const has = standing(now, is, holds);
          if (!holds(when)) return { is: has.text === had.text ? 'so' : 'beyond', has } as const;
          if (isWished(has.text))
            return { is: had.text === has.text ? 'so' : 'moved', has, from: had.one } as const;
          if (has.text !== had.text) return { is: 'third', has } as const;
          return { is: everywhere ? 'kept' : 'stands', has } as const;
        },
        // What is wished is in the grammar, or was taken for it.
        (literal) =>
          (literal.startsWith(kind) && literal.endsWith(value)) || isKnownWith(selector, literal)
            ? true
            : undefined,
      );
      if (looks === undefined)
        wrong.add(`${longhand} of ${selector.text} hangs on more than can be told apart`);
      for (const look of looks ?? []) {
        const { is: became, has } = look;
        if (look.is === 'moved') {
          moved = true;
          const { condition } = look.from ?? {};
          const stays =
            othersStay === true && condition !== undefined && !BY_SCRIPT.test(truths.text(condition));
          if (stays && isApart(condition, when, medium, truths))
            wrong.add(
              `${longhand} of ${selector.text} would no longer be ${look.from?.value} when ${truths.text(condition)}`,
            );
        }
        if (became === 'beyond')
          wrong.add(`${longhand} of ${selector.text} would change in another medium or state`);
        if (became === 'third') wrong.add(`${longhand} of ${selector.text} would be ${has.text}`);
        const apart =
          became === 'stands' && has.one !== undefined && isApart(has.one.condition, when, medium, truths);
        if (became === 'kept' || (became === 'stands' && !apart))
          kept.set(`${property} ${has.one?.rank}`, { property, longhand, winner: has.one });
      }
    }
    return { moved, kept: [...kept.values()], wrong: [...wrong] };
  }
}

const BY_SCRIPT = /\bscripts?\b/;

/** Who asks for a state takes it that browsers know it: then they know it in every rule. */
function isKnownWith({ text }: ComplexSelector, literal: string): boolean {
  const states = literal.startsWith('the browser knows every selector of ') ? text.match(/:[a-z-]+/g) : null;
  return states?.some((state) => literal.includes(state)) ?? false;
}

/** A value together with the name under which it stands: of two names for one thing each is itself. */
function shown(longhand: string, value: string): string {
  return `${longhand}: ${value}`;
}

function shownValue(one: Weighed | undefined, longhand: string): string {
  return one === undefined ? `${longhand} unset` : shown(one.entry.longhand, one.value);
}

function isToken({ entry }: Weighed, token: string): boolean {
  return without(entry.declaration.value, SPACE) === `var(${token})`;
}

/** What a custom property is set by for an element, at a moment: on itself, or on the nearest above. */
function tokenSetter({ reader, index }: Both, token: string, holds: Holds): Weighed | undefined {
  for (let at = index; at >= 0; at = reader.page.elements[at]!.parent) {
    const own = undefeatedFor(reader.weighed(at).get(''), token, reader.table.truths).find(({ condition }) =>
      holds(condition),
    );
    if (own !== undefined) return own;
  }
  return undefined;
}

/** What a declaration that declares `var(--token)` comes to, in normal form. */
function putIn({ entry, longhand }: Weighed, { entry: set }: Weighed): string {
  const parts = expandDeclaration(entry.declaration.property, set.declaration.value, '');
  return parts.find((part) => part.longhand === longhand)?.value ?? set.declaration.value;
}

function tokenConditions({ reader, index }: Both, token: string): Truth[] {
  const found: Truth[] = [];
  for (let at = index; at >= 0; at = reader.page.elements[at]!.parent)
    found.push(
      ...undefeatedFor(reader.weighed(at).get(''), token, reader.table.truths).map(
        ({ condition }) => condition,
      ),
    );
  return found;
}

function alignedPairs(page: Page, later: Page | undefined): ReadonlyMap<number, number> {
  const alignment = later && alignPages(page, later);
  return new Map(alignment?.kind === 'aligned' ? alignment.pairs : []);
}

/** A component is read under the sheets of every page, before and after. */
function readerPairs(
  before: SiteModel,
  after: SiteModel,
  page: Page,
  later: Page | undefined,
): (readonly [StyleReader, StyleReader])[] {
  if (later === undefined) return [];
  if (page.kind === 'page') return [[before.readersOf(page)[0]!, after.readersOf(later)[0]!]];
  const sheetOrders = new Map<string, readonly [SheetOrder, SheetOrder]>();
  if (page.sheets.some(isGiven)) return [[before.readersOf(page)[0]!, after.readersOf(later)[0]!]];
  const shownBy = page.around?.shownBy?.map((path) => before.page(path)!);
  for (const whole of shownBy ?? pagesThatShow(before.pages)) {
    const other = after.page(whole.path);
    if (other === undefined) continue;
    const pair = [before.sheetOrderOf(whole), after.sheetOrderOf(other)] as const;
    sheetOrders.set(`${pair[0].key}|${pair[1].key}`, pair);
  }
  return [...sheetOrders.values()].map(([a, b]) => [
    new StyleReader(page, before.sheetOrderWithin(page, a), before.table),
    new StyleReader(later, after.sheetOrderWithin(later, b), after.table),
  ]);
}
