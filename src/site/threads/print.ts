// What a part of a site's pages was read from, in one number: the pages, and all that says how they are read.

import { createHash } from 'node:crypto';
import { isScript, isStyleSheet } from '../../core/read/kinds/index.js';
import type { SiteReader } from '../rendering/reader.js';

/** In: the states of the site; the pages that were read in each. Out: SHA-256. */
export function printOf(readers: readonly SiteReader[], paths: readonly string[]): string {
  const hash = createHash('sha256');
  for (const { files, config, pagePaths } of readers) {
    hash.update(`${JSON.stringify(config)}\0${pagePaths.join('\n')}\0`);
    const others = files.list().filter((file) => isStyleSheet(file) || isScript(file));
    for (const file of [...paths, ...others])
      hash
        .update(`${file}\0`)
        .update(files.read(file) ?? '')
        .update('\0');
  }
  return hash.digest('hex');
}
