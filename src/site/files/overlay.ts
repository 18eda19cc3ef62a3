// The files of a site with other texts in some of them: what would come of a change before it is made.

import type { SiteFiles } from './files.js';

/** In: by path, what a file would hold; one that is not there yet would be. */
export function withTexts(files: SiteFiles, texts: ReadonlyMap<string, string>): SiteFiles {
  return {
    ...files,
    list: () => files.list(),
    read: (file) => {
      const own = texts.get(file);
      return own === undefined ? files.read(file) : Buffer.from(own);
    },
  };
}
