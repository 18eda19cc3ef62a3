// `npm test`: runs every built test file, or those whose path contains one of the arguments.
import { spawnSync } from 'node:child_process';
import { readdirSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const build = path.join(path.dirname(path.dirname(fileURLToPath(import.meta.url))), '.build');
const built = path.join(build, 'test');
const wanted = process.argv.slice(2);
const files = readdirSync(built, { recursive: true })
  .map(String)
  .filter(
    (file) =>
      file.endsWith('.test.js') && (wanted.length === 0 || wanted.some((word) => file.includes(word))),
  )
  .sort();
if (files.length === 0) {
  process.stderr.write(`test: no test file has ${wanted.join(' or ')} in its path\n`);
  process.exit(2);
}
// Test files share processes, several to a folder: each loads the program once, and what has been compiled is used again.
// Many small shares, the folders that take longest first: so no processor is left idle while the last one ends.
const SHARES = { browser: 4, cli: 5, core: 1, site: 1 };
const shares = new Map();
files.forEach((file, at) => {
  const [folder] = file.split(path.sep);
  const name = SHARES[folder] === undefined ? 'rest' : `${folder}-${at % SHARES[folder]}`;
  shares.set(name, [...(shares.get(name) ?? []), file]);
});
const run = [...shares].map(([name, share]) => {
  const together = path.join(build, `${name}.test.mjs`);
  const imports = share.map(
    (file) => `import ${JSON.stringify(pathToFileURL(path.join(built, file)).href)};\n`,
  );
  writeFileSync(together, imports.join(''));
  return together;
});
// Two more at once than there are processors: who waits for a browser or for a disk leaves one idle.
const done = spawnSync(
  process.execPath,
  ['--test', '--test-reporter=spec', `--test-concurrency=${availableParallelism() + 2}`, ...run],
  { stdio: 'inherit' },
);
process.exit(done.status ?? 1);
