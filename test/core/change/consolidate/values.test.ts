import assert from 'node:assert/strict';
import { test } from 'node:test';
import { OutcomeTable, TruthTable } from '../../../../src/core/cascade/index.js';
import { changeValues } from '../../../../src/core/change/consolidate/near-misses.js';
import { prove } from '../../../../src/core/proof/index.js';
import { findNearMisses } from '../../../../src/core/search/near-values.js';
import { sheetValues } from '../../../../src/core/search/values.js';
import { adoptAll, modelOf } from '../../../support/model.js';
import { htmlPage } from '../../../support/site.js';

const table = new OutcomeTable(new TruthTable());
const linked = '<link rel="stylesheet" href="t.css">';
const site = (css: string, body = '<p class="a">x<p class="b">y<p class="c">z'): Record<string, string> => ({
  'index.html': htmlPage(body, linked),
  't.css': css,
});

test('a colour in all its spellings is one value', () => {
  const model = modelOf(
    site('.a { color: #FFF; border: 1px solid white } .b { background: rgb(255, 255, 255) url(a.png) }'),
  );
  const [colour] = sheetValues(model, ['t.css']);
  assert.deepEqual([colour?.form, colour?.places.length], ['#ffffff', 3]);
  assert.deepEqual(
    colour?.places.map(({ text, property }) => [property, text]),
    [
      ['color', '#FFF'],
      ['border', 'white'],
      ['background', 'rgb(255, 255, 255)'],
    ],
  );
});

test('fonts, shadows and spaces are values as a whole; names, keywords and what uses a token are none', () => {
  const css =
    '.a { font-family: Lato, sans-serif; box-shadow: 0 1px 2px #123456; padding: 4px 8px } .b { font-family: Lato; padding: 0; margin: auto; color: var(--x); --y: #123456 }';
  const kinds = sheetValues(modelOf(site(css)), ['t.css']).map(({ kind, form }) => `${kind} ${form}`);
  assert.deepEqual(kinds.sort(), [
    'colour #123456',
    'font Lato,sans-serif',
    'shadow 0 1px 2px #123456',
    'space 4px 8px',
  ]);
});

test('a value that stands three times gets a name and one place', () => {
  const css =
    '.a { color: #1f3a56; }\n.b { border: 1px solid #1F3A56; }\n.c { background: rgb(31, 58, 86); top: 0; }\n';
  const adopted = adoptAll(site(css));
  assert.deepEqual(
    adopted.tokens.map(({ name, text }) => [name, text]),
    [['--navy', '#1f3a56']],
  );
  assert.equal(
    adopted.text('t.css'),
    ':root { --navy: #1f3a56; }\n\n.a { color: var(--navy); }\n.b { border: 1px solid var(--navy); }\n.c { background: var(--navy); top: 0; }\n',
  );
  assert.doesNotMatch(adopted.text('index.html'), /shared\.css/);
  assert.deepEqual(prove(adopted.before, adopted.after).differences, []);
});

