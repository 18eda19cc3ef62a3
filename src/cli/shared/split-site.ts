// Words of which the last may be the folder of the site.

import { existsSync, statSync } from 'node:fs';

export interface SplitWords {
  readonly words: readonly string[];
  /** The folder, `.` where none is named. */
  readonly site: string;
}

export function splitSite(words: readonly string[]): SplitWords {
  const last = words.at(-1);
  return last !== undefined && isFolder(last)
    ? { words: words.slice(0, -1), site: last }
    : { words, site: '.' };
}

function isFolder(word: string): boolean {
  return !/^[a-z-]+\s*:/i.test(word) && existsSync(word) && statSync(word).isDirectory();
}
