// Where a class may be put into an attribute that code writes.

import type { SourceRange } from '../source.js';

export interface ClassPlace {
  readonly start: number;
  readonly end: number;
  /** The text that puts names there. */
  readonly text: (names: string) => string;
}

/** In: the text of a file, and a `className={…}` in it. Out: `undefined` where no word may simply be added. */
export function classPlace(text: string, { start, end }: SourceRange): ClassPlace | undefined {
  const written = /^[\w-]+\s*=\s*\{\s*([\s\S]*?)\s*\}$/.exec(text.slice(start, end));
  const code = written?.[1];
  if (code === undefined) return undefined;
  const at = start + text.slice(start, end).lastIndexOf(code) + code.length;
  // `styles.amount`, or a variable: it is one text or none.
  if (/^[\w$]+(?:\??\.[\w$]+|\[(?:'[^']*'|"[^"]*")\])*$/.test(code))
    return { start: at - code.length, end: at, text: (names) => `\`\${${code}} ${names}\`` };
  if (/^(["'])(?:(?!\1|\\)[\s\S])*\1$/.test(code) || isOneTemplate(code)) {
    const inside = code.slice(1, -1);
    return { start: at - 1, end: at - 1, text: (names) => `${/\S$/.test(inside) ? ' ' : ''}${names}` };
  }
  const call = /^(?:classNames|classnames|clsx|cx|cn|cls)\(([\s\S]*)\)$/.exec(code);
  if (call === null || !isBalanced(call[1]!)) return undefined;
  const given = call[1]!.trimEnd();
  const separator = given === '' ? '' : given.endsWith(',') ? ' ' : ', ';
  const behind = call[1]!.length - given.length;
  const quote = given.includes('"') && !given.includes("'") ? '"' : "'";
  const place = at - 1 - behind;
  return { start: place, end: place, text: (names) => `${separator}${quote}${names}${quote}` };
}

/** Whether a code is one template literal, and nothing before or behind it. */
function isOneTemplate(code: string): boolean {
  if (!/^`[\s\S]*`$/.test(code) || code.length < 2) return false;
  let depth = 0;
  for (let at = 1; at < code.length - 1; at++) {
    if (code[at] === '\\') at++;
    else if (depth === 0 && code[at] === '`') return false;
    else if (code.startsWith('${', at)) {
      depth++;
      at++;
    } else if (depth > 0 && code[at] === '{') depth++;
    else if (depth > 0 && code[at] === '}') depth--;
  }
  return depth === 0;
}

/** Whether no bracket in a list of arguments ends the call. */
function isBalanced(code: string): boolean {
  let depth = 0;
  for (const [token] of code.matchAll(
    /[()[\]{}]|"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'|`(?:[^`\\]|\\[\s\S])*`/g,
  )) {
    if (/^[([{]$/.test(token)) depth++;
    else if (/^[)\]}]$/.test(token) && --depth < 0) return false;
  }
  return depth === 0;
}

/** How files of a kind name the attribute of classes. In: the path and text of a file. */
export function classAttributeOf(path: string, text: string): 'class' | 'className' {
  if (!/\.([jt]sx|js)$/i.test(path)) return 'class';
  return /\sclass=/.test(text) && !/\sclassName=/.test(text) ? 'class' : 'className';
}
