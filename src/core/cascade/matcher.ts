// Does a selector match an element? Yes, no, or "when this holds": states, and what a fragment or a template hides.

import {
  attributeOf,
  isLoose,
  isSurelyAround,
  isSurelyIn,
  type Page,
  type PageElement,
} from '../read/markup/index.js';
import { AmongSiblings } from './among-siblings.js';
import { Outside } from './around.js';
import { isEditable } from './attribute-match.js';
import { Inside } from './inside.js';
import { type MatcherOptions, NameMatcher } from './name-match.js';
import { Paths } from './path-between.js';
import { Positions } from './positions.js';
import { PrefixMemo } from './prefix-memo.js';
import type { RuleScope } from './rule-index.js';
import { ScriptStates } from './script-states.js';
import { type ComplexSelector, type Compound, NAMESPACES, type Simple } from './selector-model.js';
import { decideState } from './static-states.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';

/** What scripts put in and move stands in the body. */
const IN_PLACE = new Set(['html', 'head', 'body']);

/** From this position on, what is known of earlier siblings is worth remembering. */
const LONG_ROW = 40;

export class Matcher {
  readonly #page: Page;
  readonly #elements: readonly PageElement[];
  readonly #table: TruthTable;
  readonly #fragment: boolean;
  #hasEditable: boolean | undefined;
  readonly #names: NameMatcher;
  readonly scripts: ScriptStates;
  /** Names what template text is taken never to give. */
  readonly never: string;
  readonly #among: AmongSiblings;
  readonly #earlier = new Map<Compound, Map<number, Truth>>();
  readonly #having = new Map<Simple, Map<number, Truth>>();
  readonly #outside: Outside;
  readonly #inside: Inside;
  readonly #paths: Paths;
  readonly #beginnings: PrefixMemo;
  #subject = 0;
  #scopeRoot = -1;

