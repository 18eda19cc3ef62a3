// What a script does to styles, read from its syntax tree: which properties it reads back or clears, and the words in
// its strings. A script that only sets a property to a fixed value is harmless: the style attribute it writes wins as
// before.

import type {
  AnyNode,
  AssignmentExpression,
  CallExpression,
  Expression,
  MemberExpression,
  Super,
} from 'acorn';
import { ancestor } from 'acorn-walk';
import { BoundedMap } from '../../base/bounded.js';
import { startsWithAny } from '../../base/phrases.js';
// Not through the stage's entry: threads that only count need not load what maps.
import { isOldAttribute } from '../hints/table.js';
import { type AddedSheet, type Doing, doingsOf, sheetsIn } from './doings.js';
import { importsOf } from './imports.js';
import { parseScript } from './parse.js';
import { propertyName, stringOf } from './syntax.js';
import { type NameWrite, nameWrites } from './writes.js';

export interface StyleTouch {
  /** The CSS property, `*` where any could be meant, or `CLASS_WRITTEN`. */
  readonly property: string;
  /** Offset in the script's text. */
  readonly offset: number;
}

export interface ScriptReading {
  readonly touches: readonly StyleTouch[];
  /** Every word in a string: class names, ids, selectors. */
  readonly words: ReadonlySet<string>;
  /** What a name is built with: `"row-" + i` may be any id or class that begins so. */
  readonly stems: ReadonlySet<string>;
  /** Names of elements that it makes, by `createElement` or as markup in a string. */
  readonly made: ReadonlySet<string>;
  readonly readable: boolean;
  /** Names that it gives to elements and takes from them; found out when first asked for. */
  readonly writes: readonly NameWrite[];
  readonly doings: readonly Doing[];
  /** The sheets that it adds, as far as they are written out in it. */
  readonly sheets: readonly AddedSheet[];
  /** Addresses of the scripts that it brings in. */
  readonly imports: readonly string[];
}

/** Stands for "writes the class attribute anew": classes that are not in the script are lost. */
export const CLASS_WRITTEN = '(class)';

/** Stands for "picks elements by their having a style attribute". */
export const STYLE_ASKED = '[style]';

const IMPORTING = /\b(import|export|importScripts)\b/;

const ATTRIBUTE_CALLS = new Set(
  'setAttribute removeAttribute getAttribute hasAttribute toggleAttribute attr removeAttr'.split(' '),
);

const STYLE_METHODS = new Set(['setProperty', 'removeProperty', 'getPropertyValue']);

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

/** Names in `[…]` of what may be a selector. */
function attributesAsked(text: string): string[] {
  return [...text.matchAll(/\[\s*([a-z][\w-]*)\s*[\]~|^$*=]/gi)].map(([, name]) => name!.toLowerCase());
}

/** Elements in markup. */
function tagsIn(text: string): Set<string> {
  return new Set([...text.matchAll(/<([a-z][a-z0-9-]*)/gi)].map(([, name]) => name!.toLowerCase()));
}

