import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { ALWAYS, NEVER, type Truth, TruthTable } from '../../../src/core/cascade/index.js';

type Expression =
  | string
  | { readonly kind: 'and' | 'or'; readonly parts: readonly Expression[] }
  | { readonly kind: 'not'; readonly part: Expression };

const { expression } = fc.letrec<{ expression: Expression }>((tie) => ({
  expression: fc.oneof(
    { depthSize: 'small' },
    fc.constantFrom('a', 'b', 'c', 'always', 'never'),
    fc.record({
      kind: fc.constantFrom('and' as const, 'or' as const),
      parts: fc.array(tie('expression'), { maxLength: 3 }),
    }),
    fc.record({ kind: fc.constant('not' as const), part: tie('expression') }),
  ),
}));

function build(table: TruthTable, one: Expression): Truth {
  if (typeof one === 'string')
    return one === 'always' ? ALWAYS : one === 'never' ? NEVER : table.literal(one);
  if (one.kind === 'not') return table.not(build(table, one.part));
  return table[one.kind](...one.parts.map((part) => build(table, part)));
}

function evaluate(one: Expression, held: ReadonlySet<string>): boolean {
  if (typeof one === 'string') return one === 'always' || held.has(one);
  if (one.kind === 'not') return !evaluate(one.part, held);
  return one.kind === 'and'
    ? one.parts.every((part) => evaluate(part, held))
    : one.parts.some((part) => evaluate(part, held));
}

test('an interned condition holds exactly when what it was built from holds', () => {
  const table = new TruthTable();
  fc.assert(
    fc.property(expression, fc.subarray(['a', 'b', 'c']), (one, letters) => {
      const held = new Set(letters);
      assert.equal(
        table.holds(build(table, one), (literal) => held.has(literal)),
        evaluate(one, held),
      );
    }),
    { numRuns: 1000 },
  );
});

test('the same condition built twice, in any order, is the same number', () => {
  const table = new TruthTable();
  const [a, b, c] = ['a', 'b', 'c'].map((text) => table.literal(text)) as [Truth, Truth, Truth];
  assert.equal(table.and(a, table.and(b, c)), table.and(c, b, a, a));
  assert.equal(table.or(a, NEVER, b), table.or(b, a));
  assert.equal(table.not(table.not(a)), a);
  assert.notEqual(table.and(a, b), table.or(a, b));
  assert.notEqual(table.and(a, table.or(b, c)), table.or(table.and(a, b), c));
});

test('a condition implies another only where that holds whenever it does', () => {
  const table = new TruthTable();
  const states = [[], ['a'], ['b'], ['c'], ['a', 'b'], ['a', 'c'], ['b', 'c'], ['a', 'b', 'c']];
  fc.assert(
    fc.property(expression, expression, (one, other) => {
      if (!table.implies(build(table, one), build(table, other))) return;
      for (const state of states) {
        const held = new Set(state);
        assert.ok(!evaluate(one, held) || evaluate(other, held));
      }
    }),
    { numRuns: 2000 },
  );
  const [a, b, c] = ['a', 'b', 'c'].map((text) => table.literal(text)) as [Truth, Truth, Truth];
  assert.ok(table.implies(table.and(a, b, c), table.and(a, c)));
  assert.ok(table.implies(table.and(a, b), table.or(b, c)));
  assert.ok(!table.implies(table.or(a, b), a));
  assert.ok(!table.implies(a, table.and(a, b)));
});
