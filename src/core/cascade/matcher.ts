// Does a selector match an element? Yes, no, or "when this holds": states, and what a fragment or a template hides.

import { attributeOf, hasTemplateText, type Page, type PageElement, splitTokens } from '../markup/index.js';
import type { ComplexSelector, Compound, Simple } from './selector.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';

/** HTML attributes whose values selectors compare without case (HTML standard, "Case-sensitivity of selectors"). */
const CASELESS = new Set(
  (
    'accept accept-charset align alink axis bgcolor charset checked clear codetype color compact declare defer dir ' +
    'direction disabled enctype face frame hreflang http-equiv lang language link media method multiple nohref ' +
    'noresize noshade nowrap readonly rel rev rules scope scrolling selected shape target text type valign valuetype vlink'
  ).split(' '),
);

export interface MatcherOptions {
  /** Class names that template text is taken never to produce: names that the earlier state does not know. */
  readonly neverTemplated?: ReadonlySet<string>;
}

/** Matches selectors against the elements of one page. */
export class Matcher {
  readonly #page: Page;
  readonly #elements: readonly PageElement[];
  readonly #table: TruthTable;
  readonly #fragment: boolean;
  readonly #neverTemplated: ReadonlySet<string> | undefined;
  #subject = 0;

  constructor(page: Page, table: TruthTable, options: MatcherOptions = {}) {
    this.#page = page;
    this.#elements = page.elements;
    this.#table = table;
    this.#fragment = page.kind === 'component';
    this.#neverTemplated = options.neverTemplated;
  }

