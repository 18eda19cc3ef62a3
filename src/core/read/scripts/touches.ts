// Which properties of which elements a script reads back or clears, and the words in its strings. A script that only
// sets a property to a fixed value is harmless: the style attribute it writes wins as before.

import type {
  AnyNode,
  AssignmentExpression,
  BinaryExpression,
  CallExpression,
  Expression,
  MemberExpression,
  Super,
} from 'acorn';
import { ancestor } from 'acorn-walk';
import { includesAny, startsWithAny } from '../../base/phrases.js';
// Not through the stage's entry: threads that only count need not load what maps.
import { isOldAttribute } from '../hints/table.js';
import { propertyName, stringOf } from './syntax.js';
import type { Target, Targets } from './targets.js';

export interface StyleTouch {
  /** The CSS property, `*` where any could be meant, or `CLASS_WRITTEN`. */
  readonly property: string;
  /** Whose it is. */
  readonly target: Target;
  /** Offset in the script's text. */
  readonly offset: number;
}

/** Stands for "writes the class attribute anew", or compares it whole: classes that are not in the script are lost. */
export const CLASS_WRITTEN = '(class)';

/** Stands for "picks elements by their having a style attribute". */
export const STYLE_ASKED = '[style]';

const ATTRIBUTE_CALLS = new Set(
  'setAttribute removeAttribute getAttribute hasAttribute toggleAttribute attr removeAttr'.split(' '),
);
const ATTRIBUTE_CALLS_NS = new Set(
  'setAttributeNS removeAttributeNS getAttributeNS hasAttributeNS getAttributeNodeNS'.split(' '),
);

const STYLE_METHODS = new Set(['setProperty', 'removeProperty', 'getPropertyValue']);
/** What gives a style attribute under another name. */
const STYLE_MAPS = new Set(['attributeStyleMap', 'runtimeStyle', 'currentStyle']);

/** Stands among a script's words for "it reads or writes this attribute". */
export function attributeWord(name: string): string {
  return `[${name}]`;
}

const SHOWING = new Set([
  'show',
  'hide',
  'toggle',
  'fadeIn',
  'fadeOut',
  'fadeToggle',
  'slideUp',
  'slideDown',
  'slideToggle',
]);

/** Properties of elements that say what an old attribute says, and nothing else. */
const READ_BACK = new Set('align vAlign bgColor noWrap cellPadding cellSpacing hspace vspace'.split(' '));

/** Interfaces that tell elements of one type from all others (HTML standard). */
const INTERFACE_TYPES = new Map(
  Object.entries({
    Anchor: ['a'],
    DList: ['dl'],
    Heading: ['h1', 'h2', 'h3', 'h4', 'h5', 'h6'],
    Image: ['img'],
    Mod: ['ins', 'del'],
    OList: ['ol'],
    Paragraph: ['p'],
    Quote: ['blockquote', 'q'],
    TableCaption: ['caption'],
    TableCell: ['td', 'th'],
    TableCol: ['col', 'colgroup'],
    TableRow: ['tr'],
    TableSection: ['thead', 'tbody', 'tfoot'],
    UList: ['ul'],
  }),
);

/** Operators that compare a text with another one whole. */
const COMPARING = new Set(['==', '===', '!=', '!==']);

/** Names in `[…]` of what may be a selector, and behind `@` of what may be an XPath. */
function attributesAsked(text: string): string[] {
  return [...text.matchAll(/(?:\[\s*([a-z][\w-]*)\s*[\]~|^$*=]|@([a-z][\w-]*))/gi)].map(([, name, ofPath]) =>
    (name ?? ofPath!).toLowerCase(),
  );
}

/** Elements in markup. */
export function tagsIn(text: string): Set<string> {
  return new Set([...text.matchAll(/<([a-z][a-z0-9-]*)/gi)].map(([, name]) => name!.toLowerCase()));
}

export function addWords(text: string, words: Set<string>): void {
  for (const word of text.match(/[\p{L}\p{N}_-]+/gu) ?? []) words.add(word);
}

