// Which custom properties a value asks for: one answer for everybody who asks.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { usesVariables, variableAlone, variablesIn } from '../../../../src/core/read/sheets/variables.js';

test('each custom property that a value asks for, in any case, with and without something to fall back to', () => {
  assert.deepEqual(variablesIn('1px VAR( --a ) var(--b, var(--Ñ-c, 2px))'), ['--a', '--b', '--Ñ-c']);
  assert.deepEqual(variablesIn('calc(var(--a)*var(--a))'), ['--a', '--a']);
  assert.deepEqual(variablesIn('--a my-var(--b) var() var(--)'), []);
});

test('a value asks for one, or a name only ends like it', () => {
  assert.deepEqual(
    ['var(--a)', 'Var(--a)', 'max(var(--a), 1px)', 'my-var(--a)', '--var', 'none'].map(usesVariables),
    [true, true, true, false, false, false],
  );
});

test('a value consists of one custom property, or of more', () => {
  assert.deepEqual(
    [
      ' var( --a ) ',
      'VAR(--a)',
      'var(--a, 1px)',
      'var(--a) var(--b)',
      '1px var(--a)',
      'calc(var(--a))',
      'red',
    ].map(variableAlone),
    ['--a', '--a', undefined, undefined, undefined, undefined, undefined],
  );
});
