// What the sampler cuts out of a site looks in Chromium as it does on its page.

import assert from 'node:assert/strict';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { pathToFileURL } from 'node:url';
import type { Page as Tab } from 'playwright-core';
import { samplerDocument } from '../../src/commands/sampler/document.js';
import { withBrowser } from '../support/chromium.js';
import { ALL } from '../support/seeds.js';
import { acervus, demoPart, htmlPage, makeSite } from '../support/site.js';

async function sampled(site: string, ...more: readonly string[]) {
  const { stdout, stderr } = await acervus('sampler', site, ...more, '--json');
  assert.notEqual(stdout, '', stderr);
  const document = samplerDocument.parse(JSON.parse(stdout));
  return { document, html: readFileSync(document.file, 'utf8') };
}

/** The documents of the frames, by their titles. */
function framesOf(html: string): Map<string, string> {
  const plain = (text: string): string =>
    text
      .replaceAll('&lt;', '<')
      .replaceAll('&gt;', '>')
      .replaceAll('&quot;', '"')
      .replaceAll('&#39;', "'")
      .replaceAll('&amp;', '&');
  const frames = html.matchAll(/<iframe [^>]*title="([^"]*)"[^>]*srcdoc="([^"]*)"/g);
  return new Map([...frames].map(([, title, text]) => [plain(title!), plain(text!)]));
}

/** Computed values and the size of an element, but for what only says where it stands. */
function looksOf(tab: Tab, find: string): Promise<Record<string, string>> {
  return tab.evaluate((asked) => {
    const all = [...document.querySelectorAll('*')].filter(
      (one) => one.parentElement?.closest('noscript') == null,
    );
    const element = /^\d+$/.test(asked) ? all[Number(asked)] : document.querySelector(asked);
    if (element == null) return { missing: asked };
    const style = getComputedStyle(element);
    const { width, height } = element.getBoundingClientRect();
    return {
      ...Object.fromEntries([...style].map((name) => [name, style.getPropertyValue(name)])),
      box: `${width} ${height}`,
    };
  }, find);
}

test('each example of the demo has the size and the computed values of its element on the site', async (context) => {
  await withBrowser(context, async (tab) => {
    const site = demoPart(makeSite({}), ['fares']);
    const { document, html } = await sampled(site);
    const frames = framesOf(html);
    let compared = 0;
    for (const width of [320, 700]) {
      await tab.setViewportSize({ width, height: 800 });
      for (const [at, { name, example }] of document.styles.entries()) {
        // Each at one width, by turns: at both with ACERVUS_TESTS=all.
        if (!ALL && at % 2 !== (width === 320 ? 0 : 1)) continue;
        const own = frames.get(`${name}, ${width} pixels`);
        if (example === undefined || own === undefined) continue;
        const file = path.join(path.dirname(document.file), 'one.html');
        writeFileSync(file, own);
        await tab.goto(pathToFileURL(path.join(site, example.page)).href);
        const there = await looksOf(tab, String(example.element));
        await tab.goto(pathToFileURL(file).href);
        assert.deepEqual(
          await looksOf(tab, '[data-sampler~="shown"]'),
          there,
          `${name} of ${example.page}, ${width}`,
        );
        compared++;
      }
    }
    assert.ok(compared > 8, String(compared));
  });
});

const SHEET = `.fare { color: #1f3a56; padding: 4px; }
.fare:hover { color: #7a1f1f; }
@media (min-width: 1px) { p.fare:focus { padding: 9px; } }
.fare:hover b { top: 1px; }
`;

test('a state is shown beside what is at rest, as it is when a person brings it about', async (context) => {
  await withBrowser(context, async (tab) => {
    const link = '<link rel="stylesheet" href="/line.css">';
    const site = makeSite({
      'pier/index.html': htmlPage('<p class="fare">12</p>', link),
      'line.css': SHEET,
    });
    const { document, html } = await sampled(site, '--out', path.join(site, 'sampler.html'));
    assert.deepEqual(document.styles[0]!.states, ['hover', 'focus']);
    const frames = framesOf(html);
    const look = async (title: string) => {
      const file = path.join(site, 'one.html');
      writeFileSync(file, frames.get(title)!);
      await tab.goto(pathToFileURL(file).href);
      const { color, 'padding-top': padding } = await looksOf(tab, '[data-sampler~="shown"]');
      return [color, padding];
    };
    assert.deepEqual(await look('.fare, 320 pixels'), ['rgb(31, 58, 86)', '4px']);
    assert.deepEqual(await look('.fare, hover'), ['rgb(122, 31, 31)', '4px']);
    assert.deepEqual(await look('.fare, focus'), ['rgb(31, 58, 86)', '9px']);
  });
});

test('with pictures the page is one file, and asks for nothing', async (context) => {
  await withBrowser(context, async (tab) => {
    const site = makeSite({
      'index.html': htmlPage(
        '<p class="fare">12</p><p class="none"></p>',
        '<link rel="stylesheet" href="line.css">',
      ),
      'line.css': `${SHEET}.none { margin: 0 }`,
    });
    const { document: told, html } = await sampled(
      site,
      '--browser',
      '--out',
      path.join(makeSite({}), 'styles.html'),
    );
    assert.equal(told.shown, 'pictures');
    assert.equal(html.includes('<iframe'), false);
    const asked: string[] = [];
    tab.on('request', (request) => asked.push(request.url()));
    await tab.goto(pathToFileURL(told.file).href);
    const sizes = await tab.evaluate(() =>
      [...document.querySelectorAll('article img')].map(
        (one) => (one as HTMLImageElement).naturalWidth > 100,
      ),
    );
    assert.deepEqual(sizes, [true, true, true, true]);
    assert.deepEqual(
      asked.filter((address) => !/^(file|data):/.test(address)),
      [],
    );
  });
});
