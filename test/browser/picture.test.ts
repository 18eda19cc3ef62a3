// `--picture`: the page that a change moves most, before and after, without a second look at anything else.

import assert from 'node:assert/strict';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
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
