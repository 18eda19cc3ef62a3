// How time and memory grow with the number of pages: the demo at 100, 1,000 and 10,000 pages.
//   npm run bench:scale [-- COUNT …]
// Times are whole processes, best of three (one, for the largest, for drafts and adoptions); memory is the most that the
// process held.

import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { memoryOf, TELL_MEMORY } from './memory.js';
import { writeScaledDemo } from './scaled-demo.js';

const project = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..', '..');
const program = path.join(project, 'dist', 'cli', 'main.js');

interface Measured {
  readonly seconds: number;
  readonly megabytes: number;
}

function measure(rounds: number, ...args: readonly string[]): Measured {
  let seconds = Number.POSITIVE_INFINITY;
  let megabytes = 0;
  for (let round = 0; round < rounds; round++) {
    const start = performance.now();
    const { stderr, status } = spawnSync(process.execPath, [...TELL_MEMORY, program, ...args, '--json'], {
      encoding: 'utf8',
      maxBuffer: 1 << 30,
    });
    if (status === null || status > 1) throw new Error(`${args.join(' ')}: ${stderr}`);
    seconds = Math.min(seconds, (performance.now() - start) / 1000);
    megabytes = Math.max(megabytes, memoryOf({ stderr }));
  }
  return { seconds, megabytes };
}

const counts = process.argv.slice(2).map(Number);
for (const count of counts.length > 0 ? counts : [100, 1000, 10_000]) {
  const work = mkdtempSync(path.join(os.tmpdir(), 'acervus-scale-'));
  const [before, after] = [path.join(work, 'before'), path.join(work, 'after')];
  writeScaledDemo(path.join(project, 'demo', 'site'), before, count);
  cpSync(before, after, { recursive: true });
  // One rule more in the theme's sheet makes every page one to compare.
  const sheet = path.join(after, 'theme', 'skerrin.css');
  writeFileSync(sheet, `${readFileSync(sheet, 'utf8')}\n.berth-plan { margin: 0 }\n`);
  const rounds = count > 5000 ? 1 : 3;
  const rows = ['1', '2'].flatMap((jobs): [string, Measured][] => [
    [`survey --jobs ${jobs}`, measure(rounds, 'survey', before, '--no-cache', '--jobs', jobs)],
    [`prove --jobs ${jobs}`, measure(rounds, 'prove', after, '--against', before, '--jobs', jobs)],
  ]);
  rows.push(['draft', measure(1, 'draft', before)], ['adopt', measure(1, 'adopt', before)]);
  for (const [name, measured] of rows) {
    const each = ((1000 * measured.seconds) / count).toFixed(2);
    console.log(
      `${String(count).padStart(6)} pages  ${name.padEnd(15)}  ${measured.seconds.toFixed(2).padStart(7)} s  ${each.padStart(6)} ms a page  ${measured.megabytes} MB`,
    );
  }
  rmSync(work, { recursive: true });
}
