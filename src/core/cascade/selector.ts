// Selector text compiled once into a form the matcher walks from right to left.

import type { CssNode, SelectorList } from 'css-tree';
import * as csstree from 'css-tree/dist/csstree.esm';

export type Combinator = ' ' | '>' | '+' | '~';

export type Simple =
  | {
      readonly kind: 'attribute';
      readonly name: string;
      readonly operator: string | undefined;
      readonly value: string;
      readonly flag: string | undefined;
    }
  /** `:is()`, `:where()`, `:not()` and the nesting selector `&`. */
  | { readonly kind: 'among'; readonly negated: boolean; readonly selectors: readonly ComplexSelector[] }
  | { readonly kind: 'has'; readonly selectors: readonly ComplexSelector[] }
  | {
      readonly kind: 'nth';
      readonly a: number;
      readonly b: number;
      readonly last: boolean;
      readonly ofType: boolean;
      readonly of: readonly ComplexSelector[] | undefined;
    }
  | { readonly kind: 'empty' }
  | { readonly kind: 'root' }
  | { readonly kind: 'any-link' }
  /** A state, or a pseudo-class that this version leaves open. */
  | { readonly kind: 'state'; readonly text: string };

export interface Compound {
  /** Lower case in HTML; `undefined` for any type. */
  readonly type: string | undefined;
  readonly writtenType: string | undefined;
  readonly id: string | undefined;
  readonly classes: readonly string[];
  readonly rest: readonly Simple[];
  /** An impossible compound such as `#a#b`. */
  readonly never: boolean;
}

export interface ComplexSelector {
  readonly text: string;
  /** From left to right; `combinators[i]` stands between compounds `i` and `i + 1`. */
  readonly compounds: readonly Compound[];
  readonly combinators: readonly Combinator[];
  /** `leading[i]` is the text of compounds 0 to i, for saying what is open. */
  readonly leading: readonly string[];
  /** In a relative selector (`:has(> a)`) the combinator before the first compound. */
  readonly relative: Combinator | undefined;
  /** ids × 2^20 + classes × 2^10 + types: Selectors 4 §17. */
  readonly specificity: number;
  /** `::before`, or empty for the element itself. */
  readonly pseudoElement: string;
  /** States that stand behind the pseudo-element: `::-webkit-scrollbar-thumb:hover`. */
  readonly pseudoStates: string;
}

export type CompiledList =
  | {
      readonly kind: 'list';
      readonly selectors: readonly ComplexSelector[] /** Some browsers may drop the whole rule. */;
      readonly unsure: boolean;
    }
  | { readonly kind: 'invalid'; readonly reason: string };

export const ONE_ID = 1 << 20;
export const ONE_CLASS = 1 << 10;
export const ONE_TYPE = 1;

export function specificityParts(specificity: number): [ids: number, classes: number, types: number] {
  return [specificity >> 20, (specificity >> 10) & 1023, specificity & 1023];
}

/** States that every browser in use accepts; any other name may make a browser drop the rule. */
const STATES = new Set(
  (
    'hover active focus focus-within focus-visible visited link target checked disabled enabled required optional valid ' +
    'invalid in-range out-of-range read-only read-write placeholder-shown default indeterminate lang'
  ).split(' '),
);
const LEGACY_ELEMENTS = new Set(['before', 'after', 'first-line', 'first-letter']);
const ELEMENTS = new Set([
  ...LEGACY_ELEMENTS,
  'selection',
  'placeholder',
  'marker',
  'backdrop',
  'file-selector-button',
]);

class InvalidSelector extends Error {}

/**
 * Compiles a selector list.
 * In: the text; for a nested rule the compiled list around it. Out: the selectors, or why a browser drops the rule.
 */
export function compileSelectorList(text: string, parent?: readonly ComplexSelector[]): CompiledList {
  try {
    const ast = csstree.parse(text, { context: 'selectorList' });
    if (ast.type !== 'SelectorList') return { kind: 'invalid', reason: 'is no selector' };
    const compiler = new Compiler(parent);
    const selectors = compiler.list(ast, 'nested');
    return { kind: 'list', selectors, unsure: compiler.unsure };
  } catch (error) {
    if (error instanceof InvalidSelector || error instanceof SyntaxError || isCssTreeError(error)) {
      return { kind: 'invalid', reason: (error as Error).message };
    }
    throw error;
  }
}

function isCssTreeError(error: unknown): boolean {
  return error instanceof Error && error.name === 'SyntaxError';
}

interface Draft {
  compounds: Compound[];
  combinators: Combinator[];
  texts: string[];
  specificity: number;
  pseudoElement: string;
  pseudoStates: string;
}

class Compiler {
  unsure = false;
  /** Inside `:is()` and `:where()` an unknown part drops only itself. */
  #forgiving = 0;
  readonly #parent: readonly ComplexSelector[] | undefined;

  constructor(parent: readonly ComplexSelector[] | undefined) {
    this.#parent = parent;
  }

