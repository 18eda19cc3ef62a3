// Small sites on which a change that was asked for could go wrong: each beside what a person would have written by hand, as
// Chromium sees both; and taken back byte for byte.

import assert from 'node:assert/strict';
import path from 'node:path';
import { test } from 'node:test';
import type { Page as Tab } from 'playwright-core';
import { AT_REST, lookDifferent, POINTED_AT, VIEWS, withBrowser } from '../support/chromium.js';
import { ALL } from '../support/seeds.js';
import { acervus, addFiles, makeSite, type Run, snapshot } from '../support/site.js';
import { CASES, type IntendedCase } from './intended/index.js';

/** Out: what the last of the commands said. */
async function runAll(site: string, runs: IntendedCase['runs']): Promise<Run> {
  let last: Run = { code: 0, stdout: '', stderr: '' };
  for (const [at, [command = '', ...words]] of runs.entries()) {
    last = await acervus(command, ...words, '--json', site);
    assert.ok(last.code === 0 || at === runs.length - 1, last.stdout + last.stderr);
  }
  return last;
}

async function checkCase(tab: Tab, { runs, files, becomes, says }: IntendedCase): Promise<void> {
  const site = makeSite(files);
  const before = snapshot(site);
  const last = await runAll(site, runs);
  const told = last.stdout + last.stderr;
  if (says !== undefined) assert.match(told, says);
  if (becomes === 'refused') {
    assert.notEqual(last.code, 0, told);
    if (runs.length === 1) assert.deepEqual(snapshot(site), before, told);
    return;
  }
  // What is left to a person makes `outlast` exit with 1.
  assert.ok(last.code === 0 || runs[0]?.[0] === 'outlast', told);
  const wanted = makeSite(files);
  addFiles(wanted, becomes);
  for (const page of Object.keys(files).filter((file) => file.endsWith('.html')))
    for (const [state, views] of [
      [AT_REST, VIEWS],
      [POINTED_AT, VIEWS.slice(0, 1)],
    ] as const) {
      const [one, other] = [path.join(wanted, page), path.join(site, page)];
      const different = await lookDifferent(tab, one, other, state, state, views);
      assert.deepEqual(different.slice(0, 2), [], `${page} ${told}`);
    }
  for (const _ of runs) await acervus('undo', site);
  assert.deepEqual(snapshot(site), before);
}

test('what was asked for is as it would be by hand, and is taken back byte for byte', async (context) => {
  await withBrowser(context, async (tab) => {
    // Every seventh one: all of them with ACERVUS_TESTS=all.
    for (const [at, one] of CASES.entries())
      if (ALL || at % 7 === 0) await context.test(one.name, () => checkCase(tab, one));
  });
});
