// What a script does beside names: it puts elements in or moves them, fills them with text, and adds sheets.

import type { AnyNode } from 'acorn';
import { full, simple } from 'acorn-walk';
import { includesAny } from '../../base/phrases.js';
import { propertyName, stringOf } from './syntax.js';

export interface Doing {
  /** `elements behind`: those that it has made itself, behind what is there. */
  readonly kind: 'elements' | 'elements behind' | 'sheet' | 'shadow' | 'text';
  /** Offset in the script's text, of the first of its kind. */
  readonly offset: number;
}

/** A sheet that a script adds, as far as its text or address is written out in it. */
export type AddedSheet =
  | { readonly kind: 'text'; readonly text: string; readonly offset: number }
  | {
      /** `import`: the address is relative to the script, whose bundler makes a sheet of it. */
      readonly kind: 'address' | 'import';
      readonly address: string;
      readonly offset: number;
    };

const PLACING = new Set([
  'appendChild',
  'append',
  'prepend',
  'insertBefore',
  'insertAdjacentHTML',
  'insertAdjacentElement',
  'replaceWith',
  'replaceChild',
  'replaceChildren',
  'removeChild',
  'cloneNode',
  'appendTo',
  'prependTo',
  'insertAfter',
  'wrap',
  'detach',
  'empty',
  'write',
  'writeln',
]);
const SHEET = new Set(['insertRule', 'deleteRule', 'addRule', 'replaceSync', 'adoptedStyleSheets']);

export function doingsOf(program: AnyNode): Doing[] {
  const first = new Map<Doing['kind'], number>();
  const note = (kind: Doing['kind'], offset: number): void => {
    first.set(kind, Math.min(first.get(kind) ?? Number.POSITIVE_INFINITY, offset));
  };
  const isMade = madeIn(program);
  simple(program, {
    Literal({ value, start }) {
      if (typeof value === 'string' && hasSheetTag(value)) note('sheet', start);
    },
    TemplateElement({ value, start }) {
      if (hasSheetTag(value.raw)) note('sheet', start);
    },
    MemberExpression(node) {
      if (SHEET.has(propertyName(node) ?? '')) note('sheet', node.start);
    },
    CallExpression({ callee, arguments: given, start }) {
      if (callee.type !== 'MemberExpression') return;
      const name = propertyName(callee) ?? '';
      const isRemoval = name === 'remove' && given.length === 0;
      const isBehind =
        name === 'cloneNode' ||
        (['append', 'appendChild'].includes(name) && given.every((one) => isMade(one))) ||
        (name === 'insertAdjacentHTML' && (stringOf(given[0]) ?? '').toLowerCase() === 'beforeend');
      if (isBehind) note('elements behind', start);
      else if (PLACING.has(name) || isRemoval || (name === 'html' && given.length > 0))
        note('elements', start);
      if (name === 'text' && given.length > 0) note('text', start);
      if (name === 'attachShadow') note('shadow', start);
      if (name === 'createElement' && ['style', 'link'].includes((stringOf(given[0]) ?? '').toLowerCase()))
        note('sheet', start);
    },
    AssignmentExpression({ left, right, start }) {
      if (left.type !== 'MemberExpression') return;
      const name = propertyName(left);
      if (name === 'innerHTML' && isMade(left.object)) note('elements behind', start);
      else if (name === 'innerHTML' || name === 'outerHTML') note('elements', start);
      if (['textContent', 'innerText', 'nodeValue'].includes(name ?? '')) note('text', start);
      if (name === 'href' && /\.css\b/.test(stringOf(right) ?? '')) note('sheet', start);
    },
  });
  return [...first].map(([kind, offset]) => ({ kind, offset }));
}

/** Whether an expression is an element that the script has made, or text: by name where it is never anything else. */
function madeIn(program: AnyNode): (node: AnyNode) => boolean {
  const names = new Map<string, boolean>();
  const note = (name: string, made: boolean): void => void names.set(name, made && (names.get(name) ?? true));
  const isMaking = (node: AnyNode | null | undefined): boolean =>
    node?.type === 'CallExpression' &&
    node.callee.type === 'MemberExpression' &&
    ['createElement', 'createElementNS', 'createTextNode', 'cloneNode'].includes(
      propertyName(node.callee) ?? '',
    );
  full(program, (node) => {
    if (node.type === 'VariableDeclarator' && node.id.type === 'Identifier' && node.init != null)
      note(node.id.name, isMaking(node.init));
    if (node.type === 'AssignmentExpression' && node.left.type === 'Identifier')
      note(node.left.name, isMaking(node.right));
    // A parameter, or what a loop goes through, may be anything.
    if ('params' in node) for (const one of node.params) if (one.type === 'Identifier') note(one.name, false);
    if (node.type === 'ForOfStatement' || node.type === 'ForInStatement') {
      const declared = node.left.type === 'VariableDeclaration' ? node.left.declarations[0]?.id : node.left;
      if (declared?.type === 'Identifier') note(declared.name, false);
    }
  });
  return (node) =>
    isMaking(node) ||
    stringOf(node) !== undefined ||
    (node.type === 'Identifier' && names.get(node.name) === true);
}

/** In: a script that adds sheets. Out: the strings in it that are rules, or addresses of sheets. */
export function sheetsIn(program: AnyNode): AddedSheet[] {
  const found: AddedSheet[] = [];
  const note = (text: string, offset: number): void => {
    if (hasSheetTag(text)) found.push(...sheetsInMarkup(text, offset));
    else if (/^[^{}]*\S[^{}]*\{[^{}]*:[\s\S]*\}\s*$/.test(text)) found.push({ kind: 'text', text, offset });
    else if (/^[^\s<>{}]+\.css(\?[^\s<>{}]*)?$/i.test(text))
      found.push({ kind: 'address', address: text, offset });
  };
  simple(program, {
    Literal({ value, start }) {
      if (typeof value === 'string') note(value, start + 1);
    },
    TemplateLiteral(node) {
      const text = stringOf(node);
      if (text !== undefined) note(text, node.start + 1);
    },
  });
  return found;
}

/** Whether a text has markup that brings a sheet. */
function hasSheetTag(text: string): boolean {
  return includesAny(text.toLowerCase(), ['<link', '<style']);
}

/** The sheets of markup in a string: `document.write('<link rel=stylesheet href=more.css>')`. */
function sheetsInMarkup(text: string, offset: number): AddedSheet[] {
  const found: AddedSheet[] = [];
  for (const [tag] of text.matchAll(/<link\b[^>]*/gi)) {
    const address = /\shref\s*=\s*["']?([^\s"'>]+)/i.exec(tag)?.[1];
    if (address !== undefined && /stylesheet|\.css\b/i.test(tag))
      found.push({ kind: 'address', address, offset });
  }
  for (const [, rules] of text.matchAll(/<style\b[^>]*>([^<]*)/gi))
    found.push({ kind: 'text', text: rules!, offset });
  return found;
}
