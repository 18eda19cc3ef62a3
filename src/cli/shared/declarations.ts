// What people type after a selector: declarations, and perhaps the folder of the site.

import { existsSync, statSync } from 'node:fs';
import { closest, distance } from 'fastest-levenshtein';
import type { DeclarationChange } from '../../core/edits/index.js';
import {
  declarationValidity,
  isFinished,
  isKnownProperty,
  knownPropertyNames,
} from '../../core/sheets/index.js';
import { UsageError } from '../../core/usage-error.js';

export interface ReadDeclarations {
  readonly changes: readonly DeclarationChange[];
  readonly folder: string;
}

/** In: `property: value`, `property:` for taking it out, and last perhaps a folder. Throws `UsageError`. */
export function readDeclarations(words: readonly string[]): ReadDeclarations {
  const { rest: written, folder } = splitSite(words);
  // `'color: red; top: 0'` is two.
  const parts = written
    .flatMap((word) => word.split(/;\s*(?![^("']*[)"'])/))
    .filter((part) => part.trim() !== '');
  if (parts.length === 0) throw new UsageError('no declaration is given; write one such as "color: #1f3a56"');
  return { changes: parts.map(readDeclaration), folder };
}

/** In: words of which the last may be the folder of the site. */
export function splitSite(words: readonly string[]): {
  readonly rest: readonly string[];
  readonly folder: string;
} {
  const last = words.at(-1);
  return last !== undefined && isFolder(last)
    ? { rest: words.slice(0, -1), folder: last }
    : { rest: words, folder: '.' };
}

function isFolder(word: string): boolean {
  return !/^[a-z-]+\s*:/i.test(word) && existsSync(word) && statSync(word).isDirectory();
}

function readDeclaration(text: string): DeclarationChange {
  const match = /^\s*(--[\w-]+|[a-z-]+)\s*:\s*([\s\S]*?)\s*(!\s*important)?\s*$/i.exec(text);
  if (match === null)
    throw new UsageError(
      `"${text}": is no declaration and no folder; write one such as "color: #1f3a56", or "color:" to take it out`,
    );
  const property = match[1]!.startsWith('--') ? match[1]! : match[1]!.toLowerCase();
  const value = match[2]!;
  if (!isKnownProperty(property) && !property.startsWith('-')) {
    const near = closest(property, [...knownPropertyNames()]);
    throw new UsageError(
      `${property}: is no property of CSS${distance(property, near) <= 3 ? `; did you mean ${near}?` : '; correct its spelling'}`,
    );
  }
  if (value === '') return { property, value: undefined, important: false };
  if (!isFinished(value) || /[{};]/.test(value.replace(/"[^"]*"|'[^']*'/g, '')))
    throw new UsageError(`${property}: "${value}" is not one whole value; close its brackets and quotes`);
  if (declarationValidity(property, value).complaint === 'unfitting value')
    throw new UsageError(
      `${property}: does not take "${value}", so that browsers would drop it; correct the value`,
    );
  return { property, value, important: match[3] !== undefined };
}