  /** Whether the selector's element part matches. The states behind a pseudo-element are part of the answer. */
  match(selector: ComplexSelector, element: number): Truth {
    this.#subject = element;
    const matched = this.#complex(selector, element);
    if (matched === NEVER || selector.pseudoStates === '') return matched;
    return this.#table.and(matched, this.#table.literal(`${selector.pseudoElement}${selector.pseudoStates}`));
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

  #before(selector: ComplexSelector, at: number, element: number): Truth {
    const combinator = selector.combinators[at - 1]!;
    const origin = this.#elements[element]!;
    let found: Truth = NEVER;
    if (combinator === ' ' || combinator === '>') {
      for (let up = origin.parent; up >= 0; up = this.#elements[up]!.parent) {
        found = this.#table.or(found, this.#from(selector, at - 1, up));
        if (found === ALWAYS || combinator === '>') return found;
      }
      if (this.#fragment && (combinator === ' ' || origin.parent < 0)) {
        const where = combinator === ' ' ? 'an ancestor' : 'the parent';
        found = this.#table.or(
          found,
          this.#table.literal(`${where} outside the fragment is ${selector.leading[at - 1]}`),
        );
      }
      return found;
    }
    for (let side = origin.previous; side >= 0; side = this.#elements[side]!.previous) {
      found = this.#table.or(found, this.#from(selector, at - 1, side));
      if (found === ALWAYS || combinator === '+') break;
    }
    if (found !== ALWAYS && this.#siblingsOpen(origin)) {
      found = this.#table.or(
        found,
        this.#open(`a sibling not in the file is ${selector.leading[at - 1]}`, origin),
      );
    }
    return found;
  }

  #compound(compound: Compound, element: PageElement): Truth {
    if (compound.never) return NEVER;
    if (compound.type !== undefined) {
      const name = element.namespace === 'html' ? compound.type : compound.writtenType;
      if (name !== element.name) return NEVER;
    }
    let truth: Truth = ALWAYS;
    if (compound.id !== undefined && !this.#same(element.id, compound.id)) {
      truth = this.#hidden(element, 'id', `#${compound.id}`);
      if (truth === NEVER) return NEVER;
    }
    for (const name of compound.classes) {
      if (this.#hasClass(element, name)) continue;
      if (this.#neverTemplated?.has(name)) return NEVER;
      const hidden = this.#hidden(element, 'class', `.${name}`);
      if (hidden === NEVER) return NEVER;
      truth = this.#table.and(truth, hidden);
    }
    for (const simple of compound.rest) {
      const one = this.#simple(simple, element);
      if (one === NEVER) return NEVER;
      if (one !== ALWAYS) truth = this.#table.and(truth, one);
    }
    return truth;
  }

  #hasClass(element: PageElement, name: string): boolean {
    for (const own of element.classes)
      if (own === name || (this.#page.quirks && this.#same(own, name))) return true;
    return false;
  }

  /** In quirks mode classes and ids match without ASCII case. */
  #same(own: string | undefined, wanted: string): boolean {
    if (own === wanted) return true;
    return this.#page.quirks && own !== undefined && own.toLowerCase() === wanted.toLowerCase();
  }

  /** Template text may add what the file does not show. */
  #hidden(element: PageElement, attribute: string, what: string): Truth {
    if (element.templated === 'no') return NEVER;
    const value = attributeOf(element.attributes, attribute);
    if (element.templated === 'values' && (value === undefined || !hasTemplateText(value))) return NEVER;
    return this.#open(`template text gives it ${what}`, element);
  }

  #simple(simple: Simple, element: PageElement): Truth {
    switch (simple.kind) {
      case 'attribute':
        return this.#attribute(simple, element);
      case 'among': {
        let found: Truth = NEVER;
        for (const selector of simple.selectors) {
          if (selector.pseudoElement !== '') continue;
          found = this.#table.or(found, this.#complex(selector, element.index));
          if (found === ALWAYS) break;
        }
        return simple.negated ? this.#table.not(found) : found;
      }
      case 'has':
        return this.#has(simple.selectors, element);
      case 'nth':
        return this.#nth(simple, element);
      case 'empty':
        if (element.hasTemplateText) return this.#open(':empty', element);
        return element.firstChild < 0 && !element.hasText ? ALWAYS : NEVER;
      case 'root':
        if (element.parent >= 0) return NEVER;
        return this.#fragment ? NEVER : ALWAYS;
      case 'any-link': {
        const link = element.name === 'a' || element.name === 'area';
        return link && attributeOf(element.attributes, 'href') !== undefined ? ALWAYS : NEVER;
      }
      case 'state':
        return this.#open(simple.text, element);
    }
  }

  #attribute(simple: Extract<Simple, { kind: 'attribute' }>, element: PageElement): Truth {
    const name = element.namespace === 'html' ? simple.name.toLowerCase() : simple.name;
    const own = attributeOf(element.attributes, name);
    if (own === undefined || (element.templated !== 'no' && hasTemplateText(own))) {
      if (element.templated === 'tag' || own !== undefined)
        return this.#open(
          `template text makes it match [${name}${simple.operator ?? ''}${simple.value}]`,
          element,
        );
      return NEVER;
    }
    if (simple.operator === undefined) return ALWAYS;
    const caseless =
      simple.flag === 'i' || (simple.flag !== 's' && element.namespace === 'html' && CASELESS.has(name));
    const value = caseless ? own.toLowerCase() : own;
    const wanted = caseless ? simple.value.toLowerCase() : simple.value;
    return attributeMatches(simple.operator, value, wanted) ? ALWAYS : NEVER;
  }

  #has(selectors: readonly ComplexSelector[], element: PageElement): Truth {
    let found: Truth = NEVER;
    for (const selector of selectors) {
      for (const candidate of this.#reachable(selector, element)) {
        found = this.#table.or(
          found,
          this.#relative(selector, selector.compounds.length - 1, candidate, element),
        );
        if (found === ALWAYS) return found;
      }
    }
    const end = this.#subtreeEnd(element);
    for (let index = element.index; index < end; index++) {
      if (!this.#elements[index]!.hasTemplateText) continue;
      return this.#table.or(
        found,
        this.#open(`:has(${selectors.map(({ text }) => text).join(',')}) by template text`, element),
      );
    }
    return found;
  }

  /** Elements that could be the last compound of a relative selector anchored at `element`. */
  *#reachable(selector: ComplexSelector, element: PageElement): Iterable<number> {
    const sideways = selector.relative === '+' || selector.relative === '~';
    const end = sideways
      ? this.#subtreeEnd(this.#elements[element.parent] ?? element)
      : this.#subtreeEnd(element);
    for (let index = sideways ? this.#subtreeEnd(element) : element.index + 1; index < end; index++)
      yield index;
  }

  #relative(selector: ComplexSelector, at: number, candidate: number, anchor: PageElement): Truth {
    const own = this.#compound(selector.compounds[at]!, this.#elements[candidate]!);
    if (own === NEVER) return NEVER;
    const combinator = at === 0 ? selector.relative! : selector.combinators[at - 1]!;
    let found: Truth = NEVER;
    let step = this.#step(candidate, combinator);
    while (step >= 0) {
      const here =
        at === 0 ? (step === anchor.index ? ALWAYS : NEVER) : this.#relative(selector, at - 1, step, anchor);
      found = this.#table.or(found, here);
      if (found === ALWAYS || combinator === '>' || combinator === '+') break;
      step = this.#step(step, combinator);
    }
    return this.#table.and(own, found);
  }

  #step(from: number, combinator: string): number {
    const element = this.#elements[from]!;
    return combinator === ' ' || combinator === '>' ? element.parent : element.previous;
  }

  #nth(simple: Extract<Simple, { kind: 'nth' }>, element: PageElement): Truth {
    const { a, b, last, ofType, of } = simple;
    if (this.#siblingsOpen(element))
      return this.#open(
        `its position is ${last ? 'from the end ' : ''}${a}n+${b}${ofType ? ' of its type' : ''}`,
        element,
      );
    let self: Truth = ALWAYS;
    if (of !== undefined) self = this.#simple({ kind: 'among', negated: false, selectors: of }, element);
    if (self === NEVER) return NEVER;
    let position = 1;
    let side = last ? element.next : element.previous;
    if (!ofType && of === undefined && !last) position = element.position;
    else {
      for (; side >= 0; side = last ? this.#elements[side]!.next : this.#elements[side]!.previous) {
        const sibling = this.#elements[side]!;
        if (ofType && (sibling.name !== element.name || sibling.namespace !== element.namespace)) continue;
        if (of === undefined) position++;
        else {
          const counts = this.#simple({ kind: 'among', negated: false, selectors: of }, sibling);
          if (counts === ALWAYS) position++;
          else if (counts !== NEVER)
            return this.#open(
              `its position among ${of.map(({ text }) => text).join(',')} is ${a}n+${b}`,
              element,
            );
        }
      }
    }
    const offset = position - b;
    const hit = a === 0 ? offset === 0 : offset / a >= 0 && offset % a === 0;
    return hit ? self : NEVER;
  }

  /** Siblings may exist that the file does not show. */
  #siblingsOpen(element: PageElement): boolean {
    if (element.parent < 0) return this.#fragment;
    return this.#elements[element.parent]!.hasTemplateText;
  }

  #subtreeEnd(element: PageElement): number {
    for (let at: PageElement | undefined = element; at !== undefined; at = this.#elements[at.parent]) {
      if (at.next >= 0) return at.next;
    }
    return this.#elements.length;
  }

  #open(text: string, element: PageElement): Truth {
    return this.#table.literal(
      element.index === this.#subject ? text : `${text} on ${this.#pathFromSubject(element)}`,
    );
  }

  /**
   * Names an element by its way from the subject, so that elements in like places share conditions. Links and style
   * blocks are not counted: they are what an edit may add.
   */
  #pathFromSubject(element: PageElement): string {
    const ancestors = new Map<number, number>();
    let up = 0;
    for (let at = this.#subject; at >= 0; at = this.#elements[at]!.parent) ancestors.set(at, up++);
    const steps: number[] = [];
    let at = element;
    while (!ancestors.has(at.index)) {
      let count = 0;
      for (let side = at.previous; side >= 0; side = this.#elements[side]!.previous) {
        const { name } = this.#elements[side]!;
        if (name !== 'link' && name !== 'style') count++;
      }
      steps.push(count);
      if (at.parent < 0) break;
      at = this.#elements[at.parent]!;
    }
    const climbed = ancestors.get(at.index);
    const top = climbed === undefined ? 'the top' : climbed === 1 ? 'its parent' : `ancestor ${climbed}`;
    return steps.length === 0 ? top : `${top}, down ${steps.reverse().join('.')}`;
  }
}

function attributeMatches(operator: string, value: string, wanted: string): boolean {
  switch (operator) {
    case '=':
      return value === wanted;
    case '~=':
      return wanted !== '' && splitTokens(value).includes(wanted);
    case '|=':
      return value === wanted || value.startsWith(`${wanted}-`);
    case '^=':
      return wanted !== '' && value.startsWith(wanted);
    case '$=':
      return wanted !== '' && value.endsWith(wanted);
    case '*=':
      return wanted !== '' && value.includes(wanted);
    default:
      return false;
  }
}
