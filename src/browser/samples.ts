// Pictures of examples that were cut out of pages, each at its page's own address, so that what it loads is found.

import type { Page as Tab } from 'playwright-core';
import type { SiteFiles } from '../site/files/files.js';
import { withPages } from './one-page.js';

export interface Sample {
  /** Site path of the page that it was cut out of. */
  readonly page: string;
  readonly html: string;
  /** What in it is taken. */
  readonly selector: string;
  /** Of the window, in CSS pixels. */
  readonly width: number;
}

export interface SamplePicture {
  readonly png: Buffer;
  /** In CSS pixels. */
  readonly width: number;
}

/** Taller pictures are cut off. */
const TALLEST = 640;

/** In the order of the samples; `undefined` for what takes up no room. Throws `UsageError` where there is no browser. */
export async function takeSamples(
  files: SiteFiles,
  samples: readonly Sample[],
  onSample: (done: number, of: number) => void = () => {},
): Promise<(SamplePicture | undefined)[]> {
  return withPages(files, async (tab, addressOf) => {
    const found: (SamplePicture | undefined)[] = [];
    for (const [at, sample] of samples.entries()) {
      found.push(await take(tab, addressOf(sample.page), sample));
      onSample(at + 1, samples.length);
    }
    return found;
  });
}

async function take(
  tab: Tab,
  address: string,
  { html, selector, width }: Sample,
): Promise<SamplePicture | undefined> {
  await tab.setViewportSize({ width, height: 800 });
  await tab.route(address, (route) => route.fulfill({ contentType: 'text/html; charset=utf-8', body: html }));
  try {
    await tab.goto(address, { waitUntil: 'load' });
    const box = await tab.locator(selector).first().boundingBox();
    if (box === null || box.width < 1 || box.height < 1) return undefined;
    const clip = {
      x: Math.max(0, box.x),
      y: Math.max(0, box.y),
      width: Math.min(box.width, width),
      height: Math.min(box.height, TALLEST),
    };
    const png = await tab.screenshot({ clip, fullPage: true, animations: 'disabled' });
    return { png, width: Math.round(clip.width) };
  } finally {
    await tab.unroute(address);
  }
}
