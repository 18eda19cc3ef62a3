// Selector text compiled once into a form the matcher walks from right to left.

import type { CssNode, SelectorList } from 'css-tree';
import * as csstree from 'css-tree/dist/csstree.esm';
import { either, isMadeOf, LETTER } from '../base/characters.js';
import { ANY_OF_MODULE, moduleClass } from '../read/components/index.js';
import { ELEMENTS, IDENTIFIER, LEGACY_ELEMENTS, PLAIN, POSITIONS, STATES } from './selector-known.js';
import {
  type Combinator,
  type CompiledList,
  type ComplexSelector,
  type Compound,
  ONE_CLASS,
  ONE_ID,
  ONE_TYPE,
  type SelectorContext,
  type Simple,
} from './selector-model.js';
import { STATIC_STATES } from './static-states.js';

class InvalidSelector extends Error {}

/**
 * Compiles a selector list.
 * In: the text; what stands around the rule. Out: the selectors, or why a browser drops the rule.
 */
export function compileSelectorList(text: string, context: SelectorContext = {}): CompiledList {
  try {
    const ast = csstree.parse(text, { context: 'selectorList' });
    if (ast.type !== 'SelectorList') return { kind: 'invalid', reason: 'is no selector' };
    const compiler = new Compiler(context);
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
  #inHas = false;
  readonly #context: SelectorContext;

  constructor(context: SelectorContext) {
    this.#context = context;
  }

  get #parent(): readonly ComplexSelector[] | undefined {
    return this.#context.parent;
  }

  /** In: `forgiving`, whether an invalid member drops only itself, as in `:is()` (Selectors 4 §17.2). */
  list(ast: SelectorList, place: 'nested' | 'argument' | 'relative', forgiving = false): ComplexSelector[] {
    const found: ComplexSelector[] = [];
    ast.children.forEach((node) => {
      try {
        if (node.type !== 'Selector') throw new InvalidSelector('is no selector');
        found.push(this.#complex(node.children.toArray(), place));
      } catch (error) {
        if (!forgiving || !(error instanceof InvalidSelector)) throw error;
      }
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
    if (place === 'nested' && this.#context.scoped === true && this.#parent === undefined) {
      // CSS Cascade 6: what does not name the scope's root stands below it.
      if (!mentionsScope(nodes)) {
        draft.compounds.push({ ...ANYTHING, rest: [{ kind: 'scope root' }] });
        draft.texts.push(':scope');
        draft.combinators.push(first?.type === 'Combinator' ? combinatorOf(first.name) : ' ');
        if (first?.type === 'Combinator') rest = nodes.slice(1);
      }
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
    let namespace = this.#context.namespaces?.get('');
    let id: string | undefined;
    let never = false;
    const classes: string[] = [];
    const rest: Simple[] = [];
    for (const [at, node] of nodes.entries()) {
      if (draft.pseudoElement !== '' && !node.type.startsWith('Pseudo'))
        throw new InvalidSelector('goes on behind a pseudo-element');
      switch (node.type) {
        case 'TypeSelector': {
          if (at > 0) throw new InvalidSelector('names an element behind something else');
          const bar = node.name.indexOf('|');
          const name = csstree.ident.decode(node.name.slice(bar + 1));
          if (bar >= 0) namespace = this.#namespace(node.name.slice(0, bar));
          if (name !== '*') {
            type = name;
            draft.specificity += ONE_TYPE;
          }
          break;
        }
        case 'IdSelector': {
          if (!IDENTIFIER.test(node.name)) throw new InvalidSelector(`holds #${node.name}`);
          const name = csstree.ident.decode(node.name);
          never ||= id !== undefined && id !== name;
          id = name;
          draft.specificity += ONE_ID;
          break;
        }
        case 'ClassSelector':
          this.#className(csstree.ident.decode(node.name), classes, rest);
          draft.specificity += ONE_CLASS;
          break;
        case 'AttributeSelector':
          rest.push(attributeSimple(node));
          // Not every browser has come to know the flag for comparing case.
          if ((node.flags ?? '').toLowerCase() === 's') this.#doubt();
          draft.specificity += ONE_CLASS;
          break;
        case 'NestingSelector':
          if (this.#context.scoped === true && this.#parent === undefined) {
            // What `&` weighs in a scope has changed since it came up.
            this.#doubt();
            rest.push({ kind: 'scope root' });
          } else if (this.#parent === undefined) rest.push({ kind: 'root' });
          else {
            rest.push({ kind: 'among', negated: false, selectors: this.#parent });
            draft.specificity += highest(this.#parent);
          }
          break;
        case 'PseudoElementSelector':
          this.#pseudoElement(draft, node);
          break;
        case 'PseudoClassSelector':
          if (draft.pseudoElement !== '') {
            // Few states may follow one, in no two browsers the same.
            this.#doubt();
            draft.pseudoStates += csstree.generate(node);
            draft.specificity += ONE_CLASS;
          } else if (LEGACY_ELEMENTS.has(node.name.toLowerCase()) && node.children === null) {
            this.#pseudoElement(draft, { ...node, type: 'PseudoElementSelector' });
          } else this.#pseudoClass(draft, node, rest);
          break;
        default:
          throw new InvalidSelector(`holds ${csstree.generate(node)}`);
      }
    }
    draft.texts.push(
      nodes.map((node) => (node.type === 'NestingSelector' ? '&' : csstree.generate(node))).join(''),
    );
    draft.compounds.push({
      type: type?.toLowerCase(),
      writtenType: type,
      namespace,
      id,
      classes,
      rest,
      never,
    });
  }

  /** A class as it is called, or as what a build makes of it. */
  #className(name: string, classes: string[], rest: Simple[]): void {
    const { local } = this.#context;
    if (local?.isOpen === true) rest.push({ kind: 'state', text: `.${name} of ${local.sheet}` });
    classes.push(local === undefined ? name : moduleClass(local.sheet, local.isOpen ? ANY_OF_MODULE : name));
  }

  /** The address of a prefix; an empty prefix in front of `|` means no namespace at all, `*` any. */
  #namespace(prefix: string): string | undefined {
    if (prefix === '*') return undefined;
    if (prefix === '') return '';
    const address = this.#context.namespaces?.get(prefix);
    if (address === undefined) throw new InvalidSelector('uses a namespace that is not declared');
    return address;
  }

  #pseudoElement(draft: Draft, node: Extract<CssNode, { type: 'PseudoElementSelector' }>): void {
    const isKnown = ELEMENTS.has(node.name.toLowerCase());
    if (isKnown && node.children !== null) throw new InvalidSelector(`gives ::${node.name} an argument`);
    // One behind another, as in `::before::marker`, is newer than either.
    if (!isKnown || draft.pseudoElement !== '') this.#doubt();
    draft.pseudoElement += csstree.generate(node).toLowerCase();
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
        if (name.startsWith('-') || name === 'matches') this.#doubt(rest, `:${name}()`);
        if (argument?.type !== 'SelectorList') {
          if (name === 'is' || name === 'where')
            return void rest.push({ kind: 'among', negated: false, selectors: [] });
          throw new InvalidSelector(`has an empty :${name}()`);
        }
        // Selectors 4 §4.5: `:has()` in `:has()` is invalid, and in a list that forgives it is dropped.
        if (name === 'has' && this.#inHas) throw new InvalidSelector('has :has() in :has()');
        const forgiving = name === 'is' || name === 'where';
        if (forgiving) this.#forgiving++;
        const around = this.#inHas;
        this.#inHas ||= name === 'has';
        const selectors = this.list(argument, name === 'has' ? 'relative' : 'argument', forgiving);
        this.#inHas = around;
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
    const takes = name === 'lang' || name === 'dir';
    if (PLAIN.has(name) && takes !== (node.children !== null))
      throw new InvalidSelector(`${takes ? 'gives no argument to' : 'gives an argument to'} :${name}`);
    const positions = POSITIONS.get(name);
    if (positions !== undefined) rest.push(...positions);
    else if (name === 'empty' || name === 'root' || name === 'any-link') rest.push({ kind: name });
    else if (name === 'scope') rest.push({ kind: this.#context.scoped === true ? 'scope root' : 'root' });
    else if (STATIC_STATES.has(name)) {
      const text = csstree.generate(node);
      const given = /\(([\s\S]*)\)/.exec(text)?.[1] ?? '';
      // Lists of languages and wildcards are newer than `:lang(en)`.
      // In a list that forgives, the browser that does not know it drops it alone.
      if (name === 'dir' || (name === 'lang' && !isMadeOf(given, either(LETTER, '-'))))
        this.#doubt(rest, text);
      rest.push({ kind: 'static', name, argument: given, text });
    } else {
      if (!STATES.has(name)) this.#doubt();
      // Whether a link was visited is a state; whether it is one is not.
      if (name === 'link' || name === 'visited') rest.push({ kind: 'any-link' });
      rest.push({ kind: 'state', text: csstree.generate(node).toLowerCase() });
    }
  }

  #nth(name: string, argument: CssNode | null | undefined): Simple {
    if (argument?.type !== 'Nth') throw new InvalidSelector(`has :${name}() without a position`);
    const { nth, selector } = argument;
    if (selector !== null && name.endsWith('of-type')) throw new InvalidSelector(`has :${name}(… of …)`);
    let a = 0;
    let b = 0;
    if (nth.type === 'Identifier') [a, b] = nth.name === 'odd' ? [2, 1] : [2, 0];
    else [a, b] = [Number(nth.a ?? 0), Number(nth.b ?? 0)];
    const of = selector === null ? undefined : this.list(selector, 'argument');
    if (of?.some(({ pseudoElement }) => pseudoElement !== '') === true) this.#doubt();
    return { kind: 'nth', a, b, last: name.includes('last'), ofType: name.endsWith('of-type'), of };
  }

  /** Not every browser knows `text`. In: what is left open where a list forgives it. */
  #doubt(rest: Simple[] = [], text = ''): void {
    if (this.#forgiving === 0) this.unsure = true;
    else if (text !== '') rest.push({ kind: 'state', text: `the browser knows ${text}` });
  }
}

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

const ANYTHING: Compound = {
  type: undefined,
  writtenType: undefined,
  namespace: undefined,
  id: undefined,
  classes: [],
  rest: [],
  never: false,
};

function mentionsScope(nodes: readonly CssNode[]): boolean {
  const isScope = (node: CssNode): boolean =>
    node.type === 'NestingSelector' ||
    (node.type === 'PseudoClassSelector' && node.name.toLowerCase() === 'scope');
  return nodes.some((node) => csstree.find(node, isScope) !== null);
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
    flag: flagOf(node),
  };
}

function flagOf({ flags, matcher }: Extract<CssNode, { type: 'AttributeSelector' }>): string | undefined {
  const flag = flags?.toLowerCase();
  if (flag !== undefined && (matcher === null || (flag !== 'i' && flag !== 's')))
    throw new InvalidSelector(`has the flag ${flag}`);
  return flag;
}

function highest(selectors: readonly ComplexSelector[]): number {
  return selectors.reduce((most, one) => Math.max(most, one.specificity), 0);
}

function highestOf(simple: Simple | undefined): number {
  return simple?.kind === 'nth' && simple.of !== undefined ? highest(simple.of) : 0;
}
