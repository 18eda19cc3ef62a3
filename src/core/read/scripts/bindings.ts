// What the names of a script stand for: the one value that a name is given in its function, where there is only one.

import type { AnyNode, AssignmentExpression, CallExpression, Function as FunctionNode } from 'acorn';
import { full, fullAncestor } from 'acorn-walk';
import { propertyName } from './syntax.js';

interface Binding {
  /** What it is given; `undefined` for what is not known. */
  readonly values: (AnyNode | undefined)[];
  /** The set whose members it stands for, one after the other. */
  item: AnyNode | undefined;
}

/** A function, or the whole script. */
type Scope = AnyNode;

const EACH = new Set(['forEach', 'map', 'filter', 'some', 'every']);

export class Bindings {
  readonly #program: Scope;
  readonly #outer = new Map<Scope, Scope>();
  readonly #names = new Map<Scope, Map<string, Binding>>();
  readonly #scopeOf = new WeakMap<AnyNode, Scope>();

  constructor(program: AnyNode) {
    this.#program = program;
    const given: { name: string; scope: Scope; value: AnyNode | undefined }[] = [];
    const items: { name: string; scope: Scope; set: AnyNode }[] = [];
    fullAncestor(program, (node, _state, ancestors) => {
      const scope = scopeAround(ancestors as AnyNode[], program);
      this.#note(node as AnyNode, scope, given, items, ancestors.at(-2) as AnyNode | undefined);
    });
    for (const { name, scope, value } of given) {
      const binding = this.#find(name, scope) ?? this.#declare(name, program);
      binding.values.push(value);
    }
    for (const { name, scope, set } of items) {
      const binding = this.#find(name, scope);
      if (binding !== undefined) binding.item = set;
    }
  }

  /** The expression that the name was given once and for all. */
  valueOf(node: AnyNode & { type: 'Identifier' }): AnyNode | undefined {
    const binding = this.#bindingOf(node);
    return binding?.values.length === 1 ? binding.values[0] : undefined;
  }

  /** All that the name is given; `undefined` where one of it is not known. */
  valuesOf(node: AnyNode & { type: 'Identifier' }): readonly AnyNode[] | undefined {
    const values = this.#bindingOf(node)?.values;
    return values?.every((one) => one !== undefined) ? (values as AnyNode[]) : undefined;
  }

  /** The set that the name goes through. */
  setOf(node: AnyNode & { type: 'Identifier' }): AnyNode | undefined {
    const binding = this.#bindingOf(node);
    return binding?.values.length === 1 ? binding.item : undefined;
  }

