// A style that is written out, beside one that code comes to: what is written out finds a home, and the rest stays.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { acervus, makeSite, read } from '../support/site.js';

const NOTE = 'style="padding: 4px; letter-spacing: 1px"';
const MAIN = { 'src/main.js': "import './line.css';\n", 'src/line.css': 'body { margin: 0; }\n' };

async function adopted(files: Record<string, string>): Promise<string> {
  const site = makeSite({ ...MAIN, ...files });
  assert.equal((await acervus('draft', site)).code, 0);
  const run = await acervus('adopt', site);
  assert.equal(run.code, 0, run.stderr);
  return site;
}

const vue = (tags: string): string => `<template>\n  <div>\n    ${tags}\n  </div>\n</template>\n`;

test('in Vue: what v-show and an object decide stays, before an attribute or behind it', async () => {
  const site = await adopted({
    'src/A.vue': vue(`<p v-show="open" ${NOTE}>a</p><p ${NOTE} :style="{ left: at, top: '0' }">b</p>`),
    'src/B.vue': vue(`<p :style="{ left: at }" ${NOTE}>a</p><p ${NOTE}>b</p>`),
  });
  const [a, b] = [read(site, 'src/A.vue'), read(site, 'src/B.vue')];
  assert.doesNotMatch(a + b, /padding|letter-spacing/);
  assert.match(a, /<p (class="[\w-]+" )?v-show="open"( class="[\w-]+")?>a<\/p>/);
  assert.match(a, / :style="\{ left: at, top: '0' \}">b<\/p>/);
  assert.match(b, /<p :style="\{ left: at \}"( class="[\w-]+")?>a<\/p>/);
});

test('in Svelte: a directive for one property stays', async () => {
  const site = await adopted({
    'src/A.svelte': `<div><p ${NOTE} style:left={at}>a</p><p ${NOTE}>b</p></div>\n`,
    'src/B.svelte': `<div><p ${NOTE}>a</p></div>\n`,
  });
  assert.match(read(site, 'src/A.svelte'), /<p( class="[\w-]+")? style:left=\{at\}>a<\/p>/);
});

test('of an attribute that code has a say in, the rest is moved', async () => {
  const site = await adopted({
    'src/A.vue': vue(
      `<p style="font: 12px/2 serif; letter-spacing: 1px; margin: 1px" :style="{ lineHeight: at }">a</p>`,
    ),
    'src/B.vue': vue('<p style="letter-spacing: 1px; margin: 1px">b</p>'.repeat(2)),
  });
  assert.match(
    read(site, 'src/A.vue'),
    /<p (class="[\w-]+" )?style="font: 12px\/2 serif"( class="[\w-]+")? :style="\{ lineHeight: at \}">/,
  );
});

for (const [why, tag] of [
  ['both speak of the same', `<p style="padding: 4px" :style="{ paddingLeft: at }">a</p>`],
  ['nobody knows of what the code speaks', `<p ${NOTE} :style="look">a</p>`],
  ['what is shown says how', '<p v-show="open" style="display: flex">a</p>'],
] as const)
  test(`a style stays as it is where ${why}`, async () => {
    const site = await adopted({
      'src/A.vue': vue(tag),
      'src/B.vue': vue(`<p ${NOTE}>b</p><p ${NOTE}>c</p>`),
    });
    assert.ok(read(site, 'src/A.vue').includes(tag), read(site, 'src/A.vue'));
    assert.doesNotMatch(read(site, 'src/B.vue'), /style=/);
  });

test('a class is not taken that says what code leaves open', async () => {
  const site = makeSite({
    ...MAIN,
    'src/line.css': '.boxed { padding: 4px; display: flex; }\n',
    'src/A.vue': vue(`<p v-show="open" style="padding: 4px">a</p><p style="padding: 4px">b</p>`),
  });
  await acervus('draft', site);
  await acervus('adopt', site);
  assert.doesNotMatch(read(site, 'src/A.vue'), /boxed/);
});
