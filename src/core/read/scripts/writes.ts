// What a script may make of the names that selectors ask for: classes, ids and attributes that it gives and takes.

import type { AnyNode, AssignmentExpression, CallExpression, MemberExpression } from 'acorn';
import { ancestor, simple } from 'acorn-walk';
import { endsWithOneOf, SPACE, startsWithOneOf } from '../../base/characters.js';
import { wordsOf } from '../../base/phrases.js';
import { propertyName, stringOf } from './syntax.js';
import type { Target, Targets } from './targets.js';

export interface NameWrite {
  readonly kind: 'class' | 'id' | 'attribute';
  /** Attributes in lower case; `data-*` for any of these. */
  readonly names: readonly string[];
  /** The name is put together, or comes from elsewhere: whatever word of the script, or what begins with a stem of it. */
  readonly computed: boolean;
  readonly gives: boolean;
  readonly takes: boolean;
  /** Everything of the kind goes, but for `names`. */
  readonly anew: boolean;
  /** Set as a property of an object, which need not be an element. */
  readonly asProperty: boolean;
  readonly target: Target;
  /** Offset in the script's text. */
  readonly offset: number;
}

interface Names {
  readonly names: readonly string[];
  readonly computed: boolean;
  /** What the element has already is among them. */
  readonly keeps?: boolean;
}

/** Stands among attributes for the element itself being taken out. */
export const GONE = '(gone)';
/** The same for rules of a sheet that it brings. */
export const RULES_GONE = '(rules gone)';
/** The same for its being put somewhere else. */
export const MOVED = '(moved)';

const PUTTING = new Set([
  'append',
  'appendChild',
  'prepend',
  'before',
  'after',
  'insertBefore',
  'insertAdjacentElement',
  'replaceWith',
  'replaceChild',
  'replaceChildren',
  'moveBefore',
]);
const PUT_SELF = new Set(['appendTo', 'prependTo', 'insertBefore', 'insertAfter', 'detach']);

/** What changes rules of a sheet that are there (CSSOM). */
const RULE_MEMBERS = new Set([
  'cssRules',
  'deleteRule',
  'removeRule',
  'selectorText',
  'mediaText',
  'deleteMedium',
]);
const MARKUP = new Set(['innerHTML', 'outerHTML', 'textContent', 'innerText']);
const EMPTYING = new Set(['replaceChildren', 'empty', 'html', 'removeChild', 'replaceChild', 'replaceWith']);
const SHEETS: Target = ['link', 'style'].map((type) => ({ type, id: undefined, classes: [] }));

const LIST_CALL = new Set(['add', 'remove', 'toggle', 'replace']);
const CLASS_CALL = new Set(['addClass', 'removeClass', 'toggleClass']);

export function nameWrites(program: AnyNode, targets: Targets): NameWrite[] {
  const reader = new WriteReader(program, targets);
  ancestor(program, {
    CallExpression: (node) => reader.call(node),
    AssignmentExpression: (node) => reader.assign(node),
    MemberExpression: (node, _state, ancestors) => reader.kept(node, ancestors as AnyNode[]),
    ObjectPattern: (node) => {
      for (const one of node.properties)
        if (one.type === 'Property' && one.key.type === 'Identifier')
          reader.keptList(one.key.name, node.start);
    },
    UpdateExpression: ({ argument, start }) =>
      reader.property(argument as AnyNode, argument as AnyNode, start),
    UnaryExpression: (node) => {
      if (node.operator === 'delete') reader.property(node.argument, undefined, node.start);
    },
  });
  return reader.found;
}

class WriteReader {
  readonly found: NameWrite[] = [];
  readonly #targets: Targets;
  /** Names of objects that are given more than is written out. */
  readonly #filled = new Set<string>();

  constructor(program: AnyNode, targets: Targets) {
    this.#targets = targets;
    simple(program, {
      AssignmentExpression: ({ left }) => {
        if (left.type === 'MemberExpression' && left.object.type === 'Identifier')
          this.#filled.add(left.object.name);
      },
    });
  }

