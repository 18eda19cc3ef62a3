// Sheets whose classes a build gives names of its own (CSS modules): code asks the module for a name, and nothing else has it.

import path from 'node:path';

const MODULE_SHEET = /\.module\.(?:css|scss|sass|less)$/i;

/** By the name that a file's code has for it, the path of a sheet. */
export type Modules = ReadonlyMap<string, string>;

export const NO_MODULES: Modules = new Map();

/** In: the path of a sheet that a module of code imports. */
export function isModuleSheet(file: string): boolean {
  return MODULE_SHEET.test(file);
}

/** What of a sheet nobody knows which of its classes it is. */
export const ANY_OF_MODULE = '*';

/** What stands for the class that a build makes of a name. No class that is written out is spelled so. */
export function moduleClass(sheet: string, name: string): string {
  return `${name}@${sheet.replace(/\s/g, '_')}`;
}

/** The name that stands in the sheet, and the sheet; `undefined` for a plain class. */
export function fromModuleClass(name: string): { readonly name: string; readonly sheet: string } | undefined {
  const at = name.indexOf('@');
  return at > 0 && isModuleSheet(name) ? { name: name.slice(0, at), sheet: name.slice(at + 1) } : undefined;
}

/**
 * The sheets that a file imports by a name, beside it or below: `import styles from './Fares.module.css'`.
 * In: the path and text of the file. Out: only names that are used to ask for classes, and for nothing else.
 */
export function modulesIn(file: string, text: string): Modules {
  const found = new Map<string, string>();
  for (const [, esm, from, cjs, required] of text.matchAll(
    /\bimport\s+(?:\*\s*as\s+)?([\w$]+)\s+from\s*["'](\.[^"'\n]+)["']|\b(?:const|let|var)\s+([\w$]+)\s*=\s*require\(\s*["'](\.[^"'\n]+)["']\s*\)/g,
  )) {
    const name = (esm ?? cjs)!;
    const sheet = path.posix.join(path.posix.dirname(file), (from ?? required)!);
    if (isModuleSheet(sheet) && asksOnly(text, name)) found.set(name, sheet);
  }
  return found;
}

/** Whether a name stands once for itself, where it is given, and else only in front of what is asked of it. */
function asksOnly(text: string, name: string): boolean {
  const own = new RegExp(
    `(?<![\\w$.])${name.replaceAll('$', '\\$')}(?![\\w$])(?!\\s*(?:\\?\\.|\\.|\\[))`,
    'g',
  );
  return [...text.matchAll(own)].length === 1;
}
