// `prove --browser` as a user runs it: on files in a temporary folder, with an installed Chromium.

import assert from 'node:assert/strict';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { type TestContext, test } from 'node:test';
import { findChromium } from '../../src/browser/chromium.js';
import { MISSING } from '../support/chromium.js';
import { acervus, htmlPage, makeSite } from '../support/site.js';

function needsChromium(context: TestContext): boolean {
  if (findChromium() !== undefined) return true;
  if (process.env.CI === 'true') throw new Error(MISSING);
  context.skip(MISSING);
  return false;
}

const link = '<link rel="stylesheet" href="/theme/a.css">';
const pages = {
  'index.html': htmlPage('<p class="a">tide<p class="b">ebb<div class="gone"><i>out</i></div>', link),
  'fares/a b.html': htmlPage('<p class="b">fare', link),
  'fares/day.html': htmlPage('<p class="c">day', link),
  'theme/a.css': '.a { color: red; transition: all 1s } .gone { display: none } .c::after { content: "x" }',
};

test('two states that look the same are told so, with a report of every page', async (context) => {
  if (!needsChromium(context)) return;
  const before = makeSite(pages);
  const after = makeSite({ ...pages, 'theme/a.css': `${pages['theme/a.css']} .none { top: 0 }` });
  const { code, stdout } = await acervus('prove', after, '--against', before, '--browser', '--json');
  assert.equal(code, 0);
  const { browser } = JSON.parse(stdout);
  assert.deepEqual([browser.equal, browser.pages, browser.views, browser.differences], [true, 3, 3, []]);
  assert.ok(browser.nodes > 60);
  const report = readFileSync(path.join(after, '.acervus', 'browser', 'index.html'), 'utf8');
  assert.match(report, /Nothing looks different\./);
  for (const [, address] of report.matchAll(/src="([^"]+)"/g))
    assert.ok(existsSync(path.join(after, '.acervus', 'browser', address!)), address);
});

test('what differs is found by view: a colour, a hidden element, a pseudo-element, print alone', async (context) => {
  if (!needsChromium(context)) return;
  const before = makeSite(pages);
  const css = [
    '.a { color: blue; transition: all 1s } .gone { display: none } .gone i { color: lime }',
    '.c::after { content: "y" } @media print { .b { color: green } } @media (max-width: 500px) { .b { top: 1px } }',
  ].join('\n');
  const after = makeSite({ ...pages, 'theme/a.css': css });
  const { code, stdout } = await acervus('prove', after, '--against', before, '--browser', '--json');
  assert.equal(code, 1);
  const { browser } = JSON.parse(stdout);
  const told = browser.differences.map(
    ({
      page,
      view,
      told: list,
    }: {
      page: string;
      view: string;
      told: { node: string; property: string }[];
    }) =>
      `${page} ${view}: ${[...new Set(list.map(({ node, property }) => `${node} ${property}`))].slice(0, 2).join(', ')}`,
  );
  const has = (pattern: RegExp): boolean => told.some((line: string) => pattern.test(line));
  assert.ok(has(/^index\.html 1200 px: p\.a color/), told.join('\n'));
  assert.ok(has(/^fares\/day\.html 500 px: ::after content/), told.join('\n'));
  assert.ok(has(/^fares\/a b\.html print, 1200 px: p\.b /), told.join('\n'));
  assert.ok(!has(/^fares\/a b\.html 1200 px/), told.join('\n'));
  assert.ok(has(/^fares\/a b\.html 500 px: p\.b top/), told.join('\n'));
  const hidden = browser.differences.flatMap((one: { told: { node: string }[] }) => one.told);
  assert.ok(hidden.some(({ node }: { node: string }) => node === 'i (hidden)'));
});

test('a sample is a pattern, every n-th page, and widths of one’s own', async (context) => {
  if (!needsChromium(context)) return;
  const site = makeSite(pages);
  const run = async (...more: string[]): Promise<{ pages: number; views: number }> =>
    JSON.parse((await acervus('prove', site, '--against', site, '--browser', '--json', ...more)).stdout)
      .browser;
  assert.equal((await run('--every', '2', '--widths', '300')).pages, 2);
  const { pages: looked, views } = await run('--pages', 'fares/d*', '--widths', '300');
  assert.deepEqual([looked, views], [1, 2]);
});

test('what cannot be looked at is refused in one line', async () => {
  const site = makeSite(pages);
  const refused = async (...more: string[]): Promise<string> => {
    const { code, stderr } = await acervus('prove', site, '--against', site, ...more);
    assert.equal(code, 2);
    assert.equal(stderr.trim().split('\n').length, 1);
    return stderr;
  };
  assert.match(await refused('--widths', '400'), /--widths: belongs to --browser/);
  assert.match(await refused('--browser', '--widths', 'wide'), /--widths wide: expected whole numbers/);
  assert.match(await refused('--browser', '--every', '0'), /--every 0: expected a whole number/);
  assert.match(await refused('--browser', '--pages', 'none/**'), /--pages: no page of both states fits/);
});
