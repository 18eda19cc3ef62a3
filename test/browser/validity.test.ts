// Certainty is earned: of values that the grammar gives, and of bent ones, none that is called certain is dropped by Chromium.
// `npm run bench:validity` asks of many more.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { randomValue } from '../../bench/validity-values.js';
import { declarationValidity, knownPropertyNames } from '../../src/core/read/sheets/index.js';
import { withBrowser } from '../support/chromium.js';
import { Random } from '../support/generate.js';
import { Seeds } from '../support/seeds.js';

const SEEDS = new Seeds('browser/validity', 24);

test('a declaration that is called certain is kept', async (context) => {
  await withBrowser(context, async (tab) => {
    const properties = [...knownPropertyNames()].filter((name) => /^[a-z]/.test(name)).sort();
    let certain = 0;
    for (const seed of SEEDS) {
      const pairs = properties.flatMap((property, at): [string, string][] => {
        const value = randomValue(property, new Random(seed * 10_007 + at));
        return value === undefined || value === '' || /var\(|;|!/.test(value) ? [] : [[property, value]];
      });
      const judged = pairs.filter(
        ([property, value]) => declarationValidity(property, value).validity === 'certain',
      );
      const kept = await tab.evaluate(
        (all) => all.map(([property, value]) => CSS.supports(property, value)),
        judged,
      );
      const wrong = judged.filter((_, at) => !kept[at]).map((pair) => pair.join(': '));
      assert.deepEqual(wrong, [], SEEDS.name(seed));
      certain += judged.length;
    }
    assert.ok(!SEEDS.areMany || certain > SEEDS.many * 100, `${certain} certain`);
  });
});

test('what is written every day is certain', () => {
  for (const [property, value] of [
    ['margin', '-4px auto 0'],
    ['font', 'italic bold 12px/1.5 "Lato", sans-serif'],
    ['background', 'url(a.png) no-repeat 0 -20px'],
    ['border', '1px solid rgba(0, 0, 0, 0.5)'],
    ['width', 'calc(100% - 2 * (3px + 1em))'],
    ['grid-template-columns', 'repeat(3, minmax(0, 1fr)) auto'],
    ['transition', 'color 0.2s ease-in-out, transform 200ms'],
    ['box-shadow', '0 1px 2px -1px #0003'],
    ['transform', 'translate(-50%, 10px) rotate(45deg)'],
    ['filter', 'blur(2px) grayscale(50%)'],
    ['line-height', '1.4'],
    ['flex', '1 1 0'],
    ['text-align', 'center'],
  ] as const)
    assert.equal(declarationValidity(property, value).validity, 'certain', `${property}: ${value}`);
});
