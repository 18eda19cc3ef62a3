import assert from 'node:assert/strict';
import { chmodSync, symlinkSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { acervus, addFiles, type Files, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const good = htmlPage('<p style="top: 0">a<p style="top: 0">b<p>c');

/** One line on stderr, exit code 2, nothing written. */
async function refuses(folder: string, command: readonly string[], pattern: RegExp): Promise<void> {
  const before = snapshot(folder);
  const run = await acervus(command[0]!, folder, ...command.slice(1));
  assert.equal(run.code, 2, run.stdout + run.stderr);
  assert.match(run.stderr, /^acervus: [^\n]+\n$/);
  assert.match(run.stderr, pattern);
  assert.equal(run.stdout, '');
  assert.deepEqual(snapshot(folder), before);
}

const cases: readonly (readonly [string, Files, RegExp])[] = [
  ['an empty folder', { 'readme.txt': 'x' }, /holds no page/],
  ['only empty pages', { 'index.html': '' }, /all its pages are empty/],
  [
    'a broken configuration',
    { 'index.html': good, 'acervus.json': '{ "exclude": 4 }' },
    /acervus\.json: exclude: expected array/,
  ],
];

for (const [what, files, pattern] of cases) {
  test(`${what} is refused in one line by every command that reads`, async () => {
    const folder = makeSite(files);
    for (const command of [['survey'], ['draft'], ['adopt'], ['prove', '--against', folder]])
      await refuses(folder, command, pattern);
  });
}

test('what cannot be read as what it is named is left out, told in one line, and ends nothing', async () => {
  const folder = makeSite({
    'index.html': good.replace('</head>', '<link rel="stylesheet" href="a.css"></head>'),
    'data.html': 'fares = 4.20',
    'picture.html': Buffer.from([0x3c, 0x70, 0, 1, 2, 0xff]),
    'a.css': Buffer.from([0, 1, 2]),
  });
  const told =
    /^acervus: left out: a\.css is no text, data\.html holds no tag, picture\.html is no text; [^\n]+\n$/;
  for (const command of [['survey'], ['draft'], ['prove', '--against', folder]]) {
    const run = await acervus(command[0]!, folder, ...command.slice(1));
    assert.ok((run.code ?? 2) < 2, run.stderr);
    // A page that is the same in both states needs no sheet.
    assert.match(run.stderr.replace(/(left out: )(?=data)/, '$1a.css is no text, '), told);
  }
  assert.equal((await acervus('adopt', folder)).code, 0);
  assert.match(read(folder, 'index.html'), /class="/);
  assert.equal(read(folder, 'data.html'), 'fares = 4.20');
});

test('classes are not called unruled where no sheet was found; that is said once', async () => {
  const folder = makeSite({ 'index.html': htmlPage('<p class="a b">x<p class="c">y') });
  const { stdout } = await acervus('survey', folder);
  assert.match(stdout, /3 ! no page leads to a sheet that is here/);
  assert.doesNotMatch(stdout, /has no rule/);
});

test('invalid CSS is reported with its place, and nothing is lost', async () => {
  const folder = makeSite({
    'index.html': good.replace('</head>', '<link rel="stylesheet" href="a.css"></head>'),
    'a.css': 'p { top: 1px }\n} .a {{ ( color: red',
  });
  const run = await acervus('survey', folder);
  assert.equal(run.code, 1);
  assert.match(run.stdout, /a\.css:2:1/);
  assert.equal((await acervus('draft', folder)).code, 0);
  assert.equal((await acervus('adopt', folder)).code, 0);
});

test('a missing folder, a file for a folder, and unknown words are wrong use', async () => {
  assert.match(
    (await acervus('survey', '/no/such/folder')).stderr,
    /^acervus: \/no\/such\/folder: there is no such folder/,
  );
  const folder = makeSite({ 'index.html': good });
  assert.match(
    (await acervus('survey', path.join(folder, 'index.html'))).stderr,
    /is a file; name the folder/,
  );
  for (const args of [
    ['suvrey'],
    ['survey', '--no-such'],
    ['prove', folder],
    ['draft', folder, '--at-least', 'x'],
  ]) {
    assert.equal((await acervus(...args)).code, 2, args.join(' '));
  }
});

test('a page behind a link that leads out of the site is left out', async () => {
  const outside = makeSite({ 'page.html': good });
  const folder = makeSite({ 'index.html': good });
  symlinkSync(path.join(outside, 'page.html'), path.join(folder, 'away.html'));
  for (const command of ['survey', 'draft'])
    assert.match(
      (await acervus(command, folder)).stderr,
      /^acervus: left out: away\.html leads out of the site; /,
    );
  assert.equal(read(outside, 'page.html'), good);
});

test('a sheet behind a link that leads out of the site is left out and not called missing; the rest goes on', async () => {
  const outside = makeSite({ 'far.css': 'p { top: 9px }', 'far.png': 'x' });
  const folder = makeSite({ 'index.html': htmlPage('<p>x</p>', '<link rel="stylesheet" href="far.css">') });
  for (const name of ['far.css', 'far.png']) symlinkSync(path.join(outside, name), path.join(folder, name));
  const { code, stdout, stderr } = await acervus('survey', folder);
  assert.equal(code, 0, stdout);
  assert.match(
    stderr,
    /^acervus: left out: far\.css leads out of the site; [^\n]*\n$/,
    'nobody asked for the picture',
  );
  assert.doesNotMatch(stdout, /is linked and not there/);
});

test('a shared sheet behind a link out of the site is never written', async () => {
  const outside = makeSite({ 'x.txt': '' });
  const folder = makeSite({ 'index.html': good, 'acervus.json': '{ "shared": "theme/shared.css" }' });
  symlinkSync(outside, path.join(folder, 'theme'));
  await acervus('draft', folder);
  const before = snapshot(outside);
  assert.equal((await acervus('adopt', folder)).code, 2);
  assert.deepEqual(snapshot(outside), before);
});

test('a read-only file stops an adoption before anything is written', async () => {
  const folder = makeSite({ 'index.html': good, 'b.html': good });
  await acervus('draft', folder);
  chmodSync(path.join(folder, 'b.html'), 0o444);
  await refuses(folder, ['adopt'], /b\.html: is read-only/);
});

test('adopting needs a draft, and a draft that can be carried out', async () => {
  const folder = makeSite({
    'index.html': good.replace('</head>', '<style>.quay { top: 1px }</style></head>'),
  });
  await refuses(folder, ['adopt'], /there is no draft; run "acervus draft" first/);
  await acervus('draft', folder);
  const file = 'acervus-draft.yaml';
  const draft = Buffer.from(snapshot(folder).get(file)!, 'base64').toString();
  for (const [edit, pattern] of [
    [draft.replace(/name: .*/, 'name: .quay'), /styles\[0\]\.name: "\.quay" is no class name/],
    [draft.replace(/name: .*/, 'name: quay'), /\.quay is in use on the site already/],
    [draft.replace(/take: yes/, 'take: perhaps'), /acervus-draft\.yaml:\d+: styles\[0\]\.take/],
    [draft.replace(/top: 0/, 'top'), /style [0-9a-f]{8}: declarations: expected CSS declarations/],
    [draft.replace('format: 2', 'format: 3'), /format/],
  ] as const) {
    addFiles(folder, { [file]: edit });
    await refuses(folder, ['adopt'], pattern);
  }
});

test('a draft cannot lead the writing into a platform sheet or out of the site', async () => {
  const folder = makeSite({
    'index.html': good.replace('</head>', '<link rel="stylesheet" href="platform/kit.css"></head>'),
    'platform/kit.css': 'p { top: 1px }\n',
  });
  await acervus('draft', folder);
  const file = 'acervus-draft.yaml';
  const draft = Buffer.from(snapshot(folder).get(file)!, 'base64').toString();
  addFiles(folder, { [file]: draft.replace(/^shared: .*$/m, 'shared: platform/kit.css') });
  await refuses(folder, ['adopt'], /shared: platform\/kit\.css is a platform sheet/);
  addFiles(folder, { [file]: draft.replace(/^shared: .*$/m, 'shared: ../outside.css') });
  await refuses(folder, ['adopt'], /acervus-draft\.yaml:\d+: shared: leads out of the site/);
});

test('a draft may name another shared sheet, which is read before it is added to', async () => {
  const folder = makeSite({ 'index.html': good, 'mine/all.css': '.quay { top: 1px; }\n' });
  await acervus('draft', folder);
  const file = 'acervus-draft.yaml';
  const draft = Buffer.from(snapshot(folder).get(file)!, 'base64').toString();
  addFiles(folder, { [file]: draft.replace(/^shared: .*$/m, 'shared: mine/all.css') });
  const run = await acervus('adopt', folder);
  assert.equal(run.code, 0, run.stderr);
  assert.match(
    Buffer.from(snapshot(folder).get('mine/all.css')!, 'base64').toString(),
    /^\.quay \{ top: 1px; \}\n\.[\w-]+ \{ top: 0; \}\n$/,
  );
});

test('text from a site cannot steer the terminal', async () => {
  const folder = makeSite({
    'index.html': htmlPage(
      '<p class="\u001b]0;owned\u0007\u001b[31m" style="col\u001b[2Jour: \u001b[5mred">x<p style="content: \'\u001b[5m\'">y<p style="content: \'\u001b[5m\'">z',
    ),
  });
  for (const command of ['survey', 'draft'])
    assert.doesNotMatch((await acervus(command, folder, '--all')).stdout, /[\u001b\u0007]/);
});

test('help has an example for each command', async () => {
  for (const command of ['survey', 'draft', 'adopt', 'prove', 'undo', 'demo']) {
    const run = await acervus(command, '--help');
    assert.equal(run.code, 0);
    assert.match(run.stdout, new RegExp(`Example:\\n {2}acervus ${command} `));
  }
});
