// `npm test`: runs every built test file, or those whose path contains one of the arguments.
import { spawnSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const built = path.join(path.dirname(path.dirname(fileURLToPath(import.meta.url))), '.build', 'test');
const wanted = process.argv.slice(2);
const files = readdirSync(built, { recursive: true })
  .map(String)
  .filter(
    (file) =>
      file.endsWith('.test.js') && (wanted.length === 0 || wanted.some((word) => file.includes(word))),
  )
  .sort()
  .map((file) => path.join(built, file));
// As many files at once as there are processors: by itself the runner leaves one of them idle.
const done = spawnSync(
  process.execPath,
  ['--test', '--test-reporter=spec', `--test-concurrency=${availableParallelism()}`, ...files],
  { stdio: 'inherit' },
);
process.exit(done.status ?? 1);
