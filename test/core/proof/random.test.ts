import assert from 'node:assert/strict';
import { test } from 'node:test';
import { applyEdits, reverseEdits } from '../../../src/core/edits/index.js';
import { parsePage } from '../../../src/core/markup/index.js';
import { inlineCarriers } from '../../../src/core/stock/index.js';
import { site } from '../../support/generate.js';
import { adoptAll, modelOf, scriptsOf } from '../../support/model.js';

const SEEDS = Array.from({ length: 80 }, (_, i) => 300 + i);

test('on random sites every plan is proven, its edits go back, and nothing else of a page changes', () => {
  let moves = 0;
  for (const seed of SEEDS) {
    const files = site(seed);
    const { plan, proof, moves: made } = adoptAll(files);
    moves += made.length;
    assert.deepEqual(proof.differences, []);
    for (const [path, edits] of plan.edits) {
      const before = files[path] ?? '';
      const after = applyEdits(before, edits);
      assert.equal(applyEdits(after, reverseEdits(before, edits)), before, `seed ${seed}, ${path}`);
      if (!path.endsWith('.html')) continue;
      const bare = (text: string): string =>
        text
          .replace(/ (class|style)="[^"]*"/g, '')
          .replace(/\n?<link rel="stylesheet" href="shared.css">/, '');
      assert.equal(bare(after), bare(before), `seed ${seed}, ${path}`);
      assert.deepEqual(parsePage(path, after).defects, []);
    }
  }
  assert.ok(moves > SEEDS.length / 2);
});

test('every inline declaration is moved or kept with a reason, and none is in both', () => {
  for (const seed of SEEDS) {
    const files = site(seed);
    const { moves, plan } = adoptAll(files);
    const count = (texts: Record<string, string>): number =>
      inlineCarriers(modelOf(texts), scriptsOf(texts)).reduce(
        (sum, { declarations }) => sum + declarations.length,
        0,
      );
    const moved = moves.reduce(
      (sum, { members }) =>
        sum +
        members.reduce(
          (own, { units }) => own + units.reduce((some, { declarations }) => some + declarations.length, 0),
          0,
        ),
      0,
    );
    assert.equal(
      count({ ...files, ...Object.fromEntries(plan.after.pages) }),
      count(files) - moved,
      `seed ${seed}`,
    );
  }
});

test('where everything that repeats was moved, a second run is idle', () => {
  let whole = 0;
  for (const seed of SEEDS) {
    const files = site(seed);
    const first = adoptAll(files);
    const idle = new Set(['written once', 'left over', 'not understood']);
    if (first.moves.length === 0 || first.kept.some(({ reason }) => !idle.has(reason.kind))) continue;
    whole++;
    const after = {
      ...files,
      ...Object.fromEntries([...first.plan.after.pages, ...first.plan.after.sheets]),
    };
    assert.deepEqual(
      adoptAll(after).moves.map(({ name }) => name),
      [],
      `seed ${seed}`,
    );
  }
  assert.ok(whole > 5, `${whole} sites were moved whole`);
});

test('the same site gives the same plan, byte for byte', () => {
  for (const seed of SEEDS.slice(0, 15)) {
    const [one, two] = [adoptAll(site(seed)), adoptAll(site(seed))];
    assert.deepEqual([...one.plan.after.pages], [...two.plan.after.pages]);
    assert.deepEqual([...one.plan.after.sheets], [...two.plan.after.sheets]);
  }
});
