// `npm run demo`: the demo command, on a new folder in the system's temporary folder; `npm run demo -- templates` that of a theme.
import { spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const isTheme = process.argv.includes('templates');
const folder = path.join(
  mkdtempSync(path.join(os.tmpdir(), 'acervus-')),
  isTheme ? 'skerrin-theme' : 'skerrin-line',
);
const words = ['demo', folder, ...(isTheme ? ['--templates'] : [])];
const done = spawnSync(process.execPath, [path.join(root, 'dist', 'cli', 'main.js'), ...words], {
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
