// What every command does alike: exit codes, faults of our own, the version, following a declaration.

import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { pathToFileURL } from 'node:url';
import {
  acervus,
  acervusOn,
  acervusProcess,
  htmlPage,
  makeSite,
  PROJECT,
  type Run,
} from '../support/site.js';

const page = htmlPage(
  '<p style="color: red; top: 0">a</p>\n<p style="color: red; top: 0">b</p>\n<p style="left: 3px">c</p>',
);

test('a fault of our own is one line and exit code 3; the way it took is for who asks for it', async () => {
  const site = makeSite({ 'index.html': page });
  const write = (): void => {
    throw new TypeError('the tide\nis out');
  };
  const run = await acervusOn({ write }, ['survey', site]);
  assert.equal(run.code, 3);
  assert.equal(
    run.stderr,
    'acervus: a fault of our own (the tide is out); run it again with ACERVUS_DEBUG=1 and report what it says\n',
  );
  const asked = await acervusOn({ write, environment: { ACERVUS_DEBUG: '1' } }, ['survey', site]);
  assert.equal(asked.code, 3);
  assert.match(asked.stderr, /^TypeError: the tide\nis out\n {4}at /);
});

test('the built program answers as a process: results, exit codes, the version of the package', () => {
  const site = makeSite({ 'index.html': page });
  const survey = acervusProcess(['survey', site, '--json']);
  assert.equal(survey.code, 0);
  assert.equal(JSON.parse(survey.stdout).upkeep.now, 5);
  assert.equal(acervusProcess(['survey', path.join(site, 'nowhere')]).code, 2);
  const { version } = JSON.parse(readFileSync(path.join(PROJECT, 'package.json'), 'utf8')) as {
    version: string;
  };
  assert.equal(acervusProcess(['--version']).stdout, `${version}\n`);
  const broken = makeSite({ 'index.html': htmlPage('<p style="colour: red">x') });
  assert.equal(acervusProcess(['survey', broken]).code, 1);
});

test('one declaration is followed from the tag to what became of it', async () => {
  const site = makeSite({ 'index.html': page });
  const traced = (declaration: string, command = 'draft'): Promise<Run> =>
    acervusOn({ environment: { ACERVUS_TRACE: declaration } }, [command, site]);
  const follow = async (declaration: string, command?: string): Promise<string[]> => {
    const run = await traced(declaration, command);
    assert.equal(run.code, 0, run.stderr);
    return run.stderr.split('\n').filter((line) => line !== '');
  };
  const moved = await follow('index.html:8 color');
  assert.deepEqual(
    moved.map((line) => line.split(': ').slice(0, 2).join(': ')),
    ['trace: stock', 'trace: search', 'trace: search', 'trace: edits'],
  );
  assert.match(moved[0]!, /color:#ff0000, written as style; may move/);
  assert.match((await follow('index.html:10:1 left')).at(-1)!, /written once/);
  assert.match((await follow('index.html:2:1 color'))[0]!, /no such declaration/);
  assert.notDeepEqual(await follow('index.html:8 color', 'adopt'), []);
  const wrong = await traced('color');
  assert.equal(wrong.code, 2);
  assert.match(
    wrong.stderr,
    /^acervus: ACERVUS_TRACE: "color" names no declaration; write a place and a property/,
  );
});

test('wrong words are told with what helps, and nothing of ours runs', async () => {
  const run = await acervus('draft', '--taste', 'salty');
  assert.equal(run.code, 2);
  const unknown = await acervus('survey', '.', '--unknown');
  assert.deepEqual([unknown.code, unknown.stdout], [2, '']);
  assert.match(unknown.stderr, /unknown option '--unknown'/);
  assert.match(unknown.stderr, /\(acervus --help shows how\)/);
});

test('what the system refuses is told in one line, and is no fault of ours', async () => {
  const site = makeSite({ 'index.html': page, '.acervus': 'a file where our folder should be' });
  const run = await acervus('draft', site);
  assert.equal(run.code, 2);
  assert.match(run.stderr, /^acervus: [^\n]*the system refuses \(E[A-Z]+\); [^\n]+\n$/);
});

test('a draft of an earlier version is told, not a fault', async () => {
  const site = makeSite({ 'index.html': page });
  writeFileSync(path.join(site, 'acervus-draft.yaml'), 'format: 1\n');
  const run = await acervus('adopt', site);
  assert.equal(run.code, 2);
  assert.match(run.stderr, /^acervus: acervus-draft\.yaml[^\n]*\n$/);
});

test('a search is ended by a signal: nothing listens to one before something is written', () => {
  const site = makeSite({ 'index.html': htmlPage('<p style="top: 0">a<p style="top: 0">b') });
  const text = `
    import { draft } from ${JSON.stringify(pathToFileURL(path.join(PROJECT, 'dist', 'index.js')).href)};
    await draft(${JSON.stringify(site)});
    console.log(process.listenerCount('SIGINT'), process.listenerCount('SIGTERM'));
  `;
  const { stdout } = spawnSync(process.execPath, ['--input-type=module', '-e', text], { encoding: 'utf8' });
  assert.equal(stdout.trim(), '0 0');
});
