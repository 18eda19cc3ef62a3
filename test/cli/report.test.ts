// The whole on one page: what there is, where it lies, and what became of it.

import assert from 'node:assert/strict';
import { existsSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { findChromium } from '../../src/browser/chromium.js';
import { acervus, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const LINK = '<link rel="stylesheet" href="line.css">';
const BODY =
  '<p class="fare" style="color: teal; padding: 3px">12</p><p style="color: teal; padding: 3px">13</p><b style="top: 1px">\u00a3</b>';
const FILES = {
  'index.html': htmlPage(BODY, LINK),
  'fares/day.html': htmlPage(BODY, LINK.replace('line', '../line')),
  'fares/week.html': htmlPage('<table width="3"><tr><td>x</table>', LINK.replace('line', '../line')),
  'line.css': 'h1 { color: #1f3a56 } h2 { color: #1f3a57 } .fare { left: 0 }\n',
};
const REPORT = '.acervus/report/index.html';

test('a survey on one page: upkeep, areas and pages, what is written most often, near misses', async () => {
  const site = makeSite(FILES);
  const before = snapshot(site);
  const { stderr } = await acervus('survey', site, '--report');
  assert.match(stderr, /^report {2}.*\.acervus\/report\/index\.html\n$/m);
  const html = read(site, REPORT);
  assert.match(html, /<h1>14 places to maintain<\/h1>/);
  assert.match(html, /aria-label="in tags 11, in style blocks 0, in sheets 3"/);
  assert.match(html, /<th scope="row">fares\/<\/th><td class="count">6<\/td>/);
  assert.match(html, /<th scope="row">index\.html<\/th><td class="count">5<\/td>/);
  assert.match(html, /<h2>Written most often<\/h2>.*color: teal/s);
  assert.match(html, /background:#1f3a5[67].*background:#1f3a5[67]/s);
  assert.doesNotMatch(html, /<script|Before and after/);
  for (const [file, text] of before) assert.equal(snapshot(site).get(file), text, file);
});

test('what was adopted: before and after of tag and rule, what stays and why, and pictures where there is a browser', async () => {
  const site = makeSite(FILES);
  assert.equal((await acervus('draft', site)).code, 0);
  const patched = await acervus('adopt', site, '--report', '--patch');
  assert.equal(patched.code, 0);
  assert.equal(existsSync(path.join(site, REPORT)), false, 'nothing was done');
  const { code, stderr } = await acervus('adopt', site, '--report');
  assert.equal(code, 0, stderr);
  const html = read(site, REPORT);
  assert.match(html, /<h1>\d+% less to maintain<\/h1><p>Nothing looks different: proven on/);
  assert.match(
    html,
    /class="out">&lt;p [^<]*style=&quot;color: teal; padding: 3px&quot;[^<]*<\/code><code>&lt;p[^<]*&gt;</,
  );
  assert.match(html, /<th scope="row">index\.html<\/th><td class="count">5 → 0<\/td>/);
  assert.match(html, /<h2>What stays, and why<\/h2>/);
  assert.match(html, /aria-label="in tags 11, in style blocks 0, in sheets 3"/);
  if (findChromium() === undefined) assert.match(html, /no Chromium is installed/);
  else {
    assert.match(html, /<h2>Before and after<\/h2>.*nothing looks different/s);
    const pictures = readdirSync(path.join(site, '.acervus', 'report')).filter((file) =>
      file.endsWith('.png'),
    );
    assert.equal(pictures.length, 4);
  }
});

test('text of a site stays text, and without a browser the rest is there', async () => {
  const site = makeSite({
    '<b>/a.html': htmlPage(
      `<p style="color: teal; --x: '<i>'">1</p><p style="color: teal; --x: '<i>'">2</p>`,
      LINK,
    ),
    'line.css': 'p { margin: 0 }\n',
  });
  writeFileSync(path.join(site, 'acervus.json'), '{}\n');
  await acervus('survey', site, '--report');
  const html = read(site, REPORT);
  assert.match(html, /&lt;b&gt;\//);
  assert.equal(/<i>|<b>\//.test(html), false);
});
