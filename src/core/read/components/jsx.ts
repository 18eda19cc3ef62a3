// Markup in JavaScript and TypeScript: every element that is written as one.

import { startsWithAny } from '../../base/phrases.js';
import type { SourceRange } from '../../base/source.js';
import { ElementFacts } from './builder.js';
import { classesOf, isNode, type Node, nodesAt, stringOf } from './expression.js';
import type { ComponentFile, ComponentNode } from './model.js';
import { type Modules, modulesIn, NO_MODULES } from './module-names.js';
import { isElementName, namespaceOf } from './names.js';
import { compilerNamed } from './parsers.js';
import { readStyleObject, type Units } from './style-object.js';
import { unwritten } from './unwritten.js';

interface Babel {
  readonly parse: (text: string, options: object) => unknown;
}

/** Throws for a text that no compiler would take. */
export function readJsx(path: string, text: string): ComponentFile | undefined {
  const babel = compilerNamed('@babel/parser') as Babel;
  const file = babel.parse(text, {
    sourceType: 'unambiguous',
    errorRecovery: true,
    allowReturnOutsideFunction: true,
    plugins: [
      'jsx',
      /\.tsx?$/i.test(path) ? 'typescript' : 'flow',
      ...['decorators', 'explicitResourceManagement', 'importAttributes'],
    ],
  });
  if (!isNode(file)) return undefined;
  const modules = modulesIn(path, text);
  const reader = new JsxReader(text, modules);
  reader.readAll(file);
  return {
    roots: reader.roots,
    expressions: reader.expressions,
    blocks: [],
    imports: reader.imports,
    modules,
  };
}

type Around = { readonly namespace: 'html' | 'svg' | 'mathml'; readonly name: string };
const NOTHING_AROUND: Around = { namespace: 'html', name: '' };

/** What is passed over when a tree is walked. */
const NO_CHILD = new Set([
  'loc',
  'start',
  'end',
  'type',
  'extra',
  'leadingComments',
  'trailingComments',
  'innerComments',
  'errors',
  'comments',
  'tokens',
]);

class JsxReader {
  readonly roots: ComponentNode[] = [];
  readonly expressions: string[] = [];
  readonly imports: string[] = [];

  constructor(
    readonly text: string,
    readonly modules: Modules = NO_MODULES,
    /** What a number in a style is in. */
    readonly units: Units = 'px',
  ) {}

