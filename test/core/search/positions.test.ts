// Rules by position: what a place among siblings says, and what is chance.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { adoptAll, homesOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

/** A list of so many items, of which some are styled. */
const list = (length: number, isStyled: (at: number) => boolean): string =>
  `<ul>${Array.from({ length }, (_, at) => (isStyled(at) ? '<li style="top: 0">x</li>' : '<li>x</li>')).join('')}</ul>`;

const homes = (body: string): string[] => homesOf(adoptAll({ 'index.html': htmlPage(body) }));
const isEven = (at: number): boolean => at % 2 === 1;

test('a place is no chance from three rows on, or from four elements', () => {
  assert.deepEqual(homes(list(2, isEven).repeat(3)), ['li:last-child { top:0 } × 3']);
  assert.deepEqual(homes(list(8, isEven)), ['li:nth-child(even) { top:0 } × 4']);
});

test('three elements of one row are chance', () => {
  assert.deepEqual(homes(list(6, isEven)), ['.item-top { top:0 } × 3']);
});

test('of a row in which every element says its own, turns are seen sooner', () => {
  const turns = (length: number): string =>
    `<ul>${Array.from({ length }, (_, at) => `<li style="top: ${at % 2}px">x</li>`).join('')}</ul>`;
  assert.ok(homes(turns(6)).some((one) => one.includes(':nth-child(')));
  assert.ok(!homes(turns(3)).some((one) => one.includes(':nth-child(')));
});
