// What changes from build to build is set aside; what says how elements look is not.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { placeForNew } from '../../../src/site/building/copies.js';
import { settledText } from '../../../src/site/building/unsteady.js';

test('a time that differs in two builds is as in the first, and a change beside it stays', () => {
  const page = (time: string, style: string): string =>
    `<meta content="${time}">\n<p ${style}>Fares</p>\n<time>${time}</time>`;
  const settled = settledText(
    page('10:01', 'style="margin:0"'),
    page('10:02', 'style="margin:0"'),
    page('10:03', 'class="note"'),
  );
  assert.equal(settled, page('10:01', 'class="note"'));
});

test('a class that differs in two builds is not set aside', () => {
  const page = (name: string): string => `<p class="a ${name}">x</p>`;
  assert.equal(settledText(page('k1'), page('k2'), page('k3')), page('k3'));
  const block = (name: string): string => `<style>.${name} { margin: 0 }</style>`;
  assert.equal(settledText(block('k1'), block('k2'), block('k3')), block('k3'));
});

test('a new sheet stands where the sources of its neighbours do', () => {
  const copies = new Map([
    ['css/site.css', 'theme/source/css/site.css'],
    ['js/a.js', 'theme/source/js/a.js'],
    ['img/b.png', 'theme/source/img/b.png'],
    ['robots.txt', 'source/robots.txt'],
  ]);
  assert.equal(placeForNew(copies, 'css/shared.css'), 'theme/source/css/shared.css');
  assert.equal(placeForNew(copies, 'styles/shared.css'), 'theme/source/styles/shared.css');
  assert.equal(placeForNew(new Map(), 'css/shared.css'), undefined);
});
