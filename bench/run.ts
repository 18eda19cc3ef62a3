// Measures every command against the parse floor, both sides in one run, on the demo and on real pages:
//   npm run bench                 the demo, and the 70 pages of an npm package (fetched with npm pack)
//   npm run bench -- FOLDER …     other sites instead
// Times are whole processes, best of three; the floor is the process that only parses (see floor.ts).

import { execFileSync, spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { findChromium } from '../src/browser/chromium.js';
import type { AdoptDocument } from '../src/commands/adopt/document.js';
import type { ProveDocument } from '../src/commands/prove/document.js';
import type { SurveyDocument } from '../src/commands/survey/document.js';
import { openFolder } from '../src/site/files/files.js';
import { loadSite } from '../src/site/rendering/load.js';
import { memoryOf, TELL_MEMORY } from './memory.js';

const here = path.dirname(fileURLToPath(import.meta.url));
const project = path.resolve(here, '..', '..');
const program = path.join(project, 'dist', 'cli', 'main.js');
const REAL_PAGES = 'admin-lte@3.2.0';

interface Timed {
  readonly seconds: number;
  readonly stdout: string;
  readonly stderr: string;
}

function timed(args: readonly string[], rounds = 3, before?: () => void): Timed {
  let best = Number.POSITIVE_INFINITY;
  let stdout = '';
  let stderr = '';
  for (let round = 0; round < rounds; round++) {
    before?.();
    const start = performance.now();
    const done = spawnSync(process.execPath, args, {
      encoding: 'utf8',
      maxBuffer: 1 << 29,
      env: { ...process.env, NO_COLOR: '1' },
    });
    best = Math.min(best, (performance.now() - start) / 1000);
    if (done.status === null || done.status > 1) throw new Error(`${args.join(' ')}: ${done.stderr}`);
    ({ stdout, stderr } = done);
  }
  return { seconds: best, stdout, stderr };
}

function realPages(): string {
  const folder = path.join(os.tmpdir(), 'acervus-bench', REAL_PAGES);
  const site = path.join(folder, 'package');
  if (!existsSync(site)) {
    mkdirSync(folder, { recursive: true });
    const name = execFileSync('npm', ['pack', '--silent', REAL_PAGES], { cwd: folder, encoding: 'utf8' })
      .trim()
      .split('\n')
      .at(-1)!;
    execFileSync('tar', ['xzf', name], { cwd: folder });
  }
  return site;
}

/** The seconds of the process that only parses the files of these states. */
function floorOf(work: string, ...states: readonly string[]): Timed {
  const list = path.join(work, 'list.txt');
  const files = states.flatMap((state) => {
    const { model } = loadSite(openFolder(state));
    return [...model.sources.pages.keys(), ...model.sources.sheets.keys()].map((file) =>
      path.join(state, file),
    );
  });
  writeFileSync(list, files.join('\n'));
  return timed([path.join(here, 'floor.js'), list]);
}

function measure(folder: string): void {
  const work = mkdtempSync(path.join(os.tmpdir(), 'acervus-bench-'));
  const site = path.join(work, 'site');
  cpSync(folder, site, { recursive: true });
  const { model } = loadSite(openFolder(site));
  const files = [...model.sources.pages.keys(), ...model.sources.sheets.keys()];
  const bytes = files.reduce((sum, file) => sum + readFileSync(path.join(site, file)).length, 0);
  const floorRun = floorOf(work, site);
  const floor = floorRun.seconds;
  const row = (name: string, seconds: number, to = floor): void =>
    console.log(`${seconds.toFixed(2).padStart(8)} s  ${(seconds / to).toFixed(2).padStart(6)} ×  ${name}`);
  console.log(
    `\n${path.basename(path.dirname(folder))}/${path.basename(folder)}: ${model.pages.length} pages, ${(bytes / 1e6).toFixed(1)} MB of HTML and CSS`,
  );
  row(`parse floor (${Number(floorRun.stdout).toFixed(2)} s of it parsing)`, floor);
  row('help, of an empty Node process', timed([program, '--help']).seconds, timed(['-e', '0']).seconds);
  const anew = ['survey', site, '--json', '--no-cache'];
  const survey = timed([program, ...anew, '--jobs', '1']);
  row('survey --jobs 1', survey.seconds);
  row('survey --jobs 2', timed([program, ...anew, '--jobs', '2']).seconds);
  timed([program, 'survey', site, '--json'], 1);
  const page = path.join(site, [...model.sources.pages.keys()].at(-1)!);
  const text = readFileSync(page);
  let change = 0;
  const changed = timed([program, 'survey', site, '--json'], 3, () =>
    writeFileSync(page, Buffer.concat([text, Buffer.from(`<p>${++change}</p>`)])),
  );
  row('survey again, one page changed', changed.seconds);
  writeFileSync(page, text);
  const draft = timed([...TELL_MEMORY, program, 'draft', site], 3, () =>
    rmSync(path.join(site, 'acervus-draft.yaml'), { force: true }),
  );
  row(`draft, ${memoryOf(draft)} MB`, draft.seconds);
  row('draft again', timed([program, 'draft', site], 1).seconds);
  const undo = (): void => void spawnSync(process.execPath, [program, 'undo', site]);
  const once = (['survey', 'draft', 'adopt'] as const).map((one) => timed([program, one, site], 1).seconds);
  row(
    'survey, draft and adopt together',
    once.reduce((sum, seconds) => sum + seconds, 0),
  );
  row('adopt behind a kept draft', once[2]!);
  const left = JSON.parse(timed([program, 'survey', site, '--json'], 1).stdout) as SurveyDocument;
  undo();
  row('adopt --patch, searched anew', timed([program, 'adopt', site, '--patch']).seconds);
  const adopt = timed([program, 'adopt', site, '--json'], 3, undo);
  row('adopt, searched anew', adopt.seconds);
  const both = floorOf(work, folder, site).seconds;
  row('parse floor of both states', both);
  const against = ['prove', site, '--against', folder];
  const prove = timed([program, ...against, '--jobs', '1']).seconds;
  row('prove --jobs 1, of the floor of both states', prove, both);
  row(
    'prove --jobs 2, of the floor of both states',
    timed([program, ...against, '--jobs', '2']).seconds,
    both,
  );
  if (findChromium() !== undefined) {
    const every = Math.max(1, Math.floor(model.pages.length / 10));
    const looked = timed([program, ...against, '--browser', '--every', String(every), '--json'], 1);
    const { browser } = JSON.parse(looked.stdout) as ProveDocument;
    const whole = ((looked.seconds - prove) * model.pages.length) / (browser?.pages ?? 1);
    row(`prove --browser on all pages, from ${browser?.pages} of them, of prove --jobs 1`, whole, prove);
  }
  row('undo', timed([program, 'undo', site], 1).seconds);
  rmSync(path.join(site, 'acervus-draft.yaml'));

  const stock = JSON.parse(survey.stdout) as SurveyDocument;
  const adopted = JSON.parse(adopt.stdout) as AdoptDocument;
  const moved = stock.inline.written - left.inline.written;
  const share = (of: number): string => `${((100 * moved) / of).toFixed(1)}%`;
  console.log(
    `  moved ${moved} of ${stock.inline.written} inline declarations (${share(stock.inline.written)}), ${stock.inline.repeated} of which repeat (${share(stock.inline.repeated)})`,
  );
  console.log(
    `  old attributes ${stock.oldAttributes.written}, left ${left.oldAttributes.written}; upkeep ${adopted.upkeep.now}, left ${adopted.upkeep.after}; ${adopted.size.now} characters, then ${adopted.size.after}`,
  );
  for (const { reason, declarations } of adopted.kept.slice(0, 6))
    console.log(`  ${String(declarations).padStart(6)} kept: ${reason}`);
  console.log(`  undo gives the bytes back: ${sameTree(folder, site) ? 'yes' : 'NO'}`);
  rmSync(work, { recursive: true });
}

function sameTree(a: string, b: string): boolean {
  const list = (folder: string): string[] =>
    readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((one) => one.isFile())
      .map((one) => path.relative(folder, path.join(one.parentPath, one.name)))
      // What is remembered stays.
      .filter((file) => !file.startsWith('.acervus'))
      .sort();
  const [one, two] = [list(a), list(b)];
  return (
    one.join('\n') === two.join('\n') &&
    one.every((file) => readFileSync(path.join(a, file)).equals(readFileSync(path.join(b, file))))
  );
}

const folders = process.argv.slice(2);
for (const folder of folders.length > 0
  ? folders.map((one) => path.resolve(one))
  : [path.join(project, 'demo', 'site'), realPages()])
  measure(folder);
