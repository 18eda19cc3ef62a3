import assert from 'node:assert/strict';
import { test } from 'node:test';
import { decideLiteral, settleIn } from '../../../../src/core/ask/explain/index.js';
import { ALWAYS, NEVER, TruthTable } from '../../../../src/core/cascade/index.js';

const at = (width: number | undefined, ...states: readonly string[]) => ({
  width,
  states: states.length === 0 ? undefined : new Set(states),
});

test('a width decides media queries about widths and screens, and no others', () => {
  const decided = (query: string, width: number): boolean | undefined =>
    decideLiteral(`@media ${query}`, at(width));
  assert.equal(decided('(max-width: 720px)', 720), true);
  assert.equal(decided('(max-width: 720px)', 721), false);
  assert.equal(decided('screen and (min-width: 40em)', 640), true);
  assert.equal(decided('only screen and (min-width: 40em)', 639), false);
  assert.equal(decided('not all and (max-width: 720px)', 600), false);
  assert.equal(decided('not all and (max-width: 720px)', 800), true);
  assert.equal(decided('(width >= 600px)', 600), true);
  assert.equal(decided('(width < 600px)', 600), false);
  assert.equal(decided('print', 600), false);
  assert.equal(decided('print, (max-width: 700px)', 600), true);
  assert.equal(decided('(prefers-color-scheme: dark)', 600), undefined);
  assert.equal(decided('(max-width: 700px) and (orientation: portrait)', 600), undefined);
  assert.equal(decided('(max-width: 500px) and (orientation: portrait)', 600), false);
  assert.equal(decideLiteral('@media (max-width: 1px)', at(undefined)), undefined);
});

test('a state holds for the element and, where states spread, for what is around it', () => {
  const decided = (literal: string, ...states: readonly string[]): boolean | undefined =>
    decideLiteral(literal, at(undefined, ...states));
  assert.equal(decided(':hover', 'hover'), true);
  assert.equal(decided(':hover on its parent', 'hover'), true);
  assert.equal(decided(':hover on ancestor 3', 'hover'), true);
  assert.equal(decided(':hover on its parent, down 2', 'hover'), false);
  assert.equal(decided(':focus on its parent', 'focus'), false);
  assert.equal(decided(':focus-within on its parent', 'focus'), true);
  assert.equal(decided(':focus', 'hover'), false);
  assert.equal(decided(':link', 'hover'), true);
  assert.equal(decided(':link', 'visited'), false);
  assert.equal(decided(':checked', 'hover'), undefined);
  assert.equal(decided(':checked', 'checked'), true);
  assert.equal(decideLiteral(':hover', at(600)), undefined);
});

test('what is decided is taken out of a condition, and the rest is left', () => {
  const truths = new TruthTable();
  const hover = truths.literal(':hover');
  const narrow = truths.literal('@media (max-width: 700px)');
  const grid = truths.literal('@supports (display: x)');
  const both = truths.and(hover, narrow, grid);
  assert.equal(settleIn(both, at(600, 'hover'), truths), grid);
  assert.equal(settleIn(both, at(900, 'hover'), truths), NEVER);
  assert.equal(settleIn(truths.or(hover, grid), at(600, 'hover'), truths), ALWAYS);
  assert.equal(settleIn(truths.not(hover), at(600, 'focus'), truths), ALWAYS);
  assert.equal(
    truths.text(settleIn(truths.not(truths.and(hover, grid)), at(600, 'hover'), truths)),
    truths.text(truths.not(grid)),
  );
});
