import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Random } from '../../../support/generate.js';
import { Seeds } from '../../../support/seeds.js';
import { costFound, leastCostOf, smallSite } from '../../../support/small-site.js';

test('what is made of small sites of two areas is near the least that any answer costs', async () => {
  const shares: number[] = [];
  for (const seed of new Seeds('core/consolidate/optimum', 24)) {
    const site = smallSite(new Random(seed));
    const least = leastCostOf(site);
    if (least > 0) shares.push(Math.max(0, (await costFound(site)) / least - 1));
  }
  assert.ok(shares.reduce((sum, share) => sum + share, 0) / shares.length <= 0.01);
});
