// Scripts that stand in strings of a script, or in an address: `eval('…')`, `import 'data:text/javascript,…'`.

import type { AnyNode } from 'acorn';
import { full } from 'acorn-walk';
import { scriptInAddress } from '../../base/script-address.js';
import { addressesImported } from './imports.js';
import { propertyName, stringOf } from './syntax.js';

export interface CodeInScript {
  readonly text: string;
  /** Offset in the script's text, of what holds the code. */
  readonly offset: number;
}

const RUNNING = new Set(['eval', 'setTimeout', 'setInterval', 'Function', 'execScript']);

/** The code that a call or `new` runs, where what is called runs strings: the argument that is one, or is to become one. */
export function codeArgument(node: AnyNode): AnyNode | undefined {
  if (node.type !== 'CallExpression' && node.type !== 'NewExpression') return undefined;
  const name = nameCalled(node.callee);
  if (name === undefined || !RUNNING.has(name)) return undefined;
  return (name === 'Function' ? node.arguments.at(-1) : node.arguments[0]) as AnyNode | undefined;
}

/** Code in strings that are written out. */
export function codeIn(program: AnyNode): CodeInScript[] {
  const found: CodeInScript[] = [];
  full(program, (node) => {
    const argument = codeArgument(node as AnyNode);
    const text = stringOf(argument);
    if (text !== undefined) found.push({ text, offset: argument!.start });
  });
  for (const { address, offset } of addressesImported(program)) {
    const text = scriptInAddress(address);
    if (text !== undefined) found.push({ text, offset });
  }
  return found;
}

/** The name of what is called, through `window.eval`, `(0, eval)` and `a?.b`. */
export function nameCalled(callee: AnyNode): string | undefined {
  switch (callee.type) {
    case 'Identifier':
      return callee.name;
    case 'MemberExpression':
      return propertyName(callee);
    case 'SequenceExpression':
      return nameCalled(callee.expressions.at(-1) as AnyNode);
    case 'ChainExpression':
    case 'ParenthesizedExpression':
      return nameCalled(callee.expression);
    default:
      return undefined;
  }
}
