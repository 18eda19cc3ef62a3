// Sites that a command builds: edits land in the sources, and the pages that come of them look as before.

import assert from 'node:assert/strict';
import { cpSync, existsSync, readdirSync, rmSync, symlinkSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { acervus, addFiles, makeSite, PROJECT, read, snapshot } from '../support/site.js';

/** The files that a person sees, with their bytes. */
function sources(site: string): [string, string][] {
  const packages = path.join(site, 'node_modules');
  const isLinked = existsSync(packages);
  if (isLinked) rmSync(packages);
  const files = [...snapshot(site)].filter(([file]) => !/^\.acervus|^acervus-draft|^node_modules/.test(file));
  if (isLinked) withPackages(site);
  return files;
}

/** A site that its builder finds its packages beside. */
function withPackages(site: string): string {
  symlinkSync(path.join(PROJECT, 'node_modules'), path.join(site, 'node_modules'), 'dir');
  return site;
}

function eleventy(): string {
  const site = makeSite({});
  cpSync(path.join(PROJECT, 'demo', 'eleventy'), site, { recursive: true });
  // Found at once where `npx` would look around first.
  addFiles(site, { 'acervus.json': read(site, 'acervus.json').replace('npx ', '') });
  return withPackages(site);
}

test('a site of Eleventy: surveyed, explained, drafted, adopted and taken back in its sources', async () => {
  const site = eleventy();
  const before = sources(site);
  const survey = await acervus('survey', site, '--json');
  const stock = JSON.parse(survey.stdout);
  assert.equal(stock.pages, 5);
  assert.equal(stock.inline.written, 44, 'a tag of a layout is one place to keep up');
  assert.equal(stock.built.pagesOf['_includes/base.njk:13:7'], 5);
  assert.match((await acervus('survey', site)).stdout, /_includes\/base\.njk:13:7, on 5 pages/);

  // What is asked, and what is answered, are places of sources.
  const explained = JSON.parse((await acervus('explain', '_includes/base.njk', '13', site, '--json')).stdout);
  assert.equal(explained.page, 'crew/index.html');
  assert.match(JSON.stringify(explained), /_includes\/base\.njk/);
  const selected = await acervus('explain', '_site/fares/index.html', 'th', site);
  assert.match(selected.stdout, /fares\.md:11:5/);
  const reached = await acervus('reach', '.harbour-shut', site);
  assert.match(reached.stdout, /assets\/line\.css:16:3/);

  // What looks at all of it reads the built pages, too, and speaks of the sources.
  const values = JSON.parse((await acervus('values', site, '--pairs', '--json')).stdout);
  assert.deepEqual(
    values.pairs.map(
      ({ text, elements, place }: { text: string; elements: number; place: { path: string } }) => [
        ...[text, elements, place.path],
      ],
    )[0],
    ['#5d6b70', 14, 'crew.liquid'],
  );
  assert.equal(values.unnamed[0].place.path, '_includes/base.njk');
  const sampler = JSON.parse((await acervus('sampler', site, '--json')).stdout);
  const head = sampler.styles.find(({ name }: { name: string }) => name === '.line-head');
  assert.deepEqual([head.pages, head.rules[0].path], [5, 'assets/line.css']);
  const sampled = read(site, '.acervus/sampler/index.html');
  assert.match(sampled, /shown: [a-z/]+\.html/);
  assert.doesNotMatch(sampled, /data-acervus-origin/);
  const starter = JSON.parse((await acervus('starter', site, '--json')).stdout);
  assert.deepEqual(starter.rules, [{ part: 'helpers', selectors: ['.line-head'], place: head.rules[0] }]);

  const draft = await acervus('draft', site);
  assert.equal(draft.code, 0, draft.stderr);
  assert.match(draft.stdout, /51 {3}places hold/);
  const adopted = JSON.parse((await acervus('adopt', site, '--json')).stdout);
  assert.deepEqual(adopted.files, [
    ...['_includes/base.njk', '_includes/notice.njk', 'assets/line.css', 'crew.liquid', 'fares.md'],
    ...['index.njk', 'notices/pier.md', 'notices/wind.md'],
  ]);
  assert.equal(adopted.proof.pages, 5);
  assert.ok(adopted.upkeep.after <= 22, `${adopted.upkeep.after}`);
  assert.match(
    read(site, 'index.njk'),
    /class="\{\{ 'harbour' if harbour\.open else 'harbour harbour-shut' \}\}"/,
  );
  assert.doesNotMatch(read(site, 'notices/wind.md'), /style=/);

  assert.equal((await acervus('undo', site)).code, 0);
  assert.deepEqual(sources(site), before);
});

const HEXO = {
  'package.json':
    '{ "name": "notices", "private": true, "hexo": { "version": "" }, "dependencies": { "hexo-renderer-ejs": "*", "hexo-renderer-marked": "*", "hexo-renderer-stylus": "*", "hexo-generator-index": "*" } }',
  '_config.yml': 'title: Skerrin Line\nurl: http://localhost\ntheme: quay\npermalink: :title/\n',
  'acervus.json': '{ "rendering": { "build": "hexo generate", "into": "public" } }',
  'themes/quay/layout/layout.ejs':
    '<!doctype html>\n<html>\n<head>\n  <title><%= page.title %></title>\n  <meta name="made" content="<%= Date.now() %>">\n  <%- css(\'css/house\') %>\n</head>\n<body>\n<p style="padding: 4px; color: #004466">Skerrin</p>\n<%- body %>\n</body>\n</html>\n',
  'themes/quay/layout/index.ejs':
    '<% page.posts.each(function (post) { %>\n<h2 style="margin: 0; color: #004466"><%= post.title %></h2>\n<%- post.content %>\n<% }) %>\n',
  'themes/quay/layout/post.ejs':
    '<article>\n<h2 style="margin: 0; color: #004466"><%= page.title %></h2>\n<%- page.content %>\n</article>\n',
  'themes/quay/source/css/house.styl': 'body\n  margin 0\n',
  'themes/quay/source/js/quay.js': 'var quay = 1;\n',
};

function post(number: number): string {
  return `---\ntitle: Notice ${number}\ndate: 2026-0${number}-03 10:00:00\n---\n<p style="padding: 4px; color: #004466">Ask at the quay.</p>\n\nThe crossing.\n`;
}

test('a site of Hexo: a new sheet beside one of Stylus, linked in the layout, whatever the time of the build', async () => {
  const posts = [1, 2, 3].map((number) => [`source/_posts/notice-${number}.md`, post(number)] as const);
  const site = withPackages(makeSite({ ...HEXO, ...Object.fromEntries(posts) }));
  const survey = JSON.parse((await acervus('survey', site, '--json')).stdout);
  assert.deepEqual(
    survey.sheets.map(({ path: sheet, because }: { path: string; because: string }) => [sheet, because]),
    [['css/house.css', 'built: house.styl']],
  );
  assert.equal((await acervus('draft', site)).code, 0);
  const adopted = await acervus('adopt', site);
  assert.match(adopted.stdout, /0 {3}differences/);
  assert.match(adopted.stdout, /what changes from build to build on \d pages/);
  assert.match(
    read(site, 'themes/quay/layout/layout.ejs'),
    /css\('css\/house'\) %>\n\s*<link rel="stylesheet" href="\/css\/shared\.css">/,
  );
  assert.match(read(site, 'themes/quay/source/css/shared.css'), /padding: 4px;/);
  for (const [file] of posts) assert.doesNotMatch(read(site, file), /style=/);
  assert.doesNotMatch(read(site, 'themes/quay/layout/post.ejs'), /style=/);
});

/** A builder of a few lines: each source in `pages` into a layout, as it stands. */
const BUILDER = `
import { cpSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
mkdirSync('out/css', { recursive: true });
cpSync('css', 'out/css', { recursive: true });
const layout = readFileSync('layout.html', 'utf8');
for (const file of readdirSync('pages')) {
  const body = readFileSync('pages/' + file, 'utf8');
  if (body.includes('BREAK')) throw new Error('pages/' + file + ': unexpected BREAK');
  if (body.includes('FRAGILE') && body.includes('data-')) throw new Error('no attributes of data here');
  writeFileSync('out/' + file, layout.replace('BODY', () => body.toUpperCase === undefined ? '' : body));
}
`;

const SMALL = {
  'acervus.json': '{ "rendering": { "build": "node build.mjs", "into": "out" } }',
  'build.mjs': BUILDER,
  'layout.html':
    '<!doctype html>\n<html><head><link rel="stylesheet" href="css/site.css"></head>\n<body>BODY</body></html>',
  'css/site.css': 'body { margin: 0 }\n',
  'pages/a.html': '<p style="color: #004466; margin: 0">a</p>',
  'pages/b.html': '<p style="color: #004466; margin: 0">b</p>',
};

test('a build that fails says so in one line, and nothing is written', async () => {
  const site = makeSite({ ...SMALL, 'pages/c.html': 'BREAK' });
  const before = sources(site);
  for (const command of ['survey', 'draft', 'reach']) {
    const words = command === 'reach' ? [command, 'p', site] : [command, site];
    const { code, stderr } = await acervus(...words);
    assert.equal(code, 2);
    assert.match(
      stderr,
      /^(?:acervus: building: node build\.mjs, as acervus\.json asks\n)?acervus: node build\.mjs: the build failed: .*pages\/c\.html: unexpected BREAK; nothing was written\n$/,
    );
  }
  assert.deepEqual(sources(site), before);
  addFiles(site, { 'acervus.json': '{ "rendering": { "build": "node -e 0", "into": "out" } }' });
  assert.match((await acervus('survey', site)).stderr, /made no folder out/);
  addFiles(site, { 'acervus.json': '{ "rendering": { "build": "mkdir -p out", "into": "out" } }' });
  assert.match((await acervus('survey', site)).stderr, /made no page in out/);
  for (const into of ['../out', '.', '/out', 'a/../../out']) {
    addFiles(site, { 'acervus.json': `{ "rendering": { "build": "node build.mjs", "into": "${into}" } }` });
    assert.match((await acervus('survey', site)).stderr, /expected a folder inside the site/);
  }
});

test('a source that no mark may be put into is content: the rest goes on', async () => {
  const site = makeSite({ ...SMALL, 'pages/c.html': '<p style="color: #004466; margin: 0">FRAGILE</p>' });
  await acervus('draft', site);
  const adopted = await acervus('adopt', site);
  assert.match(adopted.stdout, /no source holds its tag/);
  assert.match(read(site, 'pages/c.html'), /style=/);
  assert.match(read(site, 'pages/a.html'), /class=/);
});

test('what was built is taken again while no source has changed', async () => {
  const site = makeSite({ ...SMALL, 'count.mjs': '' });
  addFiles(site, {
    'acervus.json': `{ "rendering": { "build": "node build.mjs && echo x >> ${path.join(site, '..', path.basename(site))}/.acervus/times", "into": "out" } }`,
  });
  const times = (): number => read(site, '.acervus/times').length;
  assert.match(
    (await acervus('survey', site)).stderr,
    /building: node build\.mjs .*, as acervus\.json asks\n/,
  );
  const first = times();
  assert.ok(first >= 4);
  await acervus('survey', site);
  await acervus('reach', 'p', site);
  assert.equal(times(), first);
  addFiles(site, { 'pages/a.html': '<p>other</p>' });
  await acervus('survey', site);
  assert.ok(times() > first);
  assert.ok(!existsSync(path.join(site, 'out')), 'nothing is built where a person works');
  assert.deepEqual(
    readdirSync(path.join(site, '.acervus', 'build')).filter((name) => name.startsWith('at-')),
    [],
  );
});

test('a change by hand of a draft is carried out on the sources', async () => {
  const site = makeSite(SMALL);
  await acervus('draft', site);
  const draft = read(site, 'acervus-draft.yaml');
  addFiles(site, { 'acervus-draft.yaml': draft.replace(/name: \S+/, 'name: quay-note') });
  const adopted = await acervus('adopt', site);
  assert.equal(adopted.code, 0, adopted.stderr);
  assert.match(read(site, 'pages/a.html'), /<p class="quay-note">a<\/p>/);
  const proof = await acervus('prove', site, '--against', makeSite(SMALL));
  assert.equal(proof.code, 0, proof.stdout + proof.stderr);
  assert.match(proof.stdout, /0 {3}differences|nothing differs|no element/i);
  rmSync(path.join(site, '.acervus', 'build'), { recursive: true });
  assert.equal((await acervus('undo', site)).code, 0);
  assert.equal(read(site, 'pages/a.html'), SMALL['pages/a.html']);
});

test('commands that change pages as they are say that a build makes them', async () => {
  const site = makeSite(SMALL);
  const { code, stderr } = await acervus('restyle', 'body', 'margin: 1px', site);
  assert.equal(code, 2);
  assert.match(stderr, /a build makes the pages/);
});

/** Renders a React component into a page, as builders of static sites do. */
const REACT_BUILDER = `
import { build } from 'esbuild';
import { cpSync, mkdirSync, writeFileSync } from 'node:fs';
const { outputFiles } = await build({
  stdin: { contents: "import { createElement } from 'react'; import { renderToStaticMarkup } from 'react-dom/server'; import { App } from './App.jsx'; console.log(renderToStaticMarkup(createElement(App)));", resolveDir: process.cwd() },
  bundle: true, write: false, platform: 'node', format: 'cjs', jsx: 'automatic', loader: { '.css': 'empty' }, define: { 'process.env.NODE_ENV': '"production"' },
});
mkdirSync('out', { recursive: true });
cpSync('site.css', 'out/site.css');
const log = console.log;
let body = '';
console.log = (text) => { body = text; };
new Function('require', outputFiles[0].text)((await import('node:module')).createRequire(import.meta.url));
console.log = log;
writeFileSync('out/index.html', '<!doctype html><html><head><link rel="stylesheet" href="site.css"></head><body>' + body + '</body></html>');
`;

test('a site of React that a command renders: objects in code lose entries, and classes are put where code writes them', async () => {
  const site = withPackages(
    makeSite({
      'acervus.json': '{ "rendering": { "build": "node build.mjs", "into": "out" } }',
      'build.mjs': REACT_BUILDER,
      'site.css': 'body { margin: 0 }\n',
      'App.jsx': `const LIST = ['a', 'b'];
export const App = () => (
  <main>
    <h1 style={{ color: '#004466', marginTop: 4 }}>x</h1>
    {LIST.map((one) => <p key={one} className={\`card\`} style={{ padding: 4, color: '#004466' }}>{one}</p>)}
    <b style={{ padding: 4, color: '#004466' }}>x</b>
  </main>
);
`,
    }),
  );
  await acervus('draft', site);
  const adopted = await acervus('adopt', site);
  assert.match(adopted.stdout, /0 {3}differences/, adopted.stderr);
  const source = read(site, 'App.jsx');
  assert.match(source, /className=\{`card [\w -]+`\}>/);
  assert.match(source, /<b className="[\w -]+">x<\/b>/);
  assert.match(read(site, 'site.css'), /padding: 4px/);
});
