// How near the search comes to the exact optimum, over a thousand generated cases: of its classes alone, each taste in turn,
// and of everything that it does on small sites of two areas, counted as the hand counts.

import { costOf, TASTES } from '../src/core/search/cost.js';
import { coverRows } from '../src/core/search/cover.js';
import { Random } from '../test/support/generate.js';
import { leastCost, onePerSet, randomRows } from '../test/support/optimum.js';
import { costFound, leastCostOf, smallSite } from '../test/support/small-site.js';

const CASES = Number(process.argv[2] ?? 1000);
const tastes = Object.entries(TASTES);
const shares = tastes.map((): number[] => []);
let dearer = 0;
for (let seed = 1; seed <= CASES; seed++) {
  const rows = randomRows(new Random(seed));
  const [, taste] = tastes[seed % tastes.length]!;
  const cost = costOf(
    rows,
    coverRows(rows, taste, () => 1, 2),
    taste,
    () => 1,
  );
  const least = leastCost(rows, taste, 2, cost);
  shares[seed % tastes.length]!.push(least === 0 ? 0 : cost / least - 1);
  if (cost > onePerSet(rows, taste, 2) + 1e-9) dearer++;
  if (process.stderr.isTTY) process.stderr.write(`\r${seed} of ${CASES}`);
}
const percent = (share: number): string => `${(100 * share).toFixed(2)}%`;
const show = (name: string, over: readonly number[]): void => {
  const mean = over.reduce((sum, share) => sum + share, 0) / over.length;
  const exact = over.filter((share) => share < 1e-9).length;
  console.log(
    `${name}: over the optimum by ${percent(mean)} on the mean, by ${percent(Math.max(...over))} at most; exact in ${exact} of ${over.length} cases`,
  );
};
console.log('');
for (const [at, [name]] of tastes.entries()) show(name, shares[at]!);
show('all', shares.flat());
console.log(`dearer than one class per set: ${dearer} cases`);

const over: number[] = [];
let worst = { seed: 0, share: -1, found: 0, least: 0 };
for (let seed = 1; seed <= CASES; seed++) {
  const site = smallSite(new Random(seed));
  const [found, least] = [await costFound(site), leastCostOf(site)];
  if (least === 0) continue;
  // The tool may let one rule take back what another gives, and be cheaper.
  const share = Math.max(0, found / least - 1);
  over.push(share);
  if (share > worst.share) worst = { seed, share, found, least };
  if (process.stderr.isTTY) process.stderr.write(`\r${seed} of ${CASES}`);
}
show('\nwhole sites', over);
console.log(`the worst is case ${worst.seed}: ${worst.found} against ${worst.least}`);
