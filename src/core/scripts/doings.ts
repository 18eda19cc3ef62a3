// What a script does that is not followed: it puts elements in or moves them, and adds sheets.

import type { AnyNode } from 'acorn';
import { simple } from 'acorn-walk';
import { propertyName, stringOf } from './syntax.js';

export interface Doing {
  readonly kind: 'elements' | 'sheet';
  /** Offset in the script's text, of the first of its kind. */
  readonly offset: number;
}

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
      if (name === 'createElement' && /^(style|link)$/i.test(stringOf(given[0]) ?? '')) note('sheet', start);
    },
    AssignmentExpression({ left, right, start }) {
      if (left.type !== 'MemberExpression') return;
      const name = propertyName(left);
      if (name === 'innerHTML' || name === 'outerHTML') note('elements', start);
      if (name === 'href' && /\.css\b/.test(stringOf(right) ?? '')) note('sheet', start);
    },
  });
  return [...first].map(([kind, offset]) => ({ kind, offset }));
}
