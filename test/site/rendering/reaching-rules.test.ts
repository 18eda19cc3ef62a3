import assert from 'node:assert/strict';
import { test } from 'node:test';
import { reachesOut } from '../../../src/core/read/components/index.js';
import { reachingRules } from '../../../src/site/rendering/reaching-rules.js';

/** What comes of a block, without the condition around it, the mark of the component’s own elements in short. */
const rulesOf = (css: string): string =>
  reachingRules(css)
    .replace(/^@media \(--in-its-component\) \{\n|\n\}$/g, '')
    .replaceAll(':is([data-own], *)', '[own]')
    .replace(/[^\S\n]+/g, ' ');

for (const [written, made] of [
  ['.card :deep(.fare)', '.card[own] .fare'],
  ['.card:deep(.fare):hover', '.card[own] .fare:hover'],
  ['.card > :deep(.fare) b', '.card[own] > .fare b'],
  [':deep(.fare)', '[own] .fare'],
  ['.card ::v-deep .fare', '.card[own] .fare'],
  ['.card >>> .fare', '.card[own] .fare'],
  ['.card /deep/ .fare', '.card[own] .fare'],
  ['.a .b :deep(.c:is(.d, .e))', '.a .b[own] .c:is(.d, .e)'],
  [':global(.late)', '.late'],
  ['.card :global(.late) i', '.late i, .card[own] .late i'],
  ['.card :global .late', '.late, .card[own] .late'],
  ['.plain, .card :deep(b)', '.card[own] b'],
] as const)
  test(`what reaches out of a component: ${written}`, () => {
    assert.ok(reachesOut(written));
    assert.equal(rulesOf(`${written} { top: 0 }`), `${made} { top: 0 }`);
  });

test('rules in rules and in conditions reach out of what they stand in', () => {
  assert.equal(
    rulesOf('.card { left: 0; .own { top: 0 } :deep(.fare) { top: 1px !important } }'),
    '.card { &[own] .fare { top: 1px !important }}',
  );
  assert.equal(rulesOf('.card :global { .late { top: 0 } }'), '.card[own] { .late { top: 0 }}');
  assert.equal(
    rulesOf('.a { top: 0 } @media print { .b { top: 0 } .b :deep(i) { left: 0 } }'),
    '@media print { .b[own] i { left: 0 }}',
  );
});

test('what reaches out of nothing is left out', () => {
  assert.equal(reachingRules('.a { top: 0 } @media print { .b { top: 0 } }'), '');
  assert.equal(reachingRules('.card :deep() { top: 0 }'), '');
  assert.equal(reachingRules('@keyframes a { from { top: 0 } }'), '');
});
