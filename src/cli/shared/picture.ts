// `--picture`: the page that a change moves most, before and after.

import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { findChromium } from '../../browser/chromium.js';
import { UsageError } from '../../core/base/usage-error.js';
import type { Terminal } from './terminal.js';

/** As they are typed. */
interface PictureFlags {
  readonly picture?: boolean;
  readonly page?: string;
}

/**
 * Before anything is written. In: what was typed; the site is the last word, if it is typed at all.
 * Throws `UsageError` where a picture is asked for and there is no browser, or no such page.
 */
export function checkPicture({ picture, page }: PictureFlags, words: readonly string[]): void {
  if (picture !== true && page !== undefined) throw new UsageError('picture-page', {});
  if (picture !== true) return;
  if (findChromium() === undefined) throw new UsageError('no-chromium', {});
  const last = words.at(-1) ?? '.';
  const site = existsSync(last) && statSync(last).isDirectory() ? last : '.';
  if (page !== undefined && !existsSync(path.join(site, page)))
    throw new UsageError('not-a-page', { file: page, site, hint: 'a page by its path in the site' });
}

/** In: the site's folder; what was done, and the pages that it moves, most first. */
export async function showPicture(
  { warn }: Terminal,
  folder: string,
  { picture, page }: PictureFlags,
  done: { readonly written: boolean; readonly moved: readonly string[]; readonly title: string },
): Promise<void> {
  if (picture !== true || !done.written) return;
  const { pictureOfChange } = await import('../../report/picture.js');
  const file = await pictureOfChange(folder, { page, moved: done.moved, title: done.title });
  warn(`picture  ${file}\n`);
}
