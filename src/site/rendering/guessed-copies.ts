// Which sheets and scripts of the site the addresses in its pages mean, where only a server or an engine could resolve them.

import { resolveAddress } from '../../core/base/addresses.js';
import { isTemplate } from '../../core/read/kinds/index.js';
import { parsePage } from '../../core/read/markup/index.js';
import { holdsEngineText } from '../../core/read/templates/index.js';
import type { Config } from '../config.js';
import type { SiteFiles } from '../files/files.js';
import type { PageSource } from '../files/pages.js';
import { guessFile } from './file-guess.js';

/** So many pages are looked into for what an engine reads. */
const MANY = 20;
/** What may hold the address of a sheet that only a server or an engine could resolve. */
const GUESSED =
  /<(?:link|script)[^>]*?(?:\{\{|\{%|<%|<\?|=\s*["']?\/)|(?:stylesheet|script)\w*\b|(?:css|js)\w*\s*\(/i;

export interface Guessing extends Pick<PageSource, 'pagePaths' | 'page' | 'isComponent'> {
  readonly files: SiteFiles;
  readonly visited: unknown;
  readonly config: Config;
}

/** Whether an engine reads some of the pages, as far as a look at a few of them tells. */
export function isForEngine(reader: Pick<Guessing, 'pagePaths' | 'page'>): boolean {
  const { pagePaths } = reader;
  return (
    pagePaths.some(isTemplate) ||
    pagePaths.slice(0, MANY).some((file) => holdsEngineText(reader.page(file) ?? ''))
  );
}

/** Out: by address as it is written, the file that is meant. */
export function guessedCopies(reader: Guessing): Map<string, string> {
  const { pagePaths, config } = reader;
  const found = new Map<string, string>();
  const served = new Map(Object.entries(config.served ?? {}));
  if (served.size === 0 && !isForEngine(reader)) return found;
  const files = reader.files.list();
  const known = new Set(files);
  for (const file of pagePaths) {
    const text = reader.page(file);
    if (text === undefined || !GUESSED.test(text)) continue;
    // On a finished page an address says itself where it leads, but for the folder that is served.
    if (served.size === 0 && !isTemplate(file) && !holdsEngineText(text, file)) continue;
    const { sheets, scripts } = parsePage(file, text, reader.isComponent(file));
    for (const one of [...sheets, ...scripts]) {
      if (one.kind !== 'link' || found.has(one.address.trim())) continue;
      const resolved = resolveAddress(one.address, file);
      if (resolved.kind === 'site' && known.has(resolved.path)) continue;
      const meant = guessFile(one.address, file, files, served);
      if (meant !== undefined) found.set(one.address.trim(), meant);
    }
  }
  return found;
}
