import assert from 'node:assert/strict';
import { test } from 'node:test';
import { compileSelectorList, compileSelectors } from '../../../../src/core/cascade/index.js';
import { listItems, parseSheet } from '../../../../src/core/read/sheets/index.js';
import { Random } from '../../../support/generate.js';

const selectorsOf = (css: string): string[] => parseSheet(css).rules.map(({ selector }) => selector);

const NESTED: readonly [string, string][] = [
  ['#a { .b { .c { top: 0 } } }', '#a .b .c'],
  ['.a { > p, + ul { top: 0 } }', '.a > p, .a + ul'],
  ['.a { &:hover, .x & { top: 0 } }', '.a:hover, .x .a'],
  ['.a .b { .x & { top: 0 } }', '.x :is(.a .b)'],
  ['.a, .b { & .c { top: 0 } }', ':is(.a, .b) .c'],
  ['ul { .x& { top: 0 } }', '.x:is(ul)'],
  ['.a { &p { top: 0 } }', 'p:is(.a)'],
  ['.a { :not(&) { top: 0 } }', ':not(.a)'],
  ['.a { [title="a & b"] { top: 0 } }', '.a [title="a & b"]'],
  ['.a { @media print { & > .b { top: 0 } } }', '.a > .b'],
];

for (const [css, selector] of NESTED)
  test(`${css} is a rule for ${selector}`, () => {
    assert.deepEqual(selectorsOf(css).slice(-1), [selector]);
  });

test('a list is split where its own commas are', () => {
  assert.deepEqual(listItems('.a:is(.b, .c) /* , */, [x=","], p'), ['.a:is(.b, .c)', '[x=","]', 'p']);
});

test('a nested rule is as specific as its selector says', () => {
  const random = new Random(7);
  const parts = ['.a', '#b', 'p', '.a .b', 'ul > li', '.a, #b p'];
  const inner = ['& .x', '> p', '.x &', '&.y', '&:hover, .z', 'p', ':not(&)'];
  for (let round = 0; round < 200; round++) {
    const nesting = [
      random.pick(parts),
      random.pick(inner),
      ...(round % 2 === 0 ? [random.pick(inner)] : []),
    ];
    const rule = parseSheet(`${nesting.join(' { ')} { top: 0 ${'}'.repeat(nesting.length)}`).rules.at(-1)!;
    const [asWritten, asSaid] = [compileSelectors(rule.nesting), compileSelectorList(rule.selector)];
    assert.ok(asWritten.kind === 'list' && asSaid.kind === 'list', rule.selector);
    const weights = (list: typeof asSaid): number[] => list.selectors.map(({ specificity }) => specificity);
    assert.deepEqual(weights(asSaid), weights(asWritten), nesting.join(' / '));
  }
});

test('rules that double with each level do not fill the memory', () => {
  const deep = `.a {${'& & {'.repeat(60)} top: 0 ${'}'.repeat(61)}`;
  assert.ok(selectorsOf(deep).every((selector) => selector.length <= 10_000));
});
