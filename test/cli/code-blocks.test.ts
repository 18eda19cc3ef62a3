// Style blocks in strings of code: told, and moved into a sheet where the configuration says which and how it is loaded.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { acervus, addFiles, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const BOARD = `# Notices that are put up by hand don't come from a template.
BOARD = """
<div class="board">
  <style>
    .board { padding: 12px; background: url(/pictures/pier.png); }

    .board-row { color: #004466; }
  </style>
  %s
</div>
"""
`;

const SITE = {
  'index.html': htmlPage('<p style="margin: 4px">a</p><p style="margin: 4px">b</p>'),
  'app/board.py': BOARD,
};

const configOf = (more: object): string => JSON.stringify(more);
const NAMED = { sheets: { 'app/**': ['static/board.css'] } };

interface Drafted {
  readonly codeBlocks: { readonly into: string; readonly from: string; readonly 'instead of it': string }[];
  readonly kept: { readonly reason: string; readonly places: readonly string[] }[];
}

async function draft(site: string): Promise<Drafted> {
  const run = await acervus('draft', site, '--json');
  assert.equal(run.code, 0, run.stderr);
  return JSON.parse(run.stdout);
}

test('a block becomes the sheet that the configuration names, word for word, and is loaded where it stood', async () => {
  const site = makeSite(SITE);
  const { stdout } = await acervus('survey', site);
  assert.match(stdout, /3 {3}declarations in 1 style block in strings of code/);
  assert.deepEqual((await draft(site)).codeBlocks, [], 'nothing says where to');
  addFiles(site, { 'acervus.json': configOf({ ...NAMED, served: { static: '/assets' } }) });
  const before = snapshot(site);
  const drafted = await acervus('draft', site);
  assert.match(drafted.stdout, /Style blocks in code[\s\S]*3 \+ static\/board\.css +app\/board\.py:4:3/);
  assert.match(drafted.stdout, /into shared\.css/, 'the sheet of a block is none of the pages');
  assert.equal((await acervus('adopt', site)).code, 0);
  assert.equal(
    read(site, 'app/board.py'),
    BOARD.replace(/<style>[\s\S]*<\/style>/, '<link rel="stylesheet" href="/assets/board.css">'),
  );
  assert.equal(
    read(site, 'static/board.css'),
    '.board { padding: 12px; background: url(/pictures/pier.png); }\n\n.board-row { color: #004466; }\n',
  );
  assert.doesNotMatch((await acervus('survey', site)).stdout, /strings of code/);
  assert.equal((await acervus('undo', site)).code, 0);
  for (const [file, bytes] of before)
    if (!/^(acervus-draft|\.acervus)/.test(file)) assert.equal(snapshot(site).get(file), bytes, file);
});

test('what the draft says no to stays, and what code loads by itself needs no line', async () => {
  const site = makeSite({ ...SITE, 'acervus.json': configOf({ ...NAMED, link: 'none' }) });
  await draft(site);
  const text = read(site, 'acervus-draft.yaml');
  addFiles(site, {
    'acervus-draft.yaml': text.replace(/(code blocks:\n {2}- id: \w+\n {4}take: )yes/, '$1no'),
  });
  await acervus('adopt', site);
  assert.equal(read(site, 'app/board.py'), BOARD);
  await acervus('draft', site);
  assert.match(read(site, 'acervus-draft.yaml'), /take: no\n {4}into: static\/board\.css/);
  addFiles(site, { 'acervus-draft.yaml': text });
  await acervus('adopt', site);
  assert.match(read(site, 'app/board.py'), /<div class="board">\n {2}\n {2}%s/);
});

test('what was changed since is looked at again', async () => {
  const site = makeSite({ ...SITE, 'acervus.json': configOf({ ...NAMED, link: 'none' }) });
  await draft(site);
  const fresh = `NIGHT = 1\n${BOARD.replace('#004466', '#004477')}`;
  addFiles(site, { 'app/board.py': fresh });
  assert.equal((await acervus('adopt', site)).code, 0);
  assert.match(read(site, 'static/board.css'), /#004477/);
  assert.equal(read(site, 'app/board.py'), fresh.replace(/<style>[\s\S]*<\/style>/, ''));
});

const LINE = '<link rel="stylesheet" href="{path}">';

for (const [what, file, code, line, expected] of [
  [
    'a string of one line, with quotes that cannot end it',
    'a.rb',
    `S = '<style>.a{top:0}</style>'`,
    LINE,
    `S = '<link rel=stylesheet href=static/board.css>'`,
  ],
  [
    'quotes that the block has itself',
    'a.rb',
    `S = '<style>.a{font-family:"Quay"}</style>'`,
    LINE,
    `S = '<link rel="stylesheet" href="static/board.css">'`,
  ],
  [
    'only the other quotes',
    'a.rb',
    `S = "<style>.a{content:'x'}</style>"`,
    LINE,
    `S = "<link rel='stylesheet' href='static/board.css'>"`,
  ],
  [
    'a string over lines',
    'a.js',
    'export const s = `<style>\n.a { top: 0 }\n</style>`;',
    LINE,
    'export const s = `<link rel="stylesheet" href="static/board.css">`;',
  ],
  [
    'what code prints in a page',
    'a.php',
    `<?php echo '<style type="text/css">.a { top: 0 }</style>'; ?>`,
    LINE,
    `<?php echo '<link rel="stylesheet" href="static/board.css">'; ?>`,
  ],
] as const)
  test(`how a sheet is loaded fits its string: ${what}`, async () => {
    const config = configOf({ sheets: { [`app/${file}`]: ['static/board.css'] }, link: line });
    const site = makeSite({
      'index.html': htmlPage('<p>a</p>'),
      [`app/${file}`]: code,
      'acervus.json': config,
    });
    await draft(site);
    const run = await acervus('adopt', site);
    assert.equal(read(site, `app/${file}`), expected, run.stdout + run.stderr);
  });

for (const [reason, code, more = {}] of [
  ['it is put together of strings', `S = "<style>.a { top: 0 }" +\n  ".b { left: 0 }</style>"`],
  ['it is put together of strings', `S = "<style>.a { top: 0 }\\n.b { left: 0 }</style>"`],
  ['its code writes values into it', `S = \`<style>.a { top: 0; left: \${x}px }</style>\``],
  ['its code writes values into it', `S = '<style>.a { top: 0; left: %dpx }</style>' % x`],
  ['its code writes values into it', `S = '<style>.a { top: 0; color: {ink} }</style>'.format(ink)`],
  ['it names other files by where its page is', `S = '<style>.a { top: 0; background: url(a.png) }</style>'`],
  ['it names other files by where its page is', `S = '<style>@import "b.css"; .a { top: 0 }</style>'`],
  ['its tag has attributes besides', `S = '<style media="print">.a { top: 0 }</style>'`],
  [
    'nothing tells how code loads static/board.css: say so under "link" or "served"',
    `S = '<style>.a { top: 0 }</style>'`,
    { link: undefined },
  ],
  [
    'the quotes of "link" would end the string',
    `S = '<style>.a { top: 0 }</style>'`,
    { link: `<script>load("{path}")</script>` },
  ],
  [
    'static/board.css holds something else: name a sheet of its own',
    `S = '<style>.a { top: 0 }</style>'`,
    { shared: 'static/board.css' },
  ],
] as const)
  test(`a block stays, and why: ${reason}, as in ${code.slice(0, 60)}`, async () => {
    const site = makeSite({
      'index.html': SITE['index.html'],
      'app/a.py': code,
      'acervus.json': configOf({ ...NAMED, link: LINE, ...more }),
    });
    const { codeBlocks, kept } = await draft(site);
    assert.deepEqual(codeBlocks, []);
    const own = kept.find(({ places }) => places[0]?.startsWith('app/a.py:'));
    assert.equal(own?.reason, `a style block in code: ${reason}`);
    await acervus('adopt', site);
    assert.equal(read(site, 'app/a.py'), code);
  });

test('two blocks that say the same become one sheet, and one that says something else stays', async () => {
  const block = (top: number): string => `S = '<style>.a { top: ${top} }</style>'\n`;
  const site = makeSite({
    'index.html': htmlPage('<p>a</p>'),
    ...{ 'app/a.py': block(0), 'app/b.py': block(0), 'app/c.py': block(1) },
    'acervus.json': configOf({ ...NAMED, link: LINE }),
  });
  const { codeBlocks, kept } = await draft(site);
  assert.deepEqual(
    codeBlocks.map(({ from }) => from),
    ['app/a.py:1:6', 'app/b.py:1:6'],
  );
  assert.match(kept[0]?.reason ?? '', /holds something else/);
});
