import assert from 'node:assert/strict';
import { cpSync } from 'node:fs';
import { test } from 'node:test';
import { overrideDocument } from '../../src/commands/override/document.js';
import { proveDocument } from '../../src/commands/prove/document.js';
import { acervus, addFiles, DEMO, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const SHEETS =
  '  <link rel="stylesheet" href="platform/kit.css">\n  <link rel="stylesheet" href="theme/shared.css">\n';
const KIT = `.kw-go { color: gray; padding: 4px; }
.kw-go:hover { color: black; }
.kw-main .kw-card { margin: 8px; color: gray; }
.kw-card:hover { color: black; }
#kw-foot a { color: white; }
.kw-shout { color: red !important; }
@media (max-width: 700px) { .kw-go { padding: 2px; } }
`;

function site(more: Readonly<Record<string, string>> = {}): string {
  return makeSite({
    'index.html': htmlPage(
      '<div class="kw-main"><a class="kw-go">A</a><p class="kw-card">B</p></div>\n<p class="kw-shout">C</p>\n<div id="kw-foot"><a>D</a></div>',
      SHEETS,
    ).replace('<body>', '<body class="sk-home">'),
    'fares/index.html': htmlPage(
      '<a class="kw-go" style="color: navy">E</a><a class="kw-go">F</a>',
      SHEETS.replaceAll('href="', 'href="../'),
    ),
    'platform/kit.css': KIT,
    'theme/shared.css': '',
    ...more,
  });
}

const run = async (...args: readonly string[]) => {
  const done = await acervus('override', ...args, '--json');
  return { code: done.code, told: overrideDocument.parse(JSON.parse(done.stdout)) };
};
const sheetAfter = (folder: string): string =>
  read(folder, 'theme/shared.css').replace('/* part: overrides */\n\n', '').replace(/\s+/g, ' ').trim();

test('the weakest rule that wins; states and media of the platform stay', async () => {
  const folder = site();
  const { told } = await run('.kw-go', 'padding: 12px', folder);
  // As weak as the platform's own rule, so that its hover stands; what it says for narrow windows is said again.
  assert.equal(
    sheetAfter(folder),
    '.kw-go { padding: 12px; } @media (max-width: 700px) { .kw-go { padding: 2px; } }',
  );
  assert.deepEqual([told.important, told.meant, told.moved.elements, told.strays], [false, 3, 3, 0]);
  const other = site();
  await run('.kw-card', 'color: teal', other);
  assert.equal(
    sheetAfter(other),
    '.kw-card.kw-card { color: teal; } .kw-card.kw-card:hover { color: black; }',
  );
  const everywhere = site();
  await run('.kw-go', 'padding: 12px', everywhere, '--everywhere');
  assert.equal(sheetAfter(everywhere), '.kw-go { padding: 12px; }');
  const narrow = site();
  await run('.kw-go', 'padding: 1px', narrow, '--medium', '(max-width:700px)');
  assert.equal(sheetAfter(narrow), '@media (max-width: 700px) { .kw-go { padding: 1px; } }');
});

test('!important only where nothing else wins, and ids that are there already before that', async () => {
  const folder = site();
  assert.equal((await run('.kw-shout', 'color: teal', folder)).told.important, true);
  assert.equal(sheetAfter(folder), '.kw-shout { color: teal !important; }');
  const foot = site();
  assert.equal((await run('a', 'color: teal', foot, '--within', '#kw-foot')).told.important, false);
  assert.equal(sheetAfter(foot), '#kw-foot a { color: teal; }');
  const inline = site();
  const { told } = await run('.kw-go', 'color: teal', inline);
  assert.equal(told.moved.elements, 3);
  assert.match(
    sheetAfter(inline),
    /^\.kw-go \{ color: teal; \} \.kw-go\[style\*="color"\] \{ color: teal !important; \}/,
  );
});

test('no further than asked: a page, a folder, a body class', async () => {
  const page = site();
  const before = read(page, 'index.html');
  await run('.kw-go', 'padding: 7px', page, '--within', 'fares/index.html');
  assert.match(read(page, 'fares/index.html'), /<style>\n {4}\.kw-go \{\n {6}padding: 7px;/);
  assert.equal(read(page, 'index.html'), before);
  const section = site();
  const { told } = await run('.kw-go', 'padding: 7px', section, '--within', 'body.sk-home');
  assert.deepEqual(told.moved, { elements: 1, pages: [{ path: 'index.html', elements: 1 }] });
  assert.match(sheetAfter(section), /^(:where\(body\.sk-home\)|body\.sk-home) \.kw-go \{ padding: 7px; \}/);
});

test('the same override is extended or changed, not written twice', async () => {
  const folder = site();
  await run('.kw-shout', 'opacity: 0.5', folder);
  assert.equal((await run('.kw-card', 'opacity: 0.5', folder)).told.rules[0]?.did, 'extended');
  assert.equal(sheetAfter(folder), '.kw-shout, .kw-card { opacity: 0.5; }');
  const other = site();
  await run('.kw-shout', 'opacity: 0.5', other);
  assert.equal((await run('.kw-shout', 'opacity: 0.7', 'z-index: 2', other)).told.rules[0]?.did, 'changed');
  assert.equal(sheetAfter(other), '.kw-shout { opacity: 0.7; z-index: 2; }');
});

test('--list tells what is needed, --drop takes away without trace', async () => {
  const folder = site();
  const before = snapshot(folder);
  await run('.kw-card', 'color: teal', folder);
  await run('.kw-go', 'padding: 12px', folder);
  const text = `${read(folder, 'theme/shared.css')}\n.kw-gone {\n  top: 0;\n}\n\n.kw-shout {\n  color: red;\n}\n`;
  addFiles(folder, { 'theme/shared.css': text });
  const { code, told } = await run('--list', folder);
  assert.equal(code, 1);
  assert.deepEqual(
    told.overrides?.map(({ selector, medium, verdict }) => [selector, medium ?? '', verdict]),
    [
      ['.kw-card.kw-card', '', 'needed'],
      ['.kw-card.kw-card:hover', '', 'needed'],
      ['.kw-go', '', 'needed'],
      ['.kw-go', '@media (max-width: 700px)', 'needed'],
      ['.kw-gone', '', 'matches nothing'],
      ['.kw-shout', '', 'beaten'],
    ],
  );
  assert.deepEqual(
    told.overrides?.[0]?.declarations[0]?.beats.map(({ selector, isPlatform }) => [selector, isPlatform]),
    [['.kw-main .kw-card', true]],
  );
  for (const selector of ['.kw-gone', '.kw-shout', '.kw-go', '.kw-card'])
    assert.equal((await run('--drop', selector, folder)).code, 0);
  assert.equal(read(folder, 'theme/shared.css'), '');
  for (const [file, bytes] of before) assert.equal(snapshot(folder).get(file), bytes, file);
  assert.match(
    (await acervus('override', '--drop', '.kw-go', folder)).stderr,
    /no override in .* has this selector/,
  );
});

test('a platform file is never written, and mistakes get one line', async () => {
  const folder = site();
  const before = snapshot(folder);
  for (const [args, message] of [
    [['.kw-nobody', 'color: red'], /\.kw-nobody: picks out nothing on any page/],
    [['.kw-go', 'color:'], /color: an override needs a value/],
    [['..', 'color: red'], /\.\.: is no selector/],
    [['.kw-go', 'color: red', '--within', 'body.sk-away'], /picks out nothing within body\.sk-away/],
  ] as const) {
    const wrong = await acervus('override', ...args, folder);
    assert.equal(wrong.code, 2);
    assert.match(wrong.stderr, message);
  }
  assert.deepEqual(snapshot(folder), before);
});

test('on the demo only what was meant differs from before', async () => {
  const folder = makeSite({});
  cpSync(DEMO, folder, { recursive: true });
  const { told } = await run('.kw-crumbs a', 'color: #1f3a56', folder);
  assert.equal(told.strays, 0);
  const proof = proveDocument.parse(
    JSON.parse((await acervus('prove', folder, '--against', DEMO, '--json')).stdout),
  );
  const pages = proof.differences.filter(({ page }) => page.endsWith('.html'));
  assert.ok(pages.length > 0 && pages.every((one) => !('property' in one) || one.property === 'color'));
  assert.equal(read(folder, 'platform/3.1/kelpwork.css'), read(DEMO, 'platform/3.1/kelpwork.css'));
});
