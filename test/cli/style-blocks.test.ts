// Style blocks of components in the language of a preprocessor that take in other files of the site.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { survey } from '../../src/index.js';
import { acervus, addFiles, makeSite, read } from '../support/site.js';

const NOTE = 'style="margin: 8px; letter-spacing: 1px"';

function component(name: string, lang: string, block: string): string {
  return `<template>\n  <div class="card"><p class="${name}" ${NOTE}>x</p></div>\n</template>\n\n<style scoped lang="${lang}">\n${block}\n</style>\n`;
}

const SITE = {
  'src/main.js': "import './styles/site.scss';\n",
  'src/styles/site.scss': "@import 'parts/fares';\nbody { margin: 0; }\n",
  'src/styles/parts/_fares.scss': '.fares { top: 1px; }\n',
  'src/styles/_ink.scss': '$ink: #004466;\n@mixin pad { padding: 4px; }\n',
  'src/styles/ink.less': '@ink: #224466;\n',
  'src/Fare.vue': component(
    'fare',
    'scss',
    "@use './styles/ink' as *;\n.card .fare { color: $ink; @include pad; }",
  ),
  'src/crew/Crew.vue': component(
    'crew',
    'scss',
    '@import "@/styles/ink";\n.crew { color: $ink; margin: 8px; }',
  ),
  'src/Pier.vue': component('pier', 'less', '@import "~@/styles/ink";\n.pier { color: @ink; }'),
  'src/Lost.vue': component('lost', 'scss', "@import './nowhere';\n.lost { color: $ink; }"),
};

test('blocks are read with the files that they take in, and what stands in the way of a rule is known', async () => {
  const site = makeSite(SITE);
  const explained = (await acervus('explain', 'src/Fare.vue', '.fare', site)).stdout;
  assert.match(explained, /color: #004466 {2}\.card \.fare/);
  assert.match((await acervus('explain', 'src/Pier.vue', '.pier', site)).stdout, /color: #224466/);
  assert.equal((await acervus('draft', site)).code, 0);
  const adopted = JSON.parse((await acervus('adopt', site, '--json')).stdout);
  for (const file of ['src/Fare.vue', 'src/crew/Crew.vue', 'src/Pier.vue'])
    assert.doesNotMatch(read(site, file), /style="/, file);
  assert.match(read(site, 'src/Lost.vue'), /style="/);
  assert.match(JSON.stringify(adopted.kept), /a style block is written in scss[^}]*src\/Lost\.vue/);
});

test('a change of a source that comes up in a block, too, is not made', async () => {
  const block = component('fares', 'scss', "@import './styles/parts/fares';\n.card { left: 0; }");
  const site = makeSite({ ...SITE, 'src/Fare.vue': block });
  const refused = await acervus('restyle', '.fares', 'top: 2px', site);
  assert.equal(refused.code, 2, refused.stdout);
  assert.match(
    refused.stderr,
    /src\/styles\/parts\/_fares\.scss.*a style block of src\/Fare\.vue takes it in, too/,
  );
  assert.equal(read(site, 'src/styles/parts/_fares.scss'), SITE['src/styles/parts/_fares.scss']);
  const free = makeSite(SITE);
  assert.equal((await acervus('restyle', '.fares', 'top: 2px', free)).code, 0);
});

test('what was remembered of a component is read anew once a file that its block takes in has changed', async () => {
  const site = makeSite(SITE);
  const colours = async (): Promise<string> => {
    const { colours: found } = await survey(site, { cache: true, rememberFrom: 0 });
    return JSON.stringify(found);
  };
  assert.match(await colours(), /#004466/);
  assert.match(await colours(), /#004466/);
  addFiles(site, { 'src/styles/_ink.scss': '$ink: #660044;\n@mixin pad { padding: 4px; }\n' });
  assert.doesNotMatch(await colours(), /#004466/);
});

test('what a block says of elements of other components stands in the way of a weaker rule there', async () => {
  const note = 'style="color: teal; letter-spacing: 1px"';
  const files = {
    'src/main.js': "import './line.css';\n",
    'src/line.css': 'body { margin: 0; }\n',
    'src/Fare.vue': `<template>\n  <div><p class="fare" ${note}>a</p><p class="fare" ${note}>b</p></div>\n</template>\n`,
  };
  const free = makeSite(files);
  const held = makeSite({
    ...files,
    'src/Card.vue':
      '<template>\n  <div class="card"><slot /></div>\n</template>\n<style scoped lang="scss">\n.card { :deep(.fare) { color: navy; } }\n</style>\n',
  });
  for (const site of [free, held]) {
    assert.equal((await acervus('draft', site)).code, 0);
    assert.equal((await acervus('adopt', site)).code, 0);
  }
  assert.doesNotMatch(read(free, 'src/Fare.vue'), /style=/);
  // Either the colour stays, or what says it is stronger than `.card[own] .fare`.
  const colour = /([^{}/]+)\{[^{}]*color: teal/.exec(read(held, 'src/line.css'))?.[1]?.trim();
  assert.match(colour ?? 'p.a.b.c', /^[a-z]+(\.[\w-]+){3}$/);
  const told = (await acervus('explain', 'src/Fare.vue', '.fare', free)).stdout;
  assert.doesNotMatch(told, /navy/);
  assert.match((await acervus('explain', 'src/Fare.vue', '.fare', held)).stdout, /color: navy .*when/);
});
