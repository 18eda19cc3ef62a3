// Random sites by the thousand, against Chromium: what the tests do with a few, as long as you like.
//   npm run bench:sites [-- COUNT [FIRST]]     1,000 sites from number 1 on; twice as many adoptions, half as many renamings
// Stops at the first counterexample and prints the site.

import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const tests = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..', 'test', 'browser');
const [asked = '1000', first = '1'] = process.argv.slice(2);
/** How many of them each test takes, of what is asked for. */
const SHARES = {
  selectors: 1,
  engine: 1,
  mutations: 1,
  adoption: 2,
  changes: 1,
  everyday: 0.5,
  'edited-drafts': 0.25,
} as const;
for (const [name, share] of Object.entries(SHARES)) {
  const count = String(Math.max(1, Math.round(Number(asked) * share)));
  const start = performance.now();
  const { status } = spawnSync(
    process.execPath,
    ['--test', '--test-reporter=spec', path.join(tests, `${name}.test.js`)],
    { stdio: 'inherit', env: { ...process.env, CI: '', ACERVUS_SITES: count, ACERVUS_SEED: first } },
  );
  console.log(
    `${name}: ${count} sites from ${first} on, ${Math.round((performance.now() - start) / 1000)} s`,
  );
  if (status !== 0) process.exit(1);
}
