// The syntax tree of a script, classic or module.

import { type AnyNode, parse } from 'acorn';

/** Out: `undefined` for what is neither: whoever asks must then expect anything of it. */
export function parseScript(text: string): AnyNode | undefined {
  for (const sourceType of ['script', 'module'] as const) {
    try {
      return parse(text, { ecmaVersion: 'latest', sourceType, allowReturnOutsideFunction: true });
    } catch {
      // Tried as the other kind, then given up.
    }
  }
  return undefined;
}
