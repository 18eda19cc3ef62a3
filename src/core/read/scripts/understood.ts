// What in a script is not understood. A form counts as understood when the readers of this folder follow it, or when it
// can do nothing to styles; everything else that could reach an element is named here, and taken to do whatever the words
// of the script could mean.

import type { AnyNode, CallExpression, MemberExpression, NewExpression } from 'acorn';
import { ancestor, full } from 'acorn-walk';
import type { Bindings } from './bindings.js';
import { codeArgument, nameCalled } from './code.js';
import { isKnownCall } from './known-calls.js';
import { propertyName, stringOf } from './syntax.js';

export interface Unclear {
  /** What it does, to be said behind the script's name. */
  readonly does: UnclearDoing;
  /** Offset in the script's text. */
  readonly offset: number;
}

export type UnclearDoing =
  | 'calls what it names only as it runs'
  | 'sets a property that it names only as it runs'
  | 'runs code that it puts together'
  | 'sets the properties of another object'
  | 'keeps a method that changes elements'
  | 'uses what is not followed';

/** Methods that change elements, which are followed only where they are called by name. */
const CHANGING = new Set(
  `setAttribute setAttributeNS removeAttribute removeAttributeNS toggleAttribute appendChild insertBefore replaceChild
  removeChild replaceWith replaceChildren insertAdjacentHTML insertAdjacentElement setProperty removeProperty addClass
  removeClass toggleClass removeAttr insertRule deleteRule write writeln`.split(/\s+/),
);

/** Members by which styling or markup is read or set in ways that are not followed. */
const NOT_FOLLOWED = new Set(
  `attributes getAttributeNode getAttributeNodeNS setAttributeNode setAttributeNodeNS removeAttributeNode createAttribute
  createAttributeNS getAttributeNames setNamedItem removeNamedItem getNamedItem execCommand designMode setHTML
  setHTMLUnsafe createContextualFragment parseFromString surroundContents extractContents deleteContents insertNode
  contentDocument contentWindow srcdoc outerText transformToFragment transformToDocument`.split(/\s+/),
);

/** Members by which names that are kept in the markup are read. */
const READING = new Set('dataset getAttribute data attr value val attributes'.split(' '));

const MARKUP = new Set(['innerHTML', 'outerHTML']);
/** Objects that are no element. */
const NO_ELEMENT = new Set(
  'window self globalThis localStorage sessionStorage exports module process console Math JSON'.split(' '),
);
const MAKING = new Set(
  'Map Set Array Object Date RegExp URLSearchParams FormData Headers Uint8Array Float32Array'.split(' '),
);
const GIVING_OBJECTS = new Set(
  'create parse keys values entries fromEntries map filter slice concat split from sort'.split(' '),
);

export interface Understanding {
  /** The first of each kind. */
  readonly unclear: readonly Unclear[];
  /** Names that it calls, and neither it nor a browser is known to have, with the offset of the first call. */
  readonly calls: ReadonlyMap<string, number>;
  /** Names that it gives to something of its own. */
  readonly defines: ReadonlySet<string>;
  /** Keys of its objects: they may be names as its strings may. */
  readonly keys: ReadonlySet<string>;
  /** Whether it reads attributes and values of elements, in which names may be kept. */
  readonly readsMarkup: boolean;
}

export const NOTHING_UNCLEAR: Understanding = {
  ...{ unclear: [], calls: new Map(), defines: new Set(), keys: new Set(), readsMarkup: true },
};

export function understandingOf(program: AnyNode, bindings: Bindings): Understanding {
  return new Understander(program, bindings).understanding();
}

class Understander {
  readonly #first = new Map<UnclearDoing, number>();
  readonly #calls = new Map<string, number>();
  readonly #defines = new Set<string>();
  readonly #keys = new Set<string>();
  #readsMarkup = false;
  /** What each property is set to anywhere in the script, by its name. */
  readonly #values = new Map<string, AnyNode[]>();

