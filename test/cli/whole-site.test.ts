// Where new rules go, what keeps apart, and what a draft says of rules: the built program on small sites.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { adoptDocument } from '../../src/commands/adopt/document.js';
import { draftDocument } from '../../src/commands/draft/document.js';
import { acervus, addFiles, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const link = (sheet: string): string => `  <link rel="stylesheet" href="${sheet}">\n`;
const notes = (style: string): string =>
  [1, 2, 3].map((n) => `<p class="note" style="${style}">${n}</p>`).join('\n');
const json = (run: { stdout: string }): unknown => JSON.parse(run.stdout);

test('areas that share no sheet keep their own: nothing crosses over, and the library is not touched', async () => {
  const folder = makeSite({
    'freight/index.html': htmlPage(notes('padding: 4px; color: teal'), link('theme/site.css')),
    'freight/theme/site.css': '.note { margin: 0; }\n',
    'people/index.html': htmlPage(notes('padding: 9px; color: navy'), link('theme/site.css')),
    'people/theme/site.css': '.note { margin: 0; }\n',
    'vendor/dial/dial.css': '.dial { top: 0; }\n',
    'vendor/dial/example.html': htmlPage(
      '<p class="dial" style="left: 0">x</p><p class="dial" style="left: 0">y</p>',
      link('dial.css'),
    ),
  });
  const before = snapshot(folder);
  const drafted = draftDocument.parse(json(await acervus('draft', folder, '--json')));
  assert.deepEqual(
    drafted.styles.map((one) => [one.selector, one['written into'] ?? drafted.shared]).sort(),
    [
      ['.note', 'freight/theme/site.css'],
      ['.note', 'freight/theme/site.css'],
      ['.note', 'people/theme/site.css'],
      ['.note', 'people/theme/site.css'],
    ],
  );
  const { files } = adoptDocument.parse(json(await acervus('adopt', folder, '--json')));
  assert.deepEqual(files, [
    'freight/index.html',
    'freight/theme/site.css',
    'people/index.html',
    'people/theme/site.css',
  ]);
  assert.match(read(folder, 'freight/theme/site.css'), /^\.note \{ margin: 0; padding: 4px; color: teal; \}/);
  assert.match(read(folder, 'people/theme/site.css'), /^\.note \{ margin: 0; padding: 9px; color: navy; \}/);
  assert.equal((await acervus('undo', folder)).code, 0);
  const after = snapshot(folder);
  for (const [file, bytes] of before) assert.equal(after.get(file), bytes, file);
});

test('rules go into the last sheet that every page links, unless another document loads it or a person says where', async () => {
  const files = {
    'index.html': htmlPage(notes('top: 0'), link('a.css') + link('b.css')),
    'bare.html': htmlPage('<p>x</p>', link('a.css') + link('b.css') + link('own.css')),
    'a.css': 'b { top: 1px; }\n',
    'b.css': 'b { left: 1px; }\n',
    'own.css': 'i { left: 1px; }\n',
  };
  const sharedOf = async (more: Record<string, string>): Promise<string> =>
    draftDocument.parse(json(await acervus('draft', makeSite({ ...files, ...more }), '--json'))).shared;
  assert.equal(await sharedOf({}), 'b.css');
  assert.equal(await sharedOf({ 'tide.aspx': '<link rel="stylesheet" href="b.css">' }), 'a.css');
  assert.equal(await sharedOf({ 'c.html': htmlPage('<p>y</p>') }), 'shared.css');
  assert.equal(await sharedOf({ 'acervus.json': '{ "shared": "own.css" }' }), 'own.css');
});

test('a rule that a person refuses stays as it is, and weakening is asked for', async () => {
  const css =
    '.band-a { top: 0; color: red; }\n.band-b { top: 0; color: teal; }\n.band-c { top: 0; color: navy; }\n';
  const folder = makeSite({
    'index.html': htmlPage(
      ['a', 'b', 'c'].map((one) => `<p class="band band-${one}">x</p>`).join(''),
      link('t.css'),
    ),
    't.css': css,
  });
  await acervus('draft', folder);
  const draft = read(folder, 'acervus-draft.yaml');
  assert.match(draft, /home: wider rule\n {4}take: yes\n {4}selector: \.band\n/);
  addFiles(folder, { 'acervus-draft.yaml': draft.replace('take: yes', 'take: no') });
  assert.equal((await acervus('adopt', folder)).code, 0);
  assert.equal(read(folder, 't.css'), css);
  addFiles(folder, { 't.css': '#a .band { top: 0 !important; }\n', 'acervus-draft.yaml': draft });
  addFiles(folder, { 'index.html': htmlPage('<div id="a"><p class="band">x</p></div>', link('t.css')) });
  const strong = await acervus('draft', folder, '--json');
  assert.doesNotMatch(strong.stdout, /!important/);
  await acervus('draft', folder, '--weaken');
  assert.match(read(folder, 'acervus-draft.yaml'), /^weaken: (yes|true)$/m);
  await acervus('adopt', folder);
  assert.equal(read(folder, 't.css'), '.band { top: 0; }\n');
});

test('of two declarations in one tag the one that a rule says goes, and what is its own stays', async () => {
  const own = '; border-bottom: 1px dotted teal';
  const folder = makeSite({
    'index.html': htmlPage(
      `<div id="crew">${[1, 2, 3, 4].map(() => `<p class="one" style="top: 0${own}">x</p>`).join('')}<p class="one" style="top: 0${own}; border-bottom-style: solid">y</p></div>`,
      link('t.css'),
    ),
    't.css': 'b { left: 0; }\n',
  });
  await acervus('draft', folder);
  await acervus('adopt', folder);
  assert.match(read(folder, 'index.html'), /<p class="one" style="border-bottom-style: solid">y/);
  assert.match(read(folder, 't.css'), /\.one \{ top: 0; border-bottom: 1px dotted teal; \}/);
});

test('from under a document that nobody read no rule is taken, and none that could match in it is put there', async () => {
  const css = '#a1 { top: 0; left: 0; }\n#a2 { top: 0; left: 0; }\n';
  const block = '<style>\n.box { right: 0; }\n</style>\n';
  const folder = makeSite({
    'index.html': htmlPage('<p class="a" id="a1">x</p><p class="a" id="a2">y</p>', link('t.css') + block),
    'b.html': htmlPage('<p class="box">x</p>', link('t.css') + block),
    't.css': css,
    'tide.aspx': '<link rel="stylesheet" href="t.css"><p id="a2">z</p><p class="box">w</p>',
    'acervus.json': '{ "shared": "t.css" }',
  });
  await acervus('draft', folder);
  assert.equal((await acervus('adopt', folder)).code, 0);
  assert.equal(read(folder, 't.css'), css);
  assert.match(read(folder, 'b.html'), /\.box \{ right: 0; \}/);
});