  call(node: CallExpression): void {
    const { callee, arguments: given } = node;
    if (callee.type !== 'MemberExpression') return;
    const name = propertyName(callee) ?? '';
    const owner = callee.object as AnyNode;
    const [first, second] = given as AnyNode[];
    if (name === 'remove' && given.length === 0)
      this.#add('attribute', { names: [GONE], computed: false }, owner, node.start, BOTH);
    if (PUTTING.has(name)) for (const one of given as AnyNode[]) this.#move(one, node.start);
    if (PUT_SELF.has(name)) this.#move(owner, node.start);
    if (EMPTYING.has(name) && this.#isHead(owner)) this.#sheetsGone(node.start);
    if (LIST_CALL.has(name)) {
      const list = this.#listOwner(owner);
      if (list !== undefined) this.#listCall(name, given as AnyNode[], list, node.start);
    } else if (CLASS_CALL.has(name)) {
      const isForced =
        second?.type === 'Literal' && typeof second.value === 'boolean' ? second.value : undefined;
      this.#add('class', first === undefined ? ALL : this.#names(first), owner, node.start, {
        gives: name !== 'removeClass' && isForced !== false,
        takes: name !== 'addClass' && isForced !== true,
        anew: name !== 'addClass' && first === undefined,
      });
    } else if (/^(set|remove|toggle)Attribute(NS)?$/.test(name)) {
      const shift = name.endsWith('NS') ? 1 : 0;
      this.#attribute(given[shift] as AnyNode, given[shift + 1] as AnyNode, owner, node.start);
    } else if ((name === 'attr' || name === 'prop') && given.length > 0) {
      if (first?.type === 'ObjectExpression') this.#each(first, owner, node.start);
      else if (second !== undefined) this.#attribute(first, second, owner, node.start);
    } else if (name === 'removeAttr' || name === 'removeProp') {
      this.#attribute(first, undefined, owner, node.start);
    } else if (name === 'assign' && first !== undefined) {
      for (const one of given.slice(1) as AnyNode[]) {
        const source = one.type === 'Identifier' ? (this.#targets.bindings.valueOf(one) ?? one) : one;
        if (source.type !== 'ObjectExpression') continue;
        for (const one of source.properties)
          if (one.type === 'Property') this.#set(first, keyOf(one), one.value, node.start);
      }
    }
  }

  /** Of an element that is not named it is not known whether it was there before: see `Doing`. */
  #move(node: AnyNode, offset: number): void {
    if (this.#targets.targetOf(node) !== 'anyone')
      this.#add('attribute', { names: [MOVED], computed: false }, node, offset, BOTH);
  }

  assign({ left, right, operator, start }: AssignmentExpression): void {
    if (left.type === 'MemberExpression') this.property(left, right, start, operator === '+=');
  }

  /** In: what is assigned to, or deleted when there is no value. */
  property(left: AnyNode, value: AnyNode | undefined, offset: number, more = false): void {
    if (left.type === 'ChainExpression') this.property(left.expression, value, offset, more);
    if (left.type !== 'MemberExpression') return;
    const owner = left.object as AnyNode;
    // `list.value = …` of a list of classes is the attribute.
    const name = propertyName(left) ?? this.#targets.textOf(left.property as AnyNode);
    const list = name === 'value' ? this.#listOwner(owner) : undefined;
    if (list !== undefined) this.#className(value, list, offset, more);
    // `rect.className.baseVal = …`, of an element of a drawing.
    else if (name === 'baseVal' && owner.type === 'MemberExpression')
      this.#set(owner.object as AnyNode, propertyName(owner), value, offset, more);
    else this.#set(owner, name, value, offset, more);
  }

  /** A list of classes, or of data attributes, that is kept or given away: what becomes of it is not followed. */
  kept(node: MemberExpression, ancestors: readonly AnyNode[]): void {
    const parent = ancestors.at(-2);
    if (RULE_MEMBERS.has(propertyName(node) ?? '')) this.#sheetsGone(node.start);
    const isUsed = parent?.type === 'MemberExpression' && parent.object === node;
    // `list[on ? 'add' : 'remove'](name)`, `list.add.apply(list, names)`: what is called is not seen.
    if (isUsed && propertyName(node) === 'classList' && !isCalled(parent, ancestors.at(-3)))
      this.#add('class', UNKNOWN, node.object as AnyNode, node.start, BOTH);
    const isNamed = parent?.type === 'VariableDeclarator' && parent.id.type === 'Identifier';
    if (!isUsed && !(isNamed && propertyName(node) === 'classList'))
      this.keptList(propertyName(node), node.start);
  }

  keptList(name: string | undefined, offset: number): void {
    if (name === 'classList') this.#add('class', UNKNOWN, undefined, offset, BOTH);
    if (name === 'dataset')
      this.#add('attribute', { names: ['data-*'], computed: false }, undefined, offset, BOTH);
  }

