import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { test } from 'node:test';
import stringWidth from 'string-width';
import { clean, grouped, heading, next, row } from '../../src/cli/shared/paper.js';
import { acervus, DEMO, htmlPage, makeSite, PROJECT } from '../support/site.js';

test('counts stand right-aligned in the first column, places at the right edge of 80', async () => {
  assert.equal(row({ count: 12480, text: 'declarations' }), ' 12 480   declarations');
  const line = row({ count: 3, mark: 'made', text: '.quay', place: 'index.html:4:2' });
  assert.equal(line.length, 80);
  assert.match(line, /^ {6}3 \+ \.quay {2,}index\.html:4:2$/);
});

test('what does not fit goes on in the next line, and nothing is cut', async () => {
  const text = Array.from({ length: 30 }, (_, i) => `word${i}`).join(' ');
  const lines = row({ text, place: 'a.html:1:1' }).split('\n');
  assert.ok(lines.length > 1 && lines.every((one) => one.length <= 80));
  assert.equal(lines.join(' ').replace(/\s+/g, ' ').trim(), `${text} a.html:1:1`);
  assert.ok(row({ text: 'x'.repeat(200) }).includes('x'.repeat(200)));
});

test('a wide character takes two columns, one that is drawn over another none', () => {
  for (const text of ['潮'.repeat(20), 'a\u0301'.repeat(40), '⛴️ Tarbek']) {
    const line = row({ text, place: 'a.html:1:1' });
    assert.equal(stringWidth(line), 80, line);
  }
  const lines = row({ text: Array.from({ length: 20 }, () => '潮の表').join(' ') }).split('\n');
  assert.ok(lines.length === 3 && lines.every((one) => stringWidth(one) <= 80), lines.join('\n'));
});

test('a line that goes on stands two columns in, and the first has the whole width', () => {
  const [first = '', second = ''] = row({ text: `${'a'.repeat(34)} ${'b'.repeat(35)} c d` }).split('\n');
  assert.equal(first.length, 80);
  assert.equal(second, `${' '.repeat(12)}c d`);
});

test('control characters and text that runs backwards never reach the terminal', async () => {
  assert.equal(clean('a\u001b[31mb\u202ec\nd\u0007'), 'a [31mb c d ');
  assert.equal(grouped(1234567), '1 234 567');
  assert.match(heading('Site', 'x'), /^\nSite {2}x$/);
  assert.match(next('acervus draft', 'why'), /^\nnext {2}acervus draft {2}why$/);
});

const coloured = (env: Record<string, string>): boolean => {
  const folder = makeSite({
    'index.html': htmlPage('<p style="color: #1f3a56">a<p style="color: #1f3a56">b'),
  });
  const clear = Object.fromEntries(
    Object.entries(process.env).filter(([name]) => !/^(NO_COLOR|FORCE_COLOR|CI)$/.test(name)),
  );
  const { stdout } = spawnSync(
    process.execPath,
    [path.join(PROJECT, 'dist', 'cli', 'main.js'), 'survey', folder],
    { encoding: 'utf8', env: { ...clear, ...env } },
  );
  assert.match(stdout.replace(/\u001b\[[0-9;]*m/g, ''), /color: {1,4}#1f3a56/);
  return stdout.includes('\u001b[');
};

test('colour follows NO_COLOR and FORCE_COLOR, with swatches where there is colour', async () => {
  assert.equal(coloured({ NO_COLOR: '1' }), false);
  assert.equal(coloured({ FORCE_COLOR: '1' }), true);
  assert.equal(coloured({ CI: 'true' }), false);
});

test('results go to stdout, and stderr stays silent where it is no terminal', async () => {
  for (const args of [
    ['survey', DEMO],
    ['prove', DEMO, '--against', DEMO],
  ])
    assert.equal((await acervus(...args)).stderr, '');
});

test('a reader that stops reading is no failure', async () => {
  const { status, stderr } = spawnSync(
    'sh',
    [
      '-c',
      `"${process.execPath}" "${path.join(PROJECT, 'dist', 'cli', 'main.js')}" survey "${DEMO}" --json | head -1`,
    ],
    { encoding: 'utf8' },
  );
  assert.deepEqual([status, stderr], [0, '']);
});
