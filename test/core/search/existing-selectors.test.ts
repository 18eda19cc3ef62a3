import assert from 'node:assert/strict';
import { test } from 'node:test';
import { parseDeclarations } from '../../../src/core/read/sheets/index.js';
import { specificityOf } from '../../../src/core/search/by-selectors.js';
import { pagesHolding, takeCensus } from '../../../src/core/search/census.js';
import { existingSelectorOf, existingSelectorsOf } from '../../../src/core/search/existing-selectors.js';
import { selectorText } from '../../../src/core/search/index.js';
import { areRivals } from '../../../src/core/search/rivals.js';
import { movablesOf } from '../../../src/core/stock/index.js';
import { modelOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

test('hooks are made of the element, its parent, and the scopes around it', () => {
  const model = modelOf({
    'index.html': htmlPage('<div id="top"><ul class="nav"><li class="here now">x</ul></div>').replace(
      '<body>',
      '<body class="fares">',
    ),
  });
  const census = takeCensus(model, []);
  const item = census.groups.find(({ element }) => element.name === 'li')!;
  const existingSelectors = existingSelectorsOf(item);
  for (const text of [
    'li',
    '.here',
    'li.now',
    'ul > li',
    '.nav > .here',
    '.nav li',
    '#top .now',
    '.fares li',
    '.fares .nav li',
  ])
    assert.ok(existingSelectors.includes(text), text);
  assert.equal(existingSelectors[0], 'li');
  for (const text of existingSelectors) assert.notEqual(existingSelectorOf(text), undefined, text);
});

test('elements that no selector without positions tells apart are one kind, counted once each', () => {
  const body = '<ul><li>a<li>b<li class="x">c<li style="top: 0">d</ul>';
  const model = modelOf({ 'a.html': htmlPage(body), 'b.html': htmlPage(body) });
  const census = takeCensus(model, []);
  const items = census.groups.filter(({ element }) => element.name === 'li');
  assert.deepEqual(
    items.map((group) => [group.count, pagesHolding(group, census).size]),
    [
      [4, 2],
      [2, 2],
      [2, 2],
    ],
  );
});

test('a selector is made weaker and stronger without naming anything new', () => {
  assert.equal(selectorText('.m p', 'weak'), ':where(.m p)');
  assert.equal(selectorText('.m .m-row', 'twice'), '.m .m-row.m-row');
  assert.equal(selectorText('p.a', 'thrice'), 'p.a.a.a');
  const weights = (text: string): (number | undefined)[] =>
    (['weak', 'plain', 'twice', 'thrice'] as const).map((one) =>
      specificityOf(existingSelectorOf(text)!, one),
    );
  for (const text of ['.a', 'p.a', '.m .a']) {
    const [weak, plain, twice, thrice] = weights(text);
    assert.equal(weak, 0);
    for (const [strength, weight] of [
      ['plain', plain],
      ['twice', twice],
      ['thrice', thrice],
    ] as const)
      assert.equal(existingSelectorOf(selectorText(text, strength))!.selector.specificity, weight, text);
  }
  assert.deepEqual(weights('.m p').slice(2), [undefined, undefined]);
});

test('units are rivals when they set one thing, whatever it is called', () => {
  const rivals = (a: string, b: string): boolean => {
    const [one] = movablesOf(parseDeclarations(a).declarations, 'a.html');
    const [other] = movablesOf(parseDeclarations(b).declarations, 'a.html');
    return areRivals(one!, other!);
  };
  assert.ok(rivals('color: red', 'color: blue'));
  assert.ok(rivals('margin: 0', 'margin-left: 1px'));
  assert.ok(rivals('margin-left: 0', 'margin-inline-start: 1px'));
  assert.ok(!rivals('margin-left: 0', 'margin-top: 0'));
  assert.ok(!rivals('color: red', 'background: red'));
});
