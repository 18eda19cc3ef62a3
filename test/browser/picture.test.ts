// `--picture`: the page that a change moves most, before and after, without a second look at anything else.

import assert from 'node:assert/strict';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { pathToFileURL } from 'node:url';
import { withBrowser } from '../support/chromium.js';
import { acervus, htmlPage, makeSite, read } from '../support/site.js';

const LINK = '<link rel="stylesheet" href="line.css">';

test('a page is shown before and after a change, and what moved on it', async (context) => {
  await withBrowser(context, async () => {
    const site = makeSite({
      'few.html': htmlPage('<p class="fare">&lt;b&gt;12</p>', LINK),
      'many.html': htmlPage('<p class="fare">12</p><p class="fare">18</p>', LINK),
      'line.css': '.fare { color: teal; }\n',
    });
    const { code, stdout, stderr } = await acervus(
      'restyle',
      '.fare',
      'color: red',
      site,
      '--picture',
      '--json',
    );
    assert.equal(code, 0, stderr);
    assert.doesNotThrow(() => JSON.parse(stdout));
    const file = /^picture {2}(.*)$/m.exec(stderr)?.[1] ?? '';
    assert.equal(path.relative(site, file), path.join('.acervus', 'picture', 'index.html'));
    const page = read(site, path.join('.acervus', 'picture', 'index.html'));
    assert.match(page, /<b>many\.html<\/b>/);
    assert.match(page, /rgb\(0, 128, 128\)<\/td><td>rgb\(255, 0, 0\)/);
    assert.doesNotMatch(page, /<script|https?:/);
    for (const name of ['before', 'after', 'moved'])
      assert.ok(existsSync(path.join(site, '.acervus', 'picture', `${name}.png`)), name);
    await acervus('restyle', '.fare', 'color: blue', site, '--picture', '--page', 'few.html');
    assert.match(read(site, path.join('.acervus', 'picture', 'index.html')), /<b>few\.html<\/b>/);
    const nowhere = await acervus(
      'restyle',
      '.fare',
      'color: navy',
      site,
      '--picture',
      '--page',
      'none.html',
    );
    assert.equal(nowhere.code, 2);
    assert.match(nowhere.stderr, /none\.html: is no page/);
    assert.match(read(site, 'line.css'), /blue/);
  });
});

test('a part that pages take in is no page to take a picture of: the best whole one is', async (context) => {
  await withBrowser(context, async () => {
    const site = makeSite({
      'components/head.tpl': '<p class="fare">1</p><p class="fare">2</p><p class="fare">3</p>',
      'a.html': htmlPage('<p class="fare">12</p>', LINK),
      'line.css': '.fare { color: teal; }\n',
    });
    const page = (): string => read(site, path.join('.acervus', 'picture', 'index.html'));
    assert.equal((await acervus('reach', '.fare', site, '--picture')).code, 0);
    assert.match(page(), /<b>a\.html<\/b>/);
    await acervus('restyle', '.fare', 'color: red', site, '--picture');
    assert.match(page(), /<b>a\.html<\/b>/);
    const part = await acervus('explain', 'components/head.tpl', 'p', site, '--picture');
    assert.equal(part.code, 2);
    assert.match(part.stderr, /^acervus: components\/head\.tpl: is a part that pages take in/m);
  });
});

test('without a browser nothing is written, and one line says how to get it', async () => {
  const site = makeSite({
    'a.html': htmlPage('<p class="fare">12</p>', LINK),
    'line.css': '.fare { color: teal; }\n',
  });
  const [known, paths] = [process.env.CHROMIUM, process.env.PATH];
  delete process.env.CHROMIUM;
  process.env.PATH = '/nowhere';
  try {
    const { code, stderr } = await acervus('restyle', '.fare', 'color: red', site, '--picture');
    assert.equal(code, 2);
    assert.match(stderr, /Chromium/);
    assert.equal(read(site, 'line.css'), '.fare { color: teal; }\n');
  } finally {
    process.env.PATH = paths;
    if (known !== undefined) process.env.CHROMIUM = known;
  }
  assert.equal((await acervus('restyle', '.fare', 'color: red', site, '--page', 'a.html')).code, 2);
});

test('what a question means is outlined and numbered, where it is seen, and listed where it is not', async (context) => {
  await withBrowser(context, async (tab) => {
    const site = makeSite({
      'few.html': htmlPage('<p class="fare">12</p>', LINK),
      'many.html': htmlPage(
        '<noscript><i>x</i></noscript><p class="fare" style="width: 40px">12</p><p class="fare" title="<i>" hidden>14</p><b>y</b><p class="fare">18</p>',
        LINK,
      ),
      'line.css':
        'body { margin: 0 } noscript { display: none } .fare { color: teal; margin: 0 0 20px; height: 30px; }\n',
    });
    const report = path.join('.acervus', 'picture', 'index.html');
    const { code, stderr } = await acervus('reach', '.fare', site, '--picture');
    assert.equal(code, 0, stderr);
    const html = read(site, report);
    assert.match(html, /<b>many\.html<\/b>/);
    assert.match(html, /<td class="count">3<\/td><td>elements that are meant/);
    assert.match(html, /<td class="count">1<\/td><td><code>&lt;p class=&quot;fare&quot; style/);
    assert.match(html, /<h2>Hidden<\/h2>.*title=&quot;&lt;i&gt;&quot; hidden/s);
    assert.doesNotMatch(html, /<script|https?:|<i>/);
    // The outline is where the element is: its upper left corner, and nothing of it below.
    await tab.goto(pathToFileURL(path.join(site, '.acervus', 'picture', 'page.png')).href);
    const colours = await tab.evaluate(() => {
      const canvas = document.createElement('canvas');
      const picture = document.images[0]!;
      canvas.width = picture.naturalWidth;
      canvas.height = picture.naturalHeight;
      const pen = canvas.getContext('2d')!;
      pen.drawImage(picture, 0, 0);
      return [
        [20, 31],
        [20, 45],
      ].map(([x, y]) => [...pen.getImageData(x!, y!, 1, 1).data].slice(0, 3));
    });
    assert.deepEqual(colours, [
      [194, 65, 12],
      [255, 255, 255],
    ]);
    await acervus('reach', '.fare', site, '--picture', '--page', 'few.html');
    assert.match(read(site, report), /<b>few\.html<\/b>/);
    const asked = await acervus('explain', 'many.html', '.fare', site, '--picture');
    assert.equal(asked.code, 0, asked.stderr);
    assert.match(read(site, report), /<td class="count">1<\/td><td>element that is meant/);
  });
});
