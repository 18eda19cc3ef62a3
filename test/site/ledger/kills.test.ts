// A process that is killed at any file operation leaves a site that one command puts right, and nothing lying about.
// ACERVUS_TESTS=all tries every operation of every command that writes (two minutes); without it some of those
// whose ways of writing differ.

import assert from 'node:assert/strict';
import { cpSync, existsSync, utimesSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { ALL } from '../../support/seeds.js';
import { acervus, acervusProcess, htmlPage, makeSite, PROJECT, snapshot } from '../../support/site.js';

const HOOK = path.join(PROJECT, 'test', 'support', 'kill-at.mjs');
const page = htmlPage(
  '<p class="k" style="color: red; top: 0">a<p class="k" style="color: red; top: 0">b<b>c</b>',
  '<link rel="stylesheet" href="theme/a.css">',
);
const CSS = '.k { margin: 0 } .k b { margin: 1px }';

/** Files that are not ours alone: what a person would miss. */
function shown(folder: string): Map<string, string> {
  return new Map([...snapshot(folder)].filter(([file]) => !file.startsWith('.acervus')));
}

function strays(folder: string): string[] {
  return [...snapshot(folder).keys()].filter((file) => /\.\d{5,}$|lock/.test(file));
}

interface Case {
  readonly command: readonly string[];
  readonly before: readonly (readonly string[])[];
  readonly always: boolean;
}

const CASES: readonly Case[] = [
  { command: ['adopt'], before: [['draft']], always: true },
  { command: ['undo'], before: [['draft'], ['adopt']], always: true },
  { command: ['restyle', '.k', 'margin: 4px'], before: [], always: false },
  { command: ['rename', '.k', '.kelp'], before: [], always: false },
  { command: ['override', '.k', 'margin: 7px'], before: [], always: false },
  { command: ['draft'], before: [], always: false },
];

for (const { command, before, always } of CASES) {
  if (!always && !ALL) continue;
  test(`${command[0]}, killed at each file operation, is all or nothing`, async () => {
    const ready = makeSite({ 'index.html': page, 'b.html': page, 'theme/a.css': CSS });
    for (const [name, ...words] of before) assert.equal((await acervus(name!, ...words, ready)).code, 0);
    const old = shown(ready);
    let done = false;
    for (let at = 1; !done; at += ALL ? 1 : 55) {
      const folder = makeSite({});
      cpSync(ready, folder, { recursive: true });
      const run = acervusProcess([...command, folder], {
        NODE_OPTIONS: `--import=${HOOK}`,
        KILL_AT: String(at),
        KILL_IN: folder,
      });
      done = run.code !== null;
      assert.ok(at < 200);
      if (done) {
        assert.equal(run.code, 0, run.stderr);
        break;
      }
      await putRight(folder, command[0]!, old, at);
    }
  });
}

/** Whatever was cut short, undo ends it: the files are those of before, or those of after. */
async function putRight(
  folder: string,
  command: string,
  old: ReadonlyMap<string, string>,
  at: number,
): Promise<void> {
  const lock = path.join(folder, '.acervus', 'lock');
  // A moment later: who has just taken the lock may still be about to say so.
  if (existsSync(lock)) utimesSync(lock, 0, 0);
  const next = await acervus('restyle', '.k', 'margin: 0', folder);
  assert.ok(next.code !== null && next.code <= 2, next.stderr);
  if (next.code === 2) assert.match(next.stderr, /was cut short/);
  for (let more = true; more; ) {
    const undone = await acervus('undo', folder, '--json');
    assert.equal(undone.code, 0, `${command} at ${at}: ${undone.stderr}`);
    more = JSON.parse(undone.stdout).undone && command !== 'undo';
  }
  const now = shown(folder);
  if (command === 'undo') {
    // The undo may have been done, or not begun: the one that follows it ends where there is nothing to undo.
    await acervus('undo', folder);
    assert.deepEqual(shown(folder).get('index.html'), Buffer.from(page).toString('base64'), `at ${at}`);
  } else if (command === 'draft') assert.deepEqual(now.get('index.html'), old.get('index.html'));
  else assert.deepEqual(now, old, `${command} at ${at}`);
  assert.deepEqual(strays(folder), [], `${command} at ${at}`);
}
