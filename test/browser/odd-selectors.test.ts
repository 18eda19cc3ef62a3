// Selectors that browsers drop, or drop a part of: what Chromium does not take is never called certain.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { compileSelectorList } from '../../src/core/cascade/index.js';
import { withBrowser } from '../support/chromium.js';
import { Random } from '../support/generate.js';
import { Seeds } from '../support/seeds.js';

const SEEDS = new Seeds('browser/odd-selectors', 4000);

const PIECES = [
  ...[
    'p',
    '*',
    '.a',
    '#b',
    '#1b',
    '#-1',
    '#--x',
    '.-a',
    '[x]',
    '[x=y]',
    '[x="y" i]',
    '[x=y s]',
    '[x=y z]',
    '[x i]',
  ],
  ...[
    ':hover',
    ':hover()',
    ':active',
    ':root',
    ':root()',
    ':empty',
    ':first-child',
    ':first-child()',
    ':lang(en)',
  ],
  ...[':lang', ':lang()', ':dir(ltr)', ':dir', ':checked', ':target', ':scope', ':any-link', ':nth-child(2)'],
  ...[':nth-child(odd)', ':nth-child(2n + 1)', ':nth-child(-n+3)', ':nth-child()', ':nth-of-type(2 of .a)'],
  ...[
    ':nth-child(2 of .a)',
    ':nth-child(2 of ::before)',
    ':is(.a, #1b)',
    ':is()',
    ':where(:has(.a))',
    ':not()',
  ],
  ...[
    ':not(.a, p)',
    ':not(#1b)',
    ':not(::before)',
    ':has(.a)',
    ':has(> p)',
    ':has(:has(.a))',
    ':has(:is(:has(.a)))',
  ],
  ...[
    ':has()',
    ':is(::before)',
    '::before',
    ':before',
    '::before()',
    '::after:hover',
    '::before:first-child',
  ],
  ...[
    '::before:is(.a)',
    '::before.a',
    '::before::marker',
    '::selection',
    '::placeholder',
    '::unknown',
    ':unknown',
  ],
  ...[
    '::-webkit-unknown',
    ':-webkit-any(p)',
    '&',
    'svg|a',
    '|p',
    '*|*',
    ':host',
    '::part(x)',
    '::slotted(p)',
  ],
  ...[
    '::first-line',
    '::first-letter:hover',
    '::marker',
    '::backdrop',
    '::file-selector-button',
    ':focus-visible',
  ],
];
const JOINS = ['', '', '', ' ', ' > ', ' + ', ' ~ ', ', ', ' || ', ' >> ', ' / '];

function oddSelector(random: Random): string {
  let text = random.pick(PIECES);
  for (let more = random.number(3); more > 0; more--) text += random.pick(JOINS) + random.pick(PIECES);
  return text;
}

test('what Chromium does not take as a selector is invalid, or at most possible', async (context) => {
  await withBrowser(context, async (tab) => {
    const seeds = [...SEEDS];
    const texts = [...PIECES, ...seeds.map((seed) => oddSelector(new Random(seed)))];
    const taken = await tab.evaluate((all) => {
      const sheet = document.head.appendChild(document.createElement('style')).sheet!;
      return all.map((text) => {
        try {
          sheet.insertRule(`${text} { top: 0 }`, 0);
          sheet.deleteRule(0);
          return true;
        } catch {
          return false;
        }
      });
    }, texts);
    const wrong = texts.filter((text, at) => {
      const list = compileSelectorList(text);
      return taken[at] ? list.kind === 'invalid' : list.kind === 'list' && !list.unsure;
    });
    assert.deepEqual([...new Set(wrong)].slice(0, 40), []);
    assert.ok(taken.filter((one) => one).length > texts.length / 5);
  });
});
