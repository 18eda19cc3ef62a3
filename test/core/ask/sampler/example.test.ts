import assert from 'node:assert/strict';
import { test } from 'node:test';
import { exampleOf, sharedStyles, stateRules } from '../../../../src/core/ask/sampler/index.js';
import { AtRest } from '../../../../src/core/cascade/index.js';
import { modelOf } from '../../../support/model.js';
import { htmlPage } from '../../../support/site.js';

/** The example of an element of the only page: the first of a type. */
function cut(body: string, name: string, css = '', head = ''): string | undefined {
  const model = modelOf({ 'pier/index.html': htmlPage(body, `<style>${css}</style>${head}`) });
  const page = model.page('pier/index.html')!;
  const [reader] = model.readersOf(page);
  const element = page.elements.findIndex((one) => one.name === name);
  return exampleOf(page, element, {
    model,
    rest: new AtRest(reader!, model.table.truths),
    addressOf: (file) => `../../${file}`,
  });
}

test('what stands around stays, what stands beside is a mark for selectors, what is far goes', () => {
  const html = cut(
    '<nav><i>far</i></nav><main><h2>beside</h2><p class="fare">12 <b>pounds</b></p><ul><li>x</ul></main>',
    'p',
  )!;
  assert.match(html, /<base href="\.\.\/\.\.\/pier\/index\.html">/);
  assert.match(html, /<p data-sampler="shown" class="fare">12 <b>pounds<\/b><\/p>/);
  assert.match(html, /<nav data-sampler="beside"> *<\/nav>/);
  assert.match(html, /<h2 data-sampler="beside">beside<\/h2>/);
  assert.match(html, /<ul data-sampler="beside"> *<\/ul>/);
  assert.doesNotMatch(html, />far<|<li>/);
});

test('where the room is shared out, those beside keep what they hold, and are not seen', () => {
  const row = '<main><p class="fare">12</p><p>beside <b>it</b></p></main>';
  assert.match(cut(row, 'p', 'main { display: flex }')!, /<p data-sampler="unseen">beside <b>it<\/b><\/p>/);
  assert.match(cut(row, 'p')!, /<p data-sampler="beside"> *<\/p>/);
  const table = '<table><tr><td>1</td><th>2</th></tr><tr><td>3</td></tr></table>';
  assert.match(cut(table, 'th')!, /<td data-sampler="unseen">1<\/td><th data-sampler="shown">2<\/th>/);
});

test('scripts and what would lead away go; addresses from the root are found', () => {
  const html = cut(
    '<p>12</p><img src="/tide.png"><script>alert(1)</script>',
    'p',
    '',
    '<meta http-equiv="refresh" content="0"><script src="/a.js"></script><link rel="stylesheet" href="/line.css">',
  )!;
  assert.doesNotMatch(html, /<script|refresh/);
  assert.match(html, /<link rel="stylesheet" href="\.\.\/line\.css">/);
  assert.match(html, /<img data-sampler="beside" src="\.\.\/tide\.png">/);
  assert.equal(cut('<p>{{ fare }}</p>', 'p'), undefined);
  assert.equal(cut('<p>1</p>', 'p', '', '<base href="/else/">'), undefined);
});

test('rules of states are said of the element that is shown, with the weight that they had', () => {
  const css =
    'a.fare:hover, a:focus-visible { top: 0 } .card:hover a { left: 0 } a:not(:hover) { right: 0 } @media print { a:active { bottom: 0 } } a:hover::after { margin: 0 }';
  const model = modelOf({ 'index.html': htmlPage('<a class="fare">x</a>', `<style>${css}</style>`) });
  const rules = stateRules(model, model.page('index.html')!).split('\n');
  assert.deepEqual(rules, [
    'a.fare[data-sampler~="hover"] { top: 0 }',
    'a[data-sampler~="focus-visible"] { top: 0 }',
    '.card[data-sampler~="hover"] a { left: 0 }',
    '@media print{a[data-sampler~="active"] { bottom: 0 }}',
    'a[data-sampler~="hover"]::after { margin: 0 }',
  ]);
});

test('a state is of the element, of what it stands in, or of what stands in it', () => {
  const css =
    '.card { top: 0 } .card:hover .fare { left: 0 } .fare { top: 0 } .menu { top: 0 } .menu a.to:focus { top: 0 } .menu i:hover { top: 0 } .lone:focus .fare { top: 0 } .tick:hover + .fare { top: 1px }';
  const body =
    '<div class="card"><p class="fare">1</p></div><ul class="menu"><li><a>a</a><a class="to">b</a></ul>';
  const model = modelOf({
    'index.html': htmlPage(body, '<link rel="stylesheet" href="line.css">'),
    'line.css': css,
  });
  const page = model.page('index.html')!;
  const states = new Map(
    sharedStyles(model, ['line.css']).map((one) => [
      one.name,
      one.states.map(({ element, state }) => [page.elements[element]?.classes[0], state]),
    ]),
  );
  assert.deepEqual(states.get('.card'), [['card', 'hover']]);
  // Who points at it points at the card; a focus is of one element alone.
  assert.deepEqual(states.get('.fare'), [['fare', 'hover']]);
  assert.deepEqual(states.get('.menu'), [['to', 'focus']]);
  const [reader] = model.readersOf(page);
  const options = { model, rest: new AtRest(reader!, model.table.truths), addressOf: () => '' };
  const at = (name: string): number => page.elements.findIndex(({ classes }) => classes.includes(name));
  const html = exampleOf(page, at('fare'), options, { element: at('fare'), state: 'hover' })!;
  assert.match(html, /<div data-sampler="hover" class="card"><p data-sampler="shown hover" class="fare">/);
  const menu = exampleOf(page, at('menu'), options, { element: at('to'), state: 'focus' })!;
  assert.match(
    menu,
    /<ul data-sampler="shown" class="menu"><li><a>a<\/a><a data-sampler="focus" class="to">/,
  );
});

test('the example is one that is seen, wears little else, and is no whole page', () => {
  const css = '.fare { top: 0 } .wide { left: 0 }';
  const model = modelOf({
    'a.html': htmlPage(
      '<p class="fare" hidden>1</p><p class="fare wide">2</p><p class="fare"></p>',
      '<link rel="stylesheet" href="line.css">',
    ),
    'b.html': htmlPage('<p class="fare">4</p>', '<link rel="stylesheet" href="line.css">'),
    'line.css': css,
  });
  const [fare] = sharedStyles(model, ['line.css']);
  assert.deepEqual(
    [fare?.name, fare?.elements, fare?.pages, fare?.example?.page.path],
    ['.fare', 4, 2, 'b.html'],
  );
});
