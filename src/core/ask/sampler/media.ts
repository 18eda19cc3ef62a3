// The media that sheets are linked for: what a sheet says is said there only.

import { fileAt } from '../../base/addresses.js';
import type { SiteModel } from '../../cascade/index.js';

/** By sheet, the media that it is linked for, where no page links it for all. */
export function mediaOf(model: SiteModel): Map<string, string> {
  const found = new Map<string, string>();
  const plain = new Set<string>();
  for (const page of model.pages)
    for (const one of page.sheets) {
      if (one.kind !== 'link') continue;
      const file = fileAt(one.address, page.path, (address) => model.copyOf(address));
      if (file === undefined) continue;
      if (/^(all)?$/i.test(one.media.trim())) plain.add(file);
      else if (!found.has(file)) found.set(file, one.media.trim());
    }
  for (const file of plain) found.delete(file);
  return found;
}
