import assert from 'node:assert/strict';
import { cpSync } from 'node:fs';
import { test } from 'node:test';
import { restyleDocument } from '../../src/commands/restyle/document.js';
import { acervus, DEMO, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const SHEETS =
  '  <link rel="stylesheet" href="platform/kit.css">\n  <link rel="stylesheet" href="theme/line.css">\n';

const LINE = `:root { --tide: teal; }
h2, h3 { color: var(--tide); margin: 0 }
.notice {
	padding: 4px;   /* tight */
	color: navy
}
@media print {
  .notice { padding: 0; }
}
.empty {}
`;

function site(): string {
  return makeSite({
    'index.html': htmlPage(
      '<h2>A</h2>\n<h3>B</h3>\n<p class="notice">C</p>\n<p class="notice" style="color: red">D</p>\n<div id="top"><p class="notice">E</p></div>',
      SHEETS,
    ),
    'bare.html': htmlPage('<p class="notice">F</p>'),
    'platform/kit.css': '.kw-go { color: gray; }\n#top .notice { padding: 9px; }\n',
    'theme/line.css': LINE,
  });
}

const run = async (folder: string, selector: string, ...words: readonly string[]) => {
  const done = await acervus('restyle', selector, ...words, folder, '--json');
  return { code: done.code, told: restyleDocument.parse(JSON.parse(done.stdout)) };
};

test('a declaration is changed where it stands, in its own formatting; what keeps its own is told, with why', async () => {
  const folder = site();
  const { code, told } = await run(folder, '.notice', 'color: #2e6b5e', 'padding: 6px', 'border: 0');
  assert.equal(code, 0);
  assert.equal(
    read(folder, 'theme/line.css'),
    LINE.replace('padding: 4px;', 'padding: 6px;').replace('color: navy', 'color: #2e6b5e;\n\tborder: 0;'),
  );
  assert.deepEqual([told.meant, told.moved.elements, told.files], [4, 3, ['theme/line.css']]);
  assert.deepEqual(
    told.unmoved.map(({ property, value, why, elements }) => [property, value, why, elements]).sort(),
    [
      ['border', '', 'sheet not linked', 1],
      ['color', '', 'sheet not linked', 1],
      ['color', 'red', 'style attribute', 1],
      ['padding', '', 'sheet not linked', 1],
      ['padding', '9px', 'platform rule', 1],
    ],
  );
  assert.equal((await acervus('undo', folder)).code, 0);
  assert.equal(read(folder, 'theme/line.css'), LINE);
});

test('one selector of a list gets a rule of its own; the others keep what they have', async () => {
  const folder = site();
  const { told } = await run(folder, 'h3', 'color: maroon');
  assert.deepEqual(
    told.rules.map(({ did }) => did),
    ['split off'],
  );
  assert.match(
    read(folder, 'theme/line.css'),
    /h2, h3 \{ color: var\(--tide\); margin: 0 \}\n\nh3 \{\n\tcolor: maroon;\n\}/,
  );
  assert.equal(told.moved.elements, 1);
  await acervus('undo', folder);
  await run(folder, 'h3', 'margin:');
  assert.match(
    read(folder, 'theme/line.css'),
    /^h2 \{ color: var\(--tide\); margin: 0 \}\n\nh3 \{\n\tcolor: var\(--tide\);\n\}/m,
  );
});

test('a custom property is changed instead with --token, a media query named with --medium', async () => {
  const folder = site();
  await run(folder, 'h2, h3', 'color: olive', '--token');
  assert.match(read(folder, 'theme/line.css'), /--tide: olive; \}\nh2, h3 \{ color: var\(--tide\)/);
  await run(folder, '.notice', 'padding: 1px', '--medium', '(print)'.slice(1, -1));
  assert.match(read(folder, 'theme/line.css'), /@media print \{\n {2}\.notice \{ padding: 1px; \}/);
  await run(folder, '.empty', 'top: 0');
  assert.match(read(folder, 'theme/line.css'), /\.empty \{ top: 0; \}/);
});

test('--only-if-all refuses a partial effect, --patch writes nothing, and mistakes get one line', async () => {
  const folder = site();
  const before = snapshot(folder);
  const { code, told } = await run(folder, '.notice', 'color: teal', '--only-if-all');
  assert.deepEqual([code, told.refused, told.written], [1, 'it would not reach all', false]);
  const patch = await acervus('restyle', '.notice', 'color: teal', folder, '--patch');
  assert.match(patch.stdout, /^diff --git a\/theme\/line\.css/);
  assert.deepEqual(snapshot(folder), before);
  for (const [args, message] of [
    [['.kw-go', 'color: red'], /\.kw-go: is a rule of the platform \(platform\/kit\.css\)/],
    [['.notise', 'color: red'], /\.notise: no rule of the theme has this selector; did you mean \.notice\?/],
    [['.notice', 'colr: red'], /colr: is no property of CSS; did you mean color\?/],
    [['.notice', 'color: centre'], /color: does not take "centre"/],
    [['.notice', 'padding: 4px', '--medium', '(min-width: 1px)'], /no such rule inside/],
    [['.notice'], /no declaration is given/],
  ] as const) {
    const wrong = await acervus('restyle', ...args, folder);
    assert.equal(wrong.code, 2, wrong.stdout);
    assert.match(wrong.stderr, message);
    assert.equal(wrong.stderr.trim().split('\n').length, 1);
  }
  assert.deepEqual(snapshot(folder), before);
});

test('on the demo a rule that is pasted into thirty pages changes in all of them', async () => {
  const folder = makeSite({});
  cpSync(DEMO, folder, { recursive: true });
  const done = await acervus('restyle', '.sk-strip', 'color: #f6efe0', folder);
  assert.equal(done.code, 0);
  assert.match(done.stdout, /\.sk-strip changed where it stands/);
  assert.match(done.stdout, /0 {3}other elements changed; 30 files written/);
});

test('with --token each declaration goes through the name that it is written with, and no other', async () => {
  const folder = makeSite({
    'index.html': htmlPage(
      '<p class="a">x</p><p class="c">z</p>',
      '<link rel="stylesheet" href="theme/a.css">',
    ),
    'theme/a.css':
      ':root { --ink: #123456 }\n.a { color: var(--ink); padding: 2px }\n.c { border-color: var(--ink) }\n',
  });
  const done = await acervus('restyle', '.a', 'color: #00ff00', 'padding: 9px', folder, '--token');
  assert.equal(done.code, 0, done.stderr);
  assert.equal(
    read(folder, 'theme/a.css'),
    ':root { --ink: #00ff00 }\n.a { color: var(--ink); padding: 9px }\n.c { border-color: var(--ink) }\n',
  );
});
