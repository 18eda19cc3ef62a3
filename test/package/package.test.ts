// The package as somebody installs it: packed, in a folder whose path has a space, with its program, types and scripts.

import assert from 'node:assert/strict';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { before, test } from 'node:test';
import { addFiles, demoPart, makeSite, PROJECT, type Run, read } from '../support/site.js';

const home = path.join(makeSite({}), 'my project');

const npm = (folder: string, ...args: readonly string[]): void =>
  void execFileSync('npm', [...args, '--loglevel=error'], { cwd: folder, stdio: 'pipe' });

/** The scripts of docs/api.md, by the name that their first line gives them. */
function documentedScripts(): Record<string, string> {
  const blocks = read(PROJECT, 'docs/api.md').matchAll(/```js\n\/\/ (\w+\.mjs): [^\n]*\n[\s\S]*?```/g);
  return Object.fromEntries(
    [...blocks].map(([block, name]) => [name, block.replace(/^```js\n/, '').replace(/```$/, '')]),
  );
}

function script(name: string, ...args: readonly string[]): Run {
  const done = spawnSync(process.execPath, [name, ...args], { cwd: home, encoding: 'utf8' });
  return { code: done.status, stdout: done.stdout, stderr: done.stderr };
}

/** A part of the demo: the scripts are tried, not the search. */
function demoCopy(): string {
  return demoPart(path.join(makeSite({}), 'skerrin line'), ['index.html', 'fares/index.html']);
}

before(() => {
  mkdirSync(home, { recursive: true });
  writeFileSync(path.join(home, 'package.json'), '{ "private": true, "type": "module" }');
  // What is built is what is tested: packing is not to build again under the other tests.
  npm(PROJECT, 'pack', '--ignore-scripts', '--pack-destination', path.dirname(home));
  const [tarball = ''] = readdirSync(path.dirname(home)).filter((name) => name.endsWith('.tgz'));
  npm(home, 'install', '--prefer-offline', `../${tarball}`);
  addFiles(home, documentedScripts());
});

test('npx acervus runs what is installed', () => {
  const npx = (...args: readonly string[]): Run => {
    const done = spawnSync('npx', ['acervus', ...args], { cwd: home, encoding: 'utf8' });
    return { code: done.status, stdout: done.stdout, stderr: done.stderr };
  };
  const demo = npx('survey', path.join(home, 'node_modules', 'acervus', 'demo', 'site'));
  assert.equal(demo.code, 1, 'the demo has what is broken');
  assert.match(demo.stdout, /^ +30 {3}pages, 4 components/m);
  assert.equal(npx('--version').stdout.trim(), JSON.parse(read(PROJECT, 'package.json')).version);
});

test('the types hold in a project that checks its libraries and has no types of Node', () => {
  addFiles(home, {
    'types.ts': `import { adopt, prove, survey, UsageError, type SurveyDocument } from 'acervus';
const document: SurveyDocument = await survey('.', { jobs: 2 });
export const lines: number[] = document.broken.map(({ place }) => place.line);
export const { differences } = await prove('.', 'HEAD', { browser: { widths: [500] } });
for (const one of differences) if (one.kind === 'style') one.before.map(({ value }) => value.length);
// @ts-expect-error: a folder is text
await adopt(4);
export const isOurs = (error: unknown): string => (error instanceof UsageError ? error.code : '');
`,
    'tsconfig.json': JSON.stringify({
      compilerOptions: {
        ...{ target: 'es2023', module: 'nodenext', strict: true, exactOptionalPropertyTypes: true },
        ...{ skipLibCheck: false, types: [], noEmit: true },
      },
      files: ['types.ts'],
    }),
  });
  const compiler = path.join(PROJECT, 'node_modules', 'typescript', 'bin', 'tsc');
  const done = spawnSync(process.execPath, [compiler, '-p', 'tsconfig.json'], {
    cwd: home,
    encoding: 'utf8',
  });
  assert.equal(done.stdout, '');
  assert.equal(done.status, 0);
});

test('the documented scripts do what they say', () => {
  assert.deepEqual(Object.keys(documentedScripts()), ['guard.mjs', 'adopt.mjs', 'recolour.mjs']);
  const site = demoCopy();
  const adopted = script('adopt.mjs', site);
  assert.equal(adopted.code, 0, adopted.stderr);
  assert.match(adopted.stdout, /^\d+ styles adopted, \d+ places became \d+, \d+ files\n$/);
  const [, styles = '0'] = /^(\d+) styles/.exec(adopted.stdout) ?? [];
  const all = (read(site, 'acervus-draft.yaml').match(/^ {2}- id: /gm) ?? []).length;
  assert.ok(Number(styles) > 0 && Number(styles) < all, `${styles} of ${all}`);
  const guarded = script('guard.mjs', site, demoCopy());
  assert.equal(guarded.code, 0, guarded.stdout + guarded.stderr);
  assert.match(guarded.stdout, /^0 differences, \d+ broken, \d+ places to maintain\n$/);
  addFiles(site, { 'index.html': read(site, 'index.html').replace('<body', '<body style="color: #aa0000"') });
  const caught = script('guard.mjs', site, demoCopy());
  assert.equal(caught.code, 1);
  assert.match(caught.stdout, /^index\.html:\d+ color of /m);
  const changed = script('recolour.mjs', demoCopy(), '.kw-num', 'color: #2e6b5e');
  assert.equal(changed.code, 1, 'a rule of the platform is none to restyle');
  const recoloured = script('recolour.mjs', demoCopy(), '.sk-fares .kw-num', 'color: #2e6b5e');
  assert.equal(recoloured.code, 0, recoloured.stderr);
  assert.match(recoloured.stdout, /\d+ elements on \d+ pages\n\d+ moved\n[\s\S]*1 files as they were\n$/);
});
