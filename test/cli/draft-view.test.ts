// How a draft is read: what matters first, like ones together, narrowed, and what it says of each entry.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { acervus, htmlPage, makeSite, read } from '../support/site.js';

const linked = '<link rel="stylesheet" href="site.css">';
const rows = Array.from({ length: 14 }, (_, i) =>
  `<p class="row-${'abcdefghijklmn'[i]}" style="top: ${i}px">x</p>`.repeat(2),
).join('');

const manyStyles = (): string =>
  makeSite({ 'index.html': htmlPage(rows, linked), 'site.css': '.a { right: 0 }' });

test('a draft shows the ten styles that save most, what the rest are, and how to see them', async () => {
  const folder = manyStyles();
  const short = (await acervus('draft', folder)).stdout;
  assert.equal(short.match(/\.row-[a-n] {2}top/g)?.length, 10);
  assert.match(short, /4 more \(4 by selectors that exist\)/);
  assert.match(short, /--all shows them, --only <file, home or selector> some of them/);
  const all = (await acervus('draft', '--all', folder)).stdout;
  assert.equal(all.match(/\.row-[a-n] {2}top/g)?.length, 14);
  assert.match(all, /14 styles by selectors that exist {2}14 places less/);
  // What adopting takes no option for, it does not offer.
  assert.doesNotMatch((await acervus('adopt', folder)).stdout, /--only/);
});

test('--only narrows to a file, a sort of home or a selector, and says when nothing is meant', async () => {
  const folder = makeSite({
    'index.html': htmlPage(`${rows}<b style="left: 0">x</b><i>y</i><b style="left: 0">z</b><b>w</b>`, linked),
    'site.css': '.a { right: 0 }',
  });
  const shown = async (words: string): Promise<string> =>
    (await acervus('draft', '--only', words, folder)).stdout;
  assert.equal((await shown('.row-c')).match(/\.row-[a-n] {2}top/g)?.length, 1);
  assert.equal((await shown('selectors that exist')).match(/\.row-[a-n] {2}top/g)?.length, 14);
  const classes = await shown('new class');
  assert.ok(/left: 0/.test(classes) && !/\.row-/.test(classes), classes);
  assert.match(await shown('no such thing'), /0 {3}styles are about «no such thing»/);
  // The draft itself is whole.
  assert.equal(read(folder, 'acervus-draft.yaml').match(/selector: \.row-/g)?.length, 14);
});

test('the first lines say what tags, style blocks and sheets hold, and would hold', async () => {
  const pasted = '<style>.lead { left: 0 }</style>';
  const page = htmlPage('<p class="lead" style="top: 0">a</p><p style="top: 0">b</p>', `${linked}${pasted}`);
  const folder = makeSite({ 'a.html': page, 'b.html': page, 'site.css': '.x { right: 0 }' });
  const { stdout } = await acervus('draft', folder);
  assert.match(stdout, /in tags 4 → 0, in style blocks 2 → 0, in sheets 1 → 3/);
  assert.match(stdout, /2 \+ pages would work under a CSP without inline styles$/m);
});

test('a survey tells how many pages keep to a policy of style-src self', async () => {
  const folder = makeSite({
    'plain.html': htmlPage('<p>a</p>', linked),
    'inline.html': htmlPage('<p style="top: 0">a</p>', linked),
    'block.html': htmlPage('<p>a</p>', '<style>p { top: 0 }</style>'),
    'elsewhere.html': htmlPage('<p>a</p>', '<link rel="stylesheet" href="https://fonts.example/a.css">'),
    'site.css': 'p { left: 0 }',
  });
  assert.match(
    (await acervus('survey', folder)).stdout,
    /1 {3}of 4 pages would work under a CSP without inline styles/,
  );
  assert.equal(JSON.parse((await acervus('survey', '--json', folder)).stdout).stylesFromSelf, 1);
});

test('old attributes go at any count where the configuration asks for it, and nothing else does', async () => {
  const body = '<table class="fares" width="90%"><tr><td style="left: 0">x</td></tr></table>';
  const files = { 'index.html': htmlPage(body, linked), 'site.css': '.x { top: 0 }' };
  const kept = makeSite(files);
  const moved = makeSite({ ...files, 'acervus.json': '{ "outdated": "move" }' });
  for (const folder of [kept, moved]) {
    await acervus('draft', folder);
    await acervus('adopt', folder);
  }
  assert.match(read(kept, 'index.html'), /width="90%"/);
  assert.doesNotMatch(read(moved, 'index.html'), /width=/);
  assert.match(read(moved, 'site.css'), /\.fares \{ width: 90%; \}/);
  assert.match(read(moved, 'index.html'), /style="left: 0"/);
});

test('areas that have a style in common keep their names and decisions apart', async () => {
  const page = htmlPage(
    '<p style="color: navy">a</p><p>b</p><p style="color: navy">c</p><p>d</p><p>e</p>',
    linked,
  );
  const files = Object.fromEntries(
    ['crew', 'freight'].flatMap((area) => [
      [`${area}/index.html`, page],
      [`${area}/site.css`, '.x { top: 0 }'],
    ]),
  );
  const folder = makeSite(files);
  assert.equal((await acervus('draft', folder)).code, 0);
  const draft = read(folder, 'acervus-draft.yaml');
  const ids = [...draft.matchAll(/- id: (\S+)/g)].map(([, id]) => id);
  assert.equal(new Set(ids).size, ids.length);
  // Refused in one area, it goes in the other.
  const at = draft.indexOf('take: yes', draft.indexOf('freight/site.css') - 400);
  assert.ok(at > 0);
  const entries = draft.split(/(?=^ {2}- id: )/m);
  const edited = entries
    .map((entry) => (entry.includes('freight/site.css') ? entry.replace('take: yes', 'take: no') : entry))
    .join('');
  const other = makeSite({ ...files, 'acervus-draft.yaml': edited });
  assert.equal((await acervus('adopt', other)).code, 0);
  assert.match(read(other, 'freight/index.html'), /style="color: navy"/);
  assert.doesNotMatch(read(other, 'crew/index.html'), /style=/);
});

test('a draft says why a class that exists was thought to mean the elements', async () => {
  const body = '<p class="low">a</p><p style="top: 1px">b</p><p style="top: 1px">c</p>';
  const folder = makeSite({ 'index.html': htmlPage(body, linked), 'site.css': '.low { top: 1px }' });
  const { stdout } = await acervus('draft', '--all', folder);
  assert.match(stdout, /1 other <p> wears it already/);
});

test('a table whose cells alone are spoken of is called by them, and its draft is read again', async () => {
  const tables = (amount: number) => `<table cellpadding="${amount}"><tr><td>1</table>`.repeat(2);
  const body = `${tables(4)}${tables(9)}<table><tr><td>1</table>`;
  const folder = makeSite({
    'index.html': htmlPage(body, '<link rel="stylesheet" href="a.css">'),
    'a.css': '',
  });
  assert.equal((await acervus('draft', folder)).code, 0);
  const found = /name: table-padded\n.*its cells: padding: 4px/s;
  assert.match(read(folder, 'acervus-draft.yaml'), found);
  const { code, stderr } = await acervus('draft', folder, '--no-cache');
  assert.equal(code, 0, stderr);
  assert.match(read(folder, 'acervus-draft.yaml'), found);
  assert.equal((await acervus('adopt', folder)).code, 0);
  assert.match(read(folder, 'a.css'), /\.table-padded > \* > tr > td/);
});
