// What else in a script may be a class, or make one: keys of objects, properties that are read, and names that are put
// together from parts.

import type { AnyNode, MemberExpression } from 'acorn';
import { ancestor } from 'acorn-walk';
import { endsWithOneOf, startsWithOneOf } from '../../base/characters.js';
import { parseScript } from './parse.js';

export interface NameUse {
  readonly start: number;
  readonly end: number;
}

/** Where an object has the name as a key, or something's property of that name is read. */
export function propertiesNamed(text: string, name: string): NameUse[] {
  const program = text.includes(name) ? parseScript(text) : undefined;
  if (program === undefined) return [];
  const found: NameUse[] = [];
  const note = (node: AnyNode, isComputed: boolean): void => {
    if (!isComputed && node.type === 'Identifier' && node.name === name)
      found.push({ start: node.start, end: node.end });
  };
  ancestor(program, {
    Property({ key, computed }) {
      note(key, computed);
    },
    PropertyDefinition({ key, computed }) {
      note(key, computed);
    },
    MemberExpression(node) {
      const { property, computed } = node as MemberExpression;
      note(property as AnyNode, computed);
    },
  });
  return found;
}

/**
 * Where a piece of the name stands that something else may be put before or behind: `'btn-' + kind`, `` `${kind}-big` ``,
 * `['btn', kind].join('-')`. A piece ends, or begins, at a `-` or `_` of the name.
 */
export function piecesOf(text: string, name: string): NameUse[] {
  const program = parseScript(text);
  if (program === undefined) return [];
  const found: NameUse[] = [];
  const look = (start: number, end: number, openBefore: boolean, openBehind: boolean): void => {
    const written = text.slice(start, end);
    const last = /[^\s.#"'`]+$/.exec(written)?.[0] ?? '';
    const first = /^[^\s.#"'`]+/.exec(written)?.[0] ?? '';
    if (openBehind && isPiece(last, name, (piece) => name.startsWith(piece)))
      found.push({ start: end - last.length, end });
    else if (openBefore && isPiece(first, name, (piece) => name.endsWith(piece)))
      found.push({ start, end: start + first.length });
  };
  ancestor(program, {
    Literal(node, _state, ancestors) {
      if (typeof node.value !== 'string') return;
      const side = sideOf(ancestors as AnyNode[]);
      if (side !== undefined) look(node.start + 1, node.end - 1, side.before, side.behind);
    },
    TemplateLiteral({ quasis }) {
      for (const [at, { start, end, tail }] of quasis.entries()) look(start, end, at > 0, !tail);
    },
  });
  return found;
}

function isPiece(piece: string, name: string, fits: (piece: string) => boolean): boolean {
  if (piece.length < 2 || piece === name || !fits(piece)) return false;
  if (piece.length > 2) return true;
  const [before, behind] = name.startsWith(piece)
    ? [piece, name.slice(piece.length)]
    : [name.slice(0, -piece.length), piece];
  return endsWithOneOf(before, '-_') || startsWithOneOf(behind, '-_');
}

/** Whether something is joined to a string before it or behind it. */
function sideOf(ancestors: readonly AnyNode[]): { before: boolean; behind: boolean } | undefined {
  const own = ancestors.at(-1)!;
  const around = ancestors.at(-2);
  if (around?.type === 'BinaryExpression' && around.operator === '+') {
    const isRight = around.right === own;
    const further = ancestors.at(-3);
    const joinedOn = further?.type === 'BinaryExpression' && further.operator === '+';
    return { before: isRight, behind: !isRight || joinedOn };
  }
  // Members of a list that is joined, arguments of `concat` and `replace`: on either side.
  if (around?.type === 'ArrayExpression') return { before: true, behind: true };
  const isCall = around?.type === 'CallExpression' && around.callee.type === 'MemberExpression';
  const called = isCall && around.callee.type === 'MemberExpression' ? around.callee : undefined;
  const name = called?.property.type === 'Identifier' ? called.property.name : '';
  if (['concat', 'replace', 'replaceAll', 'padStart', 'padEnd'].includes(name))
    return { before: true, behind: true };
  const isCalledOn = around?.type === 'MemberExpression' && around.object === own;
  return isCalledOn ? { before: true, behind: true } : undefined;
}