  #bindingOf(node: AnyNode & { type: 'Identifier' }): Binding | undefined {
    return this.#find(node.name, this.#scopeOf.get(node) ?? this.#program);
  }

  #find(name: string, from: Scope): Binding | undefined {
    for (let scope: Scope | undefined = from; scope !== undefined; scope = this.#outer.get(scope)) {
      const found = this.#names.get(scope)?.get(name);
      if (found !== undefined) return found;
    }
    return undefined;
  }

  #declare(name: string, scope: Scope): Binding {
    const names = this.#names.get(scope) ?? new Map<string, Binding>();
    this.#names.set(scope, names);
    const binding = names.get(name) ?? { values: [], item: undefined };
    names.set(name, binding);
    return binding;
  }

  #give(name: string, scope: Scope, value: AnyNode | undefined): void {
    this.#declare(name, scope).values.push(value);
  }

  #note(
    node: AnyNode,
    scope: Scope,
    given: { name: string; scope: Scope; value: AnyNode | undefined }[],
    items: { name: string; scope: Scope; set: AnyNode }[],
    around: AnyNode | undefined,
  ): void {
    switch (node.type) {
      case 'Identifier':
        this.#scopeOf.set(node, scope);
        return;
      case 'VariableDeclarator':
        if (node.id.type !== 'Identifier')
          for (const name of namesIn(node.id)) this.#give(name, scope, undefined);
        else if (node.init) this.#give(node.id.name, scope, node.init);
        // Without a value it is given one later.
        else this.#declare(node.id.name, scope);
        return;
      case 'AssignmentExpression':
        if (node.left.type === 'Identifier')
          given.push({ name: node.left.name, scope, value: assigned(node) });
        else if (node.left.type !== 'MemberExpression')
          for (const name of namesIn(node.left)) given.push({ name, scope, value: undefined });
        return;
      case 'UpdateExpression':
        if (node.argument.type === 'Identifier')
          given.push({ name: node.argument.name, scope, value: NUMBER });
        return;
      case 'FunctionDeclaration':
      case 'FunctionExpression':
      case 'ArrowFunctionExpression': {
        this.#outer.set(node, scope);
        if (node.type === 'FunctionDeclaration' && node.id) this.#give(node.id.name, scope, undefined);
        const place = placeParameter(node as FunctionNode, around);
        for (const parameter of node.params)
          for (const name of namesIn(parameter))
            this.#give(name, node, parameter === place ? NUMBER : undefined);
        return;
      }
      case 'CatchClause':
        if (node.param) for (const name of namesIn(node.param)) this.#give(name, scope, undefined);
        return;
      case 'ForInStatement':
      case 'ForOfStatement': {
        const { left, right } = node;
        const id = left.type === 'VariableDeclaration' ? left.declarations[0]?.id : left;
        if (id?.type !== 'Identifier') return;
        given.push({ name: id.name, scope, value: undefined });
        if (node.type === 'ForOfStatement') items.push({ name: id.name, scope, set: right });
        return;
      }
      case 'CallExpression': {
        const item = loopItem(node);
        if (item !== undefined) items.push(item);
        return;
      }
    }
  }
}

/** The innermost function around a node; a function itself stands in the one around it. */
function scopeAround(ancestors: readonly AnyNode[], program: Scope): Scope {
  for (let at = ancestors.length - 2; at >= 0; at--) if (isFunction(ancestors[at])) return ancestors[at]!;
  return program;
}

/** Stands for a number that is not written out. */
const NUMBER = { type: 'Literal', value: 0, start: 0, end: 0 } as AnyNode;

/** What an assignment gives to a name. */
function assigned({ operator, right }: AssignmentExpression): AnyNode | undefined {
  if (operator === '=') return right;
  const isCounting = operator === '+=' ? right.type === 'Literal' && typeof right.value === 'number' : true;
  return isCounting && !['||=', '&&=', '??='].includes(operator) ? NUMBER : undefined;
}

/** The parameter that counts: `cards.forEach((card, i) => …)`, and jQuery's `.each(function (i, card) …)`. */
function placeParameter(node: FunctionNode, around: AnyNode | undefined): AnyNode | undefined {
  if (around?.type !== 'CallExpression' || around.callee.type !== 'MemberExpression') return undefined;
  const name = propertyName(around.callee) ?? '';
  if (EACH.has(name)) return node.params[1];
  return name === 'each' && around.arguments.length === 1 ? node.params[0] : undefined;
}

/** `cards.forEach((card) => …)`, and jQuery's `.each(function (i, card) …)`. */
function loopItem({
  callee,
  arguments: [first],
}: CallExpression): { name: string; scope: Scope; set: AnyNode } | undefined {
  if (callee.type !== 'MemberExpression' || !isFunction(first)) return undefined;
  const name = propertyName(callee) ?? '';
  const parameter = EACH.has(name) ? first.params[0] : name === 'each' ? first.params[1] : undefined;
  if (parameter?.type !== 'Identifier') return undefined;
  return { name: parameter.name, scope: first, set: callee.object as AnyNode };
}

function isFunction(node: AnyNode | undefined): node is FunctionNode & AnyNode {
  return (
    node?.type === 'FunctionExpression' ||
    node?.type === 'ArrowFunctionExpression' ||
    node?.type === 'FunctionDeclaration'
  );
}

function namesIn(pattern: AnyNode): string[] {
  const names: string[] = [];
  full(pattern, (node) => {
    const one = node as AnyNode;
    if (one.type === 'Identifier') names.push(one.name);
  });
  return names;
}
