// What is written down: it reads back as it was, merges, never grows by itself, and knows what only moved.

import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { test } from 'node:test';
import {
  compareHeld,
  type Debt,
  exceptionsIn,
  heldOf,
  parseHeld,
  renderHeld,
  totalOf,
  withoutExcepted,
} from '../../../../src/core/ask/hold/index.js';
import { Random } from '../../../support/generate.js';
import { Seeds } from '../../../support/seeds.js';
import { makeSite } from '../../../support/site.js';

const SEEDS = new Seeds('core/hold/held', 200);
const KINDS = ['inline style', 'importance', 'unnamed colour'] as const;

function debt(file: string, item: string, line = 1, kind: Debt['kind'] = 'inline style'): Debt {
  return { kind, item, place: { path: file, line, column: 1 }, declarations: [] };
}

function randomDebts(random: Random): Debt[] {
  return random.times(0, 12, () =>
    debt(
      random.pick(['a.html', 'b.html', 'c.css']),
      random.pick(['top: 0', 'left: 0', '"quoted"']),
      1,
      random.pick(KINDS),
    ),
  );
}

test('what is written reads back as it was, whatever order it was found in', () => {
  for (const seed of SEEDS) {
    const random = new Random(seed);
    const debts = randomDebts(random);
    const text = renderHeld(heldOf(debts));
    assert.equal(renderHeld(parseHeld(text)), text, SEEDS.name(seed));
    assert.equal(renderHeld(heldOf([...debts].reverse())), text, SEEDS.name(seed));
  }
});

test('nothing is written up by itself: of each item there is never more than before on the whole site', () => {
  for (const seed of SEEDS) {
    const random = new Random(seed * 3);
    const [before, now] = [randomDebts(random), randomDebts(random)];
    const { fresh, held } = compareHeld(heldOf(before), now);
    const count = (debts: readonly Debt[], kind: string, item: string): number =>
      debts.filter((one) => one.kind === kind && one.item === item).length;
    for (const kind of KINDS) {
      assert.ok(totalOf(held, kind) <= totalOf(heldOf(before), kind), SEEDS.name(seed));
      // What is new and what is held together are what is there.
      assert.equal(
        totalOf(held, kind) + fresh.filter((one) => one.kind === kind).length,
        totalOf(heldOf(now), kind),
      );
      for (const item of ['top: 0', 'left: 0', '"quoted"'])
        assert.equal(
          fresh.filter((one) => one.kind === kind && one.item === item).length,
          Math.max(0, count(now, kind, item) - count(before, kind, item)),
          SEEDS.name(seed),
        );
    }
    assert.deepEqual(
      compareHeld(
        held,
        now.filter((one) => !fresh.includes(one)),
      ).fresh,
      [],
      SEEDS.name(seed),
    );
  }
});

test('of several alike in a file the last is new', () => {
  const before = heldOf([debt('a.html', 'top: 0', 3)]);
  const { fresh } = compareHeld(before, [debt('a.html', 'top: 0', 3), debt('a.html', 'top: 0', 9)]);
  assert.deepEqual(
    fresh.map(({ place }) => place.line),
    [9],
  );
});

test('files that were not looked at are as they were', () => {
  const before = heldOf([debt('a.html', 'top: 0'), debt('b.html', 'top: 0')]);
  const { fresh, held, less } = compareHeld(before, [debt('a.html', 'left: 0')], (file) => file === 'a.html');
  assert.deepEqual(
    fresh.map(({ item }) => item),
    ['left: 0'],
  );
  assert.equal(totalOf(held, 'inline style'), 1);
  assert.equal(less.get('inline style'), 1);
});

test('two branches that each clean a file merge without a conflict', () => {
  const all = ['a.html', 'b.html', 'c.html'].flatMap((file) => [debt(file, 'top: 0'), debt(file, 'left: 0')]);
  const without = (file: string): Debt[] =>
    all.filter((one) => one.place.path !== file || one.item !== 'top: 0');
  const folder = makeSite({
    'base.json': renderHeld(heldOf(all)),
    'one.json': renderHeld(heldOf(without('a.html'))),
    'other.json': renderHeld(heldOf(without('c.html'))),
  });
  const merged = spawnSync('git', ['merge-file', '-p', 'one.json', 'base.json', 'other.json'], {
    cwd: path.resolve(folder),
    encoding: 'utf8',
  });
  assert.equal(merged.status, 0, merged.stdout);
  assert.equal(
    merged.stdout,
    renderHeld(heldOf(without('a.html').filter((one) => without('c.html').includes(one)))),
  );
});

test('a comment excepts its line and the next, in every kind of source, with a reason', () => {
  for (const comment of [
    '<!-- acervus-hold: why -->',
    '/* acervus-hold: why */',
    '{# acervus-hold: why #}',
    '{{!-- acervus-hold: why --}}',
    '<%# acervus-hold: why %>',
    '@* acervus-hold: why *@',
  ]) {
    const text = `first\n${comment}\nsecond\nthird`;
    const found = exceptionsIn('a', text);
    assert.deepEqual(
      found.map(({ reason, place }) => [reason, place.line]),
      [['why', 2]],
      comment,
    );
    const left = withoutExcepted(
      [1, 2, 3, 4].map((line) => debt('a', 'x', line)),
      found,
    );
    assert.deepEqual(
      left.map(({ place }) => place.line),
      [1, 4],
    );
  }
  assert.deepEqual(exceptionsIn('a', 'acervus-hold: no comment'), []);
});
