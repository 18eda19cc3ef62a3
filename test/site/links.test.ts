// Links inside a site, loops of them, hard links, and what stands in place of a file.

import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { cpSync, linkSync, readdirSync, symlinkSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { acervus, acervusProcess, addFiles, htmlPage, makeSite, read } from '../support/site.js';

const LINK = '<link rel="stylesheet" href="../css/a.css">';
const PAGE = htmlPage(
  '<p class="k" style="color: red; top: 0">a<p class="k" style="color: red; top: 0">b<b>c</b>',
  LINK,
);
const CSS = '.k { margin: 0 }\n.l { margin: 1px; padding: 1px }\n.m { margin: 1px; padding: 1px }\n';
const build = (): string => makeSite({ 'v2/index.html': PAGE, 'css/a.css': CSS });

async function adopt(folder: string): Promise<string> {
  assert.equal((await acervus('draft', folder)).code, 0);
  const run = await acervus('adopt', folder);
  assert.equal(run.code, 0, run.stderr);
  return run.stderr;
}

test('one file under two names is read once, and loops end', async () => {
  const folder = build();
  symlinkSync('v2', path.join(folder, 'latest'));
  symlinkSync('.', path.join(folder, 'v2', 'loop'));
  const { stdout } = await acervus('survey', folder, '--json');
  assert.equal(JSON.parse(stdout).pages, 1);
  await adopt(folder);
  assert.doesNotMatch(read(folder, 'v2/index.html'), /style=/);
});

test('a page whose other name makes its addresses mean something else is left out', async () => {
  const folder = build();
  addFiles(folder, { 'more/index.html': PAGE, 'deep/er/x.txt': '' });
  symlinkSync('../../v2/index.html', path.join(folder, 'deep', 'er', 'same.html'));
  assert.match(await adopt(folder), /left out: v2\/index\.html is there under two names/);
  assert.equal(read(folder, 'v2/index.html'), PAGE);
});

test('a sheet that a link leads to is not written', async () => {
  const folder = build();
  symlinkSync('css/a.css', path.join(folder, 'other.css'));
  await adopt(folder);
  assert.equal(read(folder, 'css/a.css'), CSS);
});

test('a hard link is told of; a pipe in place of a file is one line', async () => {
  const folder = build();
  const kept = path.join(makeSite({}), 'kept.html');
  linkSync(path.join(folder, 'v2/index.html'), kept);
  await acervus('draft', folder);
  const { stderr } = await acervus('adopt', folder);
  assert.match(stderr, /v2\/index\.html: had other names \(hard links\)/);
  assert.equal(read(path.dirname(kept), 'kept.html'), PAGE);
  const piped = build();
  execFileSync('mkfifo', [path.join(piped, 'acervus-draft.yaml')]);
  for (const command of ['draft', 'adopt']) {
    const run = acervusProcess([command, piped]);
    assert.equal(run.code, 2);
    assert.match(run.stderr, /^acervus: acervus-draft\.yaml: is no plain file; [^\n]+\n$/);
  }
});

test('a plan that says something else than the draft is proven, and not carried out', async () => {
  const folder = build();
  await acervus('draft', folder);
  const plan = JSON.parse(read(folder, '.acervus/plan.json'));
  const edits = plan.files.find((file: { path: string }) => file.path === 'v2/index.html').edits;
  edits.push({ start: PAGE.indexOf('<body>') + 6, end: PAGE.indexOf('<body>') + 6, text: '<i>bought</i>' });
  addFiles(folder, { '.acervus/plan.json': JSON.stringify(plan) });
  assert.equal((await acervus('adopt', folder)).code, 0);
  assert.doesNotMatch(read(folder, 'v2/index.html'), /bought|style=/);
});

test('an undo that fails on the way changes nothing; two processes do not write at once', async () => {
  const folder = build();
  await adopt(folder);
  const after = makeSite({});
  cpSync(folder, after, { recursive: true });
  const name = readdirSync(path.join(folder, '.acervus', 'ledger'))[0]!;
  const record = JSON.parse(read(folder, `.acervus/ledger/${name}`));
  record.files.at(-1).back = [];
  writeFileSync(path.join(folder, '.acervus', 'ledger', name), JSON.stringify(record));
  assert.equal((await acervus('undo', folder)).code, 2);
  assert.equal(read(folder, 'v2/index.html'), read(after, 'v2/index.html'));
  addFiles(after, { '.acervus/lock-holder': `${process.pid} elsewhere`, '.acervus/lock/x': '' });
  const busy = await acervus('undo', after);
  assert.equal(busy.code, 2);
  assert.match(busy.stderr, /another process is changing this site/);
});

test('letters of two encodings in one page: it is left out', async () => {
  const mixed = Buffer.concat([
    Buffer.from('<title>é</title><p title="'),
    Buffer.from([0xe9]),
    Buffer.from('">x'),
  ]);
  const folder = makeSite({ 'a.html': PAGE, 'b.html': mixed });
  assert.match((await acervus('survey', folder)).stderr, /left out: b\.html mixes two encodings/);
});
