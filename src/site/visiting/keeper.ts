// The folder that a visit fills: files under the names that their addresses give, and the manifest of them.

import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { rename, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { UsageError } from '../../core/base/usage-error.js';
import { insideSite } from '../files/inside.js';
import { MANIFEST, type Manifest } from './manifest.js';

/** The state that the visit before has left, as a site of its own. */
export const LAST_VISIT = path.posix.join('.acervus', 'last-visit');

/** What is left for the editor of the platform: see `work-list.ts`. */
export const WORK_FILE = 'work-list.json';

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

/** Files that are written while others are fetched: each is there whole, or as it was. */
export class FileKeeper {
  readonly #root: string;
  /** By path in the site, the real one. */
  readonly #folders = new Map<string, string>();
  readonly #writing = new Map<string, Promise<void>>();
  #number = 0;
  #failed: unknown;

  constructor(root: string) {
    this.#root = root;
  }

  /** In: a path in the folder. Waits only where many files are being written. Throws what the system says. */
  async keep(file: string, bytes: Buffer): Promise<void> {
    const inside = path.posix.dirname(file);
    let folder = this.#folders.get(inside);
    if (folder === undefined) {
      // A link that stands where the file is to be is replaced, not followed.
      folder = insideSite(this.#root, inside);
      mkdirSync(folder, { recursive: true });
      this.#folders.set(inside, folder);
    }
    const full = path.join(folder, path.posix.basename(file));
    // Named as nothing on a site is.
    const coming = path.join(folder, `.coming-${process.pid}-${this.#number++}`);
    const writing = this.#write(full, coming, bytes)
      .catch((error: unknown) => {
        this.#failed ??= error;
      })
      .finally(() => this.#writing.delete(file));
    this.#writing.set(file, writing);
    if (this.#writing.size > MOST_AT_ONCE) await Promise.race(this.#writing.values());
    if (this.#failed !== undefined) throw this.#failed;
  }

  async #write(full: string, coming: string, bytes: Buffer): Promise<void> {
    try {
      await writeFile(coming, bytes);
      await rename(coming, full);
    } catch (error) {
      await rm(coming, { force: true });
      throw error;
    }
  }

  isWriting(file: string): boolean {
    return this.#writing.has(file);
  }

  /** Every file is there. Throws what the system says of one that could not be written. */
  async settle(): Promise<void> {
    await Promise.all(this.#writing.values());
    if (this.#failed !== undefined) throw this.#failed;
  }
}

const MOST_AT_ONCE = 32;

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
