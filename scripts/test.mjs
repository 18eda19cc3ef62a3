// `npm test`: runs every built test file, or those whose path contains one of the arguments.
import { spawnSync } from 'node:child_process';
import { readdirSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

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
// The core has no state outside its tests: they share a process, which loads it once. The longest file goes first.
const isOfCore = (file) => file.startsWith(path.join(built, 'core') + path.sep);
const core = files.filter(isOfCore);
const together = path.join(built, '..', 'core.test.mjs');
if (core.length > 1)
  writeFileSync(
    together,
    core.map((file) => `import ${JSON.stringify(pathToFileURL(file).href)};\n`).join(''),
  );
const run = core.length > 1 ? [together, ...files.filter((file) => !isOfCore(file))] : files;
if (run.length === 0) {
  process.stderr.write(`test: no test file has ${wanted.join(' or ')} in its path\n`);
  process.exit(2);
}
// As many files at once as there are processors: by itself the runner leaves one of them idle.
const done = spawnSync(
  process.execPath,
  ['--test', '--test-reporter=spec', `--test-concurrency=${availableParallelism()}`, ...run],
  { stdio: 'inherit' },
);
process.exit(done.status ?? 1);
