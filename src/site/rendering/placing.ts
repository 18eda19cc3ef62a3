// Pages of one state with what stands around them, and what their parts bring, for who reads them one by one.

import { type Page, parsePage } from '../../core/read/markup/index.js';
import { Standing } from '../../core/read/standing/index.js';
import type { PageSource } from '../files/pages.js';

const known = new WeakMap<PageSource, Standing>();

/** In: where the pages come from. Those that name others are parsed once, and kept. */
export function standingOf(source: PageSource): Standing {
  const found = known.get(source);
  if (found !== undefined) return found;
  const bare = new Map<string, Page | undefined>();
  const standing = new Standing(source.mentions, (path) => {
    if (!bare.has(path)) {
      const text = source.page(path);
      bare.set(path, text === undefined ? undefined : parseAlone(source, path, text));
    }
    return bare.get(path);
  });
  known.set(source, standing);
  return standing;
}

/** A page as it is by itself. */
export function parseAlone(source: PageSource, path: string, text: string): Page {
  return parsePage(path, text, source.isComponent(path), source.sheetsFor(path), source.compileBlock);
}

/** A page as it stands on its site. */
export function parsePlaced(source: PageSource, path: string, text: string): Page {
  return standingOf(source).place(parseAlone(source, path, text));
}
