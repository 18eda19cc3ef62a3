// What was found out of each page, by its content: what is read again and has not changed is not found out again. Lives in
// `.acervus/cache/`; safe to delete.

import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { insideSite } from '../files/inside.js';
import { programVersion } from '../version.js';

/** From so many bytes of pages on; below, reading takes no longer than remembering. */
export const WORTH_REMEMBERING = 1_000_000;
/** So much is kept, in characters: a larger site is read anew. */
const MOST = 100_000_000;

/** In: whatever an answer depends on. */
export function keyOf(...parts: readonly (string | Uint8Array)[]): string {
  const hash = createHash('sha256').update(programVersion());
  for (const part of parts) hash.update('\0').update(part);
  return hash.digest('base64url');
}

export class PageCache {
  readonly #file: string;
  readonly #known: ReadonlyMap<string, string>;
  /** What was asked for or found this time: the rest is of pages that are gone, or were otherwise. */
  readonly #used = new Map<string, string>();
  #isNew = false;

  /** In: the site's folder; what is remembered. */
  constructor(root: string, name: string) {
    this.#file = path.join('.acervus', 'cache', `${name}.json`);
    this.#root = root;
    this.#known = readEntries(root, this.#file);
  }

  readonly #root: string;

  get(key: string): string | undefined {
    const found = this.#used.get(key) ?? this.#known.get(key);
    if (found !== undefined) this.#used.set(key, found);
    return found;
  }

  set(key: string, found: string): void {
    this.#used.set(key, found);
    this.#isNew = true;
  }

  /** Writes what has changed. A folder that cannot be written to is left as it is. */
  save(): void {
    if (!this.#isNew && this.#used.size === this.#known.size) return;
    const entries = JSON.stringify([...this.#used]);
    if (entries.length > MOST) return;
    try {
      const file = insideSite(this.#root, this.#file);
      mkdirSync(path.dirname(file), { recursive: true });
      writeFileAtomic.sync(file, `${sealOf(entries)}\n${entries}`);
    } catch {
      // It was to be quicker next time: that is no reason to fail now.
    }
  }
}

/** What was cut short or changed by hand is as good as nothing. */
function readEntries(root: string, name: string): Map<string, string> {
  try {
    const file = insideSite(root, name);
    if (!existsSync(file)) return new Map();
    const text = readFileSync(file, 'utf8');
    const end = text.indexOf('\n');
    const entries = text.slice(end + 1);
    return sealOf(entries) === text.slice(0, end) ? new Map(JSON.parse(entries)) : new Map();
  } catch {
    return new Map();
  }
}

function sealOf(text: string): string {
  return createHash('sha256').update(text).digest('hex');
}
