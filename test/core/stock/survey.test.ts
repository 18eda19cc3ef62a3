import assert from 'node:assert/strict';
import { test } from 'node:test';
import { parseDeclarations } from '../../../src/core/read/sheets/index.js';
import { movablesOf, styledTagsOf } from '../../../src/core/stock/index.js';
import { modelOf, scriptsOf, surveyOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

const movables = (style: string): string[] =>
  movablesOf(parseDeclarations(style).declarations, 'index.html').map(({ key }) => key);

test('declarations that compete move together, others do not', () => {
  assert.deepEqual(movables('border: 0; color: red; border-top: 1px solid'), [
    'border:0; border-top:1px solid',
    'color:#ff0000',
  ]);
  assert.deepEqual(movables('width: 1px; height: 2px'), ['width:1px', 'height:2px']);
  assert.deepEqual(movables('margin-left: 1px; margin-top: 2px'), ['margin-left:1px', 'margin-top:2px']);
  assert.deepEqual(movables('margin-left: 1px; margin-inline-start: 2px'), [
    'margin-left:1px; margin-inline-start:2px',
  ]);
  assert.deepEqual(movables('background: red; background: linear-gradient(red, blue)').length, 1);
});

/** Why each inline declaration of the page may not move, `-` for those that may. */
function objections(files: Record<string, string>): string[] {
  return styledTagsOf(modelOf(files), scriptsOf(files), { pictureSizes: 'keep' }).flatMap((styledTag) =>
    styledTag.movables.map(({ key, objection }) => `${key}: ${objection?.kind ?? '-'}`),
  );
}

test('what must stay is known before any proof, with its reason', () => {
  const body = [
    '<p style="width: {{ share }}%">a',
    '<p class={{ kind }} style="color: red">b',
    '<p style="colour: red">c',
    '<p style="fill: url(#tide)">d',
    '<p style="width: calc(1px + 2px">e',
    '<template><p style="color: red">f</p></template>',
    '<p style="margin: 0">g',
  ].join('\n');
  assert.deepEqual(objections({ 'index.html': htmlPage(body) }), [
    'width:{{ share }}%: template text',
    'color:#ff0000: template text',
    'colour:red: not understood',
    'fill:url(#tide): address in its page',
    'width:calc(1px + 2px: unfinished value',
    'margin:0: -',
    'color:#ff0000: in a template element',
  ]);
});

test('a script of the site holds a property everywhere, a library only where it names the element', () => {
  const body =
    '<p style="height: 1px">a<p id="tide" style="height: 1px">b<p style="display: none">c<script src="own.js"></script><script src="vendor/kit.js"></script>';
  const files = {
    'index.html': htmlPage(body),
    'own.js': `document.querySelector('p').style.display = '';`,
    'vendor/kit.js': `jump('#tide').style.height = '';`,
  };
  assert.deepEqual(objections(files), [
    'height:1px: -',
    'height:1px: script touches',
    'display:none: script touches',
  ]);
});

test('a page with a base address, a policy or no sign of being whole is left alone', () => {
  const policy = (content: string): string =>
    `<meta http-equiv="Content-Security-Policy" content="${content}">`;
  for (const head of ['<base href="/x/">', policy("style-src 'self'"), policy('{{ policy }}')]) {
    assert.deepEqual(objections({ 'index.html': htmlPage('<p style="top: 0">', head) }), [
      'top:0: page undecided',
    ]);
  }
  assert.deepEqual(objections({ 'part.html': '<p style="top: 0">x' }), ['top:0: page undecided']);
  const harmless = policy('upgrade-insecure-requests');
  assert.deepEqual(objections({ 'index.html': htmlPage('<p style="top: 0">', harmless) }), ['top:0: -']);
});

test('counts what is written, what repeats, and the upkeep', () => {
  const files = {
    'a.html': htmlPage(
      '<p style="color: #FFF; top: 0">a<p style="top:0;color:white">b<p style="left: 1px">c<table bgcolor="#fff" width="10">',
      '<style>p { top: 0 }</style>',
    ),
    'b.html': htmlPage('', '<style>p { top: 0 }</style><link rel="stylesheet" href="t.css">'),
    't.css': 'a { color: red } b { color: #f00 }',
  };
  const stock = surveyOf(files, ['t.css']);
  assert.deepEqual(stock.inline, { written: 5, distinct: 3, repeated: 4, holders: 3, alike: 2 });
  assert.deepEqual([stock.blocks.written, stock.blocks.repeated, stock.blocks.alike], [2, 2, 2]);
  assert.deepEqual([stock.oldAttributes.written, stock.oldAttributes.holders], [2, 2]);
  assert.deepEqual(stock.upkeep, { now: 11, least: 6 });
  assert.deepEqual(
    stock.repeatedSets.map(({ times, declarations }) => [times, declarations]),
    [[2, ['color: #FFF', 'top: 0']]],
  );
  assert.deepEqual(stock.colours[1], {
    colour: '#ff0000',
    times: 2,
    spellings: [
      { text: '#f00', times: 1 },
      { text: 'red', times: 1 },
    ],
  });
});

test('a kind of element in a list is no rule without a use where another of the list is used', () => {
  const files = {
    'index.html': htmlPage('<p class="a">x', '<link rel="stylesheet" href="t.css">'),
    't.css': 'p, h6 { margin: 0 }\nh5 { margin: 0 }\np, .gone { top: 0 }\n',
  };
  const { broken } = surveyOf(files, ['t.css']);
  const unused = broken.filter(({ kind }) => kind === 'rule without a use');
  assert.deepEqual(
    unused.map(({ message }) => message),
    ['h5 matches nothing on any page', '.gone matches nothing on any page'],
  );
});

test('finds slips that a browser passes over, with their places', () => {
  const files = {
    'index.html': htmlPage(
      '<p class="notice" class="wide">a<p class="notise">b<p id="x">c<p id="x" class=".notice">d<p style="text-align: centre">e',
      '<link rel="stylesheet" href="gone.css"><link rel="stylesheet" href="t.css">',
    ),
    't.css': '.notice { colour: red }\n.harbour-map { top: 0 }\n.a..b { top: 0 }\n.open {\n',
  };
  const found = surveyOf(files, ['t.css']).broken.map(
    ({ kind, place }) => `${kind} ${place.path}:${place.line}`,
  );
  assert.deepEqual(found, [
    'class without a rule index.html:8',
    'dot in a class attribute index.html:8',
    'doubled attribute index.html:8',
    'id used twice index.html:8',
    'invalid selector t.css:3',
    'lost brace t.css:4',
    'missing sheet index.html:6',
    'rule without a use t.css:2',
    'rule without a use t.css:4',
    'unfitting value index.html:8',
    'unknown property t.css:1',
  ]);
});

test('one missing sheet is one finding, however its address is written', () => {
  const link = (address: string): string => `<link rel="stylesheet" href="${address}">`;
  const files = {
    'index.html': htmlPage('x', link('theme/gone.css')),
    'fares/index.html': htmlPage('x', link('../theme/gone.css?v=2')),
  };
  const found = surveyOf(files).broken.map(({ message, times }) => `${times} ${message}`);
  assert.deepEqual(found, ['2 theme/gone.css is linked and not there']);
});

test('a class that a script names is not called a slip', () => {
  const files = {
    'index.html': htmlPage('<p class="is-late">a<script src="s.js"></script>'),
    's.js': `find('.is-late')`,
  };
  assert.deepEqual(surveyOf(files).broken, []);
});

test('colours that look alike are near misses, the rarer one first', () => {
  const [miss] = surveyOf({
    'index.html': htmlPage(
      '<p style="color: #1f3a56">a<p style="color: #1f3a56">b<p style="color: #1e3a56">c',
    ),
  }).nearMisses;
  assert.deepEqual([miss?.colour, miss?.near, miss?.nearTimes], ['#1e3a56', '#1f3a56', 2]);
});

test('books of several threads come to the same survey as one', () => {
  const page = (more: string): string =>
    htmlPage(
      `<p class="notise" style="color: red">a<p style="top: 0; colour: red" id="x" id="y">b${more}`,
      '<link rel="stylesheet" href="t.css"><style>p { color: redd }</style><link rel="stylesheet" href="gone.css">',
    );
  const files = {
    'a.html': page('<p style="color: #f00">c'),
    'b.html': page('<i id="tide"></i><i id="tide"></i>'),
    'c.html': page('<font color="red">c</font>'),
    't.css': '.notice { color: blue } b { top: 0 } #none { top: 0 }',
  };
  const one = surveyOf(files, ['t.css']);
  assert.equal(one.broken.length > 5, true);
  assert.deepEqual(surveyOf(files, ['t.css'], 3), one);
});

test('classes are looked up where a page has sheets that speak of most of them', () => {
  const sheet = '<link rel="stylesheet" href="a.css">';
  const names = ['crew', 'pier', 'fare', 'tide', 'mast'];
  const told = (ruled: readonly string[], head: string, more = ''): string[] =>
    surveyOf({
      'index.html': htmlPage(`<p class="${names.join(' ')}">x</p>${more}`, head),
      'a.css': ruled.map((name) => `.${name} { top: 0 }`).join('\n'),
    }).broken.flatMap(({ kind, message }) => (kind === 'class without a rule' ? [message] : []));
  assert.deepEqual(told(names.slice(1), sheet), ['.crew has no rule and no script that names it']);
  assert.deepEqual(told(names.slice(4), sheet), [], 'most of its sheets are somewhere else');
  assert.deepEqual(told(names, '', '<p class="low">y</p>'), [], 'a part that some page takes in');
  assert.deepEqual(told(names, sheet, '<p class="is-{$ state $} fa-$icon$">y</p>'), []);
});
