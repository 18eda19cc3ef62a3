import assert from 'node:assert/strict';
import { test } from 'node:test';
import { declarationValidity } from '../../../../src/core/read/sheets/index.js';

const CERTAIN = [
  ['color', 'var(--tide)'],
  ['width', 'calc(var(--a) + 2px)'],
  ['--any', 'what } ever'],
  ['text-align', '-webkit-center'],
  ['margin', '0 auto'],
];
/** What some browsers keep and others drop, in the words of `var()` too: a prefix, a hack, an expression. */
const UNSURE = [
  ['width', '-webkit-fill-available var(--a)'],
  ['color', 'var(--tide) \\9'],
  ['filter', 'progid:X(var(--a))'],
  ['width', 'expression(var(--a))'],
  ['width', 'var(--a, 1px) intrinsic'],
  ['-webkit-box-shadow', 'none'],
  ['tide', '1px'],
  ['color', '1px'],
];

for (const [property = '', value = ''] of CERTAIN)
  test(`every browser keeps ${property}: ${value}`, () => {
    assert.equal(declarationValidity(property, value).validity, 'certain');
  });
for (const [property = '', value = ''] of UNSURE)
  test(`a browser may drop ${property}: ${value}`, () => {
    assert.equal(declarationValidity(property, value).validity, 'unsure');
  });
