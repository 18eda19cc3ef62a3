// Nothing outside the site is written: links, records that were tampered with, repositories that would run programs.

import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { insideSite } from '../../src/site/files/inside.js';
import { acervus, addFiles, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const page = htmlPage('<p style="color: red; top: 0">a</p>\n<p style="color: red; top: 0">b</p>');

test('a link that leads out of the site is refused, one to nothing too, and nothing out there is touched', async () => {
  for (const name of ['acervus-draft.yaml', '.acervus']) {
    const outside = makeSite({ 'kept.txt': 'mine', 'folder/kept.txt': 'mine' });
    const site = makeSite({ 'index.html': page });
    symlinkSync(path.join(outside, name === '.acervus' ? 'folder' : 'kept.txt'), path.join(site, name));
    const before = snapshot(outside);
    for (const command of ['draft', 'adopt', 'undo']) {
      const run = await acervus(command, site);
      if (command === 'draft') assert.equal(run.code, 2, `${name}: ${run.stdout}`);
      assert.match(run.code === 2 ? run.stderr : 'acervus: \n', /^acervus: [^\n]*\n$/);
    }
    assert.deepEqual(snapshot(outside), before, name);
  }
  const site = makeSite({ 'index.html': page });
  const nowhere = path.join(makeSite({}), 'nothing-yet');
  symlinkSync(nowhere, path.join(site, 'acervus-draft.yaml'));
  assert.equal((await acervus('draft', site)).code, 2);
  assert.equal(existsSync(nowhere), false);
});

test('a link inside the site is its file', () => {
  const site = makeSite({ 'theme/a.css': 'p {}' });
  symlinkSync('theme', path.join(site, 'old'));
  assert.equal(insideSite(site, 'old/a.css'), path.join(site, 'old', 'a.css'));
  assert.equal(insideSite(site, 'new/deep/a.css'), path.join(site, 'new', 'deep', 'a.css'));
  assert.throws(() => insideSite(site, '../a.css'), /leads out of the site/);
});

test('a record or a plan that names what no change may touch is none', async () => {
  for (const bad of [
    '../out.css',
    '.git/config',
    'a/../../b',
    '/etc/x',
    'theme//a.css',
    './a.css',
    'a\\b',
    'vendor/kit.css',
  ]) {
    const site = makeSite({ 'index.html': page });
    await acervus('draft', site);
    await acervus('adopt', site);
    const record = path.join(site, '.acervus', 'ledger', '0001.json');
    const text = readFileSync(record, 'utf8');
    writeFileSync(record, text.replace('"index.html"', JSON.stringify(bad)));
    const before = snapshot(site);
    const run = await acervus('undo', site);
    assert.equal(run.code, 2, bad);
    assert.match(run.stderr, /is not a record of Acervus/);
    writeFileSync(record, text.replace('"folders": []', `"folders": [${JSON.stringify(bad)}]`));
    if (bad !== 'vendor/kit.css') assert.equal((await acervus('undo', site)).code, 2, bad);
    writeFileSync(record, text);
    assert.equal((await acervus('undo', site)).code, 0);
    assert.equal(before.size > 0, true);
  }
});

test('a shared sheet is a plain path of the theme: not hidden, not twice spelled, not the platform’s', async () => {
  const link = '<link rel="stylesheet" href="platform/kit.css">';
  for (const shared of [
    '.git/a.css',
    '.acervus/a.css',
    './platform/kit.css',
    'platform//kit.css',
    'a/../platform/kit.css',
    'platform/kit.css',
  ]) {
    const site = makeSite({
      'index.html': page.replace('</head>', `${link}</head>`),
      'platform/kit.css': 'p { margin: 0 }',
      'acervus.json': JSON.stringify({ shared, platform: ['platform'] }),
    });
    const run = await acervus('draft', site);
    assert.equal(run.code, 2, shared);
    assert.match(run.stderr, /^acervus: [^\n]+\n$/);
    assert.equal(existsSync(path.join(site, 'acervus-draft.yaml')), false, shared);
  }
});

test('a repository’s own settings run nothing when a commit is read', async () => {
  const site = makeSite({ 'index.html': page });
  const trace = path.join(makeSite({}), 'ran');
  const git = (...args: string[]): void =>
    void execFileSync('git', ['-c', 'user.name=Ragna', '-c', 'user.email=ragna@skerrin.invalid', ...args], {
      cwd: site,
    });
  git('init', '-q');
  git('add', '.');
  git('commit', '-qm', 'one');
  git('config', 'core.fsmonitor', `touch ${trace}`);
  git('config', 'core.sshCommand', `touch ${trace}`);
  git('config', 'remote.origin.url', 'ssh://nobody.invalid/x');
  git('config', 'remote.origin.promisor', 'true');
  git('config', 'extensions.partialClone', 'origin');
  const object = execFileSync('git', ['rev-parse', 'HEAD:index.html'], {
    cwd: site,
    encoding: 'utf8',
  }).trim();
  execFileSync('rm', ['-f', path.join(site, '.git', 'objects', object.slice(0, 2), object.slice(2))]);
  const run = await acervus('prove', site, '--against', 'HEAD');
  assert.equal(run.code, 2, run.stdout);
  assert.match(run.stderr, /^acervus: index\.html: is not there at HEAD[^\n]*\n$/);
  assert.equal(existsSync(trace), false);
});

test('the demo takes nothing away that it did not bring', async () => {
  const folder = path.join(makeSite({}), 'line');
  mkdirSync(`${folder}.before`);
  addFiles(`${folder}.before`, { 'mine.txt': 'mine' });
  assert.equal((await acervus('demo', folder)).code, 2);
  assert.equal(read(`${folder}.before`, 'mine.txt'), 'mine');
});

test('what a terminal would obey is shown as text, in a document as an escape', async () => {
  const site = makeSite({
    'index.html': htmlPage('<p style="colour\u009b31m: red">x</p>'),
    'a\u202eb.css': '',
  });
  const { stdout } = await acervus('survey', site, '--json');
  assert.doesNotMatch(stdout, /[\u007f-\u009f\u202a-\u202e]/);
  assert.match(JSON.stringify(JSON.parse(stdout)), /\u009b/);
  const wrong = await acervus('reach', 'a\u009b\u001b[31m{', site);
  assert.doesNotMatch(wrong.stdout + wrong.stderr, /[\u001b\u0080-\u009f]/);
});
