// What the names of a script stand for: the one value that a name is given in its function, where there is only one.

import type { AnyNode, CallExpression, Function as FunctionNode } from 'acorn';
import { full, fullAncestor } from 'acorn-walk';
import { propertyName } from './syntax.js';

interface Binding {
  /** How many values it is given. */
  times: number;
  value: AnyNode | undefined;
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
      this.#note(node as AnyNode, scope, given, items);
    });
    for (const { name, scope, value } of given) {
      const binding = this.#find(name, scope) ?? this.#declare(name, program);
      binding.times++;
      binding.value = value;
    }
    for (const { name, scope, set } of items) {
      const binding = this.#find(name, scope);
      if (binding !== undefined) binding.item = set;
    }
  }

  /** The expression that the name was given once and for all. */
  valueOf(node: AnyNode & { type: 'Identifier' }): AnyNode | undefined {
    const binding = this.#bindingOf(node);
    return binding?.times === 1 ? binding.value : undefined;
  }

  /** The set that the name goes through. */
  setOf(node: AnyNode & { type: 'Identifier' }): AnyNode | undefined {
    const binding = this.#bindingOf(node);
    return binding?.times === 1 ? binding.item : undefined;
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
    const binding = names.get(name) ?? { times: 0, value: undefined, item: undefined };
    names.set(name, binding);
    return binding;
  }

  #give(name: string, scope: Scope, value: AnyNode | undefined): void {
    const binding = this.#declare(name, scope);
    binding.times++;
    binding.value = value;
  }

  #note(
    node: AnyNode,
    scope: Scope,
    given: { name: string; scope: Scope; value: AnyNode | undefined }[],
    items: { name: string; scope: Scope; set: AnyNode }[],
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
          given.push({ name: node.left.name, scope, value: node.operator === '=' ? node.right : undefined });
        else if (node.left.type !== 'MemberExpression')
          for (const name of namesIn(node.left)) given.push({ name, scope, value: undefined });
        return;
      case 'UpdateExpression':
        if (node.argument.type === 'Identifier')
          given.push({ name: node.argument.name, scope, value: undefined });
        return;
      case 'FunctionDeclaration':
      case 'FunctionExpression':
      case 'ArrowFunctionExpression':
        this.#outer.set(node, scope);
        if (node.type === 'FunctionDeclaration' && node.id) this.#give(node.id.name, scope, undefined);
        for (const parameter of node.params)
          for (const name of namesIn(parameter)) this.#give(name, node, undefined);
        return;
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
