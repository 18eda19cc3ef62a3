// Small questions to the syntax tree of a script.

import type { AnyNode, MemberExpression } from 'acorn';

/** The name of a member that is written out. */
export function propertyName(node: MemberExpression): string | undefined {
  const key = node.property;
  if (!node.computed && key.type === 'Identifier') return key.name;
  return stringOf(key);
}

/** A string that is written out. */
export function stringOf(node: AnyNode | null | undefined): string | undefined {
  if (node?.type === 'TemplateLiteral' && node.expressions.length === 0)
    return node.quasis[0]?.value.cooked ?? undefined;
  return node?.type === 'Literal' && typeof node.value === 'string' ? node.value : undefined;
}
