// Completion and the man page, made from the same help.

import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { acervus, htmlPage, makeSite, PROJECT } from '../support/site.js';

const PROGRAM = path.join(PROJECT, 'dist/cli/main.js');

/** What is offered behind these words, typed in that folder. */
async function words(folder: string, ...typed: readonly string[]): Promise<string[]> {
  const before = process.cwd();
  process.chdir(folder);
  try {
    const done = await acervus('shell', 'words', '--', ...typed);
    assert.equal(done.code, 0, done.stderr);
    return done.stdout.split('\n').filter((one) => one !== '');
  } finally {
    process.chdir(before);
  }
}

test('commands, options, pages, classes and folders are completed', async () => {
  const site = makeSite({
    'fares/day.html': htmlPage('<p class="fare calm" id="tide">x</p>'),
    'index.html': htmlPage('<p class="fare">x</p>'),
  });
  assert.deepEqual(await words(site, 're'), ['reach', 'restyle', 'rename']);
  assert.deepEqual(await words(site, 'prove', '--l'), ['--live']);
  assert.deepEqual(await words(site, 'explain', 'f'), ['fares/day.html', 'fares/']);
  assert.deepEqual(await words(site, 'explain', 'index.html', '.'), ['.calm', '.fare']);
  assert.deepEqual(await words(site, 'rename', '.f'), ['.fare']);
  assert.deepEqual(await words(makeSite({}), 'explain', ''), []);
});

test('bash completes by it', () => {
  const site = makeSite({ 'index.html': htmlPage('<p class="fare">x</p>') });
  const script = spawnSync(process.execPath, [PROGRAM, 'shell', 'bash'], { encoding: 'utf8' }).stdout;
  writeFileSync(
    path.join(site, 'complete.sh'),
    `${script}\nacervus() { "${process.execPath}" "${PROGRAM}" "$@"; }\nCOMP_WORDS=(acervus explain index.html .f); COMP_CWORD=3; _acervus; printf '%s\\n' "\${COMPREPLY[@]}"\n`,
  );
  const done = spawnSync('bash', ['complete.sh'], { cwd: site, encoding: 'utf8' });
  assert.equal(done.stdout, '.fare\n', done.stderr);
});

test('the man page holds every command with its options; help is in the order of work', async () => {
  const { stdout: man } = await acervus('shell', 'man');
  const { stdout: help } = await acervus('--help');
  const commands = [...help.matchAll(/^ {2}([a-z]+) (?:\[|<)/gm)]
    .map(([, name]) => name!)
    .filter((name) => name !== 'help');
  assert.ok(commands.length >= 15, help);
  for (const name of commands) assert.match(man, new RegExp(`^\\.SS acervus ${name}\\b`, 'm'));
  assert.match(man, /\.B \\-\\-against <folder\|commit>/);
  assert.ok(help.indexOf('To clean a site:') < help.indexOf('To ask:'));
  assert.ok(help.indexOf('survey') < help.indexOf('adopt'));
  for (const shell of ['bash', 'zsh', 'fish'])
    assert.match((await acervus('shell', shell)).stdout, /shell words --/);
  const wrong = await acervus('shell', 'tcsh');
  assert.equal(wrong.code, 2);
});
