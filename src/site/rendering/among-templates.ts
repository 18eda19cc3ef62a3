// Files that nothing marks as whole pages, and in which there is nothing for an engine: by what lies around them they are parts,
// or pages of somebody who leaves out tags.

import { folderOf } from '../../core/base/addresses.js';
import { isFilled } from '../files/templates.js';

/** In: all files that may be pages, their texts, and which of them are no whole pages. Out: whether such a file is a part like others. */
export function amongTemplates(
  paths: readonly string[],
  textOf: (file: string) => string | undefined,
  isNoWholePage: (file: string) => boolean,
): (file: string) => boolean {
  const templates = paths.filter((file) => isFilled(file, textOf(file) ?? ''));
  if (templates.length > 0 && paths.every(isNoWholePage)) return () => true;
  const folders = new Set(templates.map(folderOf));
  // Beside templates, around or below them; what lies at the top does not mention all that lies below.
  return (file) => {
    const own = folderOf(file);
    for (const folder of folders)
      if (folder.startsWith(own) || (folder !== '' && own.startsWith(folder))) return true;
    return false;
  };
}
