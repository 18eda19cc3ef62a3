// `npm run demo`: the demo command, on a new folder in the system's temporary folder; `npm run demo -- templates` that of a theme,
// `npm run demo -- running` that of a system that runs.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
/** What is asked for behind `--`: the folder that it gets, its option, and what it is a copy of. */
const WALKS = {
  templates: { name: 'skerrin-theme', options: ['--templates'], source: 'templates' },
  running: { name: 'skerrin-live', options: ['--running'] },
};
const walk = Object.entries(WALKS).find(([word]) => process.argv.includes(word))?.[1] ?? {
  name: 'skerrin-line',
  options: [],
  source: 'site',
};
const folder = path.join(mkdtempSync(path.join(os.tmpdir(), 'acervus-')), walk.name);
const words = ['demo', folder, ...walk.options];
const done = spawnSync(process.execPath, [path.join(root, 'dist', 'cli', 'main.js'), ...words], {
  stdio: 'inherit',
});
process.exit(done.status || (walk.source === undefined || isAsItWas(walk.source) ? 0 : 1));

/** The walk says that every byte is back: a word that is kept here or nowhere. */
function isAsItWas(source) {
  const original = path.join(root, 'demo', source);
  const files = (inside) =>
    readdirSync(inside, { recursive: true })
      .map(String)
      .filter((file) => !/^(\.acervus|acervus-draft\.yaml)/.test(file))
      .filter((file) => statSync(path.join(inside, file)).isFile())
      .sort();
  const [was, is] = [files(original), files(folder)];
  const changed = [...new Set([...was, ...is])].filter(
    (file) =>
      !was.includes(file) ||
      !is.includes(file) ||
      !readFileSync(path.join(original, file)).equals(readFileSync(path.join(folder, file))),
  );
  for (const file of changed) process.stderr.write(`demo: ${file} is not as it was\n`);
  return changed.length === 0;
}
