// One site in one browser, page after page, scripts off.

import type { Page as Tab } from 'playwright-core';
import type { SiteFiles } from '../site/files/files.js';
import { startChromium } from './chromium.js';
import { serveSite } from './serve.js';

const HOST = 'site.invalid';

/** In: what is done with the tab, and how a page of the site is addressed in it. Throws `UsageError` where there is no browser. */
export async function withPages<Result>(
  files: SiteFiles,
  use: (tab: Tab, addressOf: (page: string) => string) => Promise<Result>,
): Promise<Result> {
  const served = await serveSite(files);
  try {
    const browser = await startChromium(new Map([[HOST, served.port]]));
    try {
      const context = await browser.newContext({ javaScriptEnabled: false, reducedMotion: 'reduce' });
      return await use(await context.newPage(), (page) => addressIn(`http://${HOST}/`, page));
    } finally {
      await browser.close();
    }
  } finally {
    served.close();
  }
}

/** The address of a page by its path in the site. In: the site's origin, with its last `/`. */
export function addressIn(origin: string, page: string): string {
  return origin + page.split('/').map(encodeURIComponent).join('/');
}