function addStem(text: string, stems: Set<string>): void {
  const [first] = /^[\p{L}_-][\p{L}\p{N}_-]*$/u.exec(text.replace(/^[#.]/, '')) ?? [];
  if (first !== undefined) stems.add(first);
}

/** What the methods of tables make, each with what must be around it (HTML standard, "The table element"). */
const MADE_BY_TABLES = new Map(
  Object.entries({
    createCaption: ['caption'],
    createTHead: ['thead'],
    createTFoot: ['tfoot'],
    createTBody: ['tbody'],
    insertRow: ['tbody', 'tr'],
    insertCell: ['td'],
  }),
);

/** Collects what a script says of styles, node by node. */
export class TouchReader {
  readonly words = new Set<string>();
  readonly stems = new Set<string>();
  readonly made = new Set<string>();
  readonly touches: StyleTouch[] = [];

  readonly #seen = new Set<string>();

  constructor(
    readonly text: string,
    readonly program: AnyNode,
    /** Found out when first asked for. */
    readonly targets: () => Targets,
  ) {}

  read(): this {
    ancestor(this.program, {
      Identifier: ({ name }) => {
        const [, kind] = /^HTML([A-Z]\w*)Element$/.exec(name) ?? [];
        for (const type of kind === undefined ? [] : (INTERFACE_TYPES.get(kind) ?? [kind.toLowerCase()]))
          this.words.add(type);
      },
      Literal: (node) => {
        if (typeof node.value === 'string') this.#string(node.value, node.start);
        else if (node.regex) addWords(node.regex.pattern, this.words);
      },
      TemplateElement: ({ value }) => {
        addWords(value.cooked ?? value.raw, this.words);
        for (const tag of tagsIn(value.raw)) this.made.add(tag);
      },
      TemplateLiteral: ({ expressions, quasis }) => {
        if (expressions.length > 0)
          for (const { value } of quasis) addStem(value.cooked ?? value.raw, this.stems);
        for (const one of expressions) this.#pieces(one as AnyNode);
      },
      BinaryExpression: ({ operator, left, right }) => {
        if (operator !== '+') return;
        for (const side of [left, right]) this.#pieces(side as AnyNode);
      },
      ObjectPattern: ({ properties, start }) => {
        // `const { style } = element` is a style under another name.
        for (const one of properties)
          if (one.type === 'Property' && one.key.type === 'Identifier' && one.key.name === 'style')
            this.#touch('*', start);
      },
      MemberExpression: (node, _state, ancestors) => this.#member(node, ancestors as AnyNode[]),
      UpdateExpression: ({ argument }) => {
        if (argument.type === 'MemberExpression') this.#named(propertyName(argument));
      },
      AssignmentExpression: (node) => this.#assignment(node),
      CallExpression: (node) => this.#call(node),
    });
    return this;
  }

  /** In: the element whose style or class it is; none where that is not known. */
  #touch(property: string, offset: number, owner?: AnyNode): void {
    const target = owner === undefined ? 'anyone' : this.targets().targetOf(owner);
    const key = `${property} ${JSON.stringify(target)}`;
    if (this.#seen.has(key)) return;
    this.#seen.add(key);
    this.touches.push({ property, target, offset });
  }

  /** A property that is set: of an element it may be an old attribute. */
  #named(name: string | undefined): void {
    if (name !== undefined && isOldAttribute(name.toLowerCase()))
      this.words.add(attributeWord(name.toLowerCase()));
  }

  /** Strings of which an expression is made that becomes part of a longer one. */
  #pieces(node: AnyNode): void {
    if (node.type === 'ConditionalExpression') {
      this.#pieces(node.consequent);
      this.#pieces(node.alternate);
    } else if (node.type === 'LogicalExpression') {
      this.#pieces(node.left);
      this.#pieces(node.right);
    } else addStem(stringOf(node) ?? '', this.stems);
  }

  #string(value: string, offset: number): void {
    addWords(value, this.words);
    for (const tag of tagsIn(value)) this.made.add(tag);
    for (const name of attributesAsked(value)) {
      this.words.add(attributeWord(name));
      if (name === 'style') this.#touch(STYLE_ASKED, offset);
    }
  }

  #member(node: MemberExpression, ancestors: readonly AnyNode[]): void {
    const name = propertyName(node);
    const parent = ancestors.at(-2);
    const owner = node.object as AnyNode;
    // A style that is kept, given away or written whole: what becomes of it is not followed.
    if (name === 'style' && !(parent?.type === 'MemberExpression' && parent.object === node))
      this.#touch('*', node.start, owner);
    if (name !== undefined && STYLE_MAPS.has(name)) this.#touch('*', node.start, owner);
    // All of an element's attributes, one by one.
    if (name === 'attributes' || name === 'getAttributeNames')
      for (const one of ['*', CLASS_WRITTEN]) this.#touch(one, node.start, owner);
    if (name === 'className' && isCompared(node, ancestors)) this.#touch(CLASS_WRITTEN, node.start, owner);
    if (name !== undefined && READ_BACK.has(name)) this.words.add(attributeWord(name.toLowerCase()));
    if (isStyle(node.object)) this.#ofStyle(node, name, parent);
  }

  /** `element.style.…` */
  #ofStyle(node: MemberExpression, name: string | undefined, parent: AnyNode | undefined): void {
    const owner = (node.object as MemberExpression).object as AnyNode;
    if (name === 'cssText') this.#touch('*', node.start, owner);
    else if (name !== undefined && STYLE_METHODS.has(name)) {
      const first = parent?.type === 'CallExpression' ? stringOf(parent.arguments[0]) : undefined;
      this.#touch(first ?? '*', node.start, owner);
    } else if (!isFixedWrite(node, parent))
      this.#touch(name === undefined ? '*' : cssName(name), node.start, owner);
  }

  #assignment({ left, right, operator, start }: AssignmentExpression): void {
    const assigned = left.type === 'MemberExpression' ? propertyName(left) : undefined;
    if (left.type !== 'MemberExpression' || assigned === undefined) return;
    this.#named(assigned);
    // `rect.className.baseVal = …`, of an element of a drawing; `element.classList.value = …`.
    const isInner = ['baseVal', 'value'].includes(assigned) && left.object.type === 'MemberExpression';
    const owner = (isInner ? (left.object as MemberExpression).object : left.object) as AnyNode;
    const whole = isInner ? propertyName(left.object as MemberExpression) : assigned;
    if (operator !== '=' || !(whole === 'className' || whole === 'classList')) return;
    // `e.className = e.className + ' open'` keeps what is there; `e.className = 'open'` does not.
    const keeps = includesAny(this.text.slice(right.start, right.end), ['className', 'classList']);
    if (!keeps) this.#touch(CLASS_WRITTEN, start, owner);
  }

  #call(node: CallExpression): void {
    if (node.callee.type !== 'MemberExpression') return;
    const name = propertyName(node.callee) ?? '';
    const owner = node.callee.object as AnyNode;
    const first = node.arguments[0];
    if (name === 'join' && owner.type === 'ArrayExpression')
      for (const one of owner.elements) if (one !== null) this.#pieces(one as AnyNode);
    if (name === 'concat') for (const one of [owner, ...node.arguments]) this.#pieces(one as AnyNode);
    if (name === 'createElement' || name === 'createElementNS')
      this.made.add((stringOf(node.arguments.at(-1)) ?? '*').toLowerCase());
    for (const tag of MADE_BY_TABLES.get(name) ?? []) this.made.add(tag);
    const named = ATTRIBUTE_CALLS.has(name)
      ? first
      : ATTRIBUTE_CALLS_NS.has(name)
        ? node.arguments[1]
        : undefined;
    const attribute = stringOf(named)?.toLowerCase();
    if (attribute !== undefined) this.words.add(attributeWord(attribute));
    const isRead =
      name === 'attr' ? node.arguments.length === 1 : name.startsWith('get') || name.startsWith('has');
    if (name === 'css')
      touchByCss(first, node.arguments[1], node.start, (property, offset) =>
        this.#touch(property, offset, owner),
      );
    else if (attribute === 'class' && !isRead) this.#touch(CLASS_WRITTEN, node.start, owner);
    else if (SHOWING.has(name)) this.#touch('display', node.start, owner);
    else if (attribute === 'style') this.#touch('*', node.start, owner);
  }
}

