// Whom an expression of a script means: `document.body`, `$('.card')`, a name that was given to one of these.

import type { AnyNode, CallExpression, MemberExpression } from 'acorn';
import { hasOneOf } from '../../base/characters.js';
import { startsWithAny } from '../../base/phrases.js';
import { Bindings } from './bindings.js';
import { propertyName, stringOf } from './syntax.js';

/** What an element must be to be meant: parts of a selector's last compound. */
export interface Meant {
  readonly type: string | undefined;
  readonly id: string | undefined;
  readonly classes: readonly string[];
}

/** `anyone`: what the script means is not known before it runs. */
export type Target = 'anyone' | readonly Meant[];

/** An element that the script makes: none of the page's. */
const MADE: Target = [];

/** Calls on a jQuery-like set that give the same elements, or some of them. */
const SAME_SET = new Set([
  'addClass',
  'removeClass',
  'toggleClass',
  'attr',
  'removeAttr',
  'prop',
  'css',
  'on',
  'off',
  'one',
  'show',
  'hide',
  'toggle',
  'data',
  'text',
  'html',
  'val',
  'each',
  'first',
  'last',
  'eq',
  'not',
  'filter',
  'get',
  'item',
  'slice',
  'forEach',
  'click',
  'trigger',
]);
const BY_SELECTOR = new Set([
  'querySelector',
  'querySelectorAll',
  'closest',
  'find',
  'children',
  'parents',
  'siblings',
]);

export class Targets {
  readonly bindings: Bindings;

  constructor(program: AnyNode) {
    this.bindings = new Bindings(program);
  }

  /** A string that is written out, or that a name stands for. */
  textOf(node: AnyNode | undefined): string | undefined {
    return stringOf(node?.type === 'Identifier' ? (this.bindings.valueOf(node) ?? node) : node);
  }

  targetOf(node: AnyNode | null | undefined, depth = 0): Target {
    if (node === null || node === undefined || depth > 20) return 'anyone';
    const of = (inner: AnyNode | null | undefined): Target => this.targetOf(inner, depth + 1);
    switch (node.type) {
      case 'Identifier': {
        return of(this.bindings.valueOf(node) ?? this.bindings.setOf(node));
      }
      case 'ChainExpression':
      case 'ParenthesizedExpression':
        return of(node.expression);
      case 'AssignmentExpression':
        return of(node.right);
      case 'LogicalExpression':
        return joined(of(node.left), of(node.right));
      case 'ConditionalExpression':
        return joined(of(node.consequent), of(node.alternate));
      case 'MemberExpression':
        return this.#ofMember(node, of);
      case 'CallExpression':
        return this.#ofCall(node, of);
      default:
        return 'anyone';
    }
  }

  #ofMember(node: MemberExpression, of: (inner: AnyNode) => Target): Target {
    const name = propertyName(node);
    // One of the sheets, whatever brings it.
    if (name === 'styleSheets' || name === 'sheet') return [named('link'), named('style')];
    if (node.object.type === 'Identifier' && node.object.name === 'document') {
      if (name === 'body') return [named('body')];
      if (name === 'head') return [named('head')];
      if (name === 'documentElement' || name === 'scrollingElement') return [named('html')];
    }
    // One of a list.
    return node.computed && name === undefined ? of(node.object as AnyNode) : 'anyone';
  }

  #ofCall(node: CallExpression, of: (inner: AnyNode) => Target): Target {
    const [first] = node.arguments;
    const text = this.textOf(first);
    const called =
      node.callee.type === 'MemberExpression' && propertyName(node.callee) === 'default'
        ? node.callee.object
        : node.callee;
    if (called.type === 'Identifier') {
      const isQuery = startsWithAny(called.name, ['$', 'jQuery']);
      // Under whatever name a bundle knows it: what looks like a selector is one.
      if (text !== undefined && (isQuery || /^\s*[.#<]|^(body|html)$/.test(text)))
        return text.trimStart().startsWith('<') ? MADE : meantBy(text);
      return isQuery && first !== undefined ? of(first) : 'anyone';
    }
    if (node.callee.type !== 'MemberExpression') return 'anyone';
    const name = propertyName(node.callee) ?? '';
    if (/^createElement(NS)?$/.test(name)) return MADE;
    if (BY_SELECTOR.has(name)) return text === undefined ? 'anyone' : meantBy(text);
    if (name === 'getElementById') return text === undefined ? 'anyone' : [{ ...named(undefined), id: text }];
    if (name === 'getElementsByTagName') return text === undefined ? 'anyone' : meantBy(text);
    if (name === 'getElementsByClassName')
      return text === undefined ? 'anyone' : [{ ...named(undefined), classes: text.trim().split(/\s+/) }];
    if (name === 'from' && first !== undefined) return of(first);
    return SAME_SET.has(name) ? of(node.callee.object as AnyNode) : 'anyone';
  }
}

function named(type: string | undefined): Meant {
  return { type, id: undefined, classes: [] };
}

function joined(a: Target, b: Target): Target {
  return a === 'anyone' || b === 'anyone' ? 'anyone' : [...a, ...b];
}

/** What the last compounds of a selector list ask by name; what else they ask is not counted on. */
function meantBy(selector: string): Target {
  // An escape or a bracket in a string could hide where a compound begins.
  if (hasOneOf(selector.replace(/\[[^\]]*\]/g, ''), '\\"\'')) return 'anyone';
  const plain = innermost(selector);
  return plain.split(',').map((one) => {
    const last =
      one
        .trim()
        .split(/[\s>+~]+/)
        .at(-1) ?? '';
    const [type] = /^[a-z][\w-]*/i.exec(last) ?? [];
    return {
      type: /^:root\b/.test(last) ? 'html' : type?.toLowerCase(),
      id: /#([\p{L}\p{N}_-]+)/u.exec(last)?.[1],
      classes: [...last.matchAll(/\.([\p{L}\p{N}_-]+)/gu)].map(([, name]) => name!),
    };
  });
}

/** A selector without what stands in brackets. */
function innermost(selector: string): string {
  let text = selector.replace(/\[[^\]]*\]/g, '');
  for (let before = ''; before !== text; ) {
    before = text;
    text = text.replace(/\([^()]*\)/g, '');
  }
  return text;
}
