// `var()` in values, as they are written: which custom properties a value asks for.

import { endOfRun, isIn, NAME, SPACE } from '../../base/characters.js';

/** The custom properties that a value asks for, in the order of the text, each as often as it is asked for. */
export function variablesIn(value: string): string[] {
  const names: string[] = [];
  for (let at = nextVariable(value, 0); at !== -1; at = nextVariable(value, at)) {
    at = endOfRun(value, at, SPACE);
    const end = endOfName(value, at);
    if (value.startsWith('--', at) && end > at + 2) names.push(value.slice(at, end));
  }
  return names;
}

/** Whether the value asks for any custom property. */
export function usesVariables(value: string): boolean {
  return nextVariable(value, 0) !== -1;
}

/** The custom property that the value consists of, with nothing to fall back to. */
export function variableAlone(value: string): string | undefined {
  const text = value.trim();
  const [name] = variablesIn(text);
  if (name === undefined || !text.toLowerCase().startsWith('var(') || !text.endsWith(')')) return undefined;
  return text.slice('var('.length, -1).trim() === name ? name : undefined;
}

/** Where the argument of the next `var(` begins, from there on; -1 if there is none. */
function nextVariable(value: string, from: number): number {
  for (let at = value.indexOf('(', from); at !== -1; at = value.indexOf('(', at + 1)) {
    const start = at - 'var'.length;
    if (start < 0 || value.slice(start, at).toLowerCase() !== 'var') continue;
    if (!isIn(value[start - 1], NAME)) return at + 1;
  }
  return -1;
}

function endOfName(value: string, start: number): number {
  let at = start;
  while (at < value.length && !isIn(value[at], SPACE) && !',()'.includes(value[at]!)) at++;
  return at;
}
