// A real system: Django's own admin, as Debian's python3-django brings it, behind its login. Visits 30 pages, overrides its
// breadcrumbs and buttons, pastes, and proves on the site as it runs.
//   npm run bench:admin

import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const project = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..', '..');
const program = path.join(project, 'dist', 'cli', 'main.js');
const PORT = '8719';
const BOX = 'own/own-css.css';

const python = ['/usr/bin/python3', 'python3'].find(
  (one) => spawnSync(one, ['-c', 'import django'], { stdio: 'ignore' }).status === 0,
);
if (python === undefined) {
  console.log('skipped: there is no Python with Django here (on Debian: apt-get install python3-django)');
  process.exit();
}

const work = mkdtempSync(path.join(os.tmpdir(), 'acervus-admin-'));
mkdirSync(path.join(work, 'admin'));
writeFileSync(path.join(work, 'own.css'), '/* Skerrin Line */\n');
writeFileSync(
  path.join(work, 'admin', 'base_site.html'),
  '{% extends "admin/base.html" %}{% block extrastyle %}{{ block.super }}<style id="own-css">\n{% include "own.css" %}</style>{% endblock %}\n',
);
const server = spawn(python, [path.join(project, 'bench', 'admin_site.py'), work, PORT], {
  stdio: ['ignore', 'pipe', 'ignore'],
});
const session = await new Promise<string>((resolve) =>
  server.stdout.once('data', (text) => resolve(String(text).split('\n')[0]!.trim())),
);
const cookies = path.join(work, 'cookies.txt');
writeFileSync(cookies, `127.0.0.1\tFALSE\t/\tFALSE\t0\tsessionid\t${session}\n`);
const folder = path.join(work, 'site');
const address = `http://127.0.0.1:${PORT}/admin/`;
for (let tries = 0; tries < 100; tries++)
  if (await fetch(address).catch(() => undefined)) break;
  else await new Promise((resolve) => setTimeout(resolve, 100));

function run(...words: readonly string[]): void {
  const start = performance.now();
  const { stdout, stderr, status } = spawnSync(process.execPath, [program, ...words, '--json'], {
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  const seconds = ((performance.now() - start) / 1000).toFixed(2);
  if (status === null || status > 1 || stdout === '') throw new Error(`${words.join(' ')}: ${stderr}`);
  const { pages, sheets, moved, strays, differences, equal } = JSON.parse(stdout) as Record<string, unknown>;
  const told = {
    visit: `${pages} pages, ${sheets} sheets`,
    override: `${(moved as { elements: number } | undefined)?.elements} elements moved, ${strays} strays`,
    prove: `${(differences as unknown[] | undefined)?.length} differences, ${equal === true ? 'as planned' : 'NOT as planned'}`,
  }[words[0] as 'visit' | 'override' | 'prove'];
  console.log(
    `${seconds.padStart(7)} s  ${words.slice(0, 2).join(' ').replace(work, '').padEnd(34)} ${told}`,
  );
}

try {
  run(
    'visit',
    address,
    folder,
    '--cookies',
    cookies,
    '--pages',
    '30',
    '--skip',
    '**/logout/**',
    '--own',
    '#own-css',
  );
  run('override', '.breadcrumbs a', 'color: #ffd27f', folder);
  run('override', '.button, input[type=submit]', 'border-radius: 0', folder);
  writeFileSync(path.join(work, 'own.css'), readFileSync(path.join(folder, BOX)));
  run('prove', '--live', folder, '--cookies', cookies);
} finally {
  server.kill();
  rmSync(work, { recursive: true, force: true });
}
