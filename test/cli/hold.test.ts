// The gate of a house: what is there is written down, may only become less, and what is new is told with its home.

import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { cpSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import Ajv from 'ajv';
import formats from 'ajv-formats';
import { holdDocument } from '../../src/commands/hold/document.js';
import { acervus, addFiles, DEMO, htmlPage, makeSite, read } from '../support/site.js';

const LINK = '<link rel="stylesheet" href="theme/line.css">';
const FILES = {
  'index.html': htmlPage('<p class="fare" style="color: teal">12</p><p style="margin: 0">x</p>', LINK),
  'fares.html': htmlPage('<p class="fare">18</p>', LINK),
  'theme/line.css':
    ':root { --tide: #1f3a56; }\n.fare { text-align: right; }\n.calm { margin: 0; }\n.crossing { left: 0; }\n',
};

/** What the published schema of SARIF 2.1.0 finds wrong with a log. */
function faultsOf(log: unknown): string[] {
  const file = path.join(DEMO, '..', '..', 'test', 'schemas', 'sarif-2.1.0.json');
  const ajv = new Ajv.default({ strict: false, allErrors: true, unicodeRegExp: false });
  formats.default(ajv);
  const isValid = ajv.compile(JSON.parse(readFileSync(file, 'utf8')));
  return isValid(log)
    ? []
    : (isValid.errors ?? []).map(({ instancePath, message }) => `${instancePath} ${message}`);
}

async function hold(folder: string, ...more: readonly string[]) {
  const { stdout, stderr, code } = await acervus('hold', folder, ...more, '--json');
  assert.notEqual(stdout, '', stderr);
  return { code, document: holdDocument.parse(JSON.parse(stdout)) };
}

function git(folder: string, ...words: readonly string[]): void {
  const done = spawnSync('git', ['-c', 'user.email=mate@skerrin.example', '-c', 'user.name=Mate', ...words], {
    cwd: folder,
  });
  assert.equal(done.status, 0, String(done.stderr));
}

/** Kind and item of what is new. */
async function fresh(folder: string, ...more: readonly string[]): Promise<string[]> {
  return (await hold(folder, ...more)).document.fresh.map(({ kind, item }) => `${kind}: ${item}`);
}

test('a class of a block is a home on its own page only; a name nearly written is told', async () => {
  const block = '<style>.sk-right { bottom: 4px }</style>';
  const folder = makeSite({
    'index.html': htmlPage('<p>12</p>', block),
    'fares.html': htmlPage('<p>18</p>', LINK),
  });
  await hold(folder);
  const body = '<p style="bottom: 4px">12</p><p class="sk-rigth">13</p>';
  addFiles(folder, { 'index.html': htmlPage(body, block), 'fares.html': htmlPage(body, LINK) });
  const { document } = await hold(folder);
  assert.deepEqual(
    document.fresh.map(({ place, home }) => [place.path, home.todo, home.place?.path]),
    [
      ['fares.html', 'a class for it and 1 alike, such as at index.html:8:4', 'index.html'],
      ['index.html', 'give it the class sk-right, which declares just this', 'index.html'],
      ['fares.html', 'write its rule, or leave it out', undefined],
      ['index.html', 'did you mean .sk-right?', undefined],
    ],
  );
});

test('the first run writes down what is there, sorted, the same for everybody; the next finds nothing new', async () => {
  const folder = makeSite(FILES);
  const first = await hold(folder);
  assert.deepEqual([first.code, first.document.first, first.document.written], [0, true, true]);
  const text = read(folder, 'acervus-hold.json');
  assert.match(text, /"index\.html": \{\n {4}"color: #008080": 1,\n {4}"margin: 0": 1\n/);
  const again = await hold(folder);
  assert.deepEqual([again.code, again.document.first, again.document.written], [0, false, false]);
  rmSync(path.join(folder, 'acervus-hold.json'));
  await hold(folder);
  assert.equal(read(folder, 'acervus-hold.json'), text);
});

test('each kind of debt is caught when it is new, with its place and the home that it should have had', async () => {
  const folder = makeSite(FILES);
  await hold(folder);
  addFiles(folder, {
    'fares.html': htmlPage(
      '<p class="fare" style="margin: 0">18</p><p class="crossings" align="center">x</p><p style="top: 3px; text-align: right">y</p>',
      `${LINK}<style>b { top: 1px }</style>`,
    ),
    'theme/line.css': `${FILES['theme/line.css']}.calm p { text-align: right; color: #1f3a56; }\n#tide { top: 2px !important; }\n`,
  });
  const { code, document } = await hold(folder);
  assert.equal(code, 1);
  const told = document.fresh.map(({ kind, item, place, home }) => [
    kind,
    item,
    `${place.path}:${place.line}`,
    home.todo,
  ]);
  const of = (kind: string) => told.filter((one) => one[0] === kind);
  assert.deepEqual(
    of('inline style').map(([, item, , todo]) => [item, todo]),
    [
      ['margin: 0', 'give it the class calm, which declares just this'],
      ['text-align: right; top: 3px', 'give it the class fare, which has 1 of its 2 declarations'],
    ],
  );
  assert.deepEqual(of('class without a rule')[0]?.slice(1), [
    'crossings',
    told.find((one) => one[0] === 'class without a rule')?.[2],
    'did you mean .crossing?',
  ]);
  assert.equal(of('old attribute')[0]?.[1], 'align="center"');
  assert.equal(of('style block').length, 1);
  assert.deepEqual(of('repeated declaration')[0]?.slice(1), [
    'text-align: right',
    'theme/line.css:5',
    'declare it once, with .fare',
  ]);
  assert.deepEqual(of('unnamed colour')[0]?.slice(3), ['var(--tide) is this colour']);
  assert.equal(of('importance').length, 1);
  assert.deepEqual(of('id in a selector')[0]?.[1], '#tide');
  assert.equal((await hold(folder)).code, 1, 'what is new is never written down by itself');
});

test('what shrank is written down, what moved to another file is not new, and nothing goes up again', async () => {
  const folder = makeSite(FILES);
  await hold(folder);
  const style = ' style="margin: 0"';
  const index = read(folder, 'index.html');
  writeFileSync(path.join(folder, 'index.html'), index.replace(style, ''));
  writeFileSync(
    path.join(folder, 'fares.html'),
    read(folder, 'fares.html').replace('<p class="fare">', `<p class="fare"${style}>`),
  );
  assert.deepEqual(await fresh(folder), []);
  writeFileSync(path.join(folder, 'fares.html'), FILES['fares.html']);
  const less = await hold(folder, '--no-write');
  assert.deepEqual(
    [less.code, less.document.written, less.document.held.find(({ kind }) => kind === 'inline style')?.less],
    [0, false, 1],
  );
  assert.equal((await hold(folder)).document.written, true);
  writeFileSync(path.join(folder, 'index.html'), index);
  assert.deepEqual(await fresh(folder), ['inline style: margin: 0']);
});

test('an exception stands in the source with its reason; without one it excepts nothing', async () => {
  const folder = makeSite(FILES);
  await hold(folder);
  const excepted = (comment: string): string =>
    htmlPage(`<p>a</p>\n${comment}\n<p style="top: 1px">x</p>\n<p>b</p>`, LINK);
  addFiles(folder, { 'new.html': excepted('<!-- acervus-hold: the widget measures it -->') });
  assert.deepEqual(await fresh(folder), []);
  const { stdout } = await acervus('hold', folder, '--exceptions');
  assert.match(stdout, /the widget measures it +new\.html:\d+/);
  addFiles(folder, { 'new.html': excepted('<!-- acervus-hold -->') });
  assert.deepEqual(await fresh(folder), ['inline style: top: 1px']);
  addFiles(folder, {
    'new.html': htmlPage('', LINK),
    'theme/line.css': `${FILES['theme/line.css']}/* acervus-hold: the kit has it inline */\n.fare { top: 0 !important; }\n`,
  });
  assert.deepEqual(await fresh(folder), []);
});

test('budgets are what there may be at most', async () => {
  const folder = makeSite({
    ...FILES,
    'acervus.json': JSON.stringify({
      budgets: { inline: 1, colours: 5, fontSizes: 0, strength: '0,0,1', sheetBytes: 20 },
    }),
  });
  const { code, document } = await hold(folder);
  assert.equal(code, 1);
  assert.deepEqual(
    document.budgets.map(({ name, spent, over }) => [name, spent, over]),
    [
      ['inline', '2', true],
      ['colours', '2', false],
      ['fontSizes', '0', false],
      ['strength', '0,1,0', true],
      ['sheetBytes', String(FILES['theme/line.css'].length), true],
    ],
  );
});

test('since a commit: only what changed is looked at, and found the same', async () => {
  const folder = makeSite({});
  cpSync(DEMO, folder, { recursive: true });
  await hold(folder);
  git(folder, 'init', '-q');
  git(folder, 'add', '-A');
  git(folder, 'commit', '-qm', 'as it is');
  assert.deepEqual((await hold(folder, '--since', 'HEAD')).document.files, 0);
  const page = path.join(folder, 'fares', 'index.html');
  writeFileSync(page, readFileSync(page, 'utf8').replace('<h1>', '<h1 style="top: 4px">'));
  const since = (await hold(folder, '--since', 'HEAD')).document;
  assert.equal(since.files, 1);
  const whole = (await hold(folder)).document;
  assert.deepEqual(since.fresh, whole.fresh);
  assert.deepEqual(since.held, whole.held);
  const wrong = await acervus('hold', folder, '--since', '--output=x');
  assert.equal(wrong.code, 2);
});

test('SARIF and JUnit say the same as the document', async () => {
  const folder = makeSite(FILES);
  await hold(folder);
  addFiles(folder, { 'b & "c".html': htmlPage('<p style="content: \'<&>\'">x</p>', LINK) });
  const { document } = await hold(folder);
  type Log = {
    version: string;
    runs: {
      results: {
        ruleId: string;
        ruleIndex: number;
        message: { text: string };
        locations: {
          physicalLocation: { artifactLocation: { uri: string }; region: { startLine: number } };
        }[];
      }[];
      tool: { driver: { rules: { id: string }[] } };
    }[];
  };
  const log = JSON.parse((await acervus('hold', folder, '--sarif')).stdout) as Log;
  assert.equal(log.version, '2.1.0');
  assert.deepEqual(faultsOf(log), []);
  assert.notDeepEqual(faultsOf({ ...log, runs: [{}] }), []);
  const [run] = log.runs;
  assert.deepEqual(
    run?.results.map(({ ruleId, locations: [at] }) => [
      ruleId,
      decodeURI(at!.physicalLocation.artifactLocation.uri),
      at!.physicalLocation.region.startLine,
    ]),
    document.fresh.map(({ kind, place }) => [kind.replaceAll(' ', '-'), place.path, place.line]),
  );
  for (const { ruleId, ruleIndex } of run!.results)
    assert.equal(run!.tool.driver.rules[ruleIndex]?.id, ruleId);
  const junit = (await acervus('hold', folder, '--junit')).stdout;
  assert.match(junit, /failures="1"/);
  assert.match(junit, /b &amp; &quot;c&quot;\.html/);
  assert.doesNotMatch(junit, /'<&>'/);
  assert.equal((await acervus('hold', folder, '--junit', '--sarif')).code, 2);
});

test('a file that is not as it was written is one line', async () => {
  const folder = makeSite(FILES);
  for (const broken of ['{', '[]', '{"format":1,"held":{"inline style":{"a":{"b":0}}}}', '{"format":2}']) {
    addFiles(folder, { 'acervus-hold.json': broken });
    const { code, stderr } = await acervus('hold', folder);
    assert.equal(code, 2);
    assert.match(stderr, /^acervus: acervus-hold\.json: is not as it was written/);
    assert.equal(read(folder, 'acervus-hold.json'), broken);
  }
});

test('a nested rule is as strong as all that it stands in', async () => {
  const folder = makeSite({
    'acervus.json': JSON.stringify({ budgets: { strength: '0,2,0' } }),
    'index.html': htmlPage('<p class="fare">12</p>', LINK),
    'theme/line.css': '#a { .b { .c { top: 0 } } }\n',
  });
  const { document } = await hold(folder);
  assert.deepEqual(
    document.budgets.map(({ spent, over, at }) => [spent, over, at]),
    [['1,2,0', true, '#a .b .c']],
  );
});

for (const [where, css] of [
  ['a rule', '.panel { .fare { top: 0 } }'],
  ['a scope', '@scope (.panel) { .fare { top: 0 } }'],
])
  test(`a class whose rule stands in ${where} is no home outside of it`, async () => {
    const folder = makeSite({ 'index.html': htmlPage('<p>12</p>', LINK), 'theme/line.css': `${css}\n` });
    await hold(folder);
    addFiles(folder, { 'index.html': htmlPage('<p style="top: 0">12</p>', LINK) });
    const [only] = (await hold(folder)).document.fresh;
    assert.equal(only?.kind, 'inline style');
    assert.doesNotMatch(only?.home.todo ?? '', /fare/);
  });
