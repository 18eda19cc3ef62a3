// What a person chooses, in the configuration and in a draft alike, as types that check it.

import { z } from 'zod';
import { withoutStart } from './phrases.js';

export const scopeName = z.enum(['site', 'section', 'page']);
export const tasteName = z.enum(['whole looks', 'balanced', 'small pieces']);

/** A sheet's path that stays inside the site. */
export const sharedPath = z
  .string()
  .regex(
    /^(?:[^/\\.][^/\\]*\/)*[^/\\.][^/\\]*\.(?:css|scss|sass|less)$/,
    'leads out of the site, is hidden or is no sheet; name one inside it, such as theme/shared.css',
  );

/** The first thing wrong, as `key: what was expected`. */
export function firstIssue(error: z.ZodError): string {
  const [issue] = error.issues;
  if (issue === undefined) return 'is not as expected';
  const key = issue.path
    .map((part) => (typeof part === 'number' ? `[${part}]` : String(part)))
    .join('.')
    .replaceAll('.[', '[');
  if (issue.code === 'unrecognized_keys') {
    const names = issue.keys.map((name) => `"${name}"`).join(', ');
    return `${key === '' ? '' : `${key}: `}${names} is no key here; remove it or correct its spelling`;
  }
  return `${key === '' ? 'the document' : key}: ${withoutStart(issue.message, 'Invalid input: ')}`;
}
