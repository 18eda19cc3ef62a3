// What repeats in sources of SCSS, said once in a mixin: what is compiled stays as it is.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { compileString } from 'sass';
import { adopt, draft, survey } from '../../src/index.js';
import { acervus, addFiles, type Files, makeSite, read, snapshot } from '../support/site.js';

const CARD = '  padding: 4px;\n  color: $ink;\n  border: 1px solid;\n  font-weight: bold;\n';
const card = (name: string, more = ''): string => `.${name}-card {\n${CARD}${more}}\n`;
const MIXIN = `@mixin card {\n${CARD}}\n`;
const PAGE =
  '<!doctype html><title>x</title><link rel="stylesheet" href="css/site.css"><p class="fare-card">x</p>';

/** A house of parts that one source takes in, with what it makes. */
function house(more: Files = {}): string {
  const files = {
    'scss/site.scss': "@import 'ink';\n@import 'fares';\n@import 'crew';\n",
    'scss/_ink.scss': '$ink: #1f3a56;\n',
    'scss/_fares.scss': card('fare', '  margin: 0;\n') + card('late'),
    'scss/_crew.scss': card('crew'),
    'index.html': PAGE,
    ...more,
  };
  const site = makeSite(files);
  addFiles(site, { 'css/site.css': cssOf(site) });
  return site;
}

function cssOf(site: string): string {
  const flat = (text: string): string =>
    text.replace(/@(?:import|use) '(?:\.\/)?(\w+)';\n/g, (_, name: string) =>
      flat(read(site, `scss/_${name}.scss`)),
    );
  return compileString(flat(read(site, 'scss/site.scss'))).css;
}

test('a set that repeats is defined in front of those who ask for it, and nothing else is compiled', async () => {
  const site = house();
  const before = snapshot(site);
  const { mixins } = await draft(site);
  assert.deepEqual(
    mixins.map(({ name, times, into, declarations }) => [name, times, into, declarations]),
    [['card', 3, 'scss/_mixins.scss', CARD.replace(/^ {2}/gm, '')]],
  );
  const css = cssOf(site);
  const adopted = await adopt(site);
  assert.deepEqual(adopted.files, [
    'scss/_crew.scss',
    'scss/_fares.scss',
    'scss/_mixins.scss',
    'scss/site.scss',
  ]);
  assert.equal(read(site, 'scss/_mixins.scss'), MIXIN);
  assert.equal(
    read(site, 'scss/site.scss'),
    "@import 'ink';\n@import 'mixins';\n@import 'fares';\n@import 'crew';\n",
  );
  assert.equal(
    read(site, 'scss/_fares.scss'),
    '.fare-card {\n  @include card;\n  margin: 0;\n}\n.late-card {\n  @include card;\n}\n',
  );
  assert.equal(cssOf(site), css);
  assert.equal((await acervus('undo', site)).code, 0);
  for (const [file, bytes] of before) assert.equal(snapshot(site).get(file), bytes, file);
});

test('nothing is put into a release of others, and where a block takes a source in, that is reckoned with', async () => {
  const banner = '/*!\n * Tidekit\n * https://tidekit.invalid\n * @license MIT\n * v1.1.5\n */\n';
  const release = house({ 'scss/_fares.scss': banner + card('fare') + card('late') + card('night') });
  assert.deepEqual((await draft(release)).mixins, []);
  // Where the mixin is defined, that block would not know of it.
  const block = `<template><p class="fare-card">x</p></template>\n<style scoped lang="scss">\n@import '../scss/ink';\n@import '../scss/fares';\n</style>\n`;
  const { mixins } = await draft(house({ 'src/Fare.vue': block }));
  assert.deepEqual(mixins, []);
});

