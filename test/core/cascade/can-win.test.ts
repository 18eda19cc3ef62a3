import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { beaterOf, canWin, StrongerConditions } from '../../../src/core/cascade/can-win.js';
import { ALWAYS, NEVER, type Truth, TruthTable } from '../../../src/core/cascade/index.js';

const table = new TruthTable();
const letters = [...'abcdefgh'].map((letter) => table.literal(letter));
/** Some of the letters together, some as alternatives, one alone, always or never. */
const condition = fc
  .record({
    kind: fc.constantFrom('and', 'or', 'always', 'never'),
    of: fc.subarray(letters, { maxLength: 3 }),
  })
  .map(({ kind, of }): Truth => {
    if (kind === 'always') return ALWAYS;
    if (kind === 'never') return NEVER;
    return kind === 'and' ? table.and(...of) : table.or(...of);
  });

const red = (of: Truth) => ({ value: 'red', condition: of });

test('what cannot win is never seen: whenever it holds, something stronger holds', () => {
  fc.assert(
    fc.property(
      fc.array(condition, { maxLength: 5 }),
      condition,
      fc.subarray([...'abcdefgh']),
      (all, one, held) => {
        if (canWin(red(one), all.map(red), table)) return;
        const holds = (each: Truth): boolean => table.holds(each, (literal) => held.includes(literal));
        assert.ok(!holds(one) || all.some(holds));
      },
    ),
    { numRuns: 2000 },
  );
});

test('asked of many at once, the answer is that of asking one by one', () => {
  fc.assert(
    fc.property(fc.array(condition, { maxLength: 40 }), condition, (all, one) => {
      const stronger = new StrongerConditions(table);
      for (const each of all) stronger.add(red(each));
      assert.equal(stronger.letWin(one), canWin(red(one), all.map(red), table));
    }),
    { numRuns: 1000 },
  );
});

test('revert-layer beats nothing, and a medium beats what holds in a state of that medium', () => {
  const [print, hover] = [table.literal('@media print'), table.literal(':hover')];
  const both = red(table.and(print, hover));
  assert.equal(canWin(both, [red(print)], table), false);
  assert.equal(canWin(red(print), [both], table), true);
  assert.equal(canWin(both, [{ value: 'revert-layer', condition: print }], table), true);
  assert.equal(beaterOf(both.condition, [red(hover), red(ALWAYS)], table)?.condition, hover);
});
