// Which rules of one sheet match each element, computed once for all elements that the sheet cannot tell apart.
//
// A selector is local when only the element and its ancestors decide it. For local selectors, elements with the same
// chain (their own names, as far as the sheet mentions them, under a parent with the same chain) match alike, on every
// page that uses the sheet. Selectors that look at siblings, positions or descendants are asked element by element.

import { getOrInsert } from '../base/get-or-insert.js';
import { isUnsure, mayHaveOf, type Page, type PageElement, unsureForm } from '../read/markup/index.js';
import { MOVED } from '../read/scripts/index.js';
import { AncestorFilter, wantedAncestors } from './ancestor-filter.js';
import { aroundKey } from './around.js';
import { type AskedAttribute, valueMatches } from './attribute-match.js';
import { isLocalRule, relax } from './local.js';
import type { Matcher } from './matcher.js';
import { type Indexed, type ProgramRule, RuleIndex } from './rule-index.js';
import type { ScriptStates } from './script-states.js';
import type { ComplexSelector } from './selector-model.js';
import { eachCompound } from './selector-walk.js';
import { NEVER, type Truth } from './truth.js';

export interface RuleMatch {
  readonly rule: ProgramRule;
  /** Of the selector and the conditions around the rule. */
  readonly truth: Truth;
  /** Generations up to the root of the rule's scope; without a scope, more than any. */
  readonly scopeDistance: number;
}

/** Different matches of one sheet. */
const MOST_KEYS = 2 ** 26;

export class ProgramMatches {
  readonly #local: RuleIndex;
  readonly #rest: RuleIndex;
  readonly #types = new Set<string>();
  readonly #names = new Set<string>();
  /** What is asked of attributes; of some no more than whether they are there. */
  readonly #attributes = new Map<string, AskedAttribute[]>();
  readonly #chains = new Map<string, number>();
  readonly #pages = new WeakMap<Page, PageMatches>();
  readonly #classes = new Set<string>();
  readonly #ids = new Set<string>();
  readonly #views = new WeakMap<ScriptStates, View>();
  readonly #matches = new Map<number, readonly RuleMatch[]>();
  /** For each chain, the rules of the rest that its elements could still match. */
  readonly #candidates = new Map<number, readonly ProgramRule[]>();
  /** For each chain whose elements no rule of the rest could match, the name of what matches. */
  readonly #named = new Map<number, number>();
  readonly #keys = new WeakMap<readonly RuleMatch[], number>();
  readonly #numbers = new Map<string, number>();

  constructor(readonly rules: readonly ProgramRule[]) {
    const local: Indexed[] = [];
    const rest: Indexed[] = [];
    for (const rule of rules) {
      const asked = isLocalRule(rule) ? rule.selector : relax(rule.selector);
      (isLocalRule(rule) ? local : rest).push({ rule, asked, above: wantedAncestors(asked) });
      this.#mention(asked);
      for (const one of [...(rule.scope?.start ?? []), ...(rule.scope?.end ?? [])]) this.#mention(one);
    }
    this.#local = new RuleIndex(local);
    this.#rest = new RuleIndex(rest);
  }

  /** In: a matcher of the element's page; `and` of the table the rules were compiled with. */
  local(
    matcher: Matcher,
    page: Page,
    index: number,
    and: (a: Truth, b: Truth) => Truth,
  ): readonly RuleMatch[] {
    const chain = this.chainsOf(page, matcher)[index]!;
    let found = this.#matches.get(chain);
    if (found === undefined) {
      // A local rule is asked by its own selector: what that declared is the answer.
      const possible = this.#possible(this.#local, matcher, page, index);
      found = matchAll([...possible.keys()], matcher, index, and, possible);
      this.#matches.set(chain, found);
    }
    return found;
  }

