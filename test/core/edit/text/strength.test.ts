import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { ALWAYS, compileSelectorList, ONE_CLASS, ONE_ID } from '../../../../src/core/cascade/index.js';
import { strengthen } from '../../../../src/core/edit/text/index.js';
import { readerOf } from '../../../support/model.js';

const at = (ids: number, classes: number, types: number): number =>
  ids * ONE_ID + classes * ONE_CLASS + types;

test('a selector is made no stronger than it must be', () => {
  const cases: readonly (readonly [string, number, string | undefined])[] = [
    ['.a', at(0, 1, 0), '.a'],
    ['.a', at(0, 0, 3), '.a'],
    ['.a', at(0, 1, 1), 'body .a'],
    ['.a', at(0, 1, 2), 'html body .a'],
    ['.a', at(0, 1, 3), '.a.a'],
    ['.a', at(0, 2, 0), '.a.a'],
    ['.a td', at(0, 2, 1), '.a.a td'],
    ['td', at(0, 1, 0), ':root td'],
    ['td::before', at(0, 0, 3), 'body td::before'],
    ['.a:hover', at(0, 3, 0), '.a.a:hover'],
    ['body', at(0, 1, 0), ':root body'],
    ['.a', at(1, 0, 0), undefined],
  ];
  for (const [text, needed, expected] of cases)
    assert.equal(strengthen(text, needed)?.selector, expected, text);
  assert.equal(strengthen('.a', at(1, 1, 0), ['top'])?.selector, '#top .a');
});

test('however strong, it picks out the same elements', () => {
  const body =
    '<div id="top" class="a"><p class="a b">x <b class="b">y</b></p><td><span>z</span></div><table><tr><td class="a" id="it">1<td>2</table>';
  const { reader } = readerOf({
    'index.html': `<!DOCTYPE html><html><head></head><body>${body}</body></html>`,
  });
  const matches = (text: string): number[] => {
    const list = compileSelectorList(text);
    assert.equal(list.kind, 'list', text);
    const selectors = list.kind === 'list' ? list.selectors : [];
    return reader.page.elements
      .map(({ index }) => index)
      .filter((index) => selectors.some((one) => reader.matches(one, index) === ALWAYS));
  };
  const selector = fc.constantFrom(
    '.a',
    'p.a',
    'td',
    'div > .b',
    '.a .b',
    'span',
    '.a:not(.b)',
    'tr > td:first-child',
    '.b',
  );
  fc.assert(
    fc.property(selector, fc.nat(1), fc.nat(4), fc.nat(5), (text, ids, classes, types) => {
      const needed = at(ids, classes, types);
      const found = strengthen(text, needed, []);
      if (found === undefined) return ids > 0;
      const compiled = compileSelectorList(found.selector);
      assert.equal(
        compiled.kind === 'list' && compiled.selectors[0]?.specificity,
        found.specificity,
        found.selector,
      );
      assert.deepEqual(matches(found.selector), matches(text), found.selector);
      return found.specificity >= needed;
    }),
  );
});
