// What a change of a page asks of its editor, and whether it was done.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { stateOfWork, workBetween } from '../../../../src/core/ask/visit/work.js';
import { parsePage } from '../../../../src/core/read/markup/index.js';

const page = (body: string) => parsePage('fares.html', `<!DOCTYPE html><html><body>${body}</body></html>`);

const OLD =
  '<div id="b1"><h2>Fares</h2><p style="color: red; margin: 0">Children travel free.</p><td align="center"></div>';
const NEW =
  '<div id="b1"><h2>Fares</h2><p class="note" style="margin: 0">Children travel free.</p><td></div>';

test('each tag that changes is one piece of work, with where a person finds it', () => {
  const [work, ...others] = workBetween(page(OLD), page(NEW));
  assert.deepEqual(others, []);
  assert.deepEqual(work, {
    anchor: 'b1',
    heading: 'Fares',
    text: 'Children travel free.',
    element: 'p',
    path: [1, 2, 1, 2],
    styleOut: ['color: red'],
    styleLeft: 'margin: 0',
    classIn: ['note'],
    classOut: [],
    attributesOut: [],
  });
  const [old] = workBetween(page('<p align="center">x'), page('<p>x'));
  assert.deepEqual(old?.attributesOut, ['align="center"']);
});

test('work is done when the page says so, however the editor writes it', () => {
  const [work] = workBetween(page(OLD), page(NEW));
  const state = (body: string) => stateOfWork(work!, page(body));
  assert.equal(state(OLD), 'open');
  assert.equal(
    state('<div id="b1"><h2>Fares</h2><p class="note" style="COLOR:#f00">Children travel free.</p></div>'),
    'open',
  );
  assert.equal(state(NEW), 'done');
  assert.equal(
    state('<div id="b1"><h2>Fares</h2><p class="wide note">Children travel free.</p></div>'),
    'done',
  );
  assert.equal(
    state('<div><section><p class="note">Children  travel\nfree.</p></section></div>'),
    'done',
    'moved',
  );
  assert.equal(state('<div><p class="note">Something else.</p></div>'), 'gone');
  assert.equal(stateOfWork(work!, undefined), 'gone');
});

test('a block with an id is found by it, whatever it says by now', () => {
  const [work] = workBetween(page('<p id="b7" style="margin:0">a'), page('<p id="b7">a'));
  assert.equal(stateOfWork(work!, page('<main><p id="b7">b</main>')), 'done');
  assert.equal(stateOfWork(work!, page('<main><p id="b7" style="margin: 0">b</main>')), 'open');
});