  /** The element that a list of classes belongs to; `undefined` for what is no such list. */
  #listOwner(node: AnyNode): AnyNode | undefined {
    if (node.type === 'ChainExpression') return this.#listOwner(node.expression);
    if (node.type === 'MemberExpression')
      return propertyName(node) === 'classList' ? (node.object as AnyNode) : undefined;
    const value = node.type === 'Identifier' ? this.#targets.bindings.valueOf(node) : undefined;
    return value === undefined ? undefined : this.#listOwner(value);
  }

  #listCall(name: string, given: readonly AnyNode[], owner: AnyNode, offset: number): void {
    if (name === 'replace') {
      this.#add('class', this.#names(given[0]), owner, offset, { gives: false, takes: true });
      this.#add('class', this.#names(given[1]), owner, offset, { gives: true, takes: false });
      return;
    }
    const named = name === 'toggle' ? given.slice(0, 1) : given;
    for (const one of named) {
      this.#add('class', this.#names(one), owner, offset, {
        gives: name !== 'remove',
        takes: name !== 'add',
      });
    }
  }

  #attribute(name: AnyNode | undefined, value: AnyNode | undefined, owner: AnyNode, offset: number): void {
    const names = this.#names(name);
    const [only] = names.computed ? [] : names.names.map((one) => one.toLowerCase());
    if (only === 'class') this.#className(value, owner, offset, false);
    else if (only === 'id') this.#id(value, owner, offset);
    else if (only !== undefined) {
      const lower = { ...names, names: names.names.map((one) => one.toLowerCase()) };
      this.#add('attribute', lower, owner, offset, BOTH);
    } else {
      this.#add('attribute', names, owner, offset, BOTH);
      this.#add('class', UNKNOWN, owner, offset, BOTH);
    }
  }

  #each(object: AnyNode, owner: AnyNode, offset: number): void {
    if (object.type !== 'ObjectExpression') return;
    for (const one of object.properties) {
      const key = one.type === 'Property' ? keyOf(one) : undefined;
      if (one.type !== 'Property' || key === undefined) continue;
      const name = { type: 'Literal', value: key, start: offset, end: offset } as AnyNode;
      this.#attribute(name, one.value, owner, offset);
    }
  }

  /** Sheets of which rules are taken out or rewritten, or that are taken out themselves: what they say may go. */
  #sheetsGone(offset: number): void {
    this.found.push({
      ...{ kind: 'attribute', names: [RULES_GONE], computed: false, ...BOTH, anew: false, asProperty: false },
      ...{ target: SHEETS, offset },
    });
  }

  #isHead(node: AnyNode): boolean {
    const target = this.#targets.targetOf(node);
    return target !== 'anyone' && target.some(({ type }) => type === 'head' || type === 'html');
  }

  /** A property of an element, or of any other object. */
  #set(
    owner: AnyNode,
    name: string | undefined,
    value: AnyNode | undefined,
    offset: number,
    more = false,
  ): void {
    if (owner.type === 'MemberExpression' && propertyName(owner) === 'dataset') {
      const data = name === undefined ? 'data-*' : `data-${dashed(name)}`;
      this.#add('attribute', { names: [data], computed: false }, owner.object as AnyNode, offset, BOTH);
      return;
    }
    if (name === undefined) return;
    if (MARKUP.has(name) && this.#isHead(owner)) this.#sheetsGone(offset);
    if (name === 'className' || name === 'classList') this.#className(value, owner, offset, more);
    else if (name === 'id') this.#id(value, owner, offset);
    else {
      const attribute = /^aria[A-Z]/.test(name) ? `aria-${name.slice(4)}` : name;
      const names = { names: [attribute.toLowerCase()], computed: false };
      this.#add('attribute', names, owner, offset, { ...BOTH, asProperty: true });
    }
  }

  #className(value: AnyNode | undefined, owner: AnyNode, offset: number, more: boolean): void {
    const names = value === undefined ? { names: [], computed: false } : this.#names(value);
    const keeps = more || ('keeps' in names && names.keeps === true);
    this.#add('class', names, owner, offset, { gives: true, takes: !more, anew: !keeps });
  }

  #id(value: AnyNode | undefined, owner: AnyNode, offset: number): void {
    this.#add(
      'id',
      value === undefined ? { names: [], computed: false } : this.#names(value),
      owner,
      offset,
      {
        gives: true,
        takes: true,
        anew: true,
      },
    );
  }

  #add(
    kind: NameWrite['kind'],
    { names, computed }: Names,
    owner: AnyNode | undefined,
    offset: number,
    how: Pick<NameWrite, 'gives' | 'takes'> & Partial<Pick<NameWrite, 'anew' | 'asProperty'>>,
  ): void {
    const target = owner === undefined ? 'anyone' : this.#targets.targetOf(owner);
    this.found.push({ kind, names, computed, anew: false, asProperty: false, ...how, target, offset });
  }

  /** The words that an expression may come to. */
  #names(node: AnyNode | undefined, depth = 0): Names {
    if (node === undefined || depth > 20) return UNKNOWN;
    const of = (inner: AnyNode): Names => this.#names(inner, depth + 1);
    switch (node.type) {
      case 'Literal':
        if (node.regex)
          return {
            names: node.regex.pattern.replace(/\\./g, ' ').match(/[a-zA-Z_][\w-]*/g) ?? [],
            computed: false,
          };
        return typeof node.value === 'string'
          ? { names: node.value.split(/[\s.]+/).filter(Boolean), computed: false }
          : { names: [], computed: false };
      case 'TemplateLiteral': {
        const text = stringOf(node);
        return text === undefined ? UNKNOWN : { names: wordsOf(text), computed: false };
      }
      case 'ConditionalExpression':
        return union(of(node.consequent), of(node.alternate));
      case 'LogicalExpression':
        return union(of(node.left), of(node.right));
      case 'ArrayExpression':
        return node.elements.reduce<Names>((all, one) => (one === null ? all : union(all, of(one))), {
          names: [],
          computed: false,
        });
      case 'SpreadElement':
        return of(node.argument);
      case 'ChainExpression':
      case 'ParenthesizedExpression':
        return of(node.expression);
      case 'Identifier': {
        const value = this.#targets.bindings.valueOf(node);
        return value === undefined ? UNKNOWN : of(value);
      }
      case 'MemberExpression':
        // What an element has already is kept, with what is put to it.
        return propertyName(node) === 'className' ? OWN : this.#ofTable(node, of);
      case 'CallExpression':
        return this.#ofCall(node, of);
      case 'BinaryExpression':
        return node.operator === '+' && isApart(node.left as AnyNode, node.right)
          ? union(of(node.left as AnyNode), of(node.right))
          : UNKNOWN;
      default:
        return UNKNOWN;
    }
  }

  /** `NAMES.open`, `NAMES[state]`, where the name stands for an object that is written out. */
  #ofTable(node: MemberExpression, of: (inner: AnyNode) => Names): Names {
    const table = node.object.type === 'Identifier' ? this.#targets.bindings.valueOf(node.object) : undefined;
    if (table?.type !== 'ObjectExpression' || node.object.type !== 'Identifier') return UNKNOWN;
    if (this.#filled.has(node.object.name)) return UNKNOWN;
    const name = propertyName(node);
    const values = table.properties.flatMap((one) =>
      one.type === 'Property' && (name === undefined || keyOf(one) === name) ? [one.value] : [],
    );
    return values.length === 0 ? UNKNOWN : values.reduce((all, one) => union(all, of(one)), ALL);
  }

  /** `el.className.replace('open', '')`: what is there but for some words. */
  #ofCall({ callee, arguments: given }: CallExpression, of: (inner: AnyNode) => Names): Names {
    if (callee.type !== 'MemberExpression') return UNKNOWN;
    if (!['replace', 'replaceAll', 'trim', 'concat'].includes(propertyName(callee) ?? '')) return UNKNOWN;
    return (given as AnyNode[]).reduce((all, one) => union(all, of(one)), of(callee.object as AnyNode));
  }
}