test('a name stands beside those that a sheet has', () => {
  const css =
    ':root {\n  --gap: 4px;\n}\n.a { color: #1f3a56; }\n.b { border: 1px solid #1f3a56; }\n.c { background: #1f3a56 url(a.png); }\n';
  const adopted = adoptAll(site(css));
  assert.match(adopted.text('t.css'), /^:root \{\n {2}--gap: 4px;\n {2}--navy: #1f3a56;\n\}\n/);
  assert.match(adopted.text('t.css'), /background: var\(--navy\) url\(a\.png\)/);
  assert.deepEqual(prove(adopted.before, adopted.after).differences, []);
});

test('an address that a name holds is not seen from the sheet that asks for it', () => {
  const [before, after] = ['.c { background: #fff url(a.png) }', '.c { background: #fff var(--pic) }'];
  const pages = { 'index.html': htmlPage('<p class="c">x', '<link rel="stylesheet" href="css/t.css">') };
  const root = ':root { --pic: url(a.png) }';
  const models = [before, `${root} ${after}`].map((text) => modelOf({ ...pages, 'css/t.css': text }, table));
  assert.notDeepEqual(prove(models[0]!, models[1]!).differences, []);
});

test('a token is not made where it would not be certain', () => {
  const css = '.a { color: #1f3a56 } .b { border-color: #1f3a56 } .c { background-color: #1f3a56 }';
  assert.equal(adoptAll(site(css)).tokens.length, 1);
  const doubtful = site(`${css} * { all: unset }`);
  const adopted = adoptAll(doubtful);
  assert.deepEqual(prove(adopted.before, adopted.after).differences, []);
});

test('every page that uses such a sheet knows the names', () => {
  const css = '.a { color: #1f3a56 } .b { border-color: #1f3a56 } .c { background-color: #1f3a56 }';
  const { text } = adoptAll({
    ...site(css),
    'fares/b.html': htmlPage('<p class="a">x', '<link rel="stylesheet" href="f.css">'),
    'fares/f.css': '.a { color: #1f3a56; top: 0 }',
  });
  assert.match(text('shared.css'), /^\/\* part: tokens \*\/\n\n:root \{\n {2}--navy: #1f3a56;\n\}\n/);
  assert.match(text('index.html'), /href="shared\.css"/);
  assert.match(text('fares/b.html'), /href="\.\.\/shared\.css"/);
});

test('a rule moves into no sheet that some of its pages do not load', () => {
  const css = '.a { color: red; top: 0 }';
  const { text, ruleMoves } = adoptAll({
    ...site(css),
    'fares/b.html': htmlPage('<p class="a">x', '<link rel="stylesheet" href="f.css">'),
    'fares/f.css': css,
  });
  assert.deepEqual([text('t.css'), text('fares/f.css'), ruleMoves], [css, css, []]);
});

const few = '<p style="color: #1f3a56">a<p style="color: #1f3a56">b<p style="color: #1e3a56">c';

test('colours that nobody can tell apart, and lengths one pixel off, are shown with their places', () => {
  const model = modelOf(site(`.a { padding: 12px } ${'.b { padding: 13px }\n'.repeat(6)}`, few));
  const found = findNearMisses(model, ['t.css']);
  assert.deepEqual(
    found.map(({ kind, from, to, times, toTimes }) => [kind, from, to, times, toTimes]),
    [
      ['colour', '#1e3a56', '#1f3a56', 1, 2],
      ['length', 'padding: 12px', 'padding: 13px', 1, 6],
    ],
  );
  assert.deepEqual(
    found[0]?.places.map(({ path, line }) => [path, line]),
    [['index.html', 8]],
  );
});

test('nothing is nearly another when both are in use alike, or plainly apart', () => {
  const lengths = '.a { padding: 12px } .b { padding: 13px }';
  assert.deepEqual(findNearMisses(modelOf(site(lengths, '<p>x')), ['t.css']), []);
  assert.deepEqual(
    findNearMisses(modelOf(site('.a { color: #123456 } .b { color: #a23456 }', '<p>x')), ['t.css']),
    [],
  );
});

test('a near miss is changed where a person says so: in attributes, blocks and sheets, and nowhere else', () => {
  const files = {
    'index.html': htmlPage(`${few}<b class="k">d</b>`, `${linked}<style>.k { color: #1E3A56 }</style>`),
    't.css': '.a { border: 1px solid #1e3a56; top: 12px }',
    'platform/kit.css': '.z { color: #1e3a56 }',
  };
  const model = modelOf(files);
  const { after, elements, pages } = changeValues(model, ['t.css'], [{ from: '#1e3a56', to: '#1f3a56' }]);
  assert.deepEqual([elements, pages], [2, 1]);
  const html = after.sources.pages.get('index.html')!;
  assert.equal(html.match(/#1f3a56/gi)?.length, 4);
  assert.doesNotMatch(html, /#1e3a56/i);
  assert.equal(after.sources.sheets.get('t.css'), '.a { border: 1px solid #1f3a56; top: 12px }');
  assert.equal(after.sources.sheets.get('platform/kit.css'), files['platform/kit.css']);
});

test('a length is changed for its property only', () => {
  const model = modelOf(site('.a { padding: 12px; margin: 12px } .b { padding: 13px }'));
  const { after } = changeValues(model, ['t.css'], [{ from: 'padding: 12px', to: 'padding: 13px' }]);
  assert.equal(after.sources.sheets.get('t.css'), '.a { padding: 13px; margin: 12px } .b { padding: 13px }');
});

test('without a wish nothing is changed', () => {
  const model = modelOf(site('.a { color: red }'));
  const { edits, after } = changeValues(model, ['t.css'], []);
  assert.deepEqual([edits.size, after], [0, model]);
});