  list(ast: SelectorList, place: 'nested' | 'argument' | 'relative'): ComplexSelector[] {
    const found: ComplexSelector[] = [];
    ast.children.forEach((node) => {
      if (node.type !== 'Selector') throw new InvalidSelector('is no selector');
      found.push(this.#complex(node.children.toArray(), place));
    });
    return found;
  }

  #complex(nodes: readonly CssNode[], place: 'nested' | 'argument' | 'relative'): ComplexSelector {
    const draft: Draft = {
      compounds: [],
      combinators: [],
      texts: [],
      specificity: 0,
      pseudoElement: '',
      pseudoStates: '',
    };
    let rest = nodes;
    let relative: Combinator | undefined;
    const first = nodes[0];
    if (place === 'relative') {
      relative = first?.type === 'Combinator' ? combinatorOf(first.name) : ' ';
      if (first?.type === 'Combinator') rest = nodes.slice(1);
    } else if (place === 'nested' && this.#parent !== undefined && !mentionsNesting(nodes)) {
      this.#addCompound(draft, [{ type: 'NestingSelector' } as CssNode]);
      draft.combinators.push(first?.type === 'Combinator' ? combinatorOf(first.name) : ' ');
      if (first?.type === 'Combinator') rest = nodes.slice(1);
    } else if (place === 'nested' && this.#parent !== undefined && first?.type === 'Combinator') {
      this.#addCompound(draft, [{ type: 'NestingSelector' } as CssNode]);
      draft.combinators.push(combinatorOf(first.name));
      rest = nodes.slice(1);
    }
    let run: CssNode[] = [];
    for (const node of rest) {
      if (node.type !== 'Combinator') {
        run.push(node);
        continue;
      }
      if (run.length === 0) throw new InvalidSelector('has a combinator with nothing before it');
      this.#addCompound(draft, run);
      draft.combinators.push(combinatorOf(node.name));
      run = [];
    }
    if (run.length === 0) throw new InvalidSelector('ends in a combinator');
    this.#addCompound(draft, run);
    const leading: string[] = [];
    draft.texts.forEach((text, i) => {
      leading.push(i === 0 ? text : `${leading[i - 1]}${spaced(draft.combinators[i - 1]!)}${text}`);
    });
    return {
      text: `${leading.at(-1)}`,
      compounds: draft.compounds,
      combinators: draft.combinators,
      leading,
      relative,
      specificity: draft.specificity,
      pseudoElement: draft.pseudoElement,
      pseudoStates: draft.pseudoStates,
    };
  }

