// The version of this program, as its package says it.

import { existsSync, readFileSync } from 'node:fs';

/** Out: such as `1.2.0`. */
export function programVersion(): string {
  // The built program lies deeper in some places than in others.
  for (let up = new URL('./', import.meta.url); up.pathname !== '/'; up = new URL('../', up)) {
    const file = new URL('package.json', up);
    if (!existsSync(file)) continue;
    const { version }: { version: string } = JSON.parse(readFileSync(file, 'utf8'));
    return version;
  }
  throw new Error('no package.json above the program');
}
