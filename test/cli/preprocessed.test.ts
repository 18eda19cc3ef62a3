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
  assert.match((await acervus('draft', site)).stdout, /0% less to maintain/);
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
  assert.match((await acervus('draft', site)).stdout, /0% less to maintain/);
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

const PARTS = {
  'scss/_fares.scss': [
    '$pad: 4px;',
    '@mixin lift($x) { box-shadow: 0 $x 2px #000; }',
    '.fare {',
    '  color: $ink;',
    '  padding: $pad 8px;',
    '  &:hover { color: #fff; @include lift(1px); }',
    '}',
    '@each $n in 1, 2 { .col-#{$n} { margin: 0 4px; } }',
    '',
  ].join('\n'),
  'scss/site.scss':
    "$ink: #123456;\n@import 'fares';\n.note { color: $ink; border: 1px solid } // of notes\n",
};

/** A site whose sheet is made of parts, with more sheets made of the same. */
function siteOfParts(style: 'expanded' | 'compressed', more: Readonly<Record<string, string>> = {}): string {
  const sources: Record<string, string> = { ...PARTS, ...more };
  const importer = {
    canonicalize: (name: string) => new URL(`parts:${name}`),
    load: ({ pathname }: URL) => ({
      contents: sources[`scss/_${pathname}.scss`] ?? '',
      syntax: 'scss' as const,
    }),
  };
  const made = Object.keys(sources).flatMap((file) => {
    const name = /^scss\/([a-z]\w*)\.scss$/.exec(file)?.[1];
    if (name === undefined) return [];
    const { css } = compileString(sources[file]!, {
      style,
      importers: [importer],
      silenceDeprecations: ['import'],
    });
    return [[`css/${name}.css`, `${css}\n`]];
  });
  const body = '<a class="fare">x</a><p class="note">y</p><i class="col-1">a</i><i class="col-2">b</i>';
  const pages = made.map(([file], at) => [
    `${at}.html`,
    htmlPage(body, `<link rel="stylesheet" href="${file}">\n`),
  ]);
  return makeSite({ ...sources, ...Object.fromEntries([...made, ...pages]) });
}

for (const style of ['expanded', 'compressed'] as const)
  test(`a rule is changed where it is written, and a sheet that is ${style} made anew`, async () => {
    const site = siteOfParts(style);
    const before = snapshot(site);
    const changed = await acervus('restyle', '.fare', 'padding: 6px', 'margin: 0', site);
    assert.match(changed.stdout, /\.fare changed where it stands +scss\/_fares\.scss:3:1/, changed.stderr);
    assert.match(
      read(site, 'scss/_fares.scss'),
      /\n {2}color: \$ink;\n {2}padding: 6px;\n {2}margin: 0;\n {2}&:hover/,
    );
    assert.equal(read(site, 'scss/site.scss'), PARTS['scss/site.scss']);
    assert.match(
      read(site, 'css/site.css'),
      style === 'expanded' ? /\n {2}padding: 6px;\n {2}margin: 0;\n/ : /;padding:6px;margin:0\}/,
    );
    assert.equal((await acervus('undo', site)).code, 0);
    for (const [file, bytes] of before) assert.equal(snapshot(site).get(file), bytes, file);
    await acervus('restyle', '.note', 'border:', 'color: red', site);
    assert.match(read(site, 'scss/site.scss'), /\.note \{ color: red; \} \/\/ of notes\n$/);
  });

test('what is written in sources is surveyed, each declaration once', async () => {
  const site = siteOfParts('compressed', { 'scss/crew.scss': "$ink: #654321;\n@import 'fares';\n" });
  const { sources, themeSheets, upkeep } = JSON.parse((await acervus('survey', site, '--json')).stdout);
  assert.deepEqual(sources, { written: 7, distinct: 6, repeated: 2, holders: 2, alike: 0 });
  assert.deepEqual([themeSheets.written, upkeep.now], [0, 0]);
  assert.match((await acervus('survey', site)).stdout, /7 {3}declarations in 2 preprocessor sheets/);
});

test('values of sources are listed with their places, and variables by their names', async () => {
  const site = siteOfParts('compressed');
  const { named, unnamed } = JSON.parse((await acervus('values', site, '--json')).stdout);
  const shown = named.map((one: { name: string; value: string; uses: number; place: { path: string } }) =>
    [one.name, one.value, one.uses, one.place.path].join(' '),
  );
  assert.deepEqual(shown.sort(), ['$ink #123456 2 scss/site.scss', '$pad 4px 1 scss/_fares.scss']);
  const white = unnamed.find((one: { value: string }) => one.value === '#fff');
  assert.deepEqual(white.place, { path: 'scss/_fares.scss', line: 6, column: 13 });
  assert.ok(
    !unnamed.some((one: { value: string }) => one.value.includes('$')),
    'what is worked out is no value',
  );
});