  /** Looks for elements wherever they may stand: nobody knows around what those will be. */
  readAll(node: Node): void {
    if (node.type === 'JSXElement' || node.type === 'JSXFragment') {
      this.roots.push(...this.#output(node, NOTHING_AROUND).nodes);
      return;
    }
    if (node.type === 'ImportDeclaration') {
      const source = stringOf(node.source as Node);
      if (source !== undefined) this.imports.push(source);
    }
    for (const child of childrenOf(node)) this.readAll(child);
  }

  /** What an element, a fragment or an expression puts among the children of what stands around it. */
  #output(node: Node, around: Around): { readonly nodes: ComponentNode[]; readonly isOpen: boolean } {
    switch (node.type) {
      case 'JSXElement':
        return this.#element(node, around);
      case 'JSXFragment':
        return this.#together(nodesAt(node, 'children'), around);
      case 'JSXText':
        return { nodes: [{ kind: 'text', value: String(node.value) }], isOpen: false };
      case 'JSXExpressionContainer': {
        const inner = node.expression as Node;
        const text = stringOf(inner);
        if (text !== undefined) return { nodes: [{ kind: 'text', value: text }], isOpen: false };
        if (inner.type === 'JSXEmptyExpression') return { nodes: [], isOpen: false };
        return { nodes: this.#output(inner, around).nodes, isOpen: true };
      }
      case 'ConditionalExpression':
        return this.#branches([node.consequent, node.alternate], [node.test], around);
      case 'LogicalExpression':
        return this.#branches([node.left, node.right], [], around);
      case 'ParenthesizedExpression':
      case 'TSAsExpression':
      case 'TSNonNullExpression':
        return this.#branches([node.expression], [], around);
      case 'ArrayExpression':
        return this.#branches(nodesAt(node, 'elements'), [], around);
      case 'CallExpression':
        return this.#call(node, around);
      default:
        this.#keep(node);
        this.readAll(node);
        return { nodes: [], isOpen: true };
    }
  }

  #together(all: readonly Node[], around: Around): { nodes: ComponentNode[]; isOpen: boolean } {
    const each = all.map((one) => this.#output(one, around));
    return { nodes: each.flatMap(({ nodes }) => nodes), isOpen: each.some(({ isOpen }) => isOpen) };
  }

  #branches(shown: readonly unknown[], asked: readonly unknown[], around: Around) {
    for (const one of asked) if (isNode(one)) this.#keep(one);
    return { ...this.#together(shown.filter(isNode), around), isOpen: true };
  }

  /** `list.map((one) => <li/>)` puts what its function gives among the children; of other calls nobody knows. */
  #call(node: Node, around: Around): { nodes: ComponentNode[]; isOpen: boolean } {
    const callee = node.callee as Node;
    const method = callee.type === 'MemberExpression' ? (callee.property as Node).name : undefined;
    const [given] = nodesAt(node, 'arguments');
    const isMap = method === 'map' || method === 'flatMap';
    if (!isMap || given === undefined || !/^(Arrow)?FunctionExpression$/.test(given.type)) {
      this.#keep(node);
      this.readAll(node);
      return { nodes: [], isOpen: true };
    }
    this.readAll(callee);
    const body = given.body as Node;
    if (body.type !== 'BlockStatement') return { ...this.#output(body, around), isOpen: true };
    const nodes: ComponentNode[] = [];
    const look = (one: Node): void => {
      if (one.type === 'ReturnStatement' && isNode(one.argument))
        nodes.push(...this.#output(one.argument, around).nodes);
      else if (startsWithAny(one.type, ['If', 'Block', 'Switch', 'Try']) || one.type === 'SwitchCase')
        childrenOf(one).forEach(look);
      else this.readAll(one);
    };
    nodesAt(body, 'body').forEach(look);
    return { nodes, isOpen: true };
  }

  #keep(node: Node): void {
    if (!node.type.startsWith('JSX'))
      this.expressions.push(this.text.slice(Number(node.start), Number(node.end)));
  }

  #element(node: Node, around: Around): { nodes: ComponentNode[]; isOpen: boolean } {
    const opening = node.openingElement as Node;
    const named = opening.name as Node;
    const name = named.type === 'JSXIdentifier' ? String(named.name) : '';
    const children = nodesAt(node, 'children');
    if (!isElementName(name)) {
      // Nobody knows what a component makes, and around what it puts what it is given.
      for (const attribute of nodesAt(opening, 'attributes')) this.readAll(attribute);
      this.roots.push(...this.#together(children, NOTHING_AROUND).nodes);
      return { nodes: [], isOpen: true };
    }
    const facts = new ElementFacts();
    for (const attribute of nodesAt(opening, 'attributes')) this.#attribute(attribute, facts);
    const namespace = namespaceOf(name, around.namespace, around.name);
    const inside = this.#together(children, { namespace, name });
    facts.children.push(...inside.nodes);
    facts.isOpen ||= inside.isOpen;
    return {
      nodes: [facts.element(name, namespace, this.text, rangeOf(node), Number(opening.end))],
      isOpen: false,
    };
  }

  #attribute(node: Node, facts: ElementFacts): void {
    const range = rangeOf(node);
    if (node.type !== 'JSXAttribute') {
      facts.prints = true;
      this.readAll(node);
      return;
    }
    const named = node.name as Node;
    const written = named.type === 'JSXIdentifier' ? String(named.name) : '';
    const value = node.value;
    const inner =
      isNode(value) && value.type === 'JSXExpressionContainer' ? (value.expression as Node) : undefined;
    const literal = isNode(value) ? (stringOf(value) ?? stringOf(inner)) : '';
    if (/^on[A-Z]/.test(written) || written === 'key' || written === 'ref') {
      // A reference lets code do anything to the element, as a script does.
      if (inner !== undefined) this.readAll(inner);
      return;
    }
    const name = written === 'className' ? 'class' : written === 'htmlFor' ? 'for' : written.toLowerCase();
    if (name === 'style' && inner !== undefined) {
      this.#style(inner, range, facts);
      return;
    }
    if (name === 'dangerouslysetinnerhtml') {
      facts.isOpen = true;
      return;
    }
    if (literal !== undefined) {
      facts.literal(name, literal, range);
      return;
    }
    if (inner === undefined) return;
    if (name === 'class') {
      facts.classes.push(classesOf(inner, this.modules));
      // What is written by code, and where a word could be put, the edits know.
      facts.literal('class', unwritten(this.text.slice(range.start, range.end)), range);
      return;
    }
    facts.computed(name, this.text.slice(range.start, range.end), range);
    this.readAll(inner);
  }

  #style(node: Node, range: SourceRange, facts: ElementFacts): void {
    const read = readStyleObject(node, this.text, 0, this.units);
    if (read === undefined) facts.style.add(unwritten(this.text.slice(range.start, range.end)), range);
    else facts.style.write(read.style, range, read);
  }
}

function rangeOf(node: Node): SourceRange {
  return { start: Number(node.start), end: Number(node.end) };
}

function childrenOf(node: Node): Node[] {
  const found: Node[] = [];
  for (const [key, value] of Object.entries(node)) {
    if (NO_CHILD.has(key)) continue;
    if (Array.isArray(value)) found.push(...value.filter(isNode));
    else if (isNode(value)) found.push(value);
  }
  return found;
}
