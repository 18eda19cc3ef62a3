import assert from 'node:assert/strict';
import { test } from 'node:test';
import { getOrInsert } from '../../../src/core/base/get-or-insert.js';
import { applyEdits, reverseEdits } from '../../../src/core/edit/text/index.js';
import { prove } from '../../../src/core/proof/index.js';
import { parsePage } from '../../../src/core/read/markup/index.js';
import { styledTagsOf } from '../../../src/core/stock/index.js';
import { site } from '../../support/generate.js';
import { adoptAll, homesOf, scriptsOf } from '../../support/model.js';
import { Seeds } from '../../support/seeds.js';

const SEEDS = new Seeds('core/proof/random', 30, 300);
const adopted = new Map<number, ReturnType<typeof adoptAll>>();
/** A random site with all of it adopted, once for every test. */
const adoptSeed = (seed: number): ReturnType<typeof adoptAll> =>
  getOrInsert(adopted, seed, () => adoptAll(site(seed)));

test('on random sites every plan is proven, its edits go back, and what else a page holds stays', () => {
  let moves = 0;
  for (const seed of SEEDS) {
    const files = site(seed);
    const { before, after, edits, styles } = adoptSeed(seed);
    moves += styles.length;
    assert.deepEqual(prove(before, after).differences, [], `${SEEDS.name(seed)}`);
    for (const [path, own] of edits) {
      const was = files[path] ?? '';
      const is = applyEdits(was, own);
      assert.equal(is, after.sources.pages.get(path) ?? after.sources.sheets.get(path));
      assert.equal(applyEdits(is, reverseEdits(was, own)), was, `${SEEDS.name(seed)}, ${path}`);
      if (path.endsWith('.html')) assert.deepEqual(parsePage(path, is).defects, []);
    }
  }
  assert.ok(!SEEDS.areMany || moves > SEEDS.many / 2);
});

test('every unit is taken or kept with a reason, and none is both', () => {
  for (const seed of SEEDS) {
    const { before, styles, kept, ruleMoves } = adoptSeed(seed);
    // Sheets are consolidated first: the tags stay the same, and so do their numbers.
    const all = styledTagsOf(before, scriptsOf(site(seed)), { pictureSizes: 'keep' });
    const count = all.reduce((sum, { movables }) => sum + movables.length, 0);
    const taken = styles.flatMap(({ members }) => members.flatMap(({ movables }) => movables)).length;
    assert.equal(taken + kept.length, count, `${SEEDS.name(seed)}, ${ruleMoves.length} sheet moves`);
  }
});

test('where nothing was refused, a second run is idle', () => {
  let whole = 0;
  for (const seed of SEEDS) {
    const files = site(seed);
    const first = adoptSeed(seed);
    const idle = new Set([
      'written once',
      'left over',
      'not understood',
      'unfitting value',
      'reserves space',
      'no exact CSS',
    ]);
    if (first.styles.length === 0 || first.kept.some(({ reason }) => !idle.has(reason.kind))) continue;
    whole++;
    const { pages, sheets } = first.after.sources;
    const again = adoptAll({ ...files, ...Object.fromEntries([...pages, ...sheets]) });
    assert.deepEqual(homesOf(again), [], `${SEEDS.name(seed)}`);
    assert.deepEqual([...again.edits.keys()], [], `${SEEDS.name(seed)}`);
  }
  assert.ok(!SEEDS.areMany || whole > 5, `${whole} sites were moved whole`);
});

test('the same site gives the same plan, byte for byte', () => {
  for (const seed of [...SEEDS].slice(0, 15)) {
    const [one, two] = [adoptSeed(seed), adoptAll(site(seed))];
    assert.deepEqual([...one.after.sources.pages], [...two.after.sources.pages]);
    assert.deepEqual([...one.after.sources.sheets], [...two.after.sources.sheets]);
  }
});
