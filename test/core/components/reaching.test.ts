import assert from 'node:assert/strict';
import { test } from 'node:test';
import { reachesOut, reachingRules } from '../../../src/core/components/index.js';

/** The selectors of what comes of a block, without the mark of the component’s own elements. */
const selectorsOf = (css: string): string[] =>
  [...reachingRules(css).matchAll(/([^{}]+)\{[^{}]*\}/g)].map(([, selector]) =>
    selector!.replaceAll(':is([data-own], *)', '[own]').replace(/\s+/g, ' ').trim(),
  );

for (const [written, made] of [
  ['.card :deep(.fare) {}', '.card[own] .fare'],
  ['.card:deep(.fare):hover {}', '.card[own] .fare:hover'],
  ['.card > :deep(.fare) b {}', '.card[own] > .fare b'],
  [':deep(.fare) {}', '[own] .fare'],
  ['.card ::v-deep .fare {}', '.card[own] .fare'],
  ['.card /deep/ .fare {}', '.card[own] .fare'],
  ['.a .b :deep(.c:is(.d, .e)) {}', '.a .b[own] .c:is(.d, .e)'],
  [':global(.late) {}', '.late'],
  ['.card :global(.late) i {}', '.late i, .card[own] .late i'],
  ['.plain, .card :deep(b) {}', '.card[own] b'],
] as const)
  test(`what reaches out of a component: ${written}`, () => {
    assert.ok(reachesOut(written));
    assert.deepEqual(selectorsOf(written.replace('{}', '{ top: 0 }')), [made]);
  });

test('what reaches out of nothing is left out, and what stands around it is kept', () => {
  assert.equal(reachingRules('.a { top: 0 } @media print { .b { top: 0 } }'), '');
  assert.match(
    reachingRules('.a { top: 0 } @media print { .b { top: 0 } .b :deep(i) { left: 0 } }'),
    /^@media \(--in-its-component\) \{@media print\{\.b[^{]* i\{left: ?0\}\}\}$/,
  );
  assert.equal(reachingRules('.card :deep() { top: 0 }'), '');
});
