// The folder that a visit fills: files under the names that their addresses give, and the manifest of them.

import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { UsageError } from '../../core/usage-error.js';
import { insideSite } from '../files/inside.js';
import { MANIFEST, type Manifest } from './manifest.js';

/** The state that the visit before has left, as a site of its own. */
export const LAST_VISIT = path.posix.join('.acervus', 'last-visit');

export function digestOf(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('base64url');
}

/** Makes the folder. Throws `UsageError` for one that holds something else than a visit. */
export function openKeeping(folder: string): string {
  const root = path.resolve(folder);
  if (existsSync(root) && !existsSync(path.join(root, MANIFEST))) {
    const held = readdirSync(root).filter((name) => !name.startsWith('.') && name !== 'acervus.json');
    if (held.length > 0) throw new UsageError('visit-taken', { folder, file: held[0]! });
  }
  mkdirSync(root, { recursive: true });
  return root;
}

export function keepFile(root: string, file: string, bytes: Buffer | string): void {
  const full = insideSite(root, file);
  mkdirSync(path.dirname(full), { recursive: true });
  // Cut off, a visit is made again: nothing need be on the disk before it goes on.
  writeFileAtomic.sync(full, bytes, { fsync: false });
}

export function keepManifest(root: string, manifest: Manifest): void {
  keepFile(root, MANIFEST, `${JSON.stringify(manifest, null, 1)}\n`);
}

export function keptBytes(root: string, file: string): Buffer | undefined {
  const full = insideSite(root, file);
  return existsSync(full) ? readFileSync(full) : undefined;
}

/** Takes a file out, and the folders that are empty without it. */
export function dropFile(root: string, file: string): void {
  rmSync(insideSite(root, file), { force: true });
  for (let folder = path.posix.dirname(file); folder !== '.'; folder = path.posix.dirname(folder)) {
    const full = path.join(root, folder);
    if (!existsSync(full) || readdirSync(full).length > 0) return;
    rmSync(full, { recursive: true });
  }
}

/** Keeps the state that is there, before another one comes over it. */
export function setAside(root: string): void {
  const kept = insideSite(root, LAST_VISIT);
  const fresh = `${kept}.new`;
  rmSync(fresh, { recursive: true, force: true });
  mkdirSync(fresh, { recursive: true });
  for (const name of readdirSync(root))
    if (!name.startsWith('.')) cpSync(path.join(root, name), path.join(fresh, name), { recursive: true });
  rmSync(kept, { recursive: true, force: true });
  renameSync(fresh, kept);
}
