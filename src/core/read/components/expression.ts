// What an expression comes to, as far as it is written out. Trees are those of Babel and of ESTree, which name most things alike.

import { endsWithOneOf, not, SPACE, startsWithOneOf } from '../../base/characters.js';
import { ANY_OF_MODULE, type Modules, moduleClass, NO_MODULES } from './module-names.js';

/** A node of either tree; nothing of it is believed before it is asked for. */
export interface Node {
  readonly type: string;
  readonly [key: string]: unknown;
}

export interface Classes {
  readonly sure: readonly string[];
  readonly mayHave: readonly string[];
  /** Whether others could be among them. */
  readonly isOpen: boolean;
}

const NOTHING: Classes = { sure: [], mayHave: [], isOpen: false };
const ANY: Classes = { sure: [], mayHave: [], isOpen: true };

/** Functions that put class names together, by the names that they are usually imported by. */
const JOINERS = new Set(['classNames', 'classnames', 'clsx', 'cx', 'cn', 'cls']);

export function isNode(value: unknown): value is Node {
  return typeof value === 'object' && value !== null && 'type' in value && typeof value.type === 'string';
}

function nodeAt(node: Node, key: string): Node | undefined {
  const value = node[key];
  return isNode(value) ? value : undefined;
}

export function nodesAt(node: Node, key: string): Node[] {
  const value = node[key];
  return Array.isArray(value) ? value.filter(isNode) : [];
}

/** The text of a literal; `undefined` for what is none. */
export function stringOf(node: Node | undefined): string | undefined {
  if (node === undefined) return undefined;
  if (node.type === 'StringLiteral' || node.type === 'Literal')
    return typeof node.value === 'string' ? node.value : undefined;
  if (node.type !== 'TemplateLiteral' || nodesAt(node, 'expressions').length > 0) return undefined;
  const cooked = nodesAt(node, 'quasis')[0]?.value;
  return typeof cooked === 'object' && cooked !== null && 'cooked' in cooked
    ? String(cooked.cooked)
    : undefined;
}

export function numberOf(node: Node | undefined): number | undefined {
  if (node === undefined) return undefined;
  if (node.type === 'UnaryExpression' && node.operator === '-') {
    const inner = numberOf(nodeAt(node, 'argument'));
    return inner === undefined ? undefined : -inner;
  }
  const isLiteral = node.type === 'NumericLiteral' || node.type === 'Literal';
  return isLiteral && typeof node.value === 'number' ? node.value : undefined;
}

/** The key of a property of an object; `undefined` for one that is computed. */
export function keyOf(property: Node): string | undefined {
  if (property.computed === true) return undefined;
  const key = nodeAt(property, 'key');
  if (key?.type === 'Identifier') return String(key.name);
  return stringOf(key) ?? (numberOf(key) === undefined ? undefined : String(numberOf(key)));
}

function words(text: string): string[] {
  return text.split(/[\t\n\f\r ]+/).filter((word) => word !== '');
}

function maybe({ sure, mayHave, isOpen }: Classes): Classes {
  return { sure: [], mayHave: [...sure, ...mayHave], isOpen };
}

export function both(all: readonly Classes[]): Classes {
  return {
    sure: [...new Set(all.flatMap(({ sure }) => sure))],
    mayHave: [...new Set(all.flatMap(({ mayHave }) => mayHave))],
    isOpen: all.some(({ isOpen }) => isOpen),
  };
}

/** In: what gives an element its classes: a text, a list, or an object of names and conditions; the modules that names are asked of. */
export function classesOf(node: Node | undefined, modules: Modules = NO_MODULES): Classes {
  const classesIn = (one: Node | undefined): Classes => classesOf(one, modules);
  if (node === undefined) return ANY;
  const text = stringOf(node);
  if (text !== undefined) return { ...NOTHING, sure: words(text) };
  switch (node.type) {
    case 'NullLiteral':
    case 'BooleanLiteral':
    case 'NumericLiteral':
    case 'Literal':
      return NOTHING;
    case 'Identifier':
      return node.name === 'undefined' ? NOTHING : ANY;
    case 'ConditionalExpression':
      return either(classesIn(nodeAt(node, 'consequent')), classesIn(nodeAt(node, 'alternate')));
    case 'LogicalExpression': {
      const right = maybe(classesIn(nodeAt(node, 'right')));
      return node.operator === '&&' ? right : both([maybe(classesIn(nodeAt(node, 'left'))), right]);
    }
    case 'TemplateLiteral':
      return templateClasses(node, modules);
    case 'BinaryExpression':
      return node.operator === '+' ? joinedClasses(node, modules) : ANY;
    case 'ArrayExpression':
      return both(nodesAt(node, 'elements').map(classesIn));
    case 'ObjectExpression':
      return objectClasses(node, modules);
    case 'CallExpression':
      return callClasses(node, modules);
    case 'MemberExpression':
    case 'OptionalMemberExpression':
      return askedOf(node, modules) ?? ANY;
    case 'ParenthesizedExpression':
    case 'TSAsExpression':
    case 'TSNonNullExpression':
      return classesIn(nodeAt(node, 'expression'));
    default:
      return ANY;
  }
}