test('a file of the house for mixins is gone on with', async () => {
  const own = '@mixin wide {\n\twidth: 100%;\n}\n';
  const site = house({
    'scss/site.scss': "@import 'ink';\n@import 'mixins';\n@import 'fares';\n@import 'crew';\n",
    'scss/_mixins.scss': own,
    'scss/_fares.scss': `@import 'mixins';\n${card('fare')}${card('late')}`,
    'scss/_crew.scss': `@import 'mixins';\n${card('crew')}`,
  });
  await draft(site);
  const { files } = await adopt(site);
  assert.deepEqual(files, ['scss/_crew.scss', 'scss/_fares.scss', 'scss/_mixins.scss']);
  assert.equal(read(site, 'scss/_mixins.scss'), `${own}\n${MIXIN.replace(/^ {2}/gm, '\t')}`);
});

test('files of modules ask for it by the name of the module, and only for what means the same everywhere', async () => {
  const plain = card('x').replaceAll('$ink', 'teal').slice(10);
  const site = makeSite({
    'scss/site.scss': `@use 'fares';\n@use 'crew';\n`,
    'scss/_ink.scss': '$ink: teal;\n$line: red;\n$note: 3px;\n',
    'scss/_fares.scss': `@use 'ink';\n.fare-card {\n${plain}.late-card {\n${plain}.due {\n  color: ink.$ink;\n  border-color: ink.$line;\n  margin: ink.$note;\n  padding: ink.$note;\n}\n`,
    'scss/_crew.scss': `@use 'ink';\n.crew-card {\n${plain}.due-crew {\n  color: ink.$ink;\n  border-color: ink.$line;\n  margin: ink.$note;\n  padding: ink.$note;\n}\n`,
    'index.html': PAGE,
  });
  const { mixins } = await draft(site);
  assert.deepEqual(
    mixins.map(({ name }) => name),
    ['card'],
  );
  await adopt(site);
  assert.match(
    read(site, 'scss/_fares.scss'),
    /^@use 'ink';\n@use 'mixins';\n\.fare-card \{\n {2}@include mixins\.card;\n\}/,
  );
});

test('what is decided in the draft holds, and what would be compiled otherwise is left', async () => {
  const site = house();
  await draft(site);
  const text = read(site, 'acervus-draft.yaml');
  addFiles(site, { 'acervus-draft.yaml': text.replace('name: card', 'name: ticket') });
  assert.equal((await draft(site)).mixins[0]?.name, 'ticket');
  addFiles(site, { 'acervus-draft.yaml': text.replace(/(name: card\n\s+take: )yes/, '$1no') });
  assert.equal((await adopt(site)).written, false);
  // In one of them the variable is one of its own.
  const other = house({
    'scss/_crew.scss': card('crew').replace('{', '{\n  $ink: red;'),
    'scss/_fares.scss': card('fare') + card('late'),
  });
  assert.deepEqual((await draft(other)).mixins, []);
});

test('sources that no page links are counted, and stay as they are where a mixin or a loop writes them', async () => {
  const site = makeSite({
    'src/_ink.scss': '$ink: teal;\n',
    'src/fares.scss': `@import 'ink';\n@mixin all {\n${CARD}}\n@each $x in a, b {\n.c-#{$x} {\n${CARD}}\n}\n.d {\n${CARD}}\n.e {\n${CARD}}\n`,
    'Fare.vue': '<template><p>x</p></template>',
  });
  assert.equal((await survey(site)).sources.written, 12);
  assert.deepEqual((await draft(site)).mixins, []);
});

test('sources of a library, and those in another encoding, are read and never written', async () => {
  const banner = '/*!\n * Quay Kit v4.6.0 (https://example.invalid/quay)\n * MIT License\n */\n';
  const library = makeSite({
    'scss/quay/quay.scss': `${banner}$ink: teal;\n@import 'cards';\n`,
    'scss/quay/_cards.scss': card('fare') + card('crew') + card('late'),
    'index.html': PAGE,
  });
  assert.deepEqual((await draft(library)).mixins, []);
  const site = house({
    'scss/_fares.scss': card('fare') + card('late'),
    'scss/_crew.scss': Buffer.from(`/* f\xe4hre */\n${card('crew')}`, 'latin1'),
  });
  assert.deepEqual((await draft(site)).mixins, []);
});
