// What renaming, families and mended overrides leave as it was, as Chromium sees it.

import assert from 'node:assert/strict';
import { cpSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { rename } from '../../src/core/change/rename/index.js';
import { applyEdits } from '../../src/core/edits/index.js';
import { lookDifferent, withBrowser } from '../support/chromium.js';
import { site } from '../support/generate.js';
import { modelOf } from '../support/model.js';
import { Seeds } from '../support/seeds.js';
import { acervus, addFiles, DEMO, makeSite } from '../support/site.js';

const SEEDS = new Seeds('browser/everyday', 8, 900);

test(`${SEEDS.many} random sites look the same after a class was renamed, or merged with another`, async (context) => {
  await withBrowser(context, async (tab) => {
    let renamed = 0;
    for (const seed of SEEDS) {
      const files = site(seed);
      const model = modelOf(files);
      const merge = seed % 3 === 0;
      const { edits, differences, counts } = rename({
        model,
        themes: ['kit.css', 'more.css'].filter((file) => model.sources.sheets.has(file)),
        scripts: new Map(),
        isLibrary: () => false,
        others: new Map(),
        from: 'a',
        to: merge ? 'c' : 'tide',
        merge,
        unsure: false,
      });
      if (differences.length > 0 || edits.size === 0) continue;
      renamed += counts.markup;
      const [before, after] = [makeSite(files), makeSite(files)];
      addFiles(
        after,
        Object.fromEntries([...edits].map(([file, own]) => [file, applyEdits(files[file] ?? '', own)])),
      );
      for (const page of model.paths) {
        const different = await lookDifferent(tab, path.join(before, page), path.join(after, page));
        assert.deepEqual(
          different.slice(0, 3),
          [],
          `${SEEDS.name(seed)}, ${page}\n${files[page]}\n${files['kit.css']}`,
        );
      }
    }
    assert.ok(!SEEDS.areMany || renamed > SEEDS.many, `${renamed} renamed`);
  });
});

test('the demo looks the same after its families were found, a class renamed, and its overrides mended', async (context) => {
  const before = makeSite({});
  cpSync(DEMO, before, { recursive: true });
  for (const args of [
    ['.kw-badge', 'padding: 2px 10px'],
    ['.kw-table th', 'border-color: #1f3a56'],
  ])
    assert.equal((await acervus('override', ...args, before)).code, 0);
  const after = makeSite({});
  cpSync(before, after, { recursive: true });
  assert.equal((await acervus('family', '--find', after)).code, 0);
  assert.equal((await acervus('rename', '.btn-book', '.book-now', after)).code, 0);
  await acervus('outlast', after, '--platform', 'platform/3.1=platform/4.0', '--mend');
  await withBrowser(context, async (tab) => {
    for (const page of ['crossings/index.html', 'harbours/north/tarbek.html', 'fares/index.html'])
      assert.deepEqual(
        (await lookDifferent(tab, path.join(before, page), path.join(after, page))).slice(0, 5),
        [],
        page,
      );
    // And what was overridden does look different from the demo.
    assert.notDeepEqual(
      await lookDifferent(tab, path.join(DEMO, 'fares/index.html'), path.join(after, 'fares/index.html')),
      [],
    );
  });
});
