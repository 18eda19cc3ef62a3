// Random sites by the thousand, against Chromium: what the tests do with a few, as long as you like.
//   npm run bench:sites [-- COUNT [FIRST]]     1,000 sites from number 1 on
// Stops at the first counterexample and prints the site.

import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const tests = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..', 'test', 'browser');
const [count = '1000', first = '1'] = process.argv.slice(2);
for (const name of ['selectors', 'engine', 'mutations', 'adoption']) {
  const start = performance.now();
  const { status } = spawnSync(
    process.execPath,
    ['--test', '--test-reporter=spec', path.join(tests, `${name}.test.js`)],
    { stdio: 'inherit', env: { ...process.env, ACERVUS_SITES: count, ACERVUS_FIRST: first } },
  );
  console.log(
    `${name}: ${count} sites from ${first} on, ${Math.round((performance.now() - start) / 1000)} s`,
  );
  if (status !== 0) process.exit(1);
}