test('what a mixin or a loop writes is left as it is, and the place told', async () => {
  const site = siteOfParts('expanded');
  const before = snapshot(site);
  for (const [selector, declaration, why] of [
    [
      '.fare:hover',
      'box-shadow: none',
      /scss\/_fares\.scss:2:19: .*@mixin lift\(\$x\) writes it; change that source/,
    ],
    ['.col-1', 'margin: 0', /scss\/_fares\.scss:8:33: .*@each \$n in 1, 2 writes it/],
  ] as const) {
    const { code, stderr } = await acervus('restyle', selector, declaration, site);
    assert.equal(code, 2);
    assert.match(stderr, why);
  }
  assert.deepEqual(snapshot(site), before);
});

test('a part that two sheets are made of is changed for both, or not at all', async () => {
  const both = siteOfParts('expanded', { 'scss/crew.scss': "$ink: #654321;\n@import 'fares';\n" });
  await acervus('restyle', '.fare', 'padding: 6px', both);
  for (const sheet of ['css/site.css', 'css/crew.css']) assert.match(read(both, sheet), /padding: 6px;/);
  const other = siteOfParts('expanded', { 'scss/crew.scss': "$ink: #654321;\n.crew { @import 'fares'; }\n" });
  const { code, stderr } = await acervus('restyle', '.fare', 'padding: 6px', other);
  assert.equal(code, 2);
  assert.match(stderr, /css\/crew\.css is made of it, too/);
});

test('a rule of Less is changed where it is written, and one that components import', async () => {
  const less = '@ink: #123456;\n.lift() { top: 1px; }\n.fare {\n\tcolor: @ink;\n\t&:hover { .lift(); }\n}\n';
  const component = '<template><main><p class="fare">x</p></main></template>\n';
  const site = makeSite({
    'src/main.js': "import './site.less';\n",
    'src/site.less': less,
    'src/A.vue': component,
  });
  const { stdout, stderr } = await acervus('restyle', '.fare', 'color: red', 'left: 0', site);
  assert.match(stdout, /src\/site\.less:3:1/, stderr);
  assert.doesNotMatch(stdout, /was not read/, 'a sheet that is still to come');
  assert.equal(read(site, 'src/site.less'), less.replace('color: @ink;', 'color: red;\n\tleft: 0;'));
  assert.match((await acervus('restyle', '.fare:hover', 'top: 0', site)).stderr, /\.lift\(\) writes it/);
});

test('a source of the platform is never written, whatever takes it in', async () => {
  const kit = '.kit-fare { color: #123456; }\n';
  const site = makeSite({
    'src/main.js': "import './site.scss';\n",
    'src/site.scss': "@import '../vendor/kit';\n.note { top: 0; }\n",
    'vendor/kit.scss': kit,
    'src/A.vue': '<template><main><p class="kit-fare">x</p></main></template>\n',
  });
  for (const args of [
    ['restyle', '.kit-fare', 'color: red'],
    ['rename', 'kit-fare', 'fare'],
  ]) {
    const { code, stderr } = await acervus(...args, site);
    assert.equal(code, 2, stderr);
    assert.match(stderr, /that source is not yours to edit|\.kit-fare is written out nowhere/);
  }
  assert.equal(read(site, 'vendor/kit.scss'), kit);
});

test('a source that is indented is changed as it is written', async () => {
  const sass = '$ink: #123456\r\n.fare\r\n  color: $ink\r\n  &:hover\r\n    top: 0\r\n';
  const site = makeSite({
    'src/main.js': "import './site.sass';\n",
    'src/site.sass': sass,
    'src/A.vue': '<template><main><p class="fare">x</p></main></template>\n',
  });
  const { stderr, stdout } = await acervus('restyle', '.fare', 'color: red', 'left: 0', site);
  assert.match(stdout, /src\/site\.sass:2:1/, stderr);
  assert.equal(read(site, 'src/site.sass'), sass.replace('color: $ink', 'color: red\r\n  left: 0'));
  await acervus('restyle', '.fare:hover', 'top:', 'right: 1px', site);
  assert.match(read(site, 'src/site.sass'), /&:hover\r\n {4}right: 1px\r\n$/);
});

test('a class gets another name where it is written, and not where a name is put together', async () => {
  const site = siteOfParts('compressed');
  const { stdout, stderr } = await acervus('rename', '.fare', '.price', site);
  assert.match(stdout, /2 \+ selectors/, stderr);
  assert.match(read(site, 'scss/_fares.scss'), /\n\.price \{\n {2}color: \$ink;/);
  assert.match(read(site, 'css/site.css'), /\.price:hover\{/);
  assert.match(read(site, '0.html'), /class="price"/);
  const before = snapshot(site);
  const refused = await acervus('rename', 'col-1', 'first', site);
  assert.equal(refused.code, 2);
  assert.match(refused.stderr, /\.col-1 is written out nowhere/);
  assert.deepEqual(snapshot(site), before);
  const nested = siteOfParts('expanded', {
    'scss/_fares.scss': `${PARTS['scss/_fares.scss']}.note { &-late { top: 0; } }\n`,
  });
  assert.match(
    (await acervus('rename', 'note', 'memo', nested)).stderr,
    /more than \.note is made of that name/,
  );
});
