// Which page a picture shows.

import { UsageError } from '../core/base/usage-error.js';
import type { SiteReader } from '../site/rendering/reader.js';

/** In: the page that is asked for; without one, those that would do, the best first. Throws `UsageError` for what is no whole page. */
export function shownPage(
  folder: string,
  reader: SiteReader,
  asked: string | undefined,
  best: readonly string[],
): string {
  const whole = new Set(reader.pagePaths.filter((file) => !reader.isComponent(file)));
  const file = asked ?? best.find((one) => whole.has(one)) ?? best[0] ?? [...whole][0] ?? '';
  if (whole.has(file)) return file;
  if (reader.pagePaths.includes(file)) throw new UsageError('picture-component', { file });
  throw new UsageError('not-a-page', { file, site: folder, hint: `one of its ${whole.size} pages` });
}
