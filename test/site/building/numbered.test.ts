// Which sources get numbers for a build, and what becomes of one whose numbers do harm.

import assert from 'node:assert/strict';
import { mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { buildNumbered, type Numbered } from '../../../src/site/building/numbered.js';
import type { BuildEnd } from '../../../src/site/building/run.js';
import { makeSite } from '../../support/site.js';

/** Numbers files; a build fails where a file that holds numbers holds the word `harmed`. */
async function number(files: Readonly<Record<string, string>>): Promise<Numbered & { builds: number }> {
  const root = makeSite(files);
  const work = path.join(root, 'work');
  let builds = 0;
  const fresh = (): void => {
    rmSync(work, { recursive: true, force: true });
    mkdirSync(work);
  };
  const build = async (): Promise<BuildEnd> => {
    builds++;
    const marked = readdirSync(work).map((file) => readFileSync(path.join(work, file), 'utf8'));
    return marked.some((text) => text.includes('harmed')) ? { failed: true, said: 'no' } : { failed: false };
  };
  const sources = { root, files: Object.keys(files), dependencies: [], digest: '' };
  return { ...(await buildNumbered(sources, work, { fresh, build, take: () => undefined })), builds };
}

test('markup is numbered one after the other; what has no tags, is no markup, or is large is not', async () => {
  const { firsts, unmarked } = await number({
    'a.html': '<p>a</p><p>b</p>',
    'b.html': '<p>c</p>',
    'none.html': 'only text',
    'sheet.css': 'p {}',
    'large.html': `<p>${'x'.repeat(1_000_001)}</p>`,
  });
  assert.deepEqual(
    [...firsts],
    [
      ['a.html', 1],
      ['b.html', 3],
    ],
  );
  assert.deepEqual(unmarked, []);
});

test('without markup nothing is built', async () => {
  assert.equal((await number({ 'a.css': 'p {}' })).builds, 0);
});

test('a file whose numbers do harm is found, and goes without', async () => {
  const files = { 'a.html': '<p>a', 'b.html': '<p>harmed', 'c.html': '<p>c', 'd.html': '<p>d' };
  const { firsts, unmarked } = await number(files);
  assert.deepEqual([...firsts.keys()].sort(), ['a.html', 'c.html', 'd.html']);
  assert.deepEqual(unmarked, ['b.html']);
});
