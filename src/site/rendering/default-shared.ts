// Where a sheet goes that is made for what pages share.

import path from 'node:path';
import type { Owner } from '../files/owner.js';

/** What a sheet is called that is made for it. */
export const SHARED = 'shared.css';

/** Beside the theme sheet that most pages use; else in a folder for sheets; else at the top. */
export function defaultShared(
  sheets: readonly (Owner & { readonly path: string })[],
  files: readonly string[],
): string {
  const themes = sheets.filter(({ owner }) => owner === 'theme');
  const [theme] = themes;
  if (theme !== undefined) return path.posix.join(path.posix.dirname(theme.path), 'shared.css');
  for (const folder of ['css', 'styles', 'assets/css']) {
    if (files.some((file) => file.startsWith(`${folder}/`))) return `${folder}/shared.css`;
  }
  return 'shared.css';
}
