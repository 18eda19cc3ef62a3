// Taking back what the proof does not vouch for: on small sites whose rules are the items.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { SiteModel } from '../../../src/core/cascade/index.js';
import {
  type Difference,
  type Planned,
  PROVE,
  proveAndTakeBack,
  TRUST,
} from '../../../src/core/proof/index.js';
import { modelOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

const BODY = '<p class="a">x</p><b class="b">y</b>';
const state = (css: string, before?: SiteModel): SiteModel =>
  modelOf(
    { 'index.html': htmlPage(BODY, '<link rel="stylesheet" href="a.css">'), 'a.css': css },
    before?.table,
  );

/** Items are rules that are appended. Out: those that stay, and why the others do not. */
function carry(rules: readonly string[], blame: (one: Difference, rules: readonly string[]) => string[]) {
  const before = state('.a { color: red }');
  let plans = 0;
  const { plan, refused, proof } = proveAndTakeBack<string, Planned<string>>({
    before,
    judge: PROVE,
    rounds: 6,
    plan: (known) => {
      plans++;
      const items = rules.filter((rule) => !known.has(rule));
      return {
        items,
        after: items.length === 0 ? before : state(`.a { color: red } ${items.join(' ')}`, before),
      };
    },
    blame: (one, { items }) => blame(one, items),
  });
  assert.deepEqual(proof.differences, []);
  return { kept: plan.items, refused: [...refused], plans };
}

const bySelector = (one: Difference, rules: readonly string[]): string[] =>
  one.kind === 'style' ? rules.filter((rule) => one.after.some(({ from }) => rule.startsWith(from))) : [];

test('what brings a difference about goes, with what would change as its reason; the rest stays', () => {
  const { kept, refused } = carry(
    ['.b { color: blue }', '.a { color: #f00 }', '.none { top: 0 }'],
    bySelector,
  );
  assert.deepEqual(kept, ['.a { color: #f00 }', '.none { top: 0 }']);
  assert.deepEqual(
    refused.map(([rule, reason]) => [rule, reason.kind, reason.kind === 'proof' && reason.detail]),
    [['.b { color: blue }', 'proof', 'color of b.b would change: .b sets blue']],
  );
});

test('where nobody can tell whose difference it is, all goes rather than one unproven', () => {
  const { kept, refused, plans } = carry(['.b { color: blue }', '.none { top: 0 }'], () => []);
  assert.deepEqual(kept, []);
  assert.equal(refused.length, 2);
  assert.equal(plans, 2);
});

test('a plan of nothing that makes a difference is a fault, not a result', () => {
  const before = state('.a { color: red }');
  assert.throws(
    () =>
      proveAndTakeBack<string, Planned<string>>({
        before,
        judge: PROVE,
        rounds: 3,
        plan: () => ({ items: [], after: state('.a { color: blue }', before) }),
        blame: () => [],
      }),
    /a plan of nothing makes a difference/,
  );
});

test('a step that is trusted finds nothing, whatever it does', () => {
  assert.deepEqual(TRUST(state(''), state('.a { color: blue }')).differences, []);
});
