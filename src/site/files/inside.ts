// What Acervus writes stays inside the site: paths are taken as they really are, and a link that leads out is refused.

import { existsSync, lstatSync, readFileSync, realpathSync, statSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { UsageError } from '../../core/base/usage-error.js';

/**
 * A path that a change may touch, as it is read back from a record: inside the site, written plainly, and in no hidden folder
 * such as `.git`.
 */
export const changeablePath = z
  .string()
  .regex(/^(?:[^/\\.][^/\\]*\/)*[^/\\.][^/\\]*$/, 'names no file of the site that a change may touch');

/** The real path of a file, there or not. Throws `UsageError` where a link on the way leads out of the site. */
export function insideSite(root: string, file: string): string {
  const real = realpathSync(root);
  const full = path.resolve(root, file);
  let nearest = full;
  while (!isThere(nearest)) nearest = path.dirname(nearest);
  // A link to nothing would be written through as well.
  if (!existsSync(nearest)) throw new UsageError('leads-out', { file });
  const target = realpathSync(nearest);
  if (target !== real && !target.startsWith(real + path.sep)) throw new UsageError('leads-out', { file });
  return lstatSync(nearest).isSymbolicLink() && nearest === full ? target : full;
}

function isThere(file: string): boolean {
  return lstatSync(file, { throwIfNoEntry: false }) !== undefined;
}

/** The bytes of a file. Throws `UsageError` for a folder, a device or a pipe in its place: reading one might never end. */
export function readPlain(full: string, file: string): Buffer {
  if (!statSync(full).isFile()) throw new UsageError('not-a-file', { file });
  return readFileSync(full);
}
