// What a script does beside names: it puts elements in or moves them, fills them with text, and adds sheets.

import type { AnyNode } from 'acorn';
import { simple } from 'acorn-walk';
import { propertyName, stringOf } from './syntax.js';

export interface Doing {
  readonly kind: 'elements' | 'sheet' | 'shadow' | 'text';
  /** Offset in the script's text, of the first of its kind. */
  readonly offset: number;
}

/** A sheet that a script adds, as far as its text or address is written out in it. */
export type AddedSheet =
  | { readonly kind: 'text'; readonly text: string; readonly offset: number }
  | { readonly kind: 'address'; readonly address: string; readonly offset: number };

const PLACING =
  /^(appendChild|append|prepend|insertBefore|insertAdjacentHTML|insertAdjacentElement|replaceWith|replaceChild|replaceChildren|removeChild|cloneNode|appendTo|prependTo|insertAfter|wrap|detach|empty|write|writeln)$/;
const SHEET = /^(insertRule|deleteRule|addRule|replaceSync|adoptedStyleSheets)$/;

export function doingsOf(program: AnyNode): Doing[] {
  const first = new Map<Doing['kind'], number>();
  const note = (kind: Doing['kind'], offset: number): void => {
    first.set(kind, Math.min(first.get(kind) ?? Number.POSITIVE_INFINITY, offset));
  };
  simple(program, {
    MemberExpression(node) {
      if (SHEET.test(propertyName(node) ?? '')) note('sheet', node.start);
    },
    CallExpression({ callee, arguments: given, start }) {
      if (callee.type !== 'MemberExpression') return;
      const name = propertyName(callee) ?? '';
      const isRemoval = name === 'remove' && given.length === 0;
      if (PLACING.test(name) || isRemoval || (name === 'html' && given.length > 0)) note('elements', start);
      if (name === 'text' && given.length > 0) note('text', start);
      if (name === 'attachShadow') note('shadow', start);
      if (name === 'createElement' && /^(style|link)$/i.test(stringOf(given[0]) ?? '')) note('sheet', start);
    },
    AssignmentExpression({ left, right, start }) {
      if (left.type !== 'MemberExpression') return;
      const name = propertyName(left);
      if (name === 'innerHTML' || name === 'outerHTML') note('elements', start);
      if (/^(textContent|innerText|nodeValue)$/.test(name ?? '')) note('text', start);
      if (name === 'href' && /\.css\b/.test(stringOf(right) ?? '')) note('sheet', start);
    },
  });
  return [...first].map(([kind, offset]) => ({ kind, offset }));
}

/** In: a script that adds sheets. Out: the strings in it that are rules, or addresses of sheets. */
export function sheetsIn(program: AnyNode): AddedSheet[] {
  const found: AddedSheet[] = [];
  const note = (text: string, offset: number): void => {
    if (/^[^{}]*\S[^{}]*\{[^{}]*:[\s\S]*\}\s*$/.test(text)) found.push({ kind: 'text', text, offset });
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
