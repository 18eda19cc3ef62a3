// The syntax tree of a script, classic or module.

import { type AnyNode, parse } from 'acorn';
import { full } from 'acorn-walk';
import { ENGINE_LETTER } from '../templates/index.js';
import { writeOutScope } from './element-scope.js';

/** Out: `undefined` for what is neither: whoever asks must then expect anything of it. */
export function parseScript(text: string): AnyNode | undefined {
  for (const sourceType of ['script', 'module'] as const) {
    try {
      const tree = parse(text, { ecmaVersion: 'latest', sourceType, allowReturnOutsideFunction: true });
      if (ENGINE_LETTER.test(text)) full(tree, openString);
      writeOutScope(tree);
      return tree;
    } catch {
      // Tried as the other kind, then given up.
    }
  }
  return undefined;
}

/** A string that an engine writes into is not written out: it becomes a template with something unknown in it. */
function openString(node: AnyNode): void {
  if (node.type !== 'Literal' || typeof node.value !== 'string' || !ENGINE_LETTER.test(node.value)) return;
  const { start, end, value } = node;
  const parts = value.split(new RegExp(`${ENGINE_LETTER.source}+`));
  const element = (part: string, at: number) => ({
    ...{ type: 'TemplateElement', start, end, tail: at === parts.length - 1 },
    value: { raw: part, cooked: part },
  });
  Object.assign(node, {
    type: 'TemplateLiteral',
    quasis: parts.map(element),
    expressions: parts.slice(1).map(() => ({ type: 'Identifier', name: 'engineText', start, end })),
  });
}