  #addCompound(draft: Draft, nodes: readonly CssNode[]): void {
    if (draft.pseudoElement !== '') throw new InvalidSelector('goes on behind a pseudo-element');
    let type: string | undefined;
    let id: string | undefined;
    let never = false;
    const classes: string[] = [];
    const rest: Simple[] = [];
    for (const node of nodes) {
      switch (node.type) {
        case 'TypeSelector': {
          const name = csstree.ident.decode(node.name.startsWith('*|') ? node.name.slice(2) : node.name);
          if (name.includes('|')) throw new InvalidSelector('uses a namespace that is not declared');
          if (name !== '*') {
            type = name;
            draft.specificity += ONE_TYPE;
          }
          break;
        }
        case 'IdSelector': {
          const name = csstree.ident.decode(node.name);
          never ||= id !== undefined && id !== name;
          id = name;
          draft.specificity += ONE_ID;
          break;
        }
        case 'ClassSelector':
          classes.push(csstree.ident.decode(node.name));
          draft.specificity += ONE_CLASS;
          break;
        case 'AttributeSelector':
          rest.push(attributeSimple(node));
          draft.specificity += ONE_CLASS;
          break;
        case 'NestingSelector':
          if (this.#parent === undefined) rest.push({ kind: 'root' });
          else {
            rest.push({ kind: 'among', negated: false, selectors: this.#parent });
            draft.specificity += highest(this.#parent);
          }
          break;
        case 'PseudoElementSelector':
          this.#pseudoElement(draft, node.name, csstree.generate(node));
          break;
        case 'PseudoClassSelector':
          if (draft.pseudoElement !== '') {
            draft.pseudoStates += csstree.generate(node);
            draft.specificity += ONE_CLASS;
          } else if (LEGACY_ELEMENTS.has(node.name.toLowerCase()) && node.children === null) {
            this.#pseudoElement(draft, node.name, `::${node.name}`);
          } else this.#pseudoClass(draft, node, rest);
          break;
        default:
          throw new InvalidSelector(`holds ${csstree.generate(node)}`);
      }
    }
    draft.texts.push(
      nodes.map((node) => (node.type === 'NestingSelector' ? '&' : csstree.generate(node))).join(''),
    );
    draft.compounds.push({ type: type?.toLowerCase(), writtenType: type, id, classes, rest, never });
  }

  #pseudoElement(draft: Draft, name: string, text: string): void {
    if (!ELEMENTS.has(name.toLowerCase())) this.#doubt();
    draft.pseudoElement = text.toLowerCase();
    draft.specificity += ONE_TYPE;
  }

  #pseudoClass(draft: Draft, node: Extract<CssNode, { type: 'PseudoClassSelector' }>, rest: Simple[]): void {
    const name = node.name.toLowerCase();
    const argument = node.children?.first;
    switch (name) {
      case 'is':
      case 'where':
      case 'not':
      case '-webkit-any':
      case '-moz-any':
      case 'matches':
      case 'has': {
        if (name.startsWith('-') || name === 'matches') this.#doubt();
        if (argument?.type !== 'SelectorList') {
          if (name === 'is' || name === 'where')
            return void rest.push({ kind: 'among', negated: false, selectors: [] });
          throw new InvalidSelector(`has an empty :${name}()`);
        }
        const forgiving = name === 'is' || name === 'where';
        if (forgiving) this.#forgiving++;
        const selectors = this.list(argument, name === 'has' ? 'relative' : 'argument');
        if (forgiving) this.#forgiving--;
        if (selectors.some((one) => one.pseudoElement !== '')) this.#doubt();
        rest.push(
          name === 'has' ? { kind: 'has', selectors } : { kind: 'among', negated: name === 'not', selectors },
        );
        if (name !== 'where') draft.specificity += highest(selectors);
        return;
      }
      case 'nth-child':
      case 'nth-last-child':
      case 'nth-of-type':
      case 'nth-last-of-type':
        rest.push(this.#nth(name, argument));
        draft.specificity += ONE_CLASS + highestOf(rest.at(-1));
        return;
      default:
    }
    draft.specificity += ONE_CLASS;
    const positions = POSITIONS.get(name);
    if (positions !== undefined) rest.push(...positions);
    else if (name === 'empty' || name === 'root' || name === 'any-link') rest.push({ kind: name });
    else if (name === 'scope') rest.push({ kind: 'root' });
    else {
      if (!STATES.has(name)) this.#doubt();
      // Whether a link was visited is a state; whether it is one is not.
      if (name === 'link' || name === 'visited') rest.push({ kind: 'any-link' });
      rest.push({ kind: 'state', text: csstree.generate(node).toLowerCase() });
    }
  }

  #nth(name: string, argument: CssNode | null | undefined): Simple {
    if (argument?.type !== 'Nth') throw new InvalidSelector(`has :${name}() without a position`);
    const { nth, selector } = argument;
    let a = 0;
    let b = 0;
    if (nth.type === 'Identifier') [a, b] = nth.name === 'odd' ? [2, 1] : [2, 0];
    else [a, b] = [Number(nth.a ?? 0), Number(nth.b ?? 0)];
    const of = selector === null ? undefined : this.list(selector, 'argument');
    return { kind: 'nth', a, b, last: name.includes('last'), ofType: name.endsWith('of-type'), of };
  }

  #doubt(): void {
    if (this.#forgiving === 0) this.unsure = true;
  }
}

const nth = (last: boolean, ofType: boolean): Simple => ({
  kind: 'nth',
  a: 0,
  b: 1,
  last,
  ofType,
  of: undefined,
});

const POSITIONS: ReadonlyMap<string, readonly Simple[]> = new Map([
  ['first-child', [nth(false, false)]],
  ['last-child', [nth(true, false)]],
  ['only-child', [nth(false, false), nth(true, false)]],
  ['first-of-type', [nth(false, true)]],
  ['last-of-type', [nth(true, true)]],
  ['only-of-type', [nth(false, true), nth(true, true)]],
]);

function combinatorOf(name: string): Combinator {
  if (name === ' ' || name === '>' || name === '+' || name === '~') return name;
  throw new InvalidSelector(`uses the combinator ${name}`);
}

function spaced(combinator: Combinator): string {
  return combinator === ' ' ? ' ' : ` ${combinator} `;
}

function mentionsNesting(nodes: readonly CssNode[]): boolean {
  return nodes.some((node) => csstree.find(node, (inner) => inner.type === 'NestingSelector') !== null);
}

function attributeSimple(node: Extract<CssNode, { type: 'AttributeSelector' }>): Simple {
  const written = node.name.name;
  const name = csstree.ident.decode(written.startsWith('*|') ? written.slice(2) : written);
  if (name.includes('|')) throw new InvalidSelector('uses a namespace that is not declared');
  const value =
    node.value === null
      ? ''
      : node.value.type === 'String'
        ? node.value.value
        : csstree.ident.decode(node.value.name);
  return {
    kind: 'attribute',
    name,
    operator: node.matcher ?? undefined,
    value,
    flag: node.flags?.toLowerCase(),
  };
}

function highest(selectors: readonly ComplexSelector[]): number {
  return selectors.reduce((most, one) => Math.max(most, one.specificity), 0);
}

function highestOf(simple: Simple | undefined): number {
  return simple?.kind === 'nth' && simple.of !== undefined ? highest(simple.of) : 0;
}
