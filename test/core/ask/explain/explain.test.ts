import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  ANY_CIRCUMSTANCES,
  type Explanation,
  explainElement,
  looksGenerated,
} from '../../../../src/core/ask/explain/index.js';
import { readerOf } from '../../../support/model.js';

/** Explains the element with the id `it`. In: what stands in the head and the body. */
function explain(css: string, body: string, more: Readonly<Record<string, string>> = {}): Explanation {
  const page = `<!DOCTYPE html><html><head><link rel="stylesheet" href="kit.css"><style>${css}</style></head><body>${body}</body></html>`;
  const { reader, byId } = readerOf({ 'index.html': page, 'kit.css': '', ...more });
  return explainElement({
    reader,
    element: byId('it'),
    isPlatform: (path) => path === 'kit.css',
    circumstances: ANY_CIRCUMSTANCES,
  });
}

/** `value why` of each declaration of a property. */
function told(explanation: Explanation, name: string, target = ''): string[] {
  const group = explanation.targets
    .find((one) => one.target === target)
    ?.properties.find((one) => one.name === name);
  return (group?.declarations ?? []).map(
    ({ value, beaten }) => `${value}${beaten === undefined ? '' : ` ${beaten.by}`}`,
  );
}

test('every way of being beaten is named', () => {
  const kit =
    '@layer base { #it { color: lime } }\n#it.a { color: navy }\np { color: gray }\n.a { color: red !important }';
  const page = explain(
    '.a { color: teal } .a { color: blue; color: green }',
    '<p id="it" class="a" style="color: black">x</p>',
    { 'kit.css': kit },
  );
  assert.deepEqual(told(page, 'color'), [
    'red',
    'black importance',
    'navy importance',
    'green importance',
    'blue importance',
    'teal importance',
    'gray importance',
    'lime importance',
  ]);
  const plain = explain('.a { color: teal } .a { color: blue; color: green }', '<p id="it" class="a">x</p>', {
    'kit.css': kit.replace(' !important', ''),
  });
  assert.deepEqual(told(plain, 'color'), [
    'navy',
    'green specificity',
    'blue specificity',
    'teal specificity',
    'red specificity',
    'gray specificity',
    'lime layer',
  ]);
  const order = explain('.a { color: teal } .a { color: blue; color: green }', '<p id="it" class="a">x</p>', {
    'kit.css': '.a { color: red }',
  });
  assert.deepEqual(told(order, 'color'), [
    'green',
    'blue order in the rule',
    'teal order in the sheet',
    'red order of the sheets',
  ]);
  const old = explain('td { color: teal }', '<table><tr><td id="it" bgcolor="red" style="top: 0">x</table>');
  assert.deepEqual(told(old, 'background-color'), ['red']);
});

test('longhands that the same declarations decide are told once, by the name that fits', () => {
  const page = explain(
    '#it { padding: 4px; border: 1px solid red; margin: 0 1px } p { padding-left: 3px; margin: 9px }',
    '<p id="it">x</p>',
  );
  assert.deepEqual(
    page.targets[0]?.properties.map(({ name }) => name),
    ['border', 'margin', 'padding-left', 'rest of padding'],
  );
  assert.deepEqual(told(page, 'padding-left'), ['4px', '3px specificity']);
  const all = explain('#it { all: unset } p { color: red }', '<p id="it">x</p>');
  assert.deepEqual(told(all, 'color'), ['unset', 'red specificity']);
});

test('what is inherited comes from the nearest ancestor that says it; what browsers set themselves is not', () => {
  const page = explain(
    'body { color: navy; font-weight: 400; letter-spacing: 1px } div { color: teal; border: 0 }',
    '<div><h2 id="it">x</h2></div>',
  );
  assert.deepEqual(
    page.inherited.map(({ longhand, from, declarations }) => [longhand, from, declarations[0]?.value]),
    [
      ['color', 'div', 'teal'],
      ['letter-spacing', 'body', '1px'],
    ],
  );
  const link = explain('body { color: navy }', '<a id="it" href="#x">x</a>');
  assert.deepEqual(link.inherited, []);
});

test('custom properties are followed to where they are set, and missing ones are told', () => {
  const page = explain(
    ':root { --deep: #123456; --tide: var(--deep) } div { --tide: var(--deep) } #it { color: var(--tide, red); top: var(--gone) }',
    '<div><p id="it">x</p></div>',
  );
  assert.deepEqual(
    page.customProperties.map(({ name, from, declarations }) => [name, from, declarations[0]?.value]),
    [
      ['--deep', 'html', '#123456'],
      ['--gone', undefined, undefined],
      ['--tide', 'div', 'var(--deep)'],
    ],
  );
});

test('a pseudo-element without content, and what is not displayed, says why nothing of it shows', () => {
  const page = explain(
    '#it::before { color: red } #it::after { content: "x"; top: 2px }',
    '<div style="display: none"><p id="it">x</p></div>',
  );
  const hidden = (target: string): string | undefined =>
    page.targets.find((one) => one.target === target)?.hidden;
  assert.match(hidden('::before') ?? '', /^::before has no content/);
  assert.match(hidden('::after') ?? '', /<div>, which it stands in, is not displayed/);
  assert.deepEqual(
    page.idle.map(({ target, longhands }) => [target, longhands]),
    [['::after', ['top']]],
  );
});

test('offsets are measured from the nearest positioned ancestor', () => {
  const css = '#it { position: absolute; top: 1px }';
  const containing = (outer: string): string | undefined =>
    explain(css, `<section class="x" style="${outer}"><p id="it">x</p></section>`).containingBlock;
  assert.equal(containing('position: relative'), 'section.x');
  assert.match(containing('') ?? '', /the page itself/);
  assert.equal(containing('transform: rotate(1deg)'), undefined);
});

test('a selector to copy picks out just what it says', () => {
  const body =
    '<ul class="list"><li class="row">a</li><li class="row" id="it">b</li><li class="row x9f3k2">c</li></ul><p class="row">d</p>';
  const { selectors } = explain('', body);
  assert.deepEqual([selectors.alone?.selector, selectors.alone?.elements], ['#it', 1]);
  assert.equal(selectors.kindOnSite.selector, '.row');
  assert.equal(selectors.kindOnSite.elements, 4);
  const nameless = explain('', '<div><p>a</p><p>b <b id="it">c</b></p></div>').selectors;
  assert.deepEqual(nameless.alone?.elements, 1);
  for (const name of ['css-1x2y3z', 'a1b2c3d', 'row_3xk2P', '9f86d0ab', 'bdVaJx'])
    assert.ok(looksGenerated(name), name);
  for (const name of [
    'kw-badge',
    'el-tarb1',
    'col-12',
    'h2title',
    'navbarNav',
    'section-2026',
    'btnPrimary',
    'facade',
    'is-open',
  ])
    assert.ok(!looksGenerated(name), name);
});

test('what must be beaten, and the least that does it', () => {
  const change = (css: string, attributes = ''): string => {
    const [one] = explain(
      css,
      `<div id="top"><p class="row" ${attributes}>x</p><p class="row" id="it" ${attributes}>y</p></div>`,
    ).toChange;
    return `${one?.selector}${one?.important === true ? ' !' : ''}`;
  };
  assert.equal(change('p { color: red }'), '.row');
  assert.equal(change('#top p { color: red }'), '#top .row');
  assert.equal(change('#top #it { color: red }'), 'undefined');
  assert.equal(change('p { color: red !important }'), '.row !');
  assert.equal(change('p { color: red }', 'style="color: blue"'), '.row !');
  assert.equal(change('p { color: red }', 'style="color: blue !important"'), 'undefined !');
});
