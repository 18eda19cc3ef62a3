// The declarations of one style attribute, cut into movable declarations that can move without each other.

import {
  canonicalProperty,
  type Declaration,
  everyLonghand,
  interactionGroup,
  normalValue,
} from '../read/sheets/index.js';

/** Declarations of one attribute that set a longhand in common, so that their order matters: they move together. */
export interface Movable {
  /** Normal form: equal keys declare the same. Addresses are resolved, so that equal text in two folders can differ. */
  readonly key: string;
  /** In source order. */
  readonly declarations: readonly Declaration[];
  /** Path of a file: addresses in the declarations are relative to it. */
  readonly holder: string;
  /** Of a table: what it says of its cells. */
  readonly cells?: readonly Declaration[];
}

/** In: the declarations of one attribute, in order; the path of its page. Out: movable declarations, in order of first appearance. */
export function movablesOf(declarations: readonly Declaration[], holder: string): Movable[] {
  // `all` sets everything: nothing moves without it.
  const whole = declarations.some(({ property }) => property === 'all');
  const groups = competingGroups(declarations);
  const owner = new Map<string, number>();
  const movables: Declaration[][] = [];
  for (const declaration of declarations) {
    const slots = slotsOf(declaration.property, groups);
    if (whole) slots.add('all');
    const touched = [...new Set([...slots].flatMap((slot) => owner.get(slot) ?? []))].sort((a, b) => a - b);
    const [first] = touched;
    const target = first ?? movables.push([]) - 1;
    for (const other of touched.slice(1)) {
      movables[target]!.push(...movables[other]!);
      movables[other] = [];
      for (const [slot, movable] of owner) if (movable === other) owner.set(slot, target);
    }
    movables[target]!.push(declaration);
    for (const slot of slots) owner.set(slot, target);
  }
  return movables
    .filter((group) => group.length > 0)
    .map((group) => {
      const ordered = [...group].sort((a, b) => a.range.start - b.range.start);
      const key = ordered.map((one) => declarationKey(one, holder)).join('; ');
      return { key, declarations: ordered, holder };
    });
}

/** Groups in which a logical or vendor name stands: there every name competes with the others. */
function competingGroups(declarations: readonly Declaration[]): Set<string> {
  const found = new Set<string>();
  for (const { property } of declarations) {
    for (const longhand of everyLonghand(property)) {
      const { name, kind } = interactionGroup(longhand);
      if (kind !== 'plain') found.add(name);
    }
  }
  return found;
}

/** What a declaration competes for: its longhands, and the groups in which other names mean the same. */
function slotsOf(property: string, groups: ReadonlySet<string>): Set<string> {
  const slots = new Set<string>();
  for (const longhand of everyLonghand(property)) {
    slots.add(longhand);
    const { name } = interactionGroup(longhand);
    if (groups.has(name)) slots.add(`~${name}`);
  }
  return slots;
}

/** The normal form of a declaration: `margin:0`, `color:#ff0000!`. */
export function declarationKey(declaration: Declaration, holder: string): string {
  const property = canonicalProperty(declaration.property);
  return `${declaration.property}:${normalValue(property, declaration.value, holder)}${declaration.important ? '!' : ''}`;
}
