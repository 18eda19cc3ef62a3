// The walk with a system that runs: it ends what it started, and what was pasted is as was planned.

import assert from 'node:assert/strict';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { acervus, makeSite } from '../support/site.js';

test('the demo of a running system walks the whole way, and ends what it started', async () => {
  const folder = path.join(makeSite({}), 'live');
  const { code, stdout, stderr } = await acervus('demo', folder, '--running');
  assert.equal(code, 0, stdout + stderr);
  assert.match(stdout, /beaten on 21 by #1d5f86/);
  assert.match(readFileSync(path.join(folder, 'own/kw-own-css.css'), 'utf8'), /\.kw-table\.kw-table th/);
  assert.equal(existsSync(path.join(folder, 'work-list.html')), true);
  const address = /runs at (\S+)/.exec(stdout)?.[1] ?? '';
  await assert.rejects(fetch(address));
  assert.equal((await acervus('demo', folder, '--running')).code, 2);
});
