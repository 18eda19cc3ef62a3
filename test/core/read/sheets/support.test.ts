// What Chromium keeps and some other browser of the target does not is not certain; a fallback is no mistake.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { declarationValidity, isFallback } from '../../../../src/core/read/sheets/index.js';

const validity = (text: string): string => {
  const [property = '', value = ''] = text.split(/:(.*)/s);
  return declarationValidity(property, value.trim()).validity;
};

test('a declaration that every browser of the target keeps is certain', () => {
  for (const text of [
    'position: sticky',
    'display: grid',
    'width: min(300px, 100%)',
    'inset: 0',
    'cursor: pointer',
    'background: linear-gradient(#333, #000)',
  ])
    assert.equal(validity(text), 'certain', text);
});

test('a property that a browser knows by a prefix alone, a value or a function that it drops, is not', () => {
  for (const text of [
    'user-select: none',
    'user-select: var(--choice)',
    'mask-image: none',
    'height: stretch',
    'color: light-dark(black, white)',
    'grid-template-rows: subgrid',
  ])
    assert.equal(validity(text), 'unsure', text);
});

test('a fallback is what stands behind a prefix, or before a value with a newer function', () => {
  const pair = (earlier: string, later: string): boolean => {
    const [a, b] = [earlier, later].map((text) => {
      const [property = '', value = ''] = text.split(': ');
      return { property, value };
    });
    return isFallback(a!, b!);
  };
  assert.equal(pair('position: -webkit-sticky', 'position: sticky'), true);
  assert.equal(pair('-moz-user-select: none', 'user-select: none'), true);
  assert.equal(pair('width: 300px', 'width: min(300px, 100%)'), true);
  assert.equal(pair('background: #333', 'background: linear-gradient(#333, #000)'), true);
  assert.equal(pair('color: red', 'color: blue'), false);
  assert.equal(pair('color: red', 'color: rgb(0, 0, 255)'), false);
  assert.equal(pair('width: calc(1px + 1em)', 'width: calc(2px + 1em)'), false);
});
