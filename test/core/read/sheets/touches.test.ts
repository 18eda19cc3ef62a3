import assert from 'node:assert/strict';
import { test } from 'node:test';
import { knownPropertyNames } from '../../../../src/core/read/sheets/index.js';
import { touches } from '../../../../src/core/read/sheets/touches.js';

const PAIRS: readonly [string, string, boolean][] = [
  ['gap', 'row-gap', true],
  ['grid-gap', 'column-gap', true],
  ['inset', 'left', true],
  ['inset-inline-start', 'left', true],
  ['columns', 'column-count', true],
  ['-webkit-transform', 'transform', true],
  ['word-wrap', 'overflow-wrap', true],
  ['font', 'line-height', true],
  ['margin', 'margin-top', true],
  ['margin-top', 'margin-left', false],
  ['border-color', 'border-top-width', false],
  ['border', 'border-image-source', true],
  ['all', 'color', true],
  ['all', 'direction', false],
  ['all', '--line', false],
  ['--line', '--line', true],
  ['--line', '--line-height', false],
  // What begins alike is not the same.
  ['text', 'text-align', false],
  ['margin', 'margin-trim', false],
];

for (const [one, other, answer] of PAIRS)
  test(`writing ${one} ${answer ? 'concerns' : 'leaves alone'} what is declared as ${other}, and the other way round`, () => {
    assert.equal(touches(one, other), answer);
    assert.equal(touches(other, one), answer);
  });

test('any known property touches itself and all, whatever it is called', () => {
  for (const name of knownPropertyNames()) assert.ok(touches(name, name), name);
});
