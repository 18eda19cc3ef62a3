// Reads a file of a site as text, and nothing that takes long to load.

import { type Decoded, decodeFile } from './encoding.js';
import type { SiteFiles } from './files.js';
import { leaveOut } from './notices.js';

/** A decoded file; `undefined` where there is none, or it is left out since it is no text. */
export function readText(files: SiteFiles, file: string): Decoded | undefined {
  const bytes = files.read(file);
  if (bytes === undefined) {
    if (files.leadsOut?.(file) === true) leaveOut(file, 'leads out of the site');
    return undefined;
  }
  const decoded = decodeFile(bytes);
  if (decoded === undefined) leaveOut(file, 'is no text');
  return decoded;
}