function addStem(text: string, stems: Set<string>): void {
  const [first] = /^[\p{L}_-][\p{L}\p{N}_-]*$/u.exec(text.replace(/^[#.]/, '')) ?? [];
  if (first !== undefined) stems.add(first);
}

const readings = new BoundedMap<string, ScriptReading>(2000);

/** `readScript`, once for a text: pages ask for the same scripts again and again. */
export function scriptReading(text: string): ScriptReading {
  return readings.get(text, () => readScript(text));
}

/** Reads a classic script or a module. A script that does not parse is `readable: false`, and touches everything. */
export function readScript(text: string): ScriptReading {
  const program = parseScript(text);
  if (program === undefined) return unreadable(text);
  const { words, stems, made, touches } = new ScriptReader(text).read(program);
  let writes: readonly NameWrite[] | undefined;
  let doings: readonly Doing[] | undefined;
  let sheets: readonly AddedSheet[] | undefined;
  let imports: readonly string[] | undefined;
  return {
    ...{ touches, words, stems, made, readable: true },
    get writes() {
      writes ??= nameWrites(program);
      return writes;
    },
    get doings() {
      doings ??= doingsOf(program);
      return doings;
    },
    get imports() {
      imports ??= IMPORTING.test(text) ? importsOf(program) : [];
      return imports;
    },
    get sheets() {
      sheets ??= this.doings.some(({ kind }) => kind === 'sheet') ? sheetsIn(program) : [];
      return sheets;
    },
  };
}

function unreadable(text: string): ScriptReading {
  const words = new Set<string>();
  addWords(text, words);
  return {
    touches: [{ property: '*', offset: 0 }],
    ...{ words, stems: new Set(), made: tagsIn(text), readable: false },
    ...{ writes: [], doings: [], sheets: [], imports: [] },
  };
}

/** Collects what a script says of styles, node by node. */
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

class ScriptReader {
  readonly words = new Set<string>();
  readonly stems = new Set<string>();
  readonly made = new Set<string>();
  readonly touches: StyleTouch[] = [];

  constructor(readonly text: string) {}

  read(program: AnyNode): this {
    ancestor(program, {
      Literal: (node) => {
        if (typeof node.value === 'string') this.#string(node.value, node.start);
      },
      TemplateElement: ({ value }) => {
        addWords(value.cooked ?? value.raw, this.words);
        for (const tag of tagsIn(value.raw)) this.made.add(tag);
      },
      TemplateLiteral: ({ expressions, quasis }) => {
        if (expressions.length > 0)
          for (const { value } of quasis) addStem(value.cooked ?? value.raw, this.stems);
      },
      BinaryExpression: ({ operator, left, right }) => {
        if (operator !== '+') return;
        for (const side of [left, right]) addStem(stringOf(side as AnyNode) ?? '', this.stems);
      },
      ObjectPattern: ({ properties, start }) => {
        // `const { style } = element` is a style under another name.
        for (const one of properties)
          if (one.type === 'Property' && one.key.type === 'Identifier' && one.key.name === 'style')
            this.#touch('*', start);
      },
      MemberExpression: (node, _state, ancestors) => this.#member(node, ancestors.at(-2)),
      AssignmentExpression: (node) => this.#assignment(node),
      CallExpression: (node) => this.#call(node),
    });
    return this;
  }

  #touch(property: string, offset: number): void {
    if (!this.touches.some((known) => known.property === property)) this.touches.push({ property, offset });
  }

  #string(value: string, offset: number): void {
    addWords(value, this.words);
    for (const tag of tagsIn(value)) this.made.add(tag);
    for (const name of attributesAsked(value)) {
      this.words.add(attributeWord(name));
      if (name === 'style') this.#touch(STYLE_ASKED, offset);
    }
  }

  #member(node: MemberExpression, parent: AnyNode | undefined): void {
    const name = propertyName(node);
    // A style that is kept, given away or written whole: what becomes of it is not followed.
    if (name === 'style' && !(parent?.type === 'MemberExpression' && parent.object === node))
      this.#touch('*', node.start);
    if (name !== undefined && READ_BACK.has(name)) this.words.add(attributeWord(name.toLowerCase()));
    if (isStyle(node.object)) this.#ofStyle(node, name, parent);
  }

  /** `element.style.…` */
  #ofStyle(node: MemberExpression, name: string | undefined, parent: AnyNode | undefined): void {
    if (name === 'cssText') this.#touch('*', node.start);
    else if (name !== undefined && STYLE_METHODS.has(name)) {
      const first = parent?.type === 'CallExpression' ? stringOf(parent.arguments[0]) : undefined;
      this.#touch(first ?? '*', node.start);
    } else if (!isFixedWrite(node, parent)) this.#touch(name === undefined ? '*' : cssName(name), node.start);
  }

  #assignment({ left, right, operator, start }: AssignmentExpression): void {
    const assigned = left.type === 'MemberExpression' ? propertyName(left) : undefined;
    if (assigned === undefined) return;
    if (isOldAttribute(assigned.toLowerCase())) this.words.add(attributeWord(assigned.toLowerCase()));
    if (operator !== '=' || assigned !== 'className') return;
    // `e.className = e.className + ' open'` keeps what is there; `e.className = 'open'` does not.
    const keeps = /\bclassName\b/.test(this.text.slice(right.start, right.end));
    if (!keeps) this.#touch(CLASS_WRITTEN, start);
  }

  #call(node: CallExpression): void {
    if (node.callee.type !== 'MemberExpression') return;
    const name = propertyName(node.callee) ?? '';
    const first = node.arguments[0];
    if (name === 'createElement' || name === 'createElementNS')
      this.made.add((stringOf(node.arguments.at(-1)) ?? '*').toLowerCase());
    for (const tag of MADE_BY_TABLES.get(name) ?? []) this.made.add(tag);
    const attribute = ATTRIBUTE_CALLS.has(name) ? stringOf(first)?.toLowerCase() : undefined;
    if (attribute !== undefined) this.words.add(attributeWord(attribute));
    const writes = (name === 'setAttribute' || name === 'attr') && node.arguments.length > 1;
    if (name === 'css')
      touchByCss(first, node.arguments[1], node.start, (property, offset) => this.#touch(property, offset));
    else if (writes && attribute === 'class') this.#touch(CLASS_WRITTEN, node.start);
    else if (SHOWING.has(name)) this.#touch('display', node.start);
    else if (attribute === 'style') this.#touch('*', node.start);
  }
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

function addWords(text: string, words: Set<string>): void {
  for (const word of text.match(/[\p{L}\p{N}_-]+/gu) ?? []) words.add(word);
}
