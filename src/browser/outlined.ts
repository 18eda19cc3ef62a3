// A page of a site with some of its elements outlined and numbered.

/// <reference lib="dom" />
/// <reference lib="dom.iterable" />

import type { SiteFiles } from '../site/files/files.js';
import { openView, takePicture } from './capture.js';
import { withPages } from './one-page.js';

export interface Outlined {
  readonly png: Buffer;
  /** Positions in the list of those that take up no room. */
  readonly hidden: readonly number[];
}

/** In: numbers of elements, counted from the end of the page: sheets that are put in for a browser stand before them. Throws `UsageError` where there is no browser. */
export async function takeOutlined(
  files: SiteFiles,
  page: string,
  elements: readonly number[],
  width: number,
): Promise<Outlined> {
  return withPages(files, async (tab, addressOf) => {
    const view = { width, media: 'screen' } as const;
    await openView(tab, addressOf(page), view);
    const hidden = await tab.evaluate((wanted) => {
      // What stands in a noscript is text where scripts run, and no element.
      const all = [...document.querySelectorAll('*')].filter(
        (one) => one.parentElement?.closest('noscript') == null,
      );
      const boxes = wanted.map((fromEnd) => all[all.length - fromEnd]?.getBoundingClientRect());
      const layer = document.createElement('div');
      layer.style.cssText =
        'all:initial;position:absolute;left:0;top:0;z-index:2147483647;pointer-events:none';
      const none: number[] = [];
      boxes.forEach((box, at) => {
        if (box === undefined || (box.width === 0 && box.height === 0)) {
          none.push(at);
          return;
        }
        const mark = document.createElement('div');
        mark.style.cssText = `all:initial;position:absolute;box-sizing:border-box;left:${box.left + scrollX}px;top:${box.top + scrollY}px;width:${box.width}px;height:${box.height}px;outline:2px solid #c2410c`;
        const label = document.createElement('div');
        label.style.cssText =
          'all:initial;position:absolute;right:-2px;top:-2px;padding:0 4px;background:#c2410c;color:#fff;font:bold 11px/15px sans-serif';
        label.textContent = String(at + 1);
        mark.append(label);
        layer.append(mark);
      });
      document.documentElement.append(layer);
      return none;
    }, elements);
    return { png: await takePicture(tab, view), hidden };
  });
}
