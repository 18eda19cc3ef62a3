// Small sites with the answer that a colleague would pass in review: what is written, byte for byte, and that it is cheaper.

import assert from 'node:assert/strict';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { acervusOn, makeSite, PROJECT } from '../support/site.js';

const CASES = path.join(PROJECT, 'test', 'cases');

/** Every file of a folder by its path, but for what the program keeps for itself. */
function filesIn(folder: string): Record<string, string> {
  const found: Record<string, string> = {};
  for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
    const file = path.join(entry.parentPath, entry.name);
    const name = path.relative(folder, file).replaceAll('\\', '/');
    if (!entry.isFile() || name.startsWith('.acervus/') || name === 'acervus-draft.yaml') continue;
    found[name] = readFileSync(file, 'utf8');
  }
  return found;
}

/** As a site is searched that is read at once, and as a large one is: the same comes out. */
for (const [how, environment] of [
  ['', {}],
  [' by excerpts', { ACERVUS_LARGE_FROM: '0' }],
] as const)
  for (const name of readdirSync(CASES).sort()) {
    test(`case ${name.replaceAll('-', ' ')}${how}`, async () => {
      const run = (...args: string[]) => acervusOn({ environment }, args);
      const folder = path.join(CASES, name);
      const site = makeSite(filesIn(path.join(folder, 'before')));
      const options = path.join(folder, 'options');
      const typed = existsSync(options) ? readFileSync(options, 'utf8').trim().split(' ') : [];
      const draft = await run('draft', site, '--json', ...typed);
      assert.equal(draft.code, 0, draft.stderr);
      const adopted = await run('adopt', site, '--json');
      assert.equal(adopted.code, 0, adopted.stderr);
      const { held, upkeep } = JSON.parse(adopted.stdout);
      assert.ok(
        upkeep.after <= upkeep.now || typed.includes('1') || existsSync(path.join(site, 'acervus.json')),
      );
      assert.equal(held.tags.after + held.blocks.after + held.sheets.after, upkeep.after);
      assert.deepEqual(filesIn(site), filesIn(path.join(folder, 'after')));
      // Nothing is left to find.
      const again = JSON.parse((await run('draft', site, '--json', ...typed)).stdout);
      assert.deepEqual(again.upkeep.after, again.upkeep.now, JSON.stringify(again.styles));
    });
  }
