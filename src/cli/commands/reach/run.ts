// Where a selector, class, value, custom property or rule has effect.

import { reachOf, readAsked } from '../../../core/ask/reach/index.js';
import { UsageError } from '../../../core/usage-error.js';
import { openFolder } from '../../../site/files/files.js';
import { loadSite } from '../../../site/rendering/load.js';
import type { ReachDocument } from './document.js';

/**
 * Which declarations win, wait or are beaten, on how many elements of which pages.
 * In: the site's folder; a selector, `.class`, `#id`, `--name`, a value, `property: value` or `sheet.css:line`.
 * Throws `UsageError` for what is none of them.
 */
export async function reach(site: string, asked: string): Promise<ReachDocument> {
  const { model, shared, isPlatform } = loadSite(openFolder(site));
  const { sheets, pages } = model.sources;
  const read = readAsked(asked, (path) => sheets.has(path) || pages.has(path));
  if (read === undefined) throw new UsageError('reach-nothing', { text: asked, sheet: shared });
  return { format: 1, command: 'reach', asked, kind: read.kind, ...reachOf(model, read, isPlatform) };
}