  constructor(
    program: AnyNode,
    readonly bindings: Bindings,
  ) {
    full(program, (node) => this.#collect(node as AnyNode));
    ancestor(program, {
      CallExpression: (node) => this.#call(node),
      NewExpression: (node) => this.#call(node),
      MemberExpression: (node, _state, ancestors) => this.#member(node, ancestors.at(-2) as AnyNode),
      AssignmentExpression: ({ left, start }) => this.#set(left as AnyNode, start),
      UpdateExpression: ({ argument, start }) => this.#set(argument as AnyNode, start),
      ForInStatement: ({ left, start }) => this.#setInTurn(left as AnyNode, start),
      ForOfStatement: ({ left, start }) => this.#setInTurn(left as AnyNode, start),
      WithStatement: ({ start }) => this.#note('uses what is not followed', start),
    });
  }

  understanding(): Understanding {
    const calls = new Map([...this.#calls].filter(([name]) => !this.#defines.has(name)));
    const unclear = [...this.#first].map(([does, offset]) => ({ does, offset }));
    return { unclear, calls, defines: this.#defines, keys: this.#keys, readsMarkup: this.#readsMarkup };
  }

  #note(does: UnclearDoing, offset: number): void {
    this.#first.set(does, Math.min(this.#first.get(does) ?? offset, offset));
  }

  #collect(node: AnyNode): void {
    switch (node.type) {
      case 'VariableDeclarator':
        this.#define(node.id);
        return;
      case 'FunctionDeclaration':
      case 'FunctionExpression':
      case 'ArrowFunctionExpression':
        if (node.id) this.#defines.add(node.id.name);
        for (const one of node.params) this.#define(one);
        return;
      case 'ClassDeclaration':
      case 'ClassExpression':
        if (node.id) this.#defines.add(node.id.name);
        return;
      case 'ImportSpecifier':
      case 'ImportDefaultSpecifier':
      case 'ImportNamespaceSpecifier':
        this.#defines.add(node.local.name);
        return;
      case 'Property':
      case 'MethodDefinition':
      case 'PropertyDefinition': {
        const key = node.computed || node.key.type !== 'Identifier' ? stringOf(node.key) : node.key.name;
        if (key === undefined) return;
        this.#defines.add(key);
        if (node.type === 'Property') this.#keys.add(key);
        if (node.value) this.#valueOf(key).push(node.value);
        return;
      }
      case 'AssignmentExpression':
        if (node.left.type === 'Identifier') this.#defines.add(node.left.name);
        if (node.left.type === 'MemberExpression') {
          const name = propertyName(node.left);
          if (name === undefined) return;
          this.#valueOf(name).push(node.right);
          if (isFunction(node.right) || node.right.type === 'Identifier') this.#defines.add(name);
        }
        return;
    }
  }

  #valueOf(name: string): AnyNode[] {
    const values = this.#values.get(name) ?? [];
    this.#values.set(name, values);
    return values;
  }

  #define(pattern: AnyNode): void {
    full(pattern, (node) => {
      const one = node as AnyNode;
      if (one.type === 'Identifier') this.#defines.add(one.name);
    });
  }

  #call(node: CallExpression | NewExpression): void {
    const { callee } = node;
    const code = codeArgument(node);
    if (code !== undefined) {
      const isLater = ['setTimeout', 'setInterval'].includes(nameCalled(callee) ?? '');
      if (stringOf(code) === undefined && !(isLater && mayBeFunction(code)))
        this.#note('runs code that it puts together', node.start);
      return;
    }
    if (callee.type === 'Identifier') this.#named(callee.name, node.start);
    if (callee.type !== 'MemberExpression') return;
    const name = propertyName(callee);
    if (name === undefined) {
      if (!this.#isIndex(callee.property as AnyNode) && !this.#isOwn(callee.object as AnyNode))
        this.#note('calls what it names only as it runs', node.start);
      return;
    }
    if (isSettingAll(callee, name)) {
      const [target, ...sources] = node.arguments as AnyNode[];
      const isFollowed = name === 'assign' && sources.every((one) => isWrittenOut(this.#valueOfName(one)));
      if (!isFollowed && !(target !== undefined && this.#isOwn(target)))
        this.#note('sets the properties of another object', node.start);
      return;
    }
    this.#named(name, node.start);
  }

  #named(name: string, offset: number): void {
    if (!isKnownCall(name) && !this.#calls.has(name)) this.#calls.set(name, offset);
  }

  #member(node: MemberExpression, parent: AnyNode | undefined): void {
    const name = propertyName(node);
    if (name === undefined) return;
    const isCalled = parent?.type === 'CallExpression' && parent.callee === node;
    const isSet = parent?.type === 'AssignmentExpression' && parent.left === node;
    if (READING.has(name)) this.#readsMarkup = true;
    if (CHANGING.has(name) && !isCalled && !isSet)
      this.#note('keeps a method that changes elements', node.start);
    if (NOT_FOLLOWED.has(name)) this.#note('uses what is not followed', node.start);
    if (MARKUP.has(name) && !(isSet && parent.operator === '='))
      this.#note('uses what is not followed', node.start);
  }

  /** What is assigned to. */
  #set(left: AnyNode, offset: number): void {
    switch (left.type) {
      case 'MemberExpression': {
        if (propertyName(left) !== undefined) return;
        const object = left.object as AnyNode;
        if (stringOf(this.#valueOfName(left.property as AnyNode)) !== undefined) return;
        if (!this.#isIndex(left.property as AnyNode) && !this.#isOwn(object))
          this.#note('sets a property that it names only as it runs', offset);
        return;
      }
      case 'ObjectPattern':
      case 'ArrayPattern':
        this.#setInTurn(left, offset);
    }
  }

  /** A pattern, or what a loop sets: the readers follow plain assignments only. */
  #setInTurn(left: AnyNode, offset: number): void {
    full(left, (node) => {
      if ((node as AnyNode).type === 'MemberExpression')
        this.#note('sets a property that it names only as it runs', offset);
    });
  }

  #valueOfName(node: AnyNode): AnyNode | undefined {
    return node.type === 'Identifier' ? this.bindings.valueOf(node) : node;
  }

  /** Whether it can only be the place of something in a list. */
  #isIndex(node: AnyNode, depth = 0): boolean {
    if (depth > 8) return false;
    switch (node.type) {
      case 'Literal':
        return typeof node.value === 'number';
      case 'UpdateExpression':
        return true;
      case 'BinaryExpression':
        return node.operator === '+'
          ? this.#isIndex(node.left as AnyNode, depth + 1) && this.#isIndex(node.right, depth + 1)
          : true;
      case 'UnaryExpression':
        return ['-', '+', '~', '!'].includes(node.operator);
      case 'MemberExpression':
        return ['length', 'selectedIndex', 'rowIndex', 'cellIndex', 'keyCode'].includes(
          propertyName(node) ?? '',
        );
      case 'ConditionalExpression':
        return this.#isIndex(node.consequent, depth + 1) && this.#isIndex(node.alternate, depth + 1);
      case 'Identifier': {
        const values = this.bindings.valuesOf(node);
        return values?.every((one) => this.#isIndex(one, depth + 1)) === true;
      }
      case 'CallExpression':
        return [
          'floor',
          'round',
          'ceil',
          'indexOf',
          'parseInt',
          'Number',
          'index',
          'min',
          'max',
          'abs',
        ].includes(
          (node.callee.type === 'MemberExpression'
            ? propertyName(node.callee)
            : node.callee.type === 'Identifier'
              ? node.callee.name
              : '') ?? '',
        );
      default:
        return false;
    }
  }

  /** Whether it can only be an object that the script makes for itself, or one that is no element. */
  #isOwn(node: AnyNode, depth = 0): boolean {
    if (depth > 8) return false;
    switch (node.type) {
      case 'ObjectExpression':
      case 'ArrayExpression':
      case 'FunctionExpression':
      case 'ArrowFunctionExpression':
      case 'ClassExpression':
        return true;
      case 'Literal':
        return true;
      case 'NewExpression':
        return (
          node.callee.type === 'Identifier' &&
          (MAKING.has(node.callee.name) || this.#defines.has(node.callee.name))
        );
      case 'CallExpression':
        return node.callee.type === 'MemberExpression' && GIVING_OBJECTS.has(propertyName(node.callee) ?? '');
      case 'LogicalExpression':
        return this.#isOwn(node.left, depth + 1) && this.#isOwn(node.right, depth + 1);
      case 'ConditionalExpression':
        return this.#isOwn(node.consequent, depth + 1) && this.#isOwn(node.alternate, depth + 1);
      case 'AssignmentExpression':
        return this.#isOwn(node.right, depth + 1);
      case 'Identifier': {
        if (NO_ELEMENT.has(node.name)) return true;
        const values = this.bindings.valuesOf(node);
        return (
          values !== undefined && values.length > 0 && values.every((one) => this.#isOwn(one, depth + 1))
        );
      }
      case 'MemberExpression': {
        const name = propertyName(node);
        if (name === 'prototype' || name === 'fn') return true;
        // One of several in an object of its own is not looked into.
        const values = name === undefined ? [] : (this.#values.get(name) ?? []);
        return values.length > 0 && values.every((one) => this.#isOwn(one, depth + 1));
      }
      default:
        return false;
    }
  }
}

function isFunction(node: AnyNode): boolean {
  return (
    node.type === 'FunctionExpression' ||
    node.type === 'ArrowFunctionExpression' ||
    node.type === 'ClassExpression'
  );
}

function mayBeFunction(node: AnyNode): boolean {
  return isFunction(node) || ['Identifier', 'MemberExpression', 'CallExpression'].includes(node.type);
}

/** `Object.assign(element, …)`, `Reflect.set(element, …)`, `Object.defineProperty(…)`. */
function isSettingAll(callee: MemberExpression, name: string): boolean {
  if (callee.object.type !== 'Identifier') return false;
  const owner = callee.object.name;
  return (
    (owner === 'Object' &&
      ['assign', 'defineProperty', 'defineProperties', 'setPrototypeOf'].includes(name)) ||
    (owner === 'Reflect' && ['set', 'defineProperty', 'apply', 'construct'].includes(name))
  );
}

function isWrittenOut(node: AnyNode | undefined): boolean {
  if (node?.type !== 'ObjectExpression') return false;
  return node.properties.every(
    (one) => one.type === 'Property' && (!one.computed || stringOf(one.key) !== undefined),
  );
}
