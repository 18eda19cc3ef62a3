// Colours that are told to stand on each other are those that Chromium computes.

import assert from 'node:assert/strict';
import path from 'node:path';
import { test } from 'node:test';
import { pathToFileURL } from 'node:url';
import { valuesDocument } from '../../src/commands/values/document.js';
import { withBrowser } from '../support/chromium.js';
import { acervus, demoPart, makeSite, snapshot } from '../support/site.js';

test('every text of the demo has the colour and the ground that Chromium gives it', async (context) => {
  await withBrowser(context, async (tab) => {
    const site = demoPart(makeSite({}), ['fares', 'notices', 'crossings']);
    const { stdout } = await acervus('values', site, '--pairs', '--json');
    const told = valuesDocument.parse(JSON.parse(stdout)).pairs ?? [];
    const seen = new Map<string, number>();
    await tab.setViewportSize({ width: 1200, height: 800 });
    for (const file of [...snapshot(site).keys()].filter((name) => name.endsWith('.html'))) {
      await tab.goto(pathToFileURL(path.join(site, file)).href);
      const found = await tab.evaluate(() => {
        const parse = (text: string): number[] => (text.match(/[\d.]+/g) ?? []).map(Number);
        const hex = (rgb: number[]): string =>
          `#${rgb
            .slice(0, 3)
            .map((one) => Math.round(one).toString(16).padStart(2, '0'))
            .join('')}`;
        const ground = (element: Element | null): number[] => {
          if (element === null) return [255, 255, 255];
          const [r = 0, g = 0, b = 0, alpha = 1] = parse(getComputedStyle(element).backgroundColor);
          if (alpha >= 1) return [r, g, b];
          const below = ground(element.parentElement);
          return [r, g, b].map((one, at) => one * alpha + below[at]! * (1 - alpha));
        };
        return [...document.querySelectorAll('body, body *')]
          .filter((element) =>
            [...element.childNodes].some((node) => node.nodeType === 3 && node.nodeValue?.trim() !== ''),
          )
          .filter(
            (element) => element.checkVisibility() && !/^(?:SCRIPT|STYLE|OPTION)$/.test(element.tagName),
          )
          .map((element) => `${hex(parse(getComputedStyle(element).color))} ${hex(ground(element))}`);
      });
      for (const pair of found) seen.set(pair, (seen.get(pair) ?? 0) + 1);
    }
    const said = new Map(told.map(({ text, ground, elements }) => [`${text} ${ground}`, elements]));
    assert.ok(said.size > 8);
    assert.deepEqual([...said].sort(), [...seen].sort());
  });
});
