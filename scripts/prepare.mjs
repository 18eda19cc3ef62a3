// Makes a fresh clone ready: installs the packages when they are missing, builds when a source is newer than
// the build. Says what it does; says nothing when there is nothing to do.
//   node scripts/prepare.mjs [--tests] [--build]
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const withTests = process.argv.includes('--tests');
const always = process.argv.includes('--build');

function say(text) {
  process.stderr.write(`prepare: ${text}\n`);
}

function run(file, args) {
  try {
    execFileSync(file, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] });
  } catch {
    say(`${path.basename(file)} ${args.join(' ')} failed; see above`);
    process.exit(1);
  }
}

function newest(folder) {
  let time = 0;
  if (!existsSync(folder)) return time;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const full = path.join(folder, entry.name);
    time = Math.max(time, entry.isDirectory() ? newest(full) : statSync(full).mtimeMs);
  }
  return time;
}

const time = (file) => (existsSync(file) ? statSync(file).mtimeMs : 0);

const installed = path.join(root, 'node_modules', '.package-lock.json');
if (time(installed) === 0 || time(installed) < time(path.join(root, 'package-lock.json'))) {
  say('installing the packages (npm ci)');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(installed, '', { flag: 'a' });
}

function build(project, out, folders) {
  const stamp = path.join(root, out, '.built');
  const sources = Math.max(
    ...folders.map((folder) => newest(path.join(root, folder))),
    time(path.join(root, project)),
    time(path.join(root, 'tsconfig.json')),
    time(installed),
  );
  if (!always && time(stamp) > sources) return;
  say(`building ${out}/`);
  rmSync(path.join(root, out), { recursive: true, force: true });
  run(process.execPath, [path.join(root, 'node_modules', 'typescript', 'bin', 'tsc'), '-p', project]);
  mkdirSync(path.dirname(stamp), { recursive: true });
  writeFileSync(stamp, '');
}

build('tsconfig.json', 'dist', ['src']);
if (withTests) build('tsconfig.tests.json', '.build', ['src', 'test', 'bench']);
