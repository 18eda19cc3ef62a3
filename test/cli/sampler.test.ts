// One page with every shared style: who wears it, who is like it, and what is worn by nothing.

import assert from 'node:assert/strict';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { samplerDocument } from '../../src/commands/sampler/document.js';
import { acervus, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const SHEET = `/* Skerrin Line */

:root { --tide: #1f3a56; --low: 12px; }

/* == Words == */
h2 { margin: 0; }
/* what a crossing costs */
.fare { color: var(--tide); padding: 4px; top: 0; }
.fare:hover { color: teal; }
.fine { color: var(--tide); padding: 4px; left: 0; }

/* Boxes */

.card, .panel { padding: 4px; }
.card p { margin: 0; }
.gone { top: 1px; }
`;
const LINK = '<link rel="stylesheet" href="line.css">';
const FILES = {
  'index.html': htmlPage(
    '<h2>Fares</h2><p class="fare">12</p><div class="card"><p class="fine">x</p></div><a style="color: var(--tide); padding: 4px; top: 0">y</a>',
    LINK,
  ),
  'crew.html': htmlPage('<p class="fare">18</p><p hidden class="fare"></p><div class="panel">z</div>', LINK),
  'line.css': SHEET,
};

async function sampler(...words: readonly string[]) {
  const { code, stdout, stderr } = await acervus('sampler', ...words, '--json');
  assert.notEqual(stdout, '', stderr);
  return { code, document: samplerDocument.parse(JSON.parse(stdout)) };
}

test('every style has its rules, its wearers, its part and its kind, and nothing is written but the page', async () => {
  const site = makeSite(FILES);
  const before = snapshot(site);
  const { code, document } = await sampler(site);
  assert.equal(code, 0);
  assert.deepEqual(
    document.styles.map(({ name, kind, part, elements, pages, rules }) => [
      name,
      kind,
      part,
      elements,
      pages,
      rules.length,
    ]),
    [
      ['.fare', 'text', 'Words', 3, 2, 2],
      ['.card', 'boxes', 'Boxes', 1, 1, 2],
      ['.fine', 'text', 'Words', 1, 1, 1],
      ['.panel', 'boxes', 'Boxes', 1, 1, 1],
      ['h2', 'text', 'Words', 1, 1, 1],
      ['.gone', 'boxes', 'Boxes', 0, 0, 1],
    ],
  );
  const [fare] = document.styles;
  assert.deepEqual(fare?.states, ['hover']);
  assert.deepEqual(
    fare?.like.map(({ name, own, others }) => [name, own, others]),
    [['.fine', ['top: 0'], ['left: 0']]],
  );
  assert.deepEqual([fare?.nearly?.elements, fare?.nearly?.lacks], [1, []]);
  assert.equal(document.values, 2);
  for (const [file, bytes] of before) assert.equal(snapshot(site).get(file), bytes, file);
  assert.equal(document.file, path.join(site, '.acervus', 'sampler', 'index.html'));
});

test('the page names what it shows, runs no script of the site, and text of the site stays text', async () => {
  const evil = '</script><script>alert(1)</script>';
  const site = makeSite({
    'index.html': htmlPage(
      `<p class="fare" onclick="alert(2)">${'&lt;b&gt;'}</p><script>alert(3)</script><meta http-equiv="refresh" content="0; url=//elsewhere.invalid">`,
      `${LINK}<title>${evil}</title>`,
    ),
    'line.css': `${SHEET}/* == <i>part</i> == */\n.x\\<b { --y: "</style><img src=x>"; top: 0 }\n`,
  });
  const { document } = await sampler(site);
  const html = read(site, '.acervus/sampler/index.html');
  assert.match(html, /script-src 'sha256-[^']+'/);
  assert.equal(html.match(/<script/g)?.length, 1, 'ours alone');
  assert.equal(html.includes('<img src=x>'), false);
  assert.equal(html.includes('<i>part'), false);
  for (const [frame] of html.matchAll(/<iframe [^>]*>/g)) {
    assert.match(frame, /sandbox="allow-same-origin"/);
    assert.doesNotMatch(frame, /alert\(3\)|http-equiv/);
  }
  assert.ok(document.styles.some(({ name }) => name === '.fare'));
  assert.match(html, /id="style-\.fare"/);
  assert.match(html, /href="#style-\.fare"/);
});

test('a sheet for paper says nothing of who nearly wears what, and its rules say what they are for', async () => {
  const site = makeSite({
    'index.html': htmlPage(
      '<p class="strip">x</p><p style="display: none">y</p>',
      `${LINK}<link rel="stylesheet" media="print" href="paper.css">`,
    ),
    'line.css': 'p { margin: 0 }\n',
    'paper.css': '.strip { display: none; }\n',
  });
  const { document } = await sampler(site);
  assert.equal(document.styles.find(({ name }) => name === '.strip')?.nearly, undefined);
  assert.match(read(site, '.acervus/sampler/index.html'), /@media print\n\.strip \{ display: none; \}/);
});

test('what a person reads: where the page is, what nothing wears, what is nearly worn', async () => {
  const site = makeSite(FILES);
  const { stdout } = await acervus('sampler', site);
  assert.match(stdout, /^Sampler {2}.*\.acervus\/sampler\/index\.html\n/);
  assert.match(stdout, /2 = text {2}|3 = text {2}/);
  assert.match(stdout, /Unused.*\.gone.*Similar style attributes.*1 \? \.fare/s);
  assert.match(stdout, /next {2}acervus draft/);
});

test('a site without a sheet of its own is told so', async () => {
  const site = makeSite({
    'index.html': htmlPage('<p class="kw-box">x</p>', '<link rel="stylesheet" href="kit/kw.css">'),
    'kit/kw.css': '.kw-box { margin: 1px }\n',
    'acervus.json': '{ "platform": ["kit/**"] }\n',
  });
  for (const command of ['sampler', 'starter']) {
    const { code, stdout } = await acervus(command, site);
    assert.equal(code, 0);
    assert.match(stdout, /no rule in a sheet that is the site's own\n\nnext {2}acervus survey/);
  }
});

test('a place that cannot be is one line, and nothing is written', async () => {
  const site = makeSite(FILES);
  for (const out of ['styles.css', path.join(site, 'nowhere', 'a.html'), site]) {
    const { code, stderr } = await acervus('sampler', site, '--out', out);
    assert.equal(code, 2);
    assert.match(stderr, /^acervus: [^\n]+\n$/);
  }
  assert.equal(existsSync(path.join(site, '.acervus')), false);
});
