// `npm run demo`: the demo command, on a new folder in the system's temporary folder; `npm run demo -- templates` that of a theme,
// `npm run demo -- running` that of a system that runs.
import { spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
/** What is asked for behind `--`, the folder that it gets, and its option. */
const WALKS = {
  templates: ['skerrin-theme', '--templates'],
  running: ['skerrin-live', '--running'],
};
const [name, ...options] = Object.entries(WALKS).find(([word]) => process.argv.includes(word))?.[1] ?? [
  'skerrin-line',
];
const folder = path.join(mkdtempSync(path.join(os.tmpdir(), 'acervus-')), name);
const words = ['demo', folder, ...options];
const done = spawnSync(process.execPath, [path.join(root, 'dist', 'cli', 'main.js'), ...words], {
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
