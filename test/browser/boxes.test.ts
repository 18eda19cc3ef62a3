// What an override in a box of a running system promises is what Chromium shows on the system once it is pasted there.

import assert from 'node:assert/strict';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import type { Page as Tab } from 'playwright-core';
import type { OverrideDocument } from '../../src/commands/override/document.js';
import { parsePage } from '../../src/core/read/markup/index.js';
import { withBrowser } from '../support/chromium.js';
import { Random } from '../support/generate.js';
import { edit, type Platform, withPlatform } from '../support/platform.js';
import { Seeds } from '../support/seeds.js';
import { acervus, makeSite, read } from '../support/site.js';

const SEEDS = new Seeds('browser/boxes', 2);
/** What is set on one element shows on no other. */
const SAID: Readonly<Record<string, readonly string[]>> = {
  'background-color': ['#123456', 'rgb(1 2 3 / 50%)', 'transparent'],
  opacity: ['0.5', '0.25'],
  'border-top-left-radius': ['3px', '7px'],
  'outline-color': ['#abcdef', 'red'],
  'text-decoration-line': ['underline', 'none'],
};
const SITE_BOX = 'own/kw-own-css.css';
const PAGE_BOX = 'own/kw-page-css/fares/index.css';

interface Asked {
  readonly selector: string;
  readonly property: string;
  readonly value: string;
  readonly within: readonly string[];
}

/** A selector that picks out elements of a page of the site, and something to say of them. */
function randomOverride(random: Random, folder: string, pages: readonly string[]): Asked {
  const isOwn = random.chance(25);
  const file = isOwn ? 'fares/index.html' : random.pick(pages);
  const { elements } = parsePage(file, read(folder, file));
  const inBody = elements.filter(
    ({ name, parent }) => parent > 0 && !/^(?:head|meta|title|link|style|script|body)$/.test(name),
  );
  const element = random.pick(inBody);
  const parent = elements[element.parent]!;
  const name = (one: typeof element): string =>
    one.classes.length > 0 && random.chance(70) ? `.${random.pick(one.classes)}` : one.name;
  const own = random.chance(20) && element.id !== undefined ? `#${element.id}` : name(element);
  const state = random.chance(15) ? ':first-child' : '';
  const selector = random.pick([own, `${name(parent)} ${own}`, `${name(parent)} > ${own}`]) + state;
  const property = random.pick(Object.keys(SAID));
  return { selector, property, value: random.pick(SAID[property]!), within: isOwn ? ['--within', file] : [] };
}

interface Seen {
  readonly label: string;
  readonly isMeant: boolean;
  /** As it is, and as it would be if the element itself said it more strongly than anything. */
  readonly value: string;
  readonly wanted: string;
}

function look(tab: Tab, { selector, property, value }: Asked): Promise<Seen[]> {
  return tab.evaluate(
    ([which, name, said]) =>
      [...document.querySelectorAll<HTMLElement>('body *')].map((element) => {
        const style = getComputedStyle(element);
        const now = style.getPropertyValue(name);
        const before = element.getAttribute('style');
        element.style.setProperty(name, said, 'important');
        const wanted = style.getPropertyValue(name);
        if (before === null) element.removeAttribute('style');
        else element.setAttribute('style', before);
        return {
          label: `${element.tagName}.${element.className}`,
          isMeant: element.matches(which),
          value: now,
          wanted,
        };
      }),
    [selector, property, value] as const,
  );
}

async function check(
  tab: Tab,
  platform: Platform,
  folder: string,
  asked: Asked,
  pages: ReadonlyMap<string, string>,
): Promise<boolean> {
  const { selector, property, value, within } = asked;
  const boxes = [SITE_BOX, PAGE_BOX].map(
    (file) => [file, readFileSync(path.join(folder, file), 'utf8')] as const,
  );
  const said = await acervus('override', selector, `${property}: ${value}`, folder, ...within, '--json');
  if (said.stdout === '') {
    assert.match(said.stderr, /picks out nothing|nothing can beat|cannot be beaten|beat/, said.stderr);
    return false;
  }
  const { written, refused } = JSON.parse(said.stdout) as OverrideDocument;
  const isReachable = (address: string): boolean => within.length === 0 || address.endsWith('/fares/');
  const shown = [...pages.values()];
  const then: Seen[][] = [];
  for (const address of shown) {
    await tab.goto(address);
    then.push(await look(tab, asked));
  }
  await edit(platform, 'site-css', read(folder, SITE_BOX));
  await edit(platform, 'page-css/fares/', read(folder, PAGE_BOX));
  for (const [at, address] of shown.entries()) {
    await tab.goto(address);
    for (const [number, { label, isMeant, value: now, wanted }] of (await look(tab, asked)).entries()) {
      const meant = isMeant && isReachable(address) && !refused;
      const expected = meant ? wanted : then[at]![number]!.value;
      assert.equal(now, expected, `${JSON.stringify(asked)} ${address} ${label}`);
    }
  }
  for (const [file, text] of boxes) writeFileSync(path.join(folder, file), text);
  await edit(platform, 'site-css', boxes[0]![1]);
  await edit(platform, 'page-css/fares/', boxes[1]![1]);
  return written;
}

test(`${SEEDS.many} random overrides in boxes show as they promise, and nowhere else`, async (context) => {
  await withBrowser(context, async () => {
    const { startOpenChromium } = await import('../../src/browser/chromium.js');
    const browser = await startOpenChromium();
    try {
      const tab = await (await browser.newContext()).newPage();
      await withPlatform(async (platform) => {
        const folder = makeSite({});
        await acervus(
          'visit',
          platform.address,
          folder,
          '--own',
          '#kw-own-css',
          '--own-page',
          'style.kw-page-css',
        );
        const { pages } = JSON.parse(read(folder, 'visit.json')) as {
          pages: { address: string; file: string }[];
        };
        // Where no box is, nothing is promised; a page that a script builds holds more than was brought.
        const all = new Map(
          pages.filter(({ file }) => !/login|tides/.test(file)).map(({ file, address }) => [file, address]),
        );
        let written = 0;
        for (const seed of SEEDS) {
          const random = new Random(seed);
          const asked = randomOverride(random, folder, [...all.keys()]);
          // Always the pages with both boxes and with one; others by turns.
          const some = [...all].filter(([file], at) => file === 'fares/index.html' || at % 7 === seed % 7);
          if (await check(tab, platform, folder, asked, new Map(some))) written++;
        }
        if (SEEDS.areMany) assert.ok(written >= SEEDS.many / 2, `only ${written} written`);
      });
    } finally {
      await browser.close();
    }
  });
});
