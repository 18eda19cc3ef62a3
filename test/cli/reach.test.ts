import assert from 'node:assert/strict';
import { test } from 'node:test';
import { reachDocument } from '../../src/commands/reach/document.js';
import { acervus, DEMO, htmlPage, makeSite } from '../support/site.js';

const SHEETS =
  '  <link rel="stylesheet" href="platform/kit.css">\n  <link rel="stylesheet" href="theme/line.css">\n';

const folder = makeSite({
  'index.html': htmlPage('<p class="kw-note">A</p>\n<p class="kw-note" style="color: #aa0000">B</p>', SHEETS),
  'crew.html': htmlPage('<p class="kw-note">C</p><b style="color:#A00">D</b>', SHEETS),
  'platform/kit.css': '.kw-note { color: navy; }\n.kw-note:hover { color: red; }\n',
  'theme/line.css':
    ':root { --tide: #a00; }\n.kw-note { color: var(--tide); }\nb, i { color: #aa0000; top: 0 }\n',
});

const reach = async (what: string) =>
  reachDocument.parse(JSON.parse((await acervus('reach', what, folder, '--json')).stdout));
const brief = async (what: string): Promise<string[]> =>
  (await reach(what)).declarations.map(
    ({ property, value, selector, holder, wins, waits, beaten, shared }) =>
      `${property}: ${value} | ${selector} ${holder} | ${wins} ${waits} ${beaten} | ${shared.times}`,
  );

test('a class: every rule that names it, on how many elements it wins, waits, is beaten', async () => {
  const told = await reach('.kw-note');
  assert.deepEqual(
    [told.kind, told.elements, told.pages],
    [
      'selector',
      3,
      [
        { path: 'index.html', elements: 2 },
        { path: 'crew.html', elements: 1 },
      ],
    ],
  );
  assert.deepEqual(await brief('.kw-note'), [
    'color: var(--tide) | .kw-note theme | 2 0 1 | 0',
    'color: red | .kw-note:hover platform | 0 2 1 | 0',
    'color: navy | .kw-note platform | 0 0 3 | 0',
  ]);
});

test('a value in any spelling, a declaration, a custom property and a place are told apart', async () => {
  assert.deepEqual(await brief('#a00'), [
    '--tide: #a00 | :root theme | 2 0 0 | 0',
    'color: #A00 |  style attribute | 1 0 0 | 2',
    'color: #aa0000 |  style attribute | 1 0 0 | 2',
    'color: #aa0000 | b theme | 0 0 1 | 2',
  ]);
  assert.equal((await reach('color: #AA0000')).declarations.length, 3);
  assert.deepEqual(await brief('--tide'), [
    '--tide: #a00 | :root theme | 2 0 0 | 0',
    'color: var(--tide) | .kw-note theme | 2 0 1 | 0',
  ]);
  assert.deepEqual(await brief('theme/line.css:2'), ['color: var(--tide) | .kw-note theme | 2 0 1 | 0']);
  assert.equal((await reach('theme/line.css:3')).kind, 'rule');
});

test('what has effect nowhere exits with 1, and the next step depends on whose rule it is', async () => {
  const nowhere = await acervus('reach', '.nobody', folder);
  assert.equal(nowhere.code, 1);
  assert.match(nowhere.stdout, /no rule and no attribute declares it/);
  assert.match(
    (await acervus('reach', '.kw-num', DEMO)).stdout,
    /next {2}acervus restyle '\.sk-fares \.kw-num'/,
  );
  assert.match(
    (await acervus('reach', '.kw-crumbs a', DEMO)).stdout,
    /next {2}acervus override '\.kw-crumbs a'/,
  );
});

test('a custom property may be asked about as it is written, with its dashes', async () => {
  const run = await acervus('reach', '--tide', folder, '--json');
  assert.equal(run.code, 0);
  assert.equal(reachDocument.parse(JSON.parse(run.stdout)).kind, 'custom property');
  assert.match(
    (await acervus('reach', '--tide', folder)).stdout,
    /2 = color: var\(--tide\) {2}\.kw-note {2}theme/,
  );
});
