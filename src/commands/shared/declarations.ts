// Declarations as people type them.

import { closest, distance } from 'fastest-levenshtein';
import { hasOneOf } from '../../core/base/characters.js';
import { UsageError } from '../../core/base/usage-error.js';
import type { DeclarationChange } from '../../core/edit/text/index.js';
import {
  declarationValidity,
  isFinished,
  isKnownProperty,
  knownPropertyNames,
} from '../../core/read/sheets/index.js';

/** In: `property: value` each, or `property:` for taking it out. Throws `UsageError`. */
export function readDeclarations(texts: readonly string[]): DeclarationChange[] {
  // `'color: red; top: 0'` is two.
  const parts = texts
    .flatMap((text) => text.split(/;\s*(?![^("']*[)"'])/))
    .filter((part) => part.trim() !== '');
  if (parts.length === 0) throw new UsageError('no-declaration', {});
  return parts.map(readDeclaration);
}

function readDeclaration(text: string): DeclarationChange {
  const match = /^\s*(--[\w-]+|[a-z-]+)\s*:\s*([\s\S]*?)\s*(!\s*important)?\s*$/i.exec(text);
  if (match === null) throw new UsageError('not-a-declaration', { text });
  const property = match[1]!.startsWith('--') ? match[1]! : match[1]!.toLowerCase();
  const value = match[2]!;
  if (!isKnownProperty(property) && !property.startsWith('-')) {
    const near = closest(property, [...knownPropertyNames()]);
    const hint = distance(property, near) <= 3 ? `did you mean ${near}?` : 'correct its spelling';
    throw new UsageError('not-a-property', { property, hint });
  }
  if (value === '') return { property, value: undefined, important: false };
  if (!isFinished(value) || hasOneOf(value.replace(/"[^"]*"|'[^']*'/g, ''), '{};'))
    throw new UsageError('value-unfinished', { property, value });
  if (declarationValidity(property, value).complaint === 'unfitting value')
    throw new UsageError('value-unfitting', { property, value });
  return { property, value, important: match[3] !== undefined };
}
