import assert from 'node:assert/strict';
import { test } from 'node:test';
import { mayMatchIn, mayMatchMade } from '../../../src/core/search/made.js';

const made = (tags: readonly string[], words: readonly string[] = []) => ({
  tags: new Set(tags),
  words: new Set(words),
});

test('a selector may match what a script makes: by its name, by any name, and by words of the script', () => {
  assert.equal(mayMatchMade('p', made([])), false);
  assert.equal(mayMatchMade('p', made(['p'])), true);
  assert.equal(mayMatchMade('p', made(['li'])), false);
  // `createElement(name)` may make anything.
  assert.equal(mayMatchMade('p', made(['*'])), true);
  assert.equal(mayMatchMade('.fare', made(['li'])), false);
  assert.equal(mayMatchMade('.fare', made(['li'], ['fare'])), true);
  assert.equal(mayMatchMade('li#top', made(['li'], ['fare'])), false);
});

test('a selector may match in a document of which only the text is known', () => {
  const text = '<LI class="fare late">';
  assert.equal(mayMatchIn('li', text), true);
  assert.equal(mayMatchIn('li.fare', text), true);
  assert.equal(mayMatchIn('li.far', text), false);
  assert.equal(mayMatchIn('p', text), false);
  assert.equal(mayMatchIn('l', text), false);
});
