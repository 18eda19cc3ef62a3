// What a page looks like in the browser: every rendered node with its box and all computed values, through the protocol's
// snapshot, the hidden elements asked one by one, and a picture.

/// <reference lib="dom" />
/// <reference lib="dom.iterable" />

import type { Page as Tab } from 'playwright-core';

export interface View {
  /** In CSS pixels. */
  readonly width: number;
  readonly media: 'screen' | 'print';
}

export interface Looks {
  /** Names of the computed properties, in the order of the values. */
  readonly properties: readonly string[];
  readonly nodes: readonly NodeLooks[];
  /** Hidden elements: their name and all computed values as one text. */
  readonly hidden: readonly string[];
}

export interface NodeLooks {
  /** `TD`, `::before`, `#text`. */
  readonly name: string;
  /** The element's id and classes, to find it by. */
  readonly label: string;
  /** x, y, width, height. */
  readonly box: string;
  readonly values: readonly string[];
}

/** The tallest picture, in CSS pixels: a page of a hundred screens is compared by its values. */
const TALLEST = 8000;

export async function openView(tab: Tab, address: string, view: View): Promise<void> {
  await tab.setViewportSize({ width: view.width, height: 800 });
  await tab.emulateMedia({ media: view.media, reducedMotion: 'reduce' });
  await tab.goto(address, { waitUntil: 'load' });
  // Whatever moves is put where it starts or ends, so that two moments can be compared.
  await tab.evaluate(() => {
    for (const animation of document.getAnimations()) {
      if (animation instanceof CSSTransition) animation.finish();
      else {
        animation.pause();
        animation.currentTime = 0;
      }
    }
  });
}

/** In: a tab with the page open; the start of addresses to leave out, which differs between states. */
export async function captureLooks(tab: Tab, origin: string): Promise<Looks> {
  const { properties, texts, hidden } = await tab.evaluate(() => {
    const names = [...getComputedStyle(document.documentElement)].filter((name) => !name.startsWith('--'));
    // Hidden elements look alike in their hundreds: each look is sent once.
    const numbers = new Map<string, number>();
    const found: number[] = [];
    for (const element of document.querySelectorAll('body *')) {
      if (element.getClientRects().length > 0) continue;
      const style = getComputedStyle(element);
      if (style.display === 'contents') continue;
      const text = `${element.tagName}; ${names.map((name) => `${name}: ${style.getPropertyValue(name)}`).join('; ')}`;
      if (!numbers.has(text)) numbers.set(text, numbers.size);
      found.push(numbers.get(text)!);
    }
    return { properties: names, texts: [...numbers.keys()], hidden: found };
  });
  const session = await tab.context().newCDPSession(tab);
  const { documents, strings } = await session.send('DOMSnapshot.captureSnapshot', {
    computedStyles: properties,
  });
  await session.detach();
  // The browser's own words for aligned text are the standard's wherever every box stands where it stood.
  const clean = strings.map((text) =>
    (text.includes(origin) ? text.replaceAll(origin, '') : text).replace(
      /^-webkit-(center|left|right)$/,
      '$1',
    ),
  );
  const hiddenTexts = texts.map((text) =>
    text.replaceAll(origin, '').replace(/(; text-align: )-webkit-(center|left|right)/g, '$1$2'),
  );
  const textOf = (index: number | undefined): string => clean[index ?? -1] ?? '';
  const nodes = documents.flatMap(({ layout, nodes: all }) =>
    layout.nodeIndex.map((node, at): NodeLooks => {
      const attributes = (all.attributes?.[node] ?? []).map(textOf);
      const pick = (name: string): string => {
        const i = attributes.findIndex((text, n) => n % 2 === 0 && text === name);
        return i < 0 ? '' : (attributes[i + 1] ?? '');
      };
      const id = pick('id');
      const classes = pick('class')
        .split(/\s+/)
        .filter((text) => text !== '');
      return {
        name: textOf(all.nodeName?.[node]),
        label: `${id === '' ? '' : `#${id}`}${classes
          .slice(0, 3)
          .map((text) => `.${text}`)
          .join('')}`,
        box: (layout.bounds[at] ?? []).map((side) => Math.round(side * 100) / 100).join(' '),
        values: (layout.styles[at] ?? []).map(textOf),
      };
    }),
  );
  return { properties, nodes, hidden: hidden.map((number) => hiddenTexts[number]!) };
}

/** A PNG of the whole page, down to `TALLEST`. */
export async function takePicture(tab: Tab, view: View): Promise<Buffer> {
  const height = await tab.evaluate(() => document.documentElement.scrollHeight);
  const session = await tab.context().newCDPSession(tab);
  const clip = { x: 0, y: 0, width: view.width, height: Math.max(1, Math.min(TALLEST, height)), scale: 1 };
  const { data } = await session.send('Page.captureScreenshot', {
    format: 'png',
    captureBeyondViewport: true,
    optimizeForSpeed: true,
    clip,
  });
  await session.detach();
  return Buffer.from(data, 'base64');
}