/** Whether two texts that are joined stay words of their own. */
function isApart(left: AnyNode, right: AnyNode): boolean {
  const end = left.type === 'BinaryExpression' ? (left.right as AnyNode) : left;
  return endsWithOneOf(stringOf(end) ?? '', SPACE) || startsWithOneOf(stringOf(right) ?? '', SPACE);
}

/** Whether a member of a list of classes is called by its name, or only read. */
function isCalled(member: MemberExpression, around: AnyNode | undefined): boolean {
  const name = propertyName(member);
  if (name === undefined) return false;
  return (
    (around?.type === 'CallExpression' && around.callee === member) || ['length', 'value'].includes(name)
  );
}

const UNKNOWN: Names = { names: [], computed: true };
const ALL: Names = { names: [], computed: false };
const OWN: Names = { ...ALL, keeps: true };
const BOTH = { gives: true, takes: true };

function union(a: Names, b: Names): Names {
  return {
    names: [...a.names, ...b.names],
    computed: a.computed || b.computed,
    keeps: a.keeps === true || b.keeps === true,
  };
}

function keyOf(property: Extract<AnyNode, { type: 'Property' }>): string | undefined {
  if (!property.computed && property.key.type === 'Identifier') return property.key.name;
  return stringOf(property.key);
}

function dashed(name: string): string {
  return name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
}
