// Outlines of the pages of a large site, remembered by content: a page that has not changed is parsed when somebody looks
// into it, and not before.

import { hintDeclarations } from '../../core/read/hints/index.js';
import { type Outline, outlinedPage, outlineOf, type Page, parsePage } from '../../core/read/markup/index.js';
import { keyOf, PageCache, WORTH_REMEMBERING } from '../cache/page-cache.js';

/** What stands for a page that has no outline. */
const NONE = 'none';

/**
 * In: the site's folder; its whole pages by path. Out: each as a page, parsed now where its outline is not known yet;
 * `undefined` for a site that is read as quickly as it is remembered.
 */
export function outlinedPages(
  root: string,
  pages: ReadonlyMap<string, string>,
  isComponent: (path: string) => boolean,
): Map<string, Page> | undefined {
  let size = 0;
  for (const text of pages.values()) size += text.length;
  if (size < WORTH_REMEMBERING) return undefined;
  const cache = new PageCache(root, 'outlines');
  const found = new Map<string, Page>();
  for (const [path, text] of pages) {
    if (isComponent(path)) continue;
    const key = keyOf('outline', text);
    const known = cache.get(key);
    if (known === NONE) continue;
    const outline = known === undefined ? undefined : (JSON.parse(known) as Outline);
    if (outline !== undefined) {
      found.set(
        path,
        outlinedPage(path, text, outline, () => parsePage(path, text)),
      );
      continue;
    }
    const page = parsePage(path, text);
    const fresh = outlineOf(page, () =>
      page.elements.some((element) => hintDeclarations(page, element).length > 0),
    );
    cache.set(key, fresh === undefined ? NONE : JSON.stringify(fresh));
    found.set(path, page);
  }
  cache.save();
  return found;
}
