// Boxes as sheets of their own, on the lines on which they stand in the pages.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Box } from '../../../src/core/ask/visit/index.js';
import {
  boxesIn,
  boxFile,
  isBoxFile,
  type Visited,
  withBoxes,
  withSheets,
} from '../../../src/site/visiting/with-boxes.js';

function visited(boxes: readonly Box[], addresses: Record<string, string> = {}): Visited {
  return {
    pages: [],
    addresses: new Map(Object.entries(addresses)),
    boxes: boxes.map((box) => ({ box, sheet: 'sheet' in box ? 'theme/custom.css' : undefined })),
    addressOf: new Map(),
    files: new Map(),
    origin: 'http://skerrin.example',
  };
}

const PAGE = `<head>
<style id="own-css" media="screen">
p { color: red }
a { color: blue }
</style><style class="kit page-css">h1 { margin: 0 }</style>
<link rel=stylesheet href="/theme/custom.css?v=2" media=print>
<style>b { top: 0 }</style>
</head>
<body>`;

test('each box is a link in its place, and every line of the page stays where it was', () => {
  const all = visited([{ style: '#own-css' }, { page: 'style.page-css' }, { sheet: 'custom.css' }], {
    '/theme/custom.css?v=2': 'theme/custom.css',
  });
  const text = withBoxes(PAGE, 'fares/day.html', all, () => true);
  assert.deepEqual(
    [...text.matchAll(/<link[^>]*href="([^"]*)"/g)].map(([, address]) => address),
    ['../own/own-css.css', '../own/page-css/fares/day.css', '../theme/custom.own.css'],
  );
  assert.match(text, /id="own-css" media="screen"/);
  assert.match(text, /media="print"/);
  const lineOf = (within: string, what: string): number =>
    within.slice(0, within.indexOf(what)).split('\n').length;
  for (const what of ['media=', '<style>b', '</head>', '<body>'])
    assert.equal(lineOf(text, what), lineOf(PAGE, what), what);
  assert.equal(text.split('\n').length, PAGE.split('\n').length);
});

test('a box of which there is no file is left as it stands', () => {
  assert.equal(
    withBoxes(PAGE, 'a.html', visited([{ style: '#own-css' }]), () => false),
    PAGE,
  );
  assert.equal(
    withBoxes(PAGE, 'a.html', visited([]), () => true),
    PAGE,
  );
});

test('whose a file is', () => {
  const all = visited([{ style: '#own-css' }, { page: 'style.page-css' }, { sheet: 'custom.css' }]);
  const [site, page, sheet] = all.boxes;
  assert.deepEqual(
    [boxFile(site!, 'x.html'), boxFile(page!, 'a/b.html'), boxFile(sheet!, 'x.html')],
    ['own/own-css.css', 'own/page-css/a/b.css', 'theme/custom.own.css'],
  );
  for (const own of ['own/own-css.css', 'own/page-css/a/b.css', 'theme/custom.own.css'])
    assert.equal(isBoxFile(all, own), true, own);
  for (const other of ['theme/custom.css', 'own/other.css', 'own/page-css/a/b.html', 'index.html'])
    assert.equal(isBoxFile(all, other), false, other);
});

test('what stands in a comment or a script is no box that hides another', () => {
  const text = `<!-- <style id="own-css">old</style> --><style id="own-css">new</style>`;
  const found = boxesIn(text, 'a.html', visited([{ style: '#own-css' }]));
  assert.deepEqual(
    found.map(({ css }) => css),
    ['old', 'new'],
  );
  assert.match(
    withBoxes(text, 'a.html', visited([{ style: '#own-css' }]), () => true),
    /--><link/,
  );
});

test('for a browser, sheets that lie elsewhere are linked where they lie here', () => {
  const text =
    '<link rel="stylesheet" href="https://cdn.example/kit.css"><link rel="stylesheet" href="near.css">';
  assert.equal(
    withSheets(
      text,
      'a/b.html',
      visited([], { 'https://cdn.example/kit.css': 'elsewhere/cdn.example/kit.css' }),
    ),
    '<link rel="stylesheet" href="../elsewhere/cdn.example/kit.css"><link rel="stylesheet" href="near.css">',
  );
});
