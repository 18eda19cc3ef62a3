// Components: what frameworks render of them looks as before.

import assert from 'node:assert/strict';
import { rmSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { adopt, draft, prove } from '../../src/index.js';
import { type Framework, type Props, randomComponents, renderComponents } from '../support/components.js';
import { Random } from '../support/generate.js';
import { Seeds } from '../support/seeds.js';
import { acervus, addFiles, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const SHOWN: readonly Props[] = [true, false].flatMap((shut) =>
  [true, false].flatMap((late) => [[], ['a', 'b', 'c']].map((list) => ({ shut, late, list }))),
);

async function pagesOf(site: string, framework: Framework): Promise<Record<string, string>> {
  const pages = await renderComponents(site, framework, SHOWN);
  return Object.fromEntries(pages.map((text, at) => [`page-${at}.html`, text]));
}

for (const framework of ['react', 'vue', 'svelte'] as const)
  test(`what ${framework} renders of random components looks the same once styles have moved`, async () => {
    const seeds = new Seeds('cli/components', 3);
    let moved = 0;
    for (const seed of seeds) {
      const site = makeSite(randomComponents(new Random(seed), framework));
      const before = makeSite(await pagesOf(site, framework));
      await draft(site);
      const { upkeep, written } = await adopt(site);
      if (!written) continue;
      moved += upkeep.now - upkeep.after;
      const after = makeSite(await pagesOf(site, framework));
      const { differences } = await prove(after, before);
      assert.deepEqual(
        differences.slice(0, 2),
        [],
        `${framework}, ${seeds.name(seed)}, ${path.basename(site)}`,
      );
    }
    if (seeds.areMany) assert.ok(moved > 12, `only ${moved} places`);
  });

test('what no compiler takes is told in one line with its place, and the rest goes on', async () => {
  const style = 'style={{ color: "#004466", padding: 4 }}';
  const site = makeSite({
    // Rules go into the last that can be read.
    'src/main.jsx': "import './site.css';\nimport './a.scss';\n",
    'src/a.scss': '.card {\n  padding: $nowhere;\n}\n',
    'src/site.css': 'body { margin: 0 }\n',
    'src/A.jsx': `export const A = () => <p ${style}>x</p>;\n`,
    'src/B.jsx': `export const B = () => <b ${style}>x</b>;\n`,
    'src/C.jsx': 'export const C = () =>\n  <p;\n',
    'src/D.vue': '<template><p>x</template>\n',
    'src/E.svelte': '{#if a}<p>x</p>\n',
  });
  const { code, stderr } = await acervus('draft', site);
  assert.equal(code, 0, stderr);
  for (const line of [
    /src\/C\.jsx cannot be compiled, line 2: Unexpected token/,
    /src\/D\.vue cannot be compiled, line 1: Element is missing end tag/,
    /src\/E\.svelte cannot be compiled, line \d: /,
    /src\/a\.scss cannot be compiled, line 2: Undefined variable/,
  ])
    assert.match(stderr, line);
  const adopted = await acervus('adopt', site, '--json');
  const { files, proof } = JSON.parse(adopted.stdout);
  assert.deepEqual(files, ['src/A.jsx', 'src/B.jsx', 'src/site.css']);
  assert.match(proof.assumptions.join('\n'), /\/src\/a\.scss \(on 2 pages\) is imported and was not read/);
});

test('components in files that end like scripts are read, each by the sheets of its own package', async () => {
  const style = "style={{ color: '#004466', padding: 4 }}";
  const site = makeSite({
    'package.json': '{ "dependencies": { "react": "*" } }',
    'src/index.js': "import './site.css';\nimport App from './App';\nrender(<App />, document.body);\n",
    'src/site.css': 'body { margin: 0 }\n',
    'src/App.js': `import { step } from './steps';\nexport default () => (\n  <main>\n    <p ${style}>{step}</p>\n    <i className="low" ${style} />\n  </main>\n);\n`,
    'src/App.test.js': `test(<p ${style} />);\n`,
    'src/steps.js': `export const step = 1 <2, mark = '<p style="top: 0">';\n`,
    'dist/app.js': `h(<p ${style} />);\n`,
    'docs/package.json': '{ "dependencies": { "next": "*" } }',
    'docs/docs.css': 'p { left: 0 }\n',
    'docs/page.js': `import './docs.css';\nexport default () => <p ${style}>x</p>;\n`,
  });
  const before = snapshot(site);
  const survey = JSON.parse((await acervus('survey', site, '--json')).stdout);
  assert.deepEqual([survey.components, survey.inline.written], [2, 6]);
  assert.deepEqual(survey.broken, []);
  await acervus('draft', site);
  const { files } = JSON.parse((await acervus('adopt', site, '--json')).stdout);
  assert.deepEqual(files, ['src/App.js', 'src/site.css']);
  assert.match(
    read(site, 'src/App.js'),
    /<p className="[\w-]+">\{step\}<\/p>\n {4}<i className="low [\w-]+" \/>/,
  );
  assert.equal((await acervus('undo', site)).code, 0);
  rmSync(path.join(site, '.acervus'), { recursive: true, force: true });
  rmSync(path.join(site, 'acervus-draft.yaml'));
  assert.deepEqual(snapshot(site), before);
});

test('a sheet that is new to the modules is imported behind the last, in their own words', async () => {
  const site = makeSite({
    'src/main.js': 'import "./line.scss"\nimport App from "./App.vue"\n',
    'src/line.scss': '$ink: #004466;\n.card { p { color: $ink } }\n',
    'src/App.vue': '<template><main><p style="margin: 0">a</p><p style="margin: 0">b</p></main></template>\n',
  });
  await acervus('draft', site);
  const { files } = JSON.parse((await acervus('adopt', site, '--json')).stdout);
  assert.deepEqual(files, ['src/App.vue', 'src/main.js', 'src/shared.css']);
  assert.equal(
    read(site, 'src/main.js'),
    'import "./line.scss"\nimport "./shared.css"\nimport App from "./App.vue"\n',
  );
  assert.match((await acervus('draft', site)).stdout, /0% less to maintain/);
  assert.equal((await acervus('undo', site)).code, 0);
  assert.match(read(site, 'src/App.vue'), /style="margin: 0"/);
});

test('what one component alone uses goes to its own block, where the house writes such blocks', async () => {
  const [ours, shared] = ['style="margin: 0; color: #004466"', 'style="padding: 4px; top: 2px"'];
  const own = (tags: string, block = ''): string => `<template><div>${tags}</div></template>\n${block}`;
  const site = makeSite({
    'src/main.js': "import './site.css';\n",
    'src/site.css': '.card { padding: 0 }\n',
    'src/A.vue': own(`<p ${ours}>a</p><p ${ours}>b</p><i ${shared}>c</i>`),
    'src/B.vue': own(`<i ${shared}>c</i>`, '<style scoped>\nb { top: 0 }\n</style>\n'),
    // A block that styles all components is none of its own.
    'src/C.vue': own(
      '<b style="left: 3px">a</b><b style="left: 3px">b</b>',
      '<style>\np { top: 0 }\n</style>\n',
    ),
  });
  const { stdout } = await acervus('draft', site);
  assert.match(stdout, /margin: 0.*\n?.*by a new class, in src\/A\.vue/);
  await acervus('adopt', site);
  assert.match(read(site, 'src/A.vue'), /<p class="(\S+)">a[\s\S]*\n<style scoped>\n\.\1 \{\n/);
  assert.match(
    read(site, 'src/site.css'),
    /padding: 4px;[\s\S]*left: 3px;/,
    'two components, or a block for all',
  );
  assert.match(read(site, 'src/B.vue'), /<style scoped>\nb \{ top: 0 \}\n<\/style>/);
  assert.match((await acervus('draft', site)).stdout, /0% less to maintain/);
});

test('classes of a module are its own: what says the same is asked for, what is new stands in it', async () => {
  const navy = "style={{ color: 'navy', marginTop: 4 }}";
  const note = "style={{ color: 'maroon', padding: 4 }}";
  const olive = "style={{ color: 'olive', fontSize: 14 }}";
  const site = makeSite({
    'src/main.jsx': "import './site.css';\nimport { A } from './A';\nimport { B } from './B';\n",
    'src/site.css': 'body { margin: 0 }\n',
    'src/A.module.css': '.note {\n  color: maroon;\n  padding: 4px;\n}\n',
    'src/A.jsx': [
      "import styles from './A.module.css';",
      'export const A = () => <main>',
      `  <p className={styles.note}>a</p><p ${note}>b</p><p className="wide" ${navy}>c</p><p ${navy}>d</p>`,
      '</main>;\n',
    ].join('\n'),
    // The name alone is not the class of the module.
    'src/B.jsx': `export const B = () => <div><b className="note" ${note}>a</b><b className="note" ${note}>b</b></div>;\n`,
    'src/C.module.css': '.pier { composes: quay; }\n.quay { color: teal; }\n',
    'src/C.jsx': `import styles from './C.module.css';\nexport const C = () => <p><i className={styles.pier} ${olive}>a</i><i className={styles.pier} ${olive}>a</i></p>;\n`,
  });
  await acervus('draft', site);
  assert.equal((await acervus('adopt', site)).code, 0);
  const name = /^\.(\w+) \{\n {2}color: navy;\n {2}margin-top: 4px;\n\}\n$/m.exec(
    read(site, 'src/A.module.css'),
  )?.[1];
  assert.ok(name);
  const asked = [...'$'].map((sign) => `className={\`wide ${sign}{styles.${name}}\`}`).join('');
  assert.equal(
    read(site, 'src/A.jsx').split('\n')[2],
    `  <p className={styles.note}>a</p><p className={styles.note}>b</p><p ${asked}>c</p><p className={styles.${name}}>d</p>`,
  );
  assert.match(read(site, 'src/site.css'), /\.note \{\s*color: maroon;\s*padding: 4px;\s*\}/);
  assert.match(read(site, 'src/B.jsx'), /<b className="note">a<\/b><b className="note">b<\/b>/);
  const open = read(site, 'src/C.module.css') + read(site, 'src/site.css');
  assert.match(open, /\.([\w-]+)\.\1 \{ color: olive/, 'stronger than what else the name may bring');
  assert.equal((await acervus('undo', site)).code, 0);
  assert.doesNotMatch(read(site, 'src/A.module.css'), /navy/);
  const explained = (await acervus('explain', 'src/A.jsx', 'p', site)).stdout;
  assert.match(explained, /color: maroon {2}\.note/);
  assert.doesNotMatch(explained, /@src/, 'no selector asks for what only a build names');
  const renamed = await acervus('rename', '.note', '.memo', site);
  assert.match(renamed.stdout, /2 \+ class attributes/);
  assert.match(read(site, 'src/A.module.css'), /^\.note/);
  assert.match(
    (await acervus('reach', '.note', site)).stdout,
    /1 {3}element of 1 page\n {6}1 {3}src\/A\.jsx/,
  );
  const restyled = await acervus('restyle', '.note', 'color: teal', 'top: 0', site);
  assert.match(
    restyled.stdout,
    /src\/A\.module\.css:1:1[\s\S]*Moved {2}of 1 [\s\S]*1 \+ element of 1 page/,
    restyled.stderr,
  );
  assert.match(
    read(site, 'src/A.module.css'),
    /^\.note \{\n {2}color: teal;\n {2}padding: 4px;\n {2}top: 0;\n\}/,
  );
  addFiles(site, { 'src/C.module.css': '.note { color: navy; }\n' });
  const both = await acervus('restyle', '.note', 'color: red', site);
  assert.match(both.stderr, /is a rule of a module \(src\/A\.module\.css\) that is compiled, or of several/);
});

test('blocks of other components, and code that writes styles, are reckoned with', async () => {
  const style = 'style="margin: 0; color: #004466"';
  const site = makeSite({
    'src/main.js': "import './site.css';\nimport './App.vue';\n",
    'src/site.css': '.card { padding: 0 }\n',
    'src/App.vue': `<template><main><p ${style}>a</p><p ${style}>b</p></main></template>\n`,
    'src/Wide.vue': '<template><i>x</i></template>\n<style>\nmain p:not(.odd) { margin: 9px }\n</style>\n',
    'src/Odd.vue': `<template><main><p ${style}>a</p></main></template>\n<script>\nexport default { mounted() { this.$el.style.color = ''; } };\n</script>\n`,
  });
  await acervus('draft', site);
  await acervus('adopt', site);
  assert.match(read(site, 'src/Odd.vue'), /style="margin/);
  assert.doesNotMatch(read(site, 'src/App.vue'), /style=/);
  assert.match(
    read(site, 'src/site.css'),
    /main > |main \.|\.[\w-]+\.[\w-]+/,
    'stronger than the block of another component',
  );
});

test('a page that a build leaves beside the sources of components is none of the site', async () => {
  const site = makeSite({
    'src/main.jsx': "import './site.css';\n",
    'src/site.css': 'body { margin: 0 }\n',
    'src/A.jsx': "export const A = () => <b style={{ color: 'navy' }}>x</b>;\n",
    'index.html': htmlPage('<div id="root"></div>'),
    'build/report.html': htmlPage(
      '<p class="x">y</p><script>document.querySelector("b").style.color = "";</script>',
    ),
  });
  const { pages, platformPages, components } = JSON.parse((await acervus('survey', site, '--json')).stdout);
  assert.deepEqual([pages, platformPages, components], [1, 1, 1]);
});

test('a block in the language of a preprocessor is read, and nothing is written into the middle of it', async () => {
  const block =
    '<style scoped lang="scss">\n$ink: #123456;\n.fare {\n  color: $ink;\n  .deep { top: 1px; }\n}\n</style>\n';
  const site = makeSite({
    'src/main.js': "import './site.css';\n",
    'src/site.css': 'body { margin: 0 }\n',
    'src/A.vue': `<template><main><p class="fare">x <b class="deep">y</b></p></main></template>\n${block}`,
  });
  const { blocks } = JSON.parse((await acervus('survey', site, '--json')).stdout);
  assert.equal(blocks.written, 2);
  const before = snapshot(site);
  for (const [selector, declaration] of [
    ['.fare', 'color: red'],
    ['.fare .deep', 'top: 2px'],
  ] as const)
    assert.match(
      (await acervus('restyle', selector, declaration, site)).stderr,
      /no rule of the theme has this selector/,
    );
  assert.match((await acervus('rename', 'fare', 'price', site)).stdout, /0 {3}selectors/);
  assert.deepEqual(snapshot(site), before);
});

test('copies that a build makes are left to it, and src/lib is no folder of libraries', async () => {
  const card = '<p style="margin: 0; color: #004466">a</p>\n<p style="margin: 0; color: #004466">b</p>\n';
  const site = makeSite({
    'src/lib/index.js': "import './house.css';\nexport { default } from './Card.svelte';\n",
    'src/lib/house.css': 'body { margin: 0 }\n',
    'src/lib/Card.svelte': card,
    'src/routes/page.svelte': '<h1>x</h1>\n',
    'dist/Card.svelte': card,
  });
  const survey = JSON.parse((await acervus('survey', site, '--json')).stdout);
  assert.deepEqual([survey.components, survey.platformPages, survey.inline.written], [2, 1, 4]);
  assert.deepEqual(
    survey.sheets.map(({ path: sheet, owner }: { path: string; owner: string }) => [sheet, owner]),
    [['src/lib/house.css', 'theme']],
  );
  await acervus('draft', site);
  const { files } = JSON.parse((await acervus('adopt', site, '--json')).stdout);
  assert.deepEqual(files, ['src/lib/Card.svelte', 'src/lib/house.css']);
  assert.equal(read(site, 'dist/Card.svelte'), card);
});
