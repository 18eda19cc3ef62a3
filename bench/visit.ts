// What a visit costs beside a plain fetch of the same addresses, from this machine.
//   npm run bench:visit [-- PAGES]
// Whole processes, best of three; memory is the most that the process held.

import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { memoryOf, TELL_MEMORY } from './memory.js';

const project = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..', '..');
const program = path.join(project, 'dist', 'cli', 'main.js');

/** Serves so many small pages, each with the next few, in a process of its own. */
const SERVER = `
const http = require('node:http');
const many = Number(process.argv[1]);
const text = (at) => '<!DOCTYPE html><html><head><title>' + at + '</title><link rel="stylesheet" href="/kit.css"><style id="own-css">p { margin: 0 }</style></head><body>'
  + Array.from({ length: 30 }, (_, n) => '<p class="row-' + n + '" style="color: teal">Crossing ' + n + ' of day ' + at + '</p>').join('')
  + [1, 2, 3].map((step) => '<a href="/page/' + (at * 3 + step) % many + '">on</a>').join('') + '</body></html>';
http.createServer((request, response) => {
  const at = /^\\/page\\/(\\d+)$/.exec(request.url)?.[1];
  if (request.url === '/kit.css') response.writeHead(200, { 'content-type': 'text/css' }).end('p { color: red }');
  else if (at === undefined) response.writeHead(404).end();
  else response.writeHead(200, { 'content-type': 'text/html' }).end(text(Number(at)));
}).listen(0, '127.0.0.1', function () { console.log(this.address().port); });
`;

/** The same addresses, four at a time, each read to its end. */
const FETCH = `
const [base, many] = process.argv.slice(1);
const left = Array.from({ length: Number(many) }, (_, at) => base + 'page/' + at);
const one = async () => { for (let next = left.pop(); next; next = left.pop()) await (await fetch(next)).text(); };
Promise.all([one(), one(), one(), one()]).then(() => process.exit());
`;

interface Measured {
  readonly seconds: number;
  readonly megabytes: number;
}

function measure(words: readonly string[], prepare: () => void = () => {}): Measured {
  let seconds = Number.POSITIVE_INFINITY;
  let megabytes = 0;
  for (let round = 0; round < 3; round++) {
    prepare();
    const start = performance.now();
    const { stderr, status } = spawnSync(process.execPath, [...TELL_MEMORY, ...words], { encoding: 'utf8' });
    if (status !== 0) throw new Error(stderr);
    seconds = Math.min(seconds, (performance.now() - start) / 1000);
    megabytes = Math.max(megabytes, memoryOf({ stderr }));
  }
  return { seconds, megabytes };
}

const counts = process.argv.slice(2).map(Number);
for (const many of counts.length > 0 ? counts : [500, 5000]) {
  const server = spawn(process.execPath, ['-e', SERVER, String(many)], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const port = await new Promise<string>((resolve) =>
    server.stdout.once('data', (text) => resolve(String(text).trim())),
  );
  const base = `http://127.0.0.1:${port}/`;
  const work = mkdtempSync(path.join(os.tmpdir(), 'acervus-visit-'));
  const folder = path.join(work, 'line');
  const visit = [
    program,
    'visit',
    `${base}page/0`,
    folder,
    '--pages',
    String(many),
    '--own',
    '#own-css',
    '--json',
  ];
  const rows: [string, Measured][] = [
    ['plain fetch', measure(['-e', FETCH, base, String(many)])],
    ['visit', measure(visit, () => rmSync(folder, { recursive: true, force: true }))],
    ['visit again', measure([program, 'visit', folder, '--json'])],
  ];
  const [[, plain]] = rows as [[string, Measured]];
  for (const [name, { seconds, megabytes }] of rows)
    console.log(
      `${String(many).padStart(6)} pages  ${name.padEnd(12)} ${seconds.toFixed(2).padStart(6)} s  ${(seconds / plain.seconds).toFixed(1)} x  ${megabytes} MB`,
    );
  server.kill();
  rmSync(work, { recursive: true });
}
