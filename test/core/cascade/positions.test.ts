import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Positions } from '../../../src/core/cascade/positions.js';
import { type Page, parsePage } from '../../../src/core/read/markup/index.js';

/** Positions of the elements of a fragment: among all, among those of their name, and both from the end. */
function positionsIn(body: string): string[] {
  const page: Page = parsePage('a.html', body, true);
  const positions = Positions.of(page);
  return page.elements.map((element) => {
    const [first, ofType] = [positions.at(element, false, false), positions.at(element, false, true)];
    const [last, ofTypeLast] = [positions.at(element, true, false), positions.at(element, true, true)];
    return `${element.name} ${first} ${ofType} ${last} ${ofTypeLast}`;
  });
}

test('siblings are counted each in their own row, by name and from both ends', () => {
  assert.deepEqual(positionsIn('<p>a</p><b>b</b><p>c<i>d</i><b>e</b><i>f</i></p><p>g</p>'), [
    'p 1 1 4 3',
    'b 2 1 3 1',
    'p 3 2 2 2',
    'i 1 1 3 2',
    'b 2 1 2 1',
    'i 3 2 1 1',
    'p 4 3 1 1',
  ]);
});

test('what stands inside a picture or a formula is a row of its own', () => {
  const found = positionsIn('<svg><a></a></svg><a>x</a><svg></svg>');
  assert.deepEqual(found, ['svg 1 1 3 2', 'a 1 1 1 1', 'a 2 1 2 1', 'svg 3 2 1 1']);
  assert.deepEqual(positionsIn('<math><a></a></math>'), ['math 1 1 1 1', 'a 1 1 1 1']);
});
