// Rules of sheets that are made of other files are told where a person wrote them.

import assert from 'node:assert/strict';
import { createRequire } from 'node:module';
import { test } from 'node:test';
import { acervus, addFiles, htmlPage, makeSite, read } from '../support/site.js';

const load = createRequire(import.meta.url);

const PAGE = htmlPage(
  '<div class="pier"><p class="sign" style="margin: 4px">a</p></div>',
  '<link rel="stylesheet" href="css/line.css">',
);

interface Told {
  readonly holder: string;
  readonly place: { readonly path: string; readonly line: number; readonly column: number };
}

async function told(site: string, asked: string): Promise<Told[]> {
  return JSON.parse((await acervus('reach', asked, site, '--json')).stdout).declarations;
}

test('rules that a compiler of ours makes are asked for and told in their source, and are changed there', async () => {
  const site = makeSite({
    'index.html': PAGE,
    'css/line.css': '.pier{color:#234}.pier .sign{padding:4px}\n',
    'src/line.scss': "@import 'pier';\n",
    'src/_pier.scss': '$ink: #234;\n.pier {\n  color: $ink;\n  .sign { padding: 4px; }\n}\n',
  });
  const [padding] = await told(site, '.sign');
  assert.deepEqual(
    [padding!.holder, padding!.place],
    ['theme', { path: 'src/_pier.scss', line: 4, column: 11 }],
  );
  assert.deepEqual(await told(site, 'src/_pier.scss:4'), [padding]);
  const reached = await acervus('reach', 'src/_pier.scss:3', site);
  assert.match(reached.stdout, /^Reach {2}src\/_pier\.scss:3/m);
  assert.match(reached.stdout, /next {2}acervus restyle '\.pier' 'color: …'/);
  const explained = (await acervus('explain', 'index.html', '.sign', site)).stdout;
  assert.match(explained, /padding: 4px {2}\.pier \.sign {2}theme +src\/_pier\.scss:4:11/);
  assert.match(explained, /color: #234 {2}\.pier {2}theme +src\/_pier\.scss:3:3/);
});

interface Stylus {
  (text: string): Stylus;
  set(name: string, value: unknown): Stylus;
  render(): string;
  readonly sourcemap: object;
}

const SOURCE = 'ink = #234\n\n.pier\n  color ink\n\n  .sign\n    padding 4px\n';

/** What another compiler makes for a sheet in that folder, with the map. */
function stylus(site: string, folder: string): { readonly css: string; readonly map: object } {
  const made = (load('stylus') as Stylus)(SOURCE)
    .set('cache', false)
    .set('filename', `${site}/src/pier.styl`)
    .set('sourcemap', { comment: false, basePath: `${site}/${folder}` });
  return { css: made.render(), map: made.sourcemap };
}

/** A site whose sheet another compiler made, with its map beside it. */
function ofStylus(): string {
  const site = makeSite({ 'index.html': PAGE, 'src/pier.styl': SOURCE });
  const { css, map } = stylus(site, 'css');
  addFiles(site, {
    'css/line.css': `${css}/*# sourceMappingURL=line.css.map */\n`,
    'css/line.css.map': JSON.stringify(map),
  });
  return site;
}

test('what another compiler makes is told in its source by the map of the sheet', async () => {
  const site = ofStylus();
  const survey = JSON.parse((await acervus('survey', site, '--json')).stdout);
  assert.equal(survey.sheets[0].because, 'built: src/pier.styl');
  assert.deepEqual(
    (await told(site, '.sign')).map(({ holder, place }) => [holder, place]),
    [['platform', { path: 'src/pier.styl', line: 7, column: 5 }]],
  );
  // In the sheet itself, and with the names that builders give what they read.
  const { sources, ...map } = JSON.parse(read(site, 'css/line.css.map'));
  assert.equal(sources.length, 1);
  const data = Buffer.from(JSON.stringify({ ...map, sources: ['builder:///./src/pier.styl'] }));
  addFiles(site, {
    'css/line.css': read(site, 'css/line.css').replace(
      'line.css.map',
      `data:application/json;charset=utf-8;base64,${data.toString('base64')}`,
    ),
  });
  assert.equal((await told(site, 'src/pier.styl:4'))[0]?.place.line, 4);
});

test('a map that fits no more, is broken, or leads out of the site tells nothing', async () => {
  const inSheet = { path: 'css/line.css', line: 5, column: 3 };
  const site = ofStylus();
  addFiles(site, { 'src/pier.styl': `// New.\n${read(site, 'src/pier.styl')}` });
  assert.deepEqual((await told(site, '.sign'))[0]?.place, inSheet);
  const map = read(site, 'css/line.css.map');
  for (const broken of ['{', '{"version":3}', map.replace('../src/', '../../../../etc/')]) {
    addFiles(site, { 'css/line.css.map': broken });
    assert.deepEqual((await told(site, '.sign'))[0]?.place, inSheet, broken);
    const survey = JSON.parse((await acervus('survey', site, '--json')).stdout);
    assert.equal(survey.sheets[0].because, 'built: it names a source map', broken);
  }
});

test('the sheet of a build is told in its sources, too', async () => {
  const site = makeSite({
    'index.html': PAGE,
    'src/pier.styl': SOURCE,
    'acervus.json': '{ "rendering": { "build": "node build.mjs", "into": "out" } }',
  });
  const { css, map } = stylus(site, 'out/css');
  const data = Buffer.from(JSON.stringify(map)).toString('base64');
  const sheet = `${css}/*# sourceMappingURL=data:application/json;base64,${data} */\n`;
  addFiles(site, {
    'build.mjs': `import { cpSync, mkdirSync, writeFileSync } from 'node:fs';\nmkdirSync('out/css', { recursive: true });\ncpSync('index.html', 'out/index.html');\nwriteFileSync('out/css/line.css', ${JSON.stringify(sheet)});\n`,
  });
  assert.deepEqual(
    (await told(site, '.sign')).map(({ place }) => place),
    [{ path: 'src/pier.styl', line: 7, column: 5 }],
  );
});
