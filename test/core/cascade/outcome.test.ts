import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ALWAYS, rankLayers, withoutIdle } from '../../../src/core/cascade/index.js';
import { modelOf, readerOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

/** The outcome list of a property of #it, as `value?condition`, strongest first. */
function list(css: string, body: string, property = 'color', target = ''): string[] {
  const { reader, byId } = readerOf({ 'index.html': htmlPage(body, `<style>${css}</style>`) });
  const outcomes = reader.outcomes(byId('it')).get(target)?.get(property) ?? [];
  return withoutIdle(outcomes).map(
    ({ value, condition }) =>
      value + (condition === ALWAYS ? '' : ` when ${reader.table.truths.text(condition)}`),
  );
}

test('specificity, then order; the list ends at the first unconditional declaration', () => {
  assert.deepEqual(list('p { color: red } .a { color: lime } p { color: blue }', '<p id="it" class="a">'), [
    '#00ff00',
  ]);
  assert.deepEqual(list('.a { color: red } .b { color: lime }', '<p id="it" class="a b">'), ['#00ff00']);
});

test('states and media stay in the list as conditions', () => {
  assert.deepEqual(
    list(
      '.m:hover a { color: red } a { color: lime } @media print { a { color: blue } }',
      '<div class="m"><a id="it">x</a></div>',
    ),
    ['#ff0000 when :hover on its parent', '#0000ff when @media print', '#00ff00'],
  );
});

test('what holds only where something stronger does never wins', () => {
  const body = '<div class="m"><a id="it">x</a></div>';
  const css = '.m:hover a { display: -webkit-box; display: flex } .m:hover a:focus { display: grid }';
  assert.deepEqual(list(css, body, 'display'), [
    'grid when :hover on its parent and :focus',
    'flex when :hover on its parent',
  ]);
  assert.deepEqual(list('.m:hover a { color: red } @media print { .m:hover a { color: red } }', body), [
    '#ff0000 when :hover on its parent',
    '#ff0000 when @media print and :hover on its parent',
  ]);
  assert.deepEqual(list('.m:hover a.b, .m:hover a { color: red } .m:hover a { color: lime }', body), [
    '#00ff00 when :hover on its parent',
  ]);
});

test('the same state of different elements is a different condition', () => {
  const one = list('.m:hover a { color: red }', '<div class="m"><a id="it">x</a></div>');
  const other = list('.m a:hover { color: red }', '<div class="m"><a id="it">x</a></div>');
  assert.notDeepEqual(one, other);
});

test('only links can be visited or not', () => {
  assert.deepEqual(list(':link { color: red } p { color: lime }', '<p id="it">'), ['#00ff00']);
  assert.deepEqual(list(':visited { color: red }', '<a id="it" href="#">'), ['#ff0000 when :visited']);
});

test('the style attribute beats rules, important rules beat it', () => {
  assert.deepEqual(list('#it { color: red }', '<p id="it" style="color: lime">'), ['#00ff00']);
  assert.deepEqual(list('p { color: red !important }', '<p id="it" style="color: lime">'), ['#ff0000']);
});

test('later layers win, unlayered rules above them, reversed for important ones', () => {
  const css =
    '@layer a, b; @layer b { p { color: red; top: 1px !important } } @layer a { p { color: lime; top: 2px !important } }';
  assert.deepEqual(list(css, '<p id="it">'), ['#ff0000']);
  assert.deepEqual(list(css, '<p id="it">', 'top'), ['2px']);
  assert.deepEqual(list(`${css} p { color: blue; top: 3px !important }`, '<p id="it">'), ['#0000ff']);
  assert.deepEqual(list(`${css} p { color: blue; top: 3px !important }`, '<p id="it">', 'top'), ['2px']);
});

test('a layer ranks after the layers inside it', () => {
  assert.deepEqual(
    [...rankLayers(['a', 'b', 'a.x'])],
    [
      ['a.x', 0],
      ['a', 1],
      ['b', 2],
    ],
  );
});

test('pseudo-elements are targets of their own, with both spellings', () => {
  assert.deepEqual(
    list(
      'p:before { color: red } p::before { color: lime } p { color: blue }',
      '<p id="it">',
      'color',
      '::before',
    ),
    ['#00ff00'],
  );
});

test('a declaration that some browsers may drop leaves what is below it in the list', () => {
  assert.deepEqual(list('p { color: red; color: -x-lime }', '<p id="it">'), [
    '-x-lime when the browser keeps color: -x-lime',
    '#ff0000',
  ]);
});

test('a rule with a selector that some browsers do not know is a possibility', () => {
  const [first, second] = list('p { color: lime } p, ::-x-thumb { color: red }', '<p id="it">');
  assert.match(first!, /^#ff0000 when the browser knows/);
  assert.equal(second, '#00ff00');
});

test('a rule that browsers drop for its selector is dropped', () => {
  assert.deepEqual(list('p { color: lime } p, .a..b { color: red }', '<p id="it">'), ['#00ff00']);
});

test('an entry that gives what the one below it gives is idle', () => {
  assert.deepEqual(list('p { color: red } p:hover { color: #f00 }', '<p id="it">'), ['#ff0000']);
});

test('the order of logical and physical names for one value counts, that of other names does not', () => {
  const css =
    '.a { margin-left: 1px } .b { margin-inline-start: 2px } .c { margin-left: 1px } .d { top: 0; left: 0 } .e { left: 0; top: 0 }';
  const body = '<p id="ab" class="a b">x<p id="bc" class="b c">x<p id="d" class="d">x<p id="e" class="e">x';
  const { reader, byId } = readerOf({ 'index.html': htmlPage(body, `<style>${css}</style>`) });
  assert.notEqual(reader.outcomeNumber(byId('ab')), reader.outcomeNumber(byId('bc')));
  assert.equal(reader.outcomeNumber(byId('d')), reader.outcomeNumber(byId('e')));
});

test('a fragment asks under every stack, and leaves open what its ancestors are', () => {
  const model = modelOf({
    'index.html': htmlPage('', '<link rel="stylesheet" href="a.css">'),
    'other.html': htmlPage('', '<style>p { color: blue }</style>'),
    'part.tpl': '<p id="it">{{ text }}</p>',
    'a.css': '.card p { color: red } p { color: lime }',
  });
  const part = model.page('part.tpl')!;
  const readers = model.readersOf(part);
  assert.equal(readers.length, 2);
  const colours = readers[0]!.outcomes(0).get('')!.get('color')!;
  assert.deepEqual(
    colours.map(({ value, condition }) => [value, condition === ALWAYS]),
    [
      ['#ff0000', false],
      ['#00ff00', true],
    ],
  );
});

test('media on a link, imports and alternate sheets are conditions of their rules', () => {
  const files = {
    'index.html': htmlPage(
      '<p id="it">',
      '<link rel="stylesheet" media="print" href="a.css"><link rel="alternate stylesheet" title="Dark" href="b.css"><style>@import "c.css" (min-width: 1px);</style>',
    ),
    'a.css': 'p { color: red }',
    'b.css': 'p { color: lime }',
    'c.css': 'p { color: blue }',
  };
  const { reader, byId } = readerOf(files);
  const conditions = reader
    .outcomes(byId('it'))
    .get('')!
    .get('color')!
    .map(({ condition }) => reader.table.truths.text(condition));
  assert.deepEqual(conditions, ['@media (min-width: 1px)', 'the style set "Dark" is chosen', '@media print']);
});
