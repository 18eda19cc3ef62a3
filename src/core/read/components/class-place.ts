// Where a class may be put into an attribute that code writes.

import { either, isMadeOf, WORD } from '../../base/characters.js';
import type { SourceRange } from '../../base/source.js';

export interface ClassPlace {
  readonly start: number;
  readonly end: number;
  /** The text that puts names there. */
  readonly text: (names: readonly string[]) => string;
}

/** In: the name of a module, and of a class in it. Out: the name as it stands in a template literal. */
export function askedName(module: string, name: string): string {
  return isMadeOf(name, either(WORD, '$')) ? `\${${module}.${name}}` : `\${${module}['${name}']}`;
}

/** The code of a name that a module is asked for; `undefined` for one that is written out. */
function codeIn(name: string): string | undefined {
  return name.startsWith('${') ? name.slice(2, -1) : undefined;
}

/** An attribute of classes that is new. In: what it is called. */
export function classAttribute(attribute: string, names: readonly string[], quote = '"'): string {
  if (names.every((name) => codeIn(name) === undefined))
    return `${attribute}=${quote}${names.join(' ')}${quote}`;
  const only = names.length === 1 ? codeIn(names[0]!) : undefined;
  return `${attribute}={${only ?? `\`${names.join(' ')}\``}}`;
}

/** In: the text of a file, and a `className={…}` in it. Out: `undefined` where no word may simply be added. */
export function classPlace(text: string, { start, end }: SourceRange): ClassPlace | undefined {
  const written = /^[\w-]+\s*=\s*\{\s*([\s\S]*?)\s*\}$/.exec(text.slice(start, end));
  const code = written?.[1];
  if (code === undefined) return undefined;
  const at = start + text.slice(start, end).lastIndexOf(code) + code.length;
  const whole = (inside: string, names: readonly string[]): string =>
    `\`${[inside, ...names].filter((one) => one !== '').join(' ')}\``;
  // `styles.amount`, or a variable: it is one text or none.
  if (/^[\w$]+(?:\??\.[\w$]+|\[(?:'[^']*'|"[^"]*")\])*$/.test(code))
    return { start: at - code.length, end: at, text: (names) => whole(`\${${code}}`, names) };
  if (/^(["'])(?:(?!\1|[\\`])[\s\S])*\1$/.test(code) || isOneTemplate(code)) {
    const inside = code.slice(1, -1);
    return {
      start: at - code.length,
      end: at,
      text: (names) =>
        code.startsWith('`') || names.some((name) => codeIn(name) !== undefined)
          ? whole(inside.trimEnd(), names)
          : code[0] + [inside.trimEnd(), ...names].filter((one) => one !== '').join(' ') + code[0],
    };
  }
  const call = /^(?:classNames|classnames|clsx|cx|cn|cls)\(([\s\S]*)\)$/.exec(code);
  if (call === null || !isBalanced(call[1]!)) return undefined;
  const given = call[1]!.trimEnd();
  const separator = given === '' ? '' : given.endsWith(',') ? ' ' : ', ';
  const behind = call[1]!.length - given.length;
  const quote = given.includes('"') && !given.includes("'") ? '"' : "'";
  const place = at - 1 - behind;
  const listed = (names: readonly string[]): string => {
    const plain = names.filter((name) => codeIn(name) === undefined).join(' ');
    const parts = [
      ...(plain === '' ? [] : [quote + plain + quote]),
      ...names.flatMap((name) => codeIn(name) ?? []),
    ];
    return separator + parts.join(', ');
  };
  return { start: place, end: place, text: listed };
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
