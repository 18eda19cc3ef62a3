// The browser as judge: both states of a site in one Chromium, several pages at a time, at every width and in print.

import type { Browser, BrowserContext, Page as Tab } from 'playwright-core';
import type { SiteFiles } from '../site/files/files.js';
import { captureLooks, type Looks, openView, takePicture, type View } from './capture.js';
import { startChromium } from './chromium.js';
import { compareLooks, comparePictures, type LooksDifference, type PixelDifference } from './compare.js';
import { addressIn } from './one-page.js';
import { type ServedSite, serveSite } from './serve.js';

export interface ViewVerdict {
  readonly view: View;
  readonly nodes: number;
  /** How many nodes differ; some of their differences are listed. */
  readonly differing: number;
  readonly listed: readonly LooksDifference[];
  readonly pixels: PixelDifference | undefined;
  readonly pictures: { readonly before: Buffer; readonly after: Buffer };
}

export interface PageVerdict {
  readonly page: string;
  readonly views: readonly ViewVerdict[];
}

export interface JudgeOptions {
  readonly views: readonly View[];
  /** How many pages at a time. */
  readonly tabs: number;
  /** Called with each verdict as it comes, in no order: pictures need not be kept. */
  readonly onVerdict: (verdict: PageVerdict, done: number) => void;
}

/** In: both states; site paths of whole pages that both hold. Throws `UsageError` where no Chromium starts. */
export async function judge(
  before: SiteFiles,
  after: SiteFiles,
  pages: readonly string[],
  options: JudgeOptions,
): Promise<void> {
  const [first, second] = await Promise.all([serveSite(before), serveSite(after)]);
  const sites = [at('before.invalid', first), at('after.invalid', second)] as const;
  let browser: Browser | undefined;
  try {
    browser = await startChromium(new Map(sites.map(({ host, server }) => [host, server.port])));
    const started = browser;
    let next = 0;
    let done = 0;
    const work = async (): Promise<void> => {
      // Scripts are off: what they would do is the same in both states, and not the same twice.
      const context = await started.newContext({ javaScriptEnabled: false });
      const tab = await context.newPage();
      for (let at = next++; at < pages.length; at = next++) {
        const views: ViewVerdict[] = [];
        for (const view of options.views) views.push(await judgeView(context, tab, sites, pages[at]!, view));
        options.onVerdict({ page: pages[at]!, views }, ++done);
      }
      await context.close();
    };
    await Promise.all(Array.from({ length: Math.min(options.tabs, pages.length) }, work));
  } finally {
    for (const { server } of sites) server.close();
    await browser?.close();
  }
}

interface Shot {
  readonly looks: Looks;
  readonly picture: Buffer;
}

async function judgeView(
  context: BrowserContext,
  tab: Tab,
  [before, after]: readonly [NamedSite, NamedSite],
  page: string,
  view: View,
): Promise<ViewVerdict> {
  let verdict = await once(tab, before, after, page, view);
  if (verdict.differing > 0 || verdict.pixels !== undefined) {
    // Now and then a page is laid out before it has its width: a difference counts when a fresh tab sees it too.
    const fresh = await context.newPage();
    verdict = await once(fresh, before, after, page, view);
    await fresh.close();
  }
  return verdict;
}

async function once(
  tab: Tab,
  before: NamedSite,
  after: NamedSite,
  page: string,
  view: View,
): Promise<ViewVerdict> {
  const a = await shoot(tab, before, page, view);
  const b = await shoot(tab, after, page, view);
  const { listed, nodes: differing } = compareLooks(a.looks, b.looks);
  const pixels = comparePictures(a.picture, b.picture);
  return {
    view,
    nodes: b.looks.nodes.length + b.looks.hidden.length,
    differing,
    listed,
    pixels,
    pictures: { before: a.picture, after: b.picture },
  };
}

/** A served state under the name that the browser knows it by. */
interface NamedSite {
  readonly host: string;
  readonly origin: string;
  readonly server: ServedSite;
}

function at(host: string, server: ServedSite): NamedSite {
  return { host, origin: `http://${host}/`, server };
}

async function shoot(tab: Tab, site: NamedSite, page: string, view: View): Promise<Shot> {
  await openView(tab, addressIn(site.origin, page), view);
  return { looks: await captureLooks(tab, site.origin), picture: await takePicture(tab, view) };
}
