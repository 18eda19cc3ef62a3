// Sheets that a preprocessor makes: rules go into a part of our own, and what is made is made anew.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { compileString } from 'sass';
import { acervus, addFiles, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const NOTE = 'style="padding: 4px; color: #004466"';
const LINK = '<link rel="stylesheet" href="css/site.css">\n';
const PAGES = Object.fromEntries(
  ['a', 'b', 'c'].map((name) => [
    `${name}.html`,
    htmlPage(`<div class="card"><h2>x</h2><p ${NOTE}>${name}</p></div>`, LINK),
  ]),
);
const SOURCE = '$ink: #0b4a5e;\n.card { padding: 12px; h2 { color: $ink; } }\n';

/** A site with a sheet, and what the compiler makes of it. */
function siteOf(source: string, style: 'expanded' | 'compressed' = 'expanded', end = ''): string {
  const { css } = compileString(source, { style });
  return makeSite({ ...PAGES, 'scss/site.scss': source, 'css/site.css': `${css}\n${end}` });
}

test('rules go into a part that the source takes in last, and the sheet is made anew', async () => {
  const site = siteOf(SOURCE);
  const before = snapshot(site);
  assert.match((await acervus('survey', site)).stdout, /css\/site\.css +built: scss\/site\.scss/);
  await acervus('draft', site);
  const adopted = JSON.parse((await acervus('adopt', site, '--json')).stdout);
  assert.deepEqual(adopted.files, [
    ...['a.html', 'b.html', 'c.html', 'css/site.css', 'scss/_shared.scss', 'scss/site.scss'],
  ]);
  assert.match(read(site, 'scss/site.scss'), /\}\n@import 'shared';\n$/);
  assert.match(read(site, 'scss/_shared.scss'), /padding: 4px;/);
  assert.match(read(site, 'css/site.css'), /color: #0b4a5e;\n\}\n[\s\S]*padding: 4px;/);
  assert.doesNotMatch(read(site, 'a.html'), /style=/);
  assert.match((await acervus('draft', site)).stdout, /0% less to keep up/);
  assert.equal((await acervus('undo', site)).code, 0);
  for (const [file, bytes] of before) assert.equal(snapshot(site).get(file), bytes, file);
});

test('what comes later goes into the same part', async () => {
  const site = siteOf(SOURCE);
  await acervus('draft', site);
  await acervus('adopt', site);
  const source = read(site, 'scss/site.scss');
  const more = '<i style="letter-spacing: 1px; color: teal">x</i>';
  for (const name of ['a', 'b'])
    addFiles(site, { [`${name}.html`]: read(site, `${name}.html`).replace('</body>', `${more}</body>`) });
  await acervus('draft', site);
  const adopted = await acervus('adopt', site);
  assert.match(adopted.stdout, /0 {3}differences/, adopted.stderr);
  assert.equal(read(site, 'scss/site.scss'), source);
  assert.match(read(site, 'scss/_shared.scss'), /letter-spacing: 1px;/);
  assert.match(read(site, 'css/site.css'), /letter-spacing: 1px;/);
});

test('a source of modules takes the part in as a module; the map keeps its line; one that is pressed stays so', async () => {
  const modules = siteOf(`@use 'sass:math';\n${SOURCE}.wide { width: math.div(100%, 4); }\n`);
  await acervus('draft', modules);
  await acervus('adopt', modules);
  const source = read(modules, 'scss/site.scss');
  assert.match(source, /^@use 'sass:meta';\n@use 'sass:math';/);
  assert.match(source, /@include meta\.load-css\('shared'\);\n$/);

  const map = '/*# sourceMappingURL=site.css.map */\n';
  const pressed = siteOf(SOURCE, 'compressed', map);
  await acervus('draft', pressed);
  await acervus('adopt', pressed);
  const built = read(pressed, 'css/site.css');
  assert.match(built, /padding:4px[\s\S]*sourceMappingURL=site\.css\.map \*\/\n$/);
  assert.equal(built.split('\n').length, 3);
});

test('a sheet that its source does not make any more is only read', async () => {
  const site = siteOf(SOURCE);
  addFiles(site, { 'css/site.css': `${read(site, 'css/site.css')}.old { color: red }\n` });
  await acervus('draft', site);
  const adopted = JSON.parse((await acervus('adopt', site, '--json')).stdout);
  assert.deepEqual(adopted.files, ['a.html', 'b.html', 'c.html', 'css/shared.css']);
  assert.equal(read(site, 'scss/site.scss'), SOURCE);
});

test('a source of Sass takes in nothing from outside the site', async () => {
  const outside = makeSite({ 'far.scss': '.far { top: 0 }' });
  const site = siteOf(SOURCE);
  addFiles(site, { 'scss/site.scss': `@import '${outside}/far';\n${SOURCE}` });
  assert.equal((await acervus('draft', site)).code, 0);
  assert.doesNotMatch(JSON.stringify([...snapshot(site)]), /far \{ top/);
});

test('a source that no compiler takes is one that is not there', async () => {
  const site = siteOf(SOURCE);
  addFiles(site, { 'scss/site.scss': '.card { padding: $nowhere }' });
  const { code, stdout } = await acervus('survey', site);
  assert.notEqual(code, 2);
  assert.match(stdout, /css\/site\.css/);
  assert.equal((await acervus('draft', site)).code, 0);
});

const LESS = `@import "parts/ink";\n.card { padding: 12px; h2 { color: @ink; } &:hover { .low(); } }\n`;
const LESS_PARTS = { 'less/parts/ink.less': '@ink: #0b4a5e;\n.low() { margin-top: -1px; }\n' };
const FROM_LESS =
  '.card {\n  padding: 12px;\n}\n.card h2 {\n  color: #0b4a5e;\n}\n.card:hover {\n  margin-top: -1px;\n}\n';

test('a sheet of Less takes in a part of our own, and is made anew', async () => {
  const site = makeSite({ ...PAGES, ...LESS_PARTS, 'less/site.less': LESS, 'css/site.css': FROM_LESS });
  const before = snapshot(site);
  assert.match((await acervus('survey', site)).stdout, /css\/site\.css +built: less\/site\.less/);
  await acervus('draft', site);
  const adopted = JSON.parse((await acervus('adopt', site, '--json')).stdout);
  assert.deepEqual(adopted.files, [
    ...['a.html', 'b.html', 'c.html', 'css/site.css', 'less/_shared.less', 'less/site.less'],
  ]);
  assert.equal(read(site, 'less/site.less'), `${LESS}@import '_shared';\n`);
  assert.ok(read(site, 'css/site.css').startsWith(FROM_LESS));
  assert.match(read(site, 'css/site.css'), /padding: 4px;\n {2}color: #004466;/);
  assert.match((await acervus('draft', site)).stdout, /0% less to keep up/);
  assert.equal((await acervus('undo', site)).code, 0);
  for (const [file, bytes] of before) assert.equal(snapshot(site).get(file), bytes, file);
});

test('what a sheet of Less asks of anything but the files of the site is not done', async () => {
  const outside = makeSite({ 'far.less': '.far { top: 0 }', 'code.js': 'process.exit(9)' });
  for (const line of [
    `@plugin "${outside}/code.js";`,
    '.a { width: `process.exit(9)`; }',
    `@import "${outside}/far";`,
    `@import "${'../'.repeat(12)}${outside.slice(1)}/far.less";`,
    '@import (less) "http://localhost:9/a.less";',
  ]) {
    const site = makeSite({
      ...PAGES,
      ...LESS_PARTS,
      'less/site.less': `${line}\n${LESS}`,
      'css/site.css': `.far { top: 0 }\n${FROM_LESS}`,
    });
    const source = read(site, 'less/site.less');
    assert.equal((await acervus('draft', site)).code, 0, line);
    const { files } = JSON.parse((await acervus('adopt', site, '--json')).stdout);
    assert.deepEqual(files, ['a.html', 'b.html', 'c.html', 'css/shared.css'], line);
    assert.equal(read(site, 'less/site.less'), source);
  }
});
