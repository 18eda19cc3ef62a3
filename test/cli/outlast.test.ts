import assert from 'node:assert/strict';
import { cpSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { outlastDocument } from '../../src/commands/outlast/document.js';
import { proveDocument } from '../../src/commands/prove/document.js';
import { acervus, addFiles, DEMO, makeSite, read, snapshot } from '../support/site.js';

const PAIR = ['--platform', 'platform/3.1=platform/4.0'] as const;

/** The demo with three overrides: of a class that is renamed, of a rule that grows stronger, of one that comes to agree. */
async function demo(): Promise<string> {
  overridden ??= await overrideDemo();
  const folder = makeSite({});
  cpSync(overridden, folder, { recursive: true });
  return folder;
}

let overridden: string | undefined;

async function overrideDemo(): Promise<string> {
  const folder = makeSite({});
  cpSync(DEMO, folder, { recursive: true });
  addFiles(folder, { 'acervus.json': '{ "shared": "theme/shared.css" }' });
  for (const args of [
    ['.kw-badge', 'padding: 2px 10px'],
    ['.kw-table th', 'border-color: #1f3a56'],
    ['h2', 'font-size: 1.6em'],
    ['.kw-crumbs a', 'color: #1f3a56'],
  ])
    assert.equal((await acervus('override', ...args, folder)).code, 0, args.join(' '));
  return folder;
}

const run = async (folder: string, ...more: readonly string[]) => {
  const done = await acervus('outlast', folder, ...PAIR, ...more, '--json');
  return { code: done.code, told: outlastDocument.parse(JSON.parse(done.stdout)) };
};

test('the two versions of the demo platform: what holds, is gone, is beaten, is not needed any more', async () => {
  const folder = await demo();
  const before = snapshot(folder);
  const { code, told } = await run(folder);
  assert.equal(code, 1);
  assert.deepEqual(snapshot(folder), before);
  const fates = told.rules.filter(({ place }) => place.path === 'theme/shared.css');
  assert.deepEqual(
    fates.map(({ selector, fate, likely }) => [selector, fate, likely]),
    [
      ['.kw-badge', 'name gone', '.kw-tag'],
      ['.kw-table th', 'beaten', '.kw-table.kw-table th'],
      ['h2', 'not needed', undefined],
      ['.kw-crumbs a', 'holds', undefined],
    ],
  );
  assert.equal(fates[1]?.by?.selector, '.kw-main .kw-table th');
  assert.deepEqual(told.gone, [{ old: 'kw-badge', likely: 'kw-tag' }]);
  // The tiles lose their padding, whatever the overrides say.
  const tiles = told.changes.find(({ shown }) => shown === 'div.kw-tile');
  assert.deepEqual([tiles?.before, tiles?.after], ['16px', 'unset']);
});

test('--mend is not seen before the update, and holds after it', async () => {
  const folder = await demo();
  const copy = makeSite({});
  cpSync(folder, copy, { recursive: true });
  const { told } = await run(folder, '--mend');
  assert.deepEqual(
    told.mended?.map(({ selector }) => selector),
    ['.kw-badge, .kw-tag', '.kw-table.kw-table th'],
  );
  const proof = await acervus('prove', folder, '--against', copy, '--json');
  assert.equal(proveDocument.parse(JSON.parse(proof.stdout)).equal, true);
  addFiles(folder, {
    'platform/3.1/kelpwork.css': readFileSync(path.join(DEMO, 'platform/4.0/kelpwork.css')),
  });
  const later = (await run(folder)).told.rules.filter(({ place }) => place.path === 'theme/shared.css');
  assert.deepEqual(
    later.map(({ fate }) => fate),
    ['holds', 'holds', 'holds', 'holds'],
  );
  addFiles(folder, { 'platform/3.1/kelpwork.css': read(DEMO, 'platform/3.1/kelpwork.css') });
  assert.equal((await acervus('undo', folder)).code, 0);
  assert.equal(read(folder, 'theme/shared.css'), read(copy, 'theme/shared.css'));
});

test('with the markup of the new version, what matches nothing is found, and what would', async () => {
  const folder = await demo();
  addFiles(folder, {
    'theme/shared.css': `${read(folder, 'theme/shared.css')}\n.kw-tile > p {\n  color: #1f3a56;\n}\n`,
  });
  const page = read(folder, 'index.html');
  const markup = makeSite({
    'index.html': page
      .replaceAll('kw-badge', 'kw-tag')
      .replace(/(<div class="kw-tile[^>]*>)([\s\S]*?)(<\/div>)/g, '$1<div class="kw-tile-in">$2</div>$3'),
  });
  // Only there: elsewhere the tiles are as they were.
  const { told } = await run(folder, '--markup', markup);
  assert.equal(told.markup, 1);
  const small = makeSite({
    'index.html':
      '<!DOCTYPE html><link rel=stylesheet href=platform/kit.css><link rel=stylesheet href=theme/line.css><div class="kw-tile"><p>A</p></div>',
    'platform/kit.css': '.kw-tile { padding: 4px; }',
    'next/kit.css': '.kw-tile-in { padding: 4px; }\n.kw-tile { margin: 0; }',
    'theme/line.css': '.kw-tile > p { color: teal; }',
  });
  const next = makeSite({
    'index.html': read(small, 'index.html').replace('<p>A</p>', '<div class="kw-tile-in"><p>A</p></div>'),
  });
  const done = await acervus('outlast', small, '--platform', 'platform=next', '--markup', next, '--json');
  const [rule] = outlastDocument.parse(JSON.parse(done.stdout)).rules;
  assert.deepEqual([rule?.fate, rule?.likely], ['matches nothing', '.kw-tile p']);
});

test('mistakes get one line', async () => {
  for (const [args, message] of [
    [
      [DEMO],
      /--platform: no update is named; give the sheet that is updated and its new version, as in --platform platform\/3\.1/,
    ],
    [[DEMO, '--platform', 'nowhere.css=x.css'], /no page uses a sheet nowhere\.css/],
    [[DEMO, '--platform', 'platform/3.1/kelpwork.css=gone.css'], /there is no file gone\.css/],
  ] as const) {
    const wrong = await acervus('outlast', ...args);
    assert.equal(wrong.code, 2);
    assert.match(wrong.stderr, message);
    assert.equal(wrong.stderr.trim().split('\n').length, 1);
  }
});