/** Whether the text of a class attribute is compared whole, where a class that is put beside makes a difference. */
function isCompared(node: MemberExpression, ancestors: readonly AnyNode[]): boolean {
  const parent = ancestors.at(-2);
  if (parent?.type === 'BinaryExpression') return COMPARING.has((parent as BinaryExpression).operator);
  if (parent?.type === 'SwitchStatement') return parent.discriminant === node;
  // A key: `table[el.className]`.
  if (parent?.type === 'MemberExpression' && parent.property === node) return true;
  return false;
}

/** `$(x).css('width', '40px')` only writes; `.css('width')` reads; `.css('width', '')` and unknown values may clear. */
function touchByCss(
  first: AnyNode | undefined,
  second: AnyNode | undefined,
  offset: number,
  touch: (property: string, offset: number) => void,
): void {
  const name = stringOf(first);
  if (name !== undefined) {
    if (second === undefined || !isFixedValue(second)) touch(cssName(name), offset);
  } else if (first?.type === 'ObjectExpression') {
    for (const property of first.properties) {
      if (property.type !== 'Property') touch('*', offset);
      else if (!isFixedValue(property.value)) {
        const key = property.key.type === 'Identifier' ? property.key.name : stringOf(property.key);
        touch(key === undefined ? '*' : cssName(key), offset);
      }
    }
  } else touch('*', offset);
}

function isStyle(node: Expression | Super): boolean {
  return node.type === 'MemberExpression' && propertyName(node) === 'style';
}

function isFixedWrite(node: MemberExpression, parent: AnyNode | undefined): boolean {
  return (
    parent?.type === 'AssignmentExpression' &&
    parent.left === node &&
    parent.operator === '=' &&
    isFixedValue(parent.right)
  );
}

/** A value that is certainly not empty: a written string, or a number with a movable declaration put behind it. */
function isFixedValue(node: AnyNode): boolean {
  switch (node.type) {
    case 'Literal':
      return typeof node.value === 'number' || (typeof node.value === 'string' && node.value.trim() !== '');
    case 'TemplateLiteral':
      return node.quasis.some((part) => part.value.raw.trim() !== '');
    case 'BinaryExpression':
      return node.operator === '+' && (isFixedValue(node.right) || isFixedValue(node.left as AnyNode));
    case 'ConditionalExpression':
      return isFixedValue(node.consequent) && isFixedValue(node.alternate);
    default:
      return false;
  }
}

function cssName(name: string): string {
  if (name.includes('-')) return name.toLowerCase();
  const dashed = name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
  return startsWithAny(dashed, ['webkit-', 'moz-', 'ms-'])
    ? `-${dashed}`
    : dashed === 'css-float'
      ? 'float'
      : dashed;
}
