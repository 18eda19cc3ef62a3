// What text is made of, and how it begins and ends: each question at its edges, the empty text and the end.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  DIGIT,
  either,
  endsWithOneOf,
  hasOneOf,
  isMadeOf,
  isPlainName,
  LETTER,
  NAME,
  not,
  SPACE,
  startsWithOneOf,
  trimmedAfter,
  trimmedBefore,
  without,
} from '../../../src/core/base/characters.js';
import {
  endsWithAny,
  includesAny,
  inOneLine,
  linesOf,
  startsWithAny,
  withoutEnd,
  withoutStart,
  wordsOf,
} from '../../../src/core/base/phrases.js';

test('a set is a list or a question, alone, together or turned round; the empty text has nothing of it', () => {
  assert.deepEqual(
    ['12', '1a', '', '1 '].map((text) => isMadeOf(text, DIGIT)),
    [true, false, false, false],
  );
  assert.deepEqual(
    [isMadeOf('a-b_1', NAME), isMadeOf('a.b', NAME), isMadeOf('é', LETTER)],
    [true, false, false],
  );
  assert.deepEqual(
    [hasOneOf('a;b', '{};'), hasOneOf('ab', '{};'), hasOneOf('', not('x'))],
    [true, false, false],
  );
  assert.deepEqual([startsWithOneOf('\u00a0a', SPACE), endsWithOneOf('a\n', SPACE)], [true, true]);
  assert.deepEqual([startsWithOneOf('', not(SPACE)), endsWithOneOf('', not(SPACE))], [false, false]);
  assert.equal(isMadeOf('1.5', either(DIGIT, '.')), true);
  assert.deepEqual(['a1', '_a', '1a', '-a', ''].map(isPlainName), [true, true, false, false, false]);
});

test('characters are taken from one end, the other, or all of it', () => {
  assert.equal(trimmedBefore('//a/', '/'), 'a/');
  assert.equal(trimmedAfter('/a//', '/'), '/a');
  assert.equal(trimmedBefore('//', '/'), '');
  assert.equal(without('a1b2', DIGIT), 'ab');
  assert.deepEqual([withoutStart('./a', './'), withoutStart('a', './')], ['a', 'a']);
  assert.deepEqual(
    [withoutEnd('a.css', '.css'), withoutEnd('a', '.css'), withoutEnd('a', '')],
    ['a', 'a', 'a'],
  );
});

test('pieces, words and lines', () => {
  assert.deepEqual([startsWithAny('abc', ['b', 'ab']), startsWithAny('abc', [])], [true, false]);
  assert.deepEqual([endsWithAny('abc', ['b', 'bc']), includesAny('abc', ['d', 'b'])], [true, true]);
  assert.deepEqual(wordsOf(' a\tb \n'), ['a', 'b']);
  assert.deepEqual(wordsOf(''), []);
  assert.deepEqual(linesOf('a\r\nb\nc\rd'), ['a', 'b', 'c', 'd']);
  assert.equal(inOneLine(' a\n  b '), 'a b');
});
