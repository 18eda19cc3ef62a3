// Which rules of one sheet match each element, computed once for all elements that the sheet cannot tell apart.
//
// A selector is local when only the element and its ancestors decide it. For local selectors, elements with the same
// chain (their own names, as far as the sheet mentions them, under a parent with the same chain) match alike, on every
// page that uses the sheet. Selectors that look at siblings, positions or descendants are asked element by element.

import type { Page, PageElement } from '../markup/index.js';
import { AncestorFilter, wantedAncestors } from './ancestor-filter.js';
import type { Matcher } from './matcher.js';
import { type Indexed, type ProgramRule, RuleIndex } from './rule-index.js';
import type { ComplexSelector, Compound, Simple } from './selector-model.js';
import { eachCompound } from './selector-walk.js';
import { NEVER, type Truth } from './truth.js';

export interface RuleMatch {
  readonly rule: ProgramRule;
  /** Of the selector and the conditions around the rule. */
  readonly truth: Truth;
  /** Generations up to the root of the rule's scope; without a scope, more than any. */
  readonly scopeDistance: number;
}

/** An element that template text, on itself or on an ancestor, may change: matched by itself. */
const ALONE = -1;

export class ProgramMatches {
  readonly #local: RuleIndex;
  readonly #rest: RuleIndex;
  readonly #types = new Set<string>();
  readonly #names = new Set<string>();
  readonly #attributes = new Set<string>();
  readonly #chains = new Map<string, number>();
  readonly #chainsOf = new WeakMap<Page, Int32Array>();
  readonly #matches = new Map<number, readonly RuleMatch[]>();
  /** For each chain, the rules of the rest that its elements could still match. */
  readonly #candidates = new Map<number, readonly ProgramRule[]>();

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
    const chain = this.chainOf(page, index);
    let found = chain === ALONE ? undefined : this.#matches.get(chain);
    if (found === undefined) {
      found = matchAll(possible(this.#local, matcher, page, index), matcher, index, and);
      if (chain !== ALONE) this.#matches.set(chain, found);
    }
    return found;
  }

  rest(
    matcher: Matcher,
    page: Page,
    index: number,
    and: (a: Truth, b: Truth) => Truth,
  ): readonly RuleMatch[] {
    const chain = this.chainOf(page, index);
    let candidates = chain === ALONE ? undefined : this.#candidates.get(chain);
    if (candidates === undefined) {
      candidates = possible(this.#rest, matcher, page, index);
      if (chain !== ALONE) this.#candidates.set(chain, candidates);
    }
    return candidates.length === 0 ? NO_MATCHES : matchAll(candidates, matcher, index, and);
  }

  /** Equal numbers, equal matches: the rules in order, as far as the cascade tells them apart. 0 for no match. */
  keyOf(matches: readonly RuleMatch[]): number {
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

  /** Equal numbers, equal local matches; `ALONE` (-1) is equal to nothing. */
  chainOf(page: Page, index: number): number {
    let chains = this.#chainsOf.get(page);
    if (chains === undefined) {
      chains = this.#computeChains(page);
      this.#chainsOf.set(page, chains);
    }
    return chains[index]!;
  }

  #computeChains(page: Page): Int32Array {
    const chains = new Int32Array(page.elements.length);
    const root = `${page.kind === 'component' ? 'fragment' : 'top'}${page.quirks ? ' quirks' : ''}`;
    for (const element of page.elements) {
      const above = element.parent < 0 ? root : chains[element.parent]!;
      if (element.templated !== 'no' || above === ALONE) {
        chains[element.index] = ALONE;
        continue;
      }
      const key = `${above}|${this.#nameOf(element)}`;
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
  #nameOf(element: PageElement): string {
    let name = this.#types.has(element.name.toLowerCase())
      ? `${element.namespace === 'html' ? '' : element.namespace}${element.name}`
      : element.namespace;
    if (element.id !== undefined && this.#names.has(`#${element.id.toLowerCase()}`)) name += `#${element.id}`;
    for (const one of element.classes) if (this.#names.has(`.${one.toLowerCase()}`)) name += `.${one}`;
    if (this.#attributes.size === 0) return name;
    for (const attribute of element.attributes) {
      if (this.#attributes.has(attribute.name.toLowerCase()))
        name += `[${attribute.name}=${JSON.stringify(attribute.value)}`;
    }
    return name;
  }

  #mention(selector: ComplexSelector): void {
    eachCompound(selector, ({ type, id, classes, rest }) => {
      if (type !== undefined) this.#types.add(type);
      if (id !== undefined) this.#names.add(`#${id.toLowerCase()}`);
      for (const name of classes) this.#names.add(`.${name.toLowerCase()}`);
      for (const simple of rest) {
        if (simple.kind === 'attribute') this.#attributes.add(simple.name.toLowerCase());
        else if (simple.kind === 'any-link') {
          this.#attributes.add('href');
          this.#types.add('a').add('area');
        }
      }
    });
  }
}

/** CSS Cascade 6: rules without a scope are infinitely far from any root. */
export const UNSCOPED = Number.POSITIVE_INFINITY;
const NO_MATCHES: readonly RuleMatch[] = [];
const NO_RULES: readonly ProgramRule[] = [];

/** The rules whose asked selector matches, or could. */
function possible(index: RuleIndex, matcher: Matcher, page: Page, at: number): readonly ProgramRule[] {
  const element = page.elements[at]!;
  const found = new Set<ProgramRule>();
  const filter = page.hasTemplatedTags ? undefined : AncestorFilter.of(page);
  const visit = ({ rule, asked, above }: Indexed): void => {
    if (filter !== undefined && above.length > 0 && !filter.mayHave(at, above)) return;
    if (!found.has(rule) && (rule.scope !== undefined || matcher.match(asked, element.index) !== NEVER))
      found.add(rule);
  };
  if (element.templated === 'no') index.candidates(element.id, element.classes, element.name, visit);
  else index.all(visit);
  return found.size === 0 ? NO_RULES : [...found];
}

function matchAll(
  rules: readonly ProgramRule[],
  matcher: Matcher,
  element: number,
  and: (a: Truth, b: Truth) => Truth,
): readonly RuleMatch[] {
  const found: RuleMatch[] = [];
  for (const rule of rules) {
    if (rule.scope === undefined) {
      const truth = matcher.match(rule.selector, element);
      if (truth !== NEVER) found.push({ rule, truth: and(truth, rule.condition), scopeDistance: UNSCOPED });
    } else {
      for (const { truth, scopeDistance } of matcher.matchScoped(rule.selector, rule.scope, element))
        found.push({ rule, truth: and(truth, rule.condition), scopeDistance });
    }
  }
  return found.length === 0 ? NO_MATCHES : found;
}

/** What a selector asks of the element and its ancestors alone: it matches wherever the selector matches. */
function relax(selector: ComplexSelector): ComplexSelector {
  const cut = selector.combinators.findLastIndex((one) => one === '+' || one === '~') + 1;
  const compounds = selector.compounds
    .slice(cut)
    .map((compound) => ({ ...compound, rest: compound.rest.filter(isLocalSimple) }));
  return {
    ...selector,
    compounds,
    combinators: selector.combinators.slice(cut),
    leading: selector.leading.slice(cut),
    pseudoStates: '',
  };
}

/** A local rule is the selector it is asked by; of another, what it asks is less than the whole. */
function isLocalRule({ selector, scope }: ProgramRule): boolean {
  return isLocal(selector) && (scope === undefined || [...scope.start, ...scope.end].every(isLocal));
}

/** Only the element and its ancestors decide. */
function isLocal(selector: ComplexSelector): boolean {
  return (
    selector.combinators.every((one) => one === ' ' || one === '>') &&
    selector.compounds.every(isLocalCompound)
  );
}

function isLocalCompound({ rest }: Compound): boolean {
  return rest.every(isLocalSimple);
}

function isLocalSimple(simple: Simple): boolean {
  switch (simple.kind) {
    case 'attribute':
    case 'any-link':
    case 'state':
    case 'root':
    case 'scope root':
      return true;
    case 'among':
      return simple.selectors.every(isLocal);
    case 'has':
    case 'nth':
    case 'empty':
    case 'static':
      return false;
  }
}
