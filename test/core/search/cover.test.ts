import assert from 'node:assert/strict';
import { test } from 'node:test';
import { costOf, TASTES } from '../../../src/core/search/cost.js';
import { coverRows } from '../../../src/core/search/cover.js';
import { Random } from '../../support/generate.js';
import { leastCost, onePerSet, randomRows } from '../../support/optimum.js';
import { Seeds } from '../../support/seeds.js';

const one = (): number => 1;

test('rows that are alike but for one declaration share what they have in common', () => {
  const rows = [
    { keys: ['left', 'top'], count: 10 },
    { keys: ['left', 'top', 'wide'], count: 10 },
  ];
  const { styles, worn } = coverRows(rows, TASTES['small pieces'], one, 2);
  assert.deepEqual(styles.map((keys) => keys.join()).sort(), ['left,top', 'wide']);
  assert.deepEqual(
    worn.map((own) => own.length),
    [1, 2],
  );
});

test('whole looks wear one class each, small pieces many', () => {
  const rows = [
    { keys: ['a', 'b', 'c'], count: 40 },
    { keys: ['a', 'b', 'd'], count: 40 },
    { keys: ['a', 'd', 'c'], count: 40 },
  ];
  const worn = (taste: keyof typeof TASTES): number =>
    coverRows(rows, TASTES[taste], one, 2).worn.flat().length;
  assert.equal(worn('whole looks'), 3);
  assert.ok(worn('small pieces') > 5);
});

test('a style that too few elements would wear is not made, and everything else is covered', () => {
  const rows = [
    { keys: ['a'], count: 1 },
    { keys: ['b', 'c'], count: 1 },
    { keys: ['b', 'd'], count: 2 },
  ];
  const { styles, worn } = coverRows(rows, TASTES.balanced, one, 2);
  for (const [at, keys] of styles.entries()) {
    const wearers = rows.reduce((sum, row, i) => (worn[i]!.includes(at) ? sum + row.count : sum), 0);
    assert.ok(wearers >= 2, keys.join());
  }
  assert.deepEqual(worn[0], []);
});

test('covers are near the optimum, never dearer than one class per set, and do not vary', () => {
  let over = 0;
  const cases = 18;
  const seeds = new Seeds('core/search/cover', cases);
  for (const seed of seeds) {
    const rows = randomRows(new Random(seed));
    const taste = Object.values(TASTES)[seed % 3]!;
    const cover = coverRows(rows, taste, one, 2);
    const cost = costOf(rows, cover, taste, one);
    const least = leastCost(rows, taste, 2, cost);
    assert.ok(cost >= least - 1e-6, `${seeds.name(seed)}: ${cost} below the optimum ${least}`);
    assert.ok(cost <= least * 1.1 + 1e-6, `${seeds.name(seed)}: ${cost} of ${least}`);
    assert.ok(cost <= onePerSet(rows, taste, 2) + 1e-6, `${seeds.name(seed)}`);
    assert.deepEqual(coverRows(rows, taste, one, 2), cover);
    over += cost / least - 1;
  }
  assert.ok(over / cases <= 0.02, `on the mean ${((100 * over) / cases).toFixed(2)}% over`);
});
