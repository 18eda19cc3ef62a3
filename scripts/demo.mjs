// `npm run demo`: the demo command, on a new folder in the system's temporary folder.
import { spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const folder = path.join(mkdtempSync(path.join(os.tmpdir(), 'acervus-')), 'skerrin-line');
const done = spawnSync(process.execPath, [path.join(root, 'dist', 'cli', 'main.js'), 'demo', folder], {
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
