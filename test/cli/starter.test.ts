// The sheet that the next site begins with: what is in it, what is left out and why, and what a house remembers.

import assert from 'node:assert/strict';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { starterDocument } from '../../src/commands/starter/document.js';
import { parseSheet } from '../../src/core/read/sheets/index.js';
import { acervus, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const SHEET = `:root { --tide: #1f3a56; --unused: 3px; --deep: var(--tide); }
@media (prefers-color-scheme: dark) { :root { --tide: #9fc3dd; } }
h2 { margin: 0; }
.fare { color: var(--deep); }
.rare, .fare b { top: 1px; }
.kw-box .fare { left: 0; }
.gone { top: 2px; }
#pier .fare { top: 3px; }
@media (max-width: 600px) {
  .fare { padding: 0; }
}
@layer house { .fare { bottom: 0; } }
`;
const LINKS =
  '<link rel="stylesheet" href="platform/kw.css"><link rel="stylesheet" href="line.css"><link rel="stylesheet" href="paper.css" media="print">';
const page = (more: string): string =>
  htmlPage(`<div class="kw-box"><h2>x</h2><p class="fare">12 <b>£</b></p>${more}</div>`, LINKS);
const FILES = {
  'index.html': page('<p class="rare">1</p>'),
  'crew.html': page(''),
  'fares.html': page(''),
  'platform/kw.css': '.kw-box { margin: 1px }\n',
  'line.css': SHEET,
  'paper.css': 'h2 { color: black; }\n',
};
const CONFIG = { 'acervus.json': '{ "platform": ["platform/**"] }\n' };

async function starter(site: string, ...words: readonly string[]) {
  const { code, stdout, stderr } = await acervus('starter', site, ...words, '--json');
  assert.equal(code, 0, stderr);
  const document = starterDocument.parse(JSON.parse(stdout));
  return { document, sheet: readFileSync(document.file, 'utf8') };
}

test('a house sheet holds what enough pages wear, the values that this uses, and the media, in parts', async () => {
  const site = makeSite({ ...FILES, ...CONFIG });
  const before = snapshot(site);
  const { document, sheet } = await starter(site);
  assert.equal(
    sheet,
    `/* House sheet. */

/* part: values */

:root {
  --tide: #1f3a56;
  --deep: var(--tide);
}

@media (prefers-color-scheme: dark) {
  :root {
    --tide: #9fc3dd;
  }
}

/* part: elements */

h2 { margin: 0; }

/* part: helpers */

.fare { color: var(--deep); }

.fare b { top: 1px; }

/* part: media */

@media (max-width: 600px) {
  .fare { padding: 0; }
}

@media print {
  h2 { color: black; }
}
`,
  );
  assert.deepEqual(parseSheet(sheet).defects, []);
  assert.deepEqual(
    document.left.map(({ name, reason, pages }) => [name, reason, pages]),
    [
      ['#pier', 'an id', 0],
      ['.fare', 'its place alone', 3],
      ['.gone', 'nobody', 0],
      ['.kw-box', 'the platform', 3],
      ['.rare', 'few pages', 1],
    ],
  );
  assert.equal(document.revision, undefined);
  for (const [file, text] of before) assert.equal(snapshot(site).get(file), text, file);
  assert.equal((await starter(site)).sheet, sheet, 'the same again');
});

test('what is wanted and not is remembered, and a revision tells what came and went', async () => {
  const site = makeSite({ ...FILES, ...CONFIG });
  await starter(site);
  const { document } = await starter(site, '--keep', '.gone', '--leave', 'h2', '--keep', '--unused');
  assert.deepEqual(document.revision, {
    came: ['--unused: 3px', '.gone'],
    went: ['h2', '@media print h2'],
    same: 6,
  });
  assert.deepEqual(JSON.parse(read(site, 'acervus-starter.json')), {
    format: 1,
    'at-least': 3,
    keep: ['--unused', '.gone'],
    leave: ['h2'],
  });
  const again = await starter(site, '--leave', '.gone', '--at-least', '1');
  assert.deepEqual(again.document.revision?.went, ['.gone']);
  assert.ok(again.document.revision?.came.includes('.rare'));
  assert.deepEqual(again.document.wishes.leave, ['.gone', 'h2']);
  const { stdout } = await acervus('starter', makeSite({ ...FILES, ...CONFIG }));
  assert.match(stdout, /used nowhere.*\n.*\.gone/);
  assert.match(stdout, /next {2}acervus starter --leave \.gone/);
});

test('short words call up parts and styles, each its own', async () => {
  const site = makeSite({
    ...FILES,
    ...CONFIG,
    'line.css': `${SHEET}.fare-row { top: 0 }\n.far-reach { top: 0 }\n.f$r { top: 0 }\n`,
  });
  const folder = path.join(makeSite({}), 'snippets');
  const wanted = ['--keep', '.fare-row', '--keep', '.far-reach'];
  const { document } = await starter(site, ...wanted, '--words', folder);
  const words = Object.values(document.words!.words);
  assert.equal(new Set(words).size, words.length);
  assert.deepEqual(document.words!.words, {
    'part: values': 'hv',
    'part: elements': 'he',
    'part: helpers': 'hh',
    'part: media': 'hm',
    '.far-reach': 'fr',
    '.fare': 'fa',
    '.fare-row': 'fro',
  });
  const all = JSON.parse(readFileSync(path.join(folder, 'snippets.json'), 'utf8'));
  assert.deepEqual(all['.fare'].body, ['<p class="fare">$0</p>']);
  assert.equal(readFileSync(path.join(folder, 'fa.html'), 'utf8'), '<p class="fare"></p>\n');
  assert.match(readFileSync(path.join(folder, 'hv.css'), 'utf8'), /^:root \{\n {2}--tide/);
  assert.equal(readdirSync(folder).length, words.length + 1);
});

test('bad input is one line, and nothing is written', async () => {
  const site = makeSite({ ...FILES, ...CONFIG });
  const there = path.join(site, 'line.css');
  for (const [words, what] of [
    [['--out', there], /is there already, and is no house sheet/],
    [['--out', 'house.txt'], /ends in \.css/],
    [['--out', path.join(site, 'nowhere', 'house.css')], /no such folder/],
    [['--keep', '.fares'], /\.fares: stands in none of the site's own sheets/],
    [['--keep', '.fare', '--leave', '.fare'], /kept and left at once/],
    [['--leave', '--tide'], /--tide: is used by/],
    [['--leave', 'a b'], /is no name/],
    [['--at-least', 'few'], /whole number/],
  ] as const) {
    const { code, stderr } = await acervus('starter', site, ...words);
    assert.equal(code, 2, words.join(' '));
    assert.match(stderr, what);
    assert.match(stderr, /^acervus: [^\n]+\n$/);
  }
  assert.equal(existsSync(path.join(site, '.acervus')), false);
  assert.equal(existsSync(path.join(site, 'acervus-starter.json')), false);
  writeFileSync(path.join(site, 'acervus-starter.json'), '{ "keep": ["a b"] }');
  const { code, stderr } = await acervus('starter', site);
  assert.equal(code, 2);
  assert.match(stderr, /^acervus: acervus-starter\.json: is not as it was written/);
});