/** The classes that `styles.amount` or `styles['amount']` comes to: builds may spell `.fare-table` as `fareTable`, too. */
function askedOf(node: Node, modules: Modules): Classes | undefined {
  const object = nodeAt(node, 'object');
  const property = nodeAt(node, 'property');
  const sheet = object?.type === 'Identifier' ? modules.get(String(object.name)) : undefined;
  const name = node.computed === true ? stringOf(property) : property?.name;
  if (sheet === undefined || typeof name !== 'string') return undefined;
  const others = ['-', '_'].map((mark) => name.replace(/[A-Z]/g, (letter) => mark + letter.toLowerCase()));
  const mayHave = [...others.filter((one) => one !== name), ANY_OF_MODULE];
  return {
    sure: [moduleClass(sheet, name)],
    mayHave: mayHave.map((one) => moduleClass(sheet, one)),
    isOpen: false,
  };
}

function either(one: Classes, other: Classes): Classes {
  const sure = one.sure.filter((name) => other.sure.includes(name));
  const mayHave = [...one.sure, ...other.sure, ...one.mayHave, ...other.mayHave].filter(
    (name) => !sure.includes(name),
  );
  return { sure, mayHave: [...new Set(mayHave)], isOpen: one.isOpen || other.isOpen };
}

function objectClasses(node: Node, modules: Modules): Classes {
  const found: Classes[] = [];
  for (const property of nodesAt(node, 'properties')) {
    const key = nodeAt(property, 'key');
    const asked = property.computed === true && key !== undefined ? askedOf(key, modules) : undefined;
    const name = keyOf(property);
    if (asked === undefined && name === undefined) return ANY;
    const value = nodeAt(property, 'value');
    const isSure = (value?.type === 'BooleanLiteral' || value?.type === 'Literal') && value.value === true;
    const own: Classes = asked ?? { ...NOTHING, sure: words(name ?? '') };
    found.push(isSure ? own : maybe(own));
  }
  return both(found);
}

/** `classNames('a', b && 'c')`, `['a', b].join(' ')`, `[…].filter(Boolean).join(' ')`. */
function callClasses(node: Node, modules: Modules): Classes {
  const callee = nodeAt(node, 'callee');
  const given = nodesAt(node, 'arguments');
  if (callee?.type === 'Identifier' && JOINERS.has(String(callee.name)))
    return both(given.map((one) => classesOf(one, modules)));
  if (callee?.type !== 'MemberExpression') return ANY;
  const method = nodeAt(callee, 'property')?.name;
  const object = nodeAt(callee, 'object');
  if (method === 'join' && stringOf(given[0])?.trim() === '') return listOf(object, modules);
  return method === 'trim' ? classesOf(object, modules) : ANY;
}

function listOf(node: Node | undefined, modules: Modules): Classes {
  if (node?.type === 'ArrayExpression') return classesOf(node, modules);
  const callee = node?.type === 'CallExpression' ? nodeAt(node, 'callee') : undefined;
  const isFilter = callee?.type === 'MemberExpression' && nodeAt(callee, 'property')?.name === 'filter';
  const list = isFilter ? nodeAt(callee!, 'object') : undefined;
  return list?.type === 'ArrayExpression' ? maybe(classesOf(list, modules)) : ANY;
}

interface Part {
  readonly text?: string;
  readonly node?: Node;
}

function templateClasses(node: Node, modules: Modules): Classes {
  const texts = nodesAt(node, 'quasis');
  const expressions = nodesAt(node, 'expressions');
  const parts: Part[] = [];
  for (const [at, quasi] of texts.entries()) {
    const value = quasi.value;
    parts.push({
      text: typeof value === 'object' && value !== null && 'cooked' in value ? String(value.cooked) : '',
    });
    if (expressions[at] !== undefined) parts.push({ node: expressions[at] });
  }
  return partsClasses(parts, modules);
}

/** `'a ' + b + ' c'`. */
function joinedClasses(node: Node, modules: Modules): Classes {
  const parts: Part[] = [];
  const add = (one: Node | undefined): void => {
    if (one?.type === 'BinaryExpression' && one.operator === '+') {
      add(nodeAt(one, 'left'));
      add(nodeAt(one, 'right'));
      return;
    }
    const text = stringOf(one);
    if (text !== undefined) parts.push({ text });
    else if (one !== undefined) parts.push({ node: one });
  };
  add(node);
  return partsClasses(parts, modules);
}

/** A word that touches an expression is a part of another word. */
export function partsClasses(parts: readonly Part[], modules: Modules = NO_MODULES): Classes {
  const found: Classes[] = [];
  for (const [at, { text, node }] of parts.entries()) {
    if (text !== undefined) {
      const own = words(text);
      const isCutBefore = at > 0 && startsWithOneOf(text, not(SPACE));
      const isCutBehind = at < parts.length - 1 && endsWithOneOf(text, not(SPACE));
      if (own.length > 0 && isCutBehind) own.pop();
      if (own.length > 0 && isCutBefore && !(isCutBehind && words(text).length === 1)) own.shift();
      found.push({ ...NOTHING, sure: own });
    } else {
      const before = parts[at - 1]?.text ?? '';
      const behind = parts[at + 1]?.text ?? '';
      const isApart =
        (before === '' || endsWithOneOf(before, SPACE)) && (behind === '' || startsWithOneOf(behind, SPACE));
      found.push(isApart && parts[at - 1]?.node === undefined ? classesOf(node, modules) : ANY);
    }
  }
  return both(found);
}
