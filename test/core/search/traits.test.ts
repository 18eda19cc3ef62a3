import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { knownPropertyNames, parseDeclarations } from '../../../src/core/read/sheets/index.js';
import { colourWord } from '../../../src/core/search/index.js';
import { traitsOf } from '../../../src/core/search/traits.js';

const words = (style: string): string[] =>
  traitsOf(parseDeclarations(style).declarations).map(({ word }) => word);

test('a colour has the name that people would give it', () => {
  assert.deepEqual(['#1f3a56', '#f6efe0', 'red', '#b3261e', '#fff', 'rgb(10, 10, 10)'].map(colourWord), [
    'navy',
    'cream',
    'red',
    'red',
    'white',
    'black',
  ]);
  for (const text of ['currentcolor', 'var(--ink)', 'inherit', '12px'])
    assert.equal(colourWord(text), undefined);
});

test('declarations have words, the most telling first', () => {
  assert.deepEqual(words('margin: 0; text-align: right; background: #f6efe0'), [
    'on-cream',
    'right',
    'tight',
  ]);
  assert.deepEqual(words('font-size: 12px'), ['small']);
  assert.deepEqual(words('font-size: 2em; width: 37.5%'), ['huge', 'wide-37-5']);
  assert.deepEqual(words('border: 0; border-bottom: 1px solid red'), ['line-below', 'unframed']);
  assert.deepEqual(words('display: none; float: left'), ['hidden', 'left']);
});

test('a colour that the house has a name for is called so', () => {
  assert.deepEqual(words('color: var(--kit-text-secondary)'), ['secondary']);
  assert.deepEqual(words('background: var(--danger-color, red)'), ['on-danger']);
  assert.deepEqual(words('fill: var(--kit-color-pier)'), ['filled-pier']);
  for (const name of ['--g10-t', '--color', '--bg-2'])
    assert.deepEqual(words(`color: var(${name})`), ['coloured']);
});

test('rows and columns are called by what they do', () => {
  assert.deepEqual(words('display: flex; flex: 1; gap: 1rem'), ['flex', 'grow', 'gapped']);
  assert.deepEqual(words('flex-direction: column; justify-content: space-between'), ['column', 'spread']);
  assert.deepEqual(words('justify-content: flex-end; align-items: center'), ['packed-end', 'align-center']);
  assert.deepEqual(words('flex-wrap: wrap; flex-shrink: 0'), ['rigid', 'wrapping']);
});

test('any declaration gives a word that can stand in a class name', () => {
  const property = fc.constantFrom(...knownPropertyNames());
  const value = fc.oneof(
    fc.constantFrom('none', '0', '12px', 'red', 'inherit', 'a b', 'url(x.png)', 'calc(1px + 2px)'),
    fc.stringMatching(/^[a-z0-9 .%#-]{1,12}$/),
  );
  fc.assert(
    fc.property(property, value, (name, text) => {
      for (const word of words(`${name}: ${text}`)) assert.match(word, /^[a-z0-9-]*$/i, `${name}: ${text}`);
    }),
    { numRuns: 1000 },
  );
});