  constructor(page: Page, table: TruthTable, options: MatcherOptions = {}) {
    this.#page = page;
    this.#elements = page.elements;
    this.#paths = new Paths(page.elements);
    this.#beginnings = new PrefixMemo(page.elements.length);
    this.#table = table;
    this.#among = new AmongSiblings(page.elements, (simple, element) => this.#simple(simple, element));
    this.#fragment = page.kind === 'component';
    this.scripts = options.scripts ?? ScriptStates.NONE;
    this.never = this.#table.namesKey(options.neverTemplated);
    this.#outside = new Outside(page, table, (chain) => new Matcher(chain, table, { scripts: this.scripts }));
    this.#inside = new Inside(page, table, {
      compound: (compound, element) => this.#compound(compound, element),
      mayGain: (index) => this.scripts.rearranges || this.scripts.appends || this.#isEditable(index),
      open: (text, element) => this.#open(text, element),
    });
    this.#names = new NameMatcher(page, table, this.scripts, options.neverTemplated, (text, element) =>
      this.#open(text, element),
    );
  }

  /** Whether the selector's element part matches. The states behind a pseudo-element are part of the answer. */
  match(selector: ComplexSelector, element: number): Truth {
    this.#subject = element;
    this.#beginnings.start(this.#scopeRoot < 0 ? selector : undefined);
    const matched = this.#complex(selector, element);
    if (matched === NEVER || selector.pseudoStates === '') return matched;
    return this.#table.and(matched, this.#table.literal(`${selector.pseudoElement}${selector.pseudoStates}`));
  }

  /**
   * The matches of a scoped rule, one for each root it could hold from, nearest first, down to the first that is certain
   * (CSS Cascade 6, "scope proximity"). Only the subject must be in the scope; what is before it may be anywhere.
   */
  matchScoped(
    selector: ComplexSelector,
    { start, end }: RuleScope,
    element: number,
  ): { truth: Truth; scopeDistance: number }[] {
    const found: { truth: Truth; scopeDistance: number }[] = [];
    let scopeDistance = 0;
    for (let root = element; root >= 0; root = this.#elements[root]!.parent, scopeDistance++) {
      this.#subject = element;
      const begins = this.#any(start, root);
      if (begins === NEVER) continue;
      this.#scopeRoot = root;
      let truth = this.#table.and(begins, this.match(selector, element));
      for (let at = element; at >= 0 && truth !== NEVER; at = this.#elements[at]!.parent) {
        truth = this.#table.and(truth, this.#table.not(this.#any(end, at)));
        if (at === root) break;
      }
      this.#scopeRoot = -1;
      if (truth !== NEVER) found.push({ truth, scopeDistance });
      if (truth === ALWAYS) return found;
    }
    if (this.#fragment)
      found.push({
        truth: this.#table.literal(
          `a scope from ${start.map(({ text }) => text).join(', ')} outside the fragment`,
        ),
        scopeDistance,
      });
    return found;
  }

  #any(selectors: readonly ComplexSelector[], element: number): Truth {
    let found: Truth = NEVER;
    for (const selector of selectors) found = this.#table.or(found, this.#complex(selector, element));
    return found;
  }

  #complex(selector: ComplexSelector, element: number): Truth {
    return this.#from(selector, selector.compounds.length - 1, element);
  }

  /** Compounds 0 to `at` match with compound `at` on `element`. */
  #from(selector: ComplexSelector, at: number, element: number): Truth {
    const own = this.#compound(selector.compounds[at]!, this.#elements[element]!);
    if (own === NEVER || at === 0) return own;
    const before = this.#before(selector, at, element);
    return before === ALWAYS ? own : this.#table.and(own, before);
  }

  /** The same, as far as it is not known from another way to the element. */
  #ending(selector: ComplexSelector, at: number, element: number): Truth {
    if (!this.#beginnings.holds(selector)) return this.#from(selector, at, element);
    return this.#beginnings.of(selector, at, element, () => this.#from(selector, at, element));
  }

  #before(selector: ComplexSelector, at: number, element: number): Truth {
    const combinator = selector.combinators[at - 1]!;
    const asked = this.#elements[element]!;
    let found: Truth = NEVER;
    if (combinator === ' ' || combinator === '>') {
      let isBetween = false;
      for (let up = asked.parent; up >= 0; up = this.#elements[up]!.parent) {
        let one = this.#ending(selector, at - 1, up);
        const isSure = isSurelyAround(this.#page, this.#elements[up]!, asked);
        isBetween ||= !isSure || !isSurelyIn(this.#page, this.#elements[up]!, asked);
        // Of what branches put around it, or leave out, none is certainly its parent.
        if (one !== NEVER && (!isSure || (isBetween && combinator === '>')))
          one = this.#table.and(one, this.#open('a branch makes it the one around', this.#elements[up]!));
        if (one !== NEVER) found = found === NEVER ? one : this.#table.or(found, one);
        if (found === ALWAYS || (combinator === '>' && isSure)) break;
      }
      if (found !== ALWAYS && this.scripts.isMoved(this.#elements, asked))
        return this.#table.or(
          found,
          this.#open(`a script moves it under ${selector.leading[at - 1]}`, asked),
        );
      if (isLoose(this.#page, asked))
        found = this.#table.or(found, this.#open(`a branch leaves it in ${selector.leading[at - 1]}`, asked));
      if (this.#fragment && found !== ALWAYS && (combinator === ' ' || asked.parent < 0))
        found = this.#table.or(found, this.#outside.truth(selector, at - 1, asked, this.#scopeRoot >= 0));
      return found;
    }
    if (combinator === '~' && asked.position > LONG_ROW && this.#scopeRoot < 0)
      found = this.#earlierSibling(selector, at - 1, asked);
    else {
      for (let side = asked.previous; side >= 0; side = this.#elements[side]!.previous) {
        found = this.#table.or(found, this.#from(selector, at - 1, side));
        if (found === ALWAYS || combinator === '+') break;
      }
    }
    // What an engine reads between them may leave one out, or put another one in.
    if (found !== NEVER && (this.#elements[asked.parent]?.hasTemplateText ?? this.#page.holdsEngineText))
      found = this.#table.and(
        found,
        this.#open(`template text leaves ${selector.leading[at - 1]} beside it`, asked),
      );
    if (found !== ALWAYS && this.#siblingsOpen(asked) && this.#mayStandBeside(selector, at - 1, element)) {
      found = this.#table.or(
        found,
        this.#open(`a sibling not in the file is ${selector.leading[at - 1]}`, asked),
      );
    }
    return found;
  }

  /** Of a page that is a chain of elements around a part: whether compounds 0 to `at` match above what stands in the last. */
  above(selector: ComplexSelector, at: number): Truth {
    const combinator = selector.combinators[at]!;
    let up = this.#elements.length - 1;
    this.#subject = Math.max(0, up);
    this.#beginnings.start(undefined);
    let found: Truth = NEVER;
    for (; up >= 0 && found !== ALWAYS; up = this.#elements[up]!.parent) {
      found = this.#table.or(found, this.#from(selector, at, up));
      if (combinator === '>') return found;
    }
    return this.#fragment && found !== ALWAYS
      ? this.#table.literal('more may stand around the fragment')
      : found;
  }

  /** Whether compound `at` may match beside an element: what must stand around it stands around that, too. */
  #mayStandBeside(selector: ComplexSelector, at: number, element: number): boolean {
    const combinator = at === 0 ? undefined : selector.combinators[at - 1];
    const isAbove = combinator === ' ' || combinator === '>';
    return !isAbove || this.#before(selector, at, element) !== NEVER;
  }

  #compound(compound: Compound, element: PageElement): Truth {
    if (compound.never) return NEVER;
    if (compound.namespace !== undefined && compound.namespace !== NAMESPACES[element.namespace])
      return NEVER;
    if (compound.type !== undefined) {
      const name = element.namespace === 'html' ? compound.type : compound.writtenType;
      if (name !== element.name) return NEVER;
    }
    let truth: Truth = ALWAYS;
    if (compound.id !== undefined) truth = this.#names.id(element, compound.id);
    if (truth === NEVER) return NEVER;
    for (const name of compound.classes) {
      const one = this.#names.class(element, name);
      if (one === NEVER) return NEVER;
      if (one !== ALWAYS) truth = this.#table.and(truth, one);
    }
    for (const simple of compound.rest) {
      const one = this.#simple(simple, element);
      if (one === NEVER) return NEVER;
      if (one !== ALWAYS) truth = this.#table.and(truth, one);
    }
    return truth;
  }

  #simple(simple: Simple, element: PageElement): Truth {
    switch (simple.kind) {
      case 'attribute':
        return this.#names.attribute(simple, element);
      case 'among': {
        let found: Truth = NEVER;
        for (const selector of simple.selectors) {
          if (selector.pseudoElement !== '') continue;
          found = this.#table.or(found, this.#complex(selector, element.index));
          if (found === ALWAYS) break;
        }
        return simple.negated ? this.#table.not(found) : found;
      }
      case 'has': {
        const answers = this.#having.get(simple) ?? new Map<number, Truth>();
        // `:scope` means another element from root to root.
        if (this.#scopeRoot >= 0) return this.#inside.has(simple.selectors, element);
        const found = answers.get(element.index) ?? this.#inside.has(simple.selectors, element);
        if (found === ALWAYS || found === NEVER) this.#having.set(simple, answers.set(element.index, found));
        return found;
      }
      case 'nth':
        return this.#nth(simple, element);
      case 'empty':
        if (element.hasTemplateText || this.scripts.fills || this.#isEditable(element.index))
          return this.#open(':empty', element);
        return element.firstChild < 0 && !element.hasText ? ALWAYS : NEVER;
      case 'root':
        if (element.parent >= 0) return NEVER;
        return this.#fragment ? NEVER : ALWAYS;
      case 'scope root':
        return element.index === this.#scopeRoot ? ALWAYS : NEVER;
      case 'any-link': {
        const link = element.name === 'a' || element.name === 'area';
        const isAtTimes = element.engine?.sometimes.has('href') ?? element.templated === 'tag';
        if (link && (isAtTimes || this.scripts.changesOf(element).attribute('href')))
          return this.#open(':any-link', element);
        return link && attributeOf(element.attributes, 'href') !== undefined ? ALWAYS : NEVER;
      }
      case 'static': {
        const decided = decideState(this.#page, element, simple.name, simple.argument);
        if (decided === 'open' || this.#names.isSetByScript(simple.name, element))
          return this.#open(simple.text, element);
        return decided === 'yes' ? ALWAYS : NEVER;
      }
      case 'state':
        return this.#open(simple.text, element);
    }
  }

  #nth(simple: Extract<Simple, { kind: 'nth' }>, element: PageElement): Truth {
    const { a, b, last, ofType, of } = simple;
    if (this.#siblingsOpen(element) || (last && this.#mayGrow(element))) {
      const among = of === undefined ? '' : ` among ${this.#among.text(of, element)}`;
      return this.#open(
        `its position is ${last ? 'from the end ' : ''}${a}n+${b}${ofType ? ' of its type' : ''}${among}`,
        element,
      );
    }
    let self: Truth = ALWAYS;
    if (of !== undefined) self = this.#simple({ kind: 'among', negated: false, selectors: of }, element);
    if (self === NEVER) return NEVER;
    let position: number | undefined = Positions.of(this.#page).at(element, last, ofType);
    if (of !== undefined) {
      position = this.#among.position(simple, of, element, this.#scopeRoot < 0);
      if (position === undefined)
        return this.#open(
          `its position ${last ? 'from the end ' : ''}is ${a}n+${b} among ${this.#among.text(of, element)}`,
          element,
        );
    }
    const offset = position - b;
    const hit = a === 0 ? offset === 0 : offset / a >= 0 && offset % a === 0;
    return hit ? self : NEVER;
  }

  /** Whether some sibling before the element matches compounds 0 to `at`, remembered for long rows of siblings. */
  #earlierSibling(selector: ComplexSelector, at: number, element: PageElement): Truth {
    const key = selector.compounds[at]!;
    const known = this.#earlier.get(key) ?? new Map<number, Truth>();
    this.#earlier.set(key, known);
    const unknown: number[] = [];
    let side = element.previous;
    for (; side >= 0 && known.get(side) === undefined; side = this.#elements[side]!.previous)
      unknown.push(side);
    let found = side < 0 ? NEVER : known.get(side)!;
    for (const one of unknown.reverse()) {
      found = this.#table.or(found, this.#from(selector, at, one));
      // What is open names the way from the subject: it is not remembered.
      if (found === NEVER || found === ALWAYS) known.set(one, found);
    }
    return found;
  }

  /** Siblings may exist that the file does not show. */
  #siblingsOpen(element: PageElement): boolean {
    if (element.parent < 0) return this.#fragment;
    if (this.scripts.rearranges && !IN_PLACE.has(element.name)) return true;
    return this.#elements[element.parent]!.hasTemplateText || this.#isEditable(element.parent);
  }

  /** Siblings may come behind it. */
  #mayGrow({ name, parent }: PageElement): boolean {
    return this.scripts.appends && parent >= 0 && !IN_PLACE.has(name);
  }

  /** What a person edits has the children that the person gives it. */
  #isEditable(index: number): boolean {
    this.#hasEditable ??= this.#page.text.toLowerCase().includes('contenteditable');
    return this.#hasEditable && isEditable(this.#elements, index);
  }

  #open(text: string, element: PageElement): Truth {
    if (element.index === this.#subject) return this.#table.literal(text);
    return this.#table.literalOn(text, this.#paths.to(element, this.#subject));
  }
}
