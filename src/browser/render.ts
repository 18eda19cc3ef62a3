// A page of a running system as the installed Chromium shows it after its scripts: as HTML, with the sheets that scripts
// made in it, and shadow roots declared.

/// <reference lib="dom" />
/// <reference lib="dom.iterable" />

import type { Page as Tab } from 'playwright-core';
import { isPrivate, leadsInside } from '../site/visiting/hosts.js';
import { NotHad } from '../site/visiting/source.js';
import type { Renderer, RendererInput } from '../site/visiting/visit.js';
import { startOpenChromium } from './chromium.js';

const USUAL_WIDTH = 1200;
const PATIENCE = 20_000;
/** So long nothing must be asked for, for a page to count as made. */
const QUIET = 5000;
/** What a page may load of other hosts: what styles it, and the scripts that make it. */
const OF_OTHERS = new Set(['stylesheet', 'script', 'font', 'image', 'fetch', 'xhr']);

/** Throws `UsageError` where there is no browser. */
export async function openRenderer({ origin, credentials, widths }: RendererInput): Promise<Renderer> {
  const browser = await startOpenChromium();
  const [first = USUAL_WIDTH, ...narrower] = widths;
  const context = await browser.newContext({
    serviceWorkers: 'block',
    acceptDownloads: false,
    viewport: { width: first, height: 800 },
  });
  await context.addCookies(await credentials.cookies());
  const inside = new Map<string, Promise<boolean>>();
  const allowsPrivate = await leadsInside(origin);
  await context.route('**/*', async (route) => {
    const request = route.request();
    const url = new URL(request.url());
    if (!/^https?:$/.test(url.protocol)) return route.abort();
    const isOwn = url.origin === origin;
    if (!isOwn && !OF_OTHERS.has(request.resourceType())) return route.abort();
    if (!isOwn && !allowsPrivate) {
      const known = inside.get(url.host) ?? leadsInside(url.href);
      inside.set(url.host, known);
      if (isPrivate(url.hostname) || (await known)) return route.abort();
    }
    return route.continue(isOwn ? { headers: { ...request.headers(), ...credentials.headers } } : {});
  });
  return {
    render: async (address) => {
      const tab = await context.newPage();
      try {
        const html = await show(tab, address, first);
        const others = [];
        for (const width of narrower) {
          const other = await show(tab, address, width);
          if (other !== html) others.push({ width, html: other });
        }
        return [{ width: undefined, html }, ...others];
      } catch (error) {
        throw new NotHad(`could not be shown (${(error as Error).message.split('\n')[0]})`);
      } finally {
        await tab.close();
      }
    },
    close: () => browser.close(),
  };
}

async function show(tab: Tab, address: string, width: number): Promise<string> {
  await tab.setViewportSize({ width, height: 800 });
  await tab.goto(address, { waitUntil: 'load', timeout: PATIENCE });
  // A page that asks without end is taken as it is by then.
  await tab.waitForLoadState('networkidle', { timeout: QUIET }).catch(() => undefined);
  return tab.evaluate(asMarkup);
}

/** Runs in the page. */
function asMarkup(): string {
  const textOf = (sheet: CSSStyleSheet): string => [...sheet.cssRules].map((rule) => rule.cssText).join('\n');
  const roots: ShadowRoot[] = [];
  const seeTo = (root: Document | ShadowRoot): void => {
    for (const style of root.querySelectorAll('style')) {
      if (style.sheet === null) continue;
      const plain = new CSSStyleSheet();
      plain.replaceSync(style.textContent);
      // Rules that a script put in are nowhere in the text.
      if (textOf(plain) !== textOf(style.sheet) && !/@import/i.test(style.textContent))
        style.textContent = `\n${textOf(style.sheet)}\n`;
    }
    for (const sheet of root.adoptedStyleSheets) {
      const style = document.createElement('style');
      style.media = sheet.media.mediaText;
      style.textContent = `\n${textOf(sheet)}\n`;
      (root instanceof Document ? root.documentElement : root).append(style);
    }
    for (const element of root.querySelectorAll('*')) {
      if (element.shadowRoot === null) continue;
      roots.push(element.shadowRoot);
      seeTo(element.shadowRoot);
    }
  };
  seeTo(document);
  const { documentElement: html, doctype } = document;
  const attributes = [...html.attributes].map(
    ({ name, value }) => ` ${name}="${value.replaceAll('&', '&amp;').replaceAll('"', '&quot;')}"`,
  );
  const kind = doctype === null ? '' : new XMLSerializer().serializeToString(doctype);
  return `${kind}\n<html${attributes.join('')}>${html.getHTML({ shadowRoots: roots })}</html>\n`;
}