  rest(
    matcher: Matcher,
    page: Page,
    index: number,
    and: (a: Truth, b: Truth) => Truth,
  ): readonly RuleMatch[] {
    const chain = this.chainsOf(page, matcher)[index]!;
    let candidates = this.#candidates.get(chain);
    if (candidates === undefined) {
      candidates = [...this.#possible(this.#rest, matcher, page, index).keys()];
      this.#candidates.set(chain, candidates);
    }
    if (candidates.length === 0) return NO_MATCHES;
    // What template text may add is another thing to each who asks.
    if (page.hasTemplatedTags) return matchAll(candidates, matcher, index, and);
    const { rest } = this.#pages.get(page)!;
    let found = rest.get(index);
    if (found === undefined) {
      found = matchAll(candidates, matcher, index, and);
      rest.set(index, found);
    }
    return found;
  }

  /** Equal numbers, equal matches, local ones and the rest together. 0 for no match. In: the element's chain. */
  keyAt(
    chain: number,
    matcher: Matcher,
    page: Page,
    index: number,
    and: (a: Truth, b: Truth) => Truth,
  ): number {
    const known = this.#named.get(chain);
    if (known !== undefined) return known;
    const local = this.#keyOf(this.local(matcher, page, index, and));
    const rest = this.#keyOf(this.rest(matcher, page, index, and));
    const key = local * MOST_KEYS + rest;
    if (this.#candidates.get(chain)?.length === 0) this.#named.set(chain, key);
    return key;
  }

  /** Equal numbers, equal matches: the rules in order, as far as the cascade tells them apart. 0 for no match. */
  #keyOf(matches: readonly RuleMatch[]): number {
    if (matches.length === 0) return 0;
    const known = this.#keys.get(matches);
    if (known !== undefined) return known;
    let text = '';
    for (const { rule, truth, scopeDistance } of matches)
      text += `,${rule.order}.${rule.selector.specificity}${rule.selector.pseudoElement}.${truth}${scopeDistance === UNSCOPED ? '' : `^${scopeDistance}`}`;
    const number = this.#numbers.get(text) ?? this.#numbers.size + 1;
    this.#numbers.set(text, number);
    this.#keys.set(matches, number);
    return number;
  }

  /** By index of the element: equal numbers, equal local matches. */
  chainsOf(page: Page, { scripts, never }: Asking): Int32Array {
    let known = this.#pages.get(page);
    if (known?.scripts !== scripts || known.never !== never) {
      known = { scripts, never, chains: this.#computeChains(page, scripts, never), rest: new Map() };
      this.#pages.set(page, known);
    }
    return known.chains;
  }

  /** The classes and ids of this sheet that scripts may give to any element. */
  #viewOf(scripts: ScriptStates): View | undefined {
    if (scripts.isEmpty) return undefined;
    let view = this.#views.get(scripts);
    if (view === undefined) {
      view = new View(scripts, this.#classes, this.#ids, this.#attributes.keys());
      this.#views.set(scripts, view);
    }
    return view;
  }

  #computeChains(page: Page, scripts: ScriptStates, never: string): Int32Array {
    const chains = new Int32Array(page.elements.length);
    const view = this.#viewOf(scripts);
    const root = `${page.kind === 'component' ? 'fragment' : 'top'}${page.quirks ? ' quirks' : ''}`;
    const mark = (element: PageElement): string => view?.markOf(element) ?? '';
    const rootOf = (element: PageElement): string =>
      page.around === undefined ? root : `${root} ${aroundKey(page, element, mark)}`;
    const isOpen = isUnsure(page);
    for (const element of page.elements) {
      const above = element.parent < 0 ? rootOf(element) : chains[element.parent]!;
      const names = mayHaveOf(element);
      const open = element.templated === 'no' ? '' : `~${names?.join('.')}`;
      const own =
        names === undefined
          ? `${never}${writtenForm(element)} ${scripts.isEmpty ? '' : scripts.changesOf(element).key}`
          : `${this.#nameOf(element, view)}${open}${mark(element)}`;
      const key = `${above}|${own}${isOpen ? unsureForm(page, element) : ''}`;
      let chain = this.#chains.get(key);
      if (chain === undefined) {
        chain = this.#chains.size;
        this.#chains.set(key, chain);
      }
      chains[element.index] = chain;
    }
    return chains;
  }

  /** The element as this sheet's local selectors see it. */
  #nameOf(element: PageElement, view: View | undefined): string {
    let name = this.#types.has(element.name.toLowerCase())
      ? `${element.namespace === 'html' ? '' : element.namespace}${element.name}`
      : element.namespace;
    if (element.id !== undefined && this.#names.has(`#${element.id.toLowerCase()}`)) name += `#${element.id}`;
    for (const one of element.classes) if (this.#names.has(`.${one.toLowerCase()}`)) name += `.${one}`;
    if (this.#attributes.size === 0) return name;
    for (const attribute of element.attributes) {
      const asked = this.#attributes.get(attribute.name.toLowerCase());
      if (asked !== undefined) name += `[${attribute.name}${saidOf(attribute, asked, element, view)}`;
    }
    return name;
  }

  /** The rules whose asked selector matches, or could, and when; those of a scope are not asked. */
  #possible(
    index: RuleIndex,
    matcher: Matcher,
    page: Page,
    at: number,
  ): ReadonlyMap<ProgramRule, Truth | undefined> {
    const element = page.elements[at]!;
    const found = new Map<ProgramRule, Truth | undefined>();
    const view = this.#viewOf(matcher.scripts);
    const filter =
      page.hasTemplatedTags ||
      page.looseFrom !== undefined ||
      page.wrapped.length > 0 ||
      matcher.scripts.isMoved(page.elements, element)
        ? undefined
        : view === undefined
          ? AncestorFilter.of(page)
          : view.filterOf(page);
    const visit = ({ rule, asked, above }: Indexed): void => {
      if (filter !== undefined && above.length > 0 && !filter.mayHave(at, above)) return;
      if (found.has(rule)) return;
      const truth = rule.scope === undefined ? matcher.match(asked, at) : undefined;
      if (truth !== NEVER) found.set(rule, truth);
    };
    const mayHave = mayHaveOf(element);
    if (mayHave !== undefined) {
      index.candidates(element.id, element.classes, element.name, visit);
      for (const name of mayHave) index.ofClass(name, visit);
      if (view !== undefined) {
        const given = view.givenTo(element);
        for (const name of given.classes) index.ofClass(name, visit);
        for (const id of given.ids) index.ofId(id, visit);
      }
    } else index.all(visit);
    return found;
  }

  #mention(selector: ComplexSelector): void {
    eachCompound(selector, ({ type, id, classes, rest }) => {
      if (type !== undefined) this.#types.add(type);
      if (id !== undefined) {
        this.#names.add(`#${id.toLowerCase()}`);
        this.#ids.add(id);
      }
      for (const name of classes) {
        this.#names.add(`.${name.toLowerCase()}`);
        this.#classes.add(name);
      }
      for (const simple of rest) {
        if (simple.kind === 'attribute') {
          const asked = getOrInsert(this.#attributes, simple.name.toLowerCase(), noTests);
          if (simple.operator !== undefined) asked.push(simple);
        } else if (simple.kind === 'any-link') {
          getOrInsert(this.#attributes, 'href', noTests);
          this.#types.add('a').add('area');
        }
      }
    });
  }
}

const noTests = (): AskedAttribute[] => [];

/** What a sheet sees of an attribute: which of the values that it asks for it has. */
function saidOf(
  { name, value }: PageElement['attributes'][number],
  asked: readonly AskedAttribute[],
  element: PageElement,
  view: View | undefined,
): string {
  // Where more than the file decides, what stands in the file is a part of the condition.
  const isOpen =
    element.templated !== 'no' || name === 'hidden' || (asked.length > 0 && view?.mayChange(element, name));
  if (isOpen) return `=${JSON.stringify(value)}`;
  return asked.map((one) => (valueMatches(one, element, value) ? 1 : 0)).join('');
}

/** Of a matcher, what its answers hang on besides the page. */
type Asking = Pick<Matcher, 'scripts' | 'never'>;

/** All that is written on an element which template text may give any name. */
function writtenForm({ name, namespace, attributes, templated, engine }: PageElement): string {
  const own = attributes.map((one) => `${one.name}=${JSON.stringify(one.value)}`).join();
  return `${namespace} ${name}[${own}]${templated} ${[...(engine?.sometimes ?? [])].join()} ${engine?.mayHave?.join('.') ?? '*'}`;
}

/** What is known of a page under its scripts. */
interface PageMatches extends Asking {
  readonly scripts: ScriptStates;
  /** By index of the element. */
  readonly chains: Int32Array;
  /** By index, the rules of the rest that match, of those elements that were asked. */
  readonly rest: Map<number, readonly RuleMatch[]>;
}

interface Given {
  readonly classes: readonly string[];
  readonly ids: readonly string[];
  /** The same with their signs. */
  readonly names: readonly string[];
  /** Attributes that the sheet asks for, and that may change. */
  readonly attributes: readonly string[];
}

/** A sheet under the scripts of a page: which of its names may come to stand on elements. */
class View {
  readonly #scripts: ScriptStates;
  readonly #classes: readonly string[];
  readonly #ids: readonly string[];
  readonly #given = new Map<number, Given>();
  readonly #own: ReadonlySet<string>;
  readonly #asked: readonly string[];
  readonly #asksNames: boolean;
  readonly #filters = new WeakMap<Page, AncestorFilter>();

  constructor(
    scripts: ScriptStates,
    classes: ReadonlySet<string>,
    ids: ReadonlySet<string>,
    attributes: Iterable<string>,
  ) {
    this.#scripts = scripts;
    this.#own = classes;
    this.#asked = [...attributes];
    this.#asksNames = this.#asked.includes('class') || this.#asked.includes('id');
    this.#classes = [...classes].filter((name) => scripts.givesClass(name));
    this.#ids = [...ids].filter((id) => scripts.givesId(id));
  }

  givenTo(element: PageElement): Given {
    const changes = this.#scripts.changesOf(element);
    let given = this.#given.get(changes.key);
    if (given === undefined) {
      const classes = this.#classes.filter((name) => changes.givesClass(name));
      const ids = this.#ids.filter((id) => changes.givesId(id));
      given = {
        classes,
        ids,
        names: [...classes.map((name) => `.${name}`), ...ids.map((id) => `#${id}`)],
        attributes: this.#asked.filter((name) => changes.attribute(name)),
      };
      this.#given.set(changes.key, given);
    }
    return given;
  }

  /** Whether scripts affect what stands in an attribute. */
  mayChange(element: PageElement, attribute: string): boolean {
    if (this.#asksNames && ['class', 'id'].includes(attribute.toLowerCase())) return true;
    return this.givenTo(element).attributes.includes(attribute.toLowerCase());
  }

  /** What may become of the element, as far as the sheet's local selectors see it. */
  markOf(element: PageElement): string {
    const changes = this.#scripts.changesOf(element);
    if (this.#asksNames) return `~${changes.key}`;
    const { names, attributes } = this.givenTo(element);
    const taken = element.classes.filter((name) => this.#own.has(name) && changes.takesClass(name));
    const id = `${element.id !== undefined && changes.takesId(element.id) ? '#' : ''}${changes.attribute(MOVED) ? '^' : ''}`;
    if (names.length + attributes.length + taken.length === 0 && id === '') return '';
    return `~${names.join('')} ${attributes.join()} ${taken.join()}${id}`;
  }

  /** Out: `undefined` for a fragment, as without scripts. */
  filterOf(page: Page): AncestorFilter | undefined {
    if (page.kind === 'component' || (this.#classes.length === 0 && this.#ids.length === 0))
      return AncestorFilter.of(page);
    let filter = this.#filters.get(page);
    if (filter === undefined) {
      filter = AncestorFilter.withGiven(page, (element) => this.givenTo(element).names);
      this.#filters.set(page, filter);
    }
    return filter;
  }
}

/** CSS Cascade 6: rules without a scope are infinitely far from any root. */
export const UNSCOPED = Number.POSITIVE_INFINITY;
const NO_MATCHES: readonly RuleMatch[] = [];

function matchAll(
  rules: readonly ProgramRule[],
  matcher: Matcher,
  element: number,
  and: (a: Truth, b: Truth) => Truth,
  known?: ReadonlyMap<ProgramRule, Truth | undefined>,
): readonly RuleMatch[] {
  const found: RuleMatch[] = [];
  for (const rule of rules) {
    if (rule.scope === undefined) {
      const truth = known?.get(rule) ?? matcher.match(rule.selector, element);
      if (truth !== NEVER) found.push({ rule, truth: and(truth, rule.condition), scopeDistance: UNSCOPED });
    } else {
      for (const { truth, scopeDistance } of matcher.matchScoped(rule.selector, rule.scope, element))
        found.push({ rule, truth: and(truth, rule.condition), scopeDistance });
    }
  }
  return found.length === 0 ? NO_MATCHES : found;
}
