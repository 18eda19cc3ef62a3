import assert from 'node:assert/strict';
import path from 'node:path';
import { test } from 'node:test';
import type { SiteModel } from '../../src/core/cascade/index.js';
import { lookDifferent, POINTED_AT, scriptRun, withBrowser } from '../support/chromium.js';
import { scriptedSite, site } from '../support/generate.js';
import { adoptAll } from '../support/model.js';
import { Seeds } from '../support/seeds.js';
import { acervus, addFiles, DEMO, demoPart, makeSite } from '../support/site.js';

/** The folders of a site as it was, and adopted. */
function bothStates(files: Record<string, string>, { sources }: SiteModel): readonly [string, string] {
  const after = makeSite(files);
  addFiles(after, Object.fromEntries([...sources.pages, ...sources.sheets]));
  return [makeSite(files), after];
}

const SEEDS = new Seeds('browser/adoption', 3);

test(`${SEEDS.many} random sites look the same in Chromium after everything that the proof passes`, async (context) => {
  await withBrowser(context, async (tab) => {
    let moved = 0;
    let refused = 0;
    for (const seed of SEEDS) {
      const files = site(seed);
      const { after: adopted, styles, kept, edits } = adoptAll(files);
      refused += kept.length;
      if (edits.size === 0) continue;
      const { pages, sheets } = adopted.sources;
      moved += styles.reduce((sum, { members }) => sum + members.length, 0);
      const [before, after] = bothStates(files, adopted);
      for (const page of pages.keys()) {
        const different = await lookDifferent(tab, path.join(before, page), path.join(after, page));
        assert.deepEqual(
          different.slice(0, 5),
          [],
          `${SEEDS.name(seed)}, ${page}\n${files[page]}\n${files['kit.css']}\n${sheets.get('shared.css')}`,
        );
      }
    }
    // The test says nothing if hardly anything was moved.
    assert.ok(!SEEDS.areMany || moved > SEEDS.many, `${moved} moved, ${refused} kept`);
  });
});

const SCRIPTED = new Seeds('browser/adoption', 2, 5000);

test(`${SCRIPTED.many} random sites look the same after their scripts ran, and while a person points at them`, async (context) => {
  await withBrowser(context, async (tab) => {
    let moved = 0;
    for (const seed of SCRIPTED) {
      const files = scriptedSite(seed);
      const { after: adopted, styles, edits } = adoptAll(files);
      if (edits.size === 0) continue;
      const { pages, sheets } = adopted.sources;
      moved += styles.reduce((sum, { members }) => sum + members.length, 0);
      const [before, after] = bothStates(files, adopted);
      for (const page of [...pages.keys()].filter((name) => name.endsWith('.html')))
        for (const [what, state] of [
          ['after its script', scriptRun(files[page]!)],
          ['pointed at', POINTED_AT],
        ] as const) {
          const different = await lookDifferent(tab, path.join(before, page), path.join(after, page), state);
          assert.deepEqual(
            different.slice(0, 5),
            [],
            `${SCRIPTED.name(seed)}, ${page} ${what}\n${files[page]}\n${files['kit.css']}\n${sheets.get('shared.css')}\n${pages.get(page)}`,
          );
        }
    }
    assert.ok(!SCRIPTED.areMany || moved > SCRIPTED.many, `${moved} moved`);
  });
});

test('a part of the demo looks the same in Chromium after adoption, page by page', async (context) => {
  const after = demoPart(makeSite({}), ['index.html', 'timetables']);
  assert.equal((await acervus('draft', after)).code, 0);
  assert.equal((await acervus('adopt', after)).code, 0);
  await withBrowser(context, async (tab) => {
    for (const page of ['index.html', 'timetables/summer.html']) {
      assert.deepEqual(
        (await lookDifferent(tab, path.join(DEMO, page), path.join(after, page))).slice(0, 5),
        [],
        page,
      );
    }
  });
});
