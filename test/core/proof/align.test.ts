// Two states of a page are paired element by element; what moved in the markup is told, and stops the proof.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { alignPages } from '../../../src/core/proof/align.js';
import { parsePage } from '../../../src/core/read/markup/index.js';

const page = (text: string) => parsePage('a.html', text);
const whole = (body: string, head = '') =>
  page(`<!doctype html><html><head><title>Fares</title>${head}</head><body>${body}</body></html>`);

/** What moved between two bodies, or that nothing did. */
function moved(before: string, after: string, heads: readonly [string, string] = ['', '']): string {
  const found = alignPages(whole(before, heads[0]), whole(after, heads[1]));
  return found.kind === 'moved' ? found.what : 'aligned';
}

test('classes, styles and old attributes may differ: their effect is compared elsewhere', () => {
  assert.equal(moved('<p style="color: red">x</p>', '<p class="note">x</p>'), 'aligned');
  assert.equal(moved('<table><td bgcolor="red">x', '<table><td>x'), 'aligned');
  assert.equal(moved('<table><td width="30">x', '<table><td>x'), 'aligned');
});

test('any other attribute that changes, comes or goes is named with its element', () => {
  assert.equal(moved('<p class="a" id="x">', '<p class="b" id="y">'), 'id of <p> changed');
  assert.equal(moved('<p class="a">', '<p class="b" title="t">'), 'title of <p> changed');
  assert.equal(moved('<p style="" lang="en">', '<p>'), 'lang of <p> changed');
  const cell = (attributes: string): string => `<table><tr><td ${attributes}>x</table>`;
  assert.equal(moved(cell('bgcolor="red" id="x"'), cell('id="y"')), 'id of <td> changed');
});

test('an element that is new, gone, of another name or elsewhere is named', () => {
  assert.equal(moved('<p>x</p>', '<p>x</p><hr>'), '<hr> is new');
  assert.equal(moved('<p>x</p><hr>', '<p>x</p>'), '<hr> is gone');
  assert.equal(moved('<p>x</p>', '<div>x</div>'), '<p> became <div>');
  assert.equal(moved('<div><b>x</b></div><i>y</i>', '<div></div><b>x</b><i>y</i>'), '<b> stands elsewhere');
});

test('a <font> may become a <span>, but not where quirks mode colours lines by it', () => {
  assert.equal(moved('<font>x</font>', '<span>x</span>'), 'aligned');
  const quirks = alignPages(page('<body><font>x</font>'), page('<body><span>x</span>'));
  assert.ok(quirks.kind === 'moved');
  assert.equal(quirks.what, '<font> became <span>');
});

test('sheets may come and go, and the white space around them; other elements of the head may not', () => {
  assert.equal(
    moved('x', 'x', ['\n<style>p {}</style>', '\n  <link rel="stylesheet" href="a.css">']),
    'aligned',
  );
  assert.equal(moved('x', 'x', ['', '<link rel="Alternate StyleSheet" href="a.css">']), 'aligned');
  assert.equal(moved('<p>x</p>', '<p>x</p><link rel="icon" href="a.png">'), '<link> is new');
  assert.equal(moved('x', 'x', ['<meta name="a">', '']), '<meta> became <body>');
});

test('texts stand where they stood, between the same elements', () => {
  assert.equal(moved('<p>a</p>', '<p>b</p>'), 'text changed');
  assert.equal(moved('<p>a<b></b></p>', '<p><b></b>a</p>'), 'text changed');
  assert.equal(moved('a<style>p {}</style>b', 'ab'), 'aligned');
  assert.equal(moved('<p>a</p>', '<p>a<!-- b --></p>'), 'text changed');
  assert.equal(moved('<p>a</p>', '<p>a</p> '), 'text changed');
});

test('the kind, the mode and the base of a page stay', () => {
  const told = (before: string, after: string): string | undefined => {
    const found = alignPages(page(before), page(after));
    return found.kind === 'moved' ? found.what : undefined;
  };
  assert.equal(told('<!doctype html><p>', '<p>'), 'quirks mode changed');
  assert.equal(told('<!doctype html><p>', '<!doctype html><base href="/a/"><p>'), 'its <base> changed');
});

test('the text of a script may change only where scripts are meant to', () => {
  const states = ['<script>a</script>', '<script>b</script>'].map((body) => whole(body)) as [
    ReturnType<typeof whole>,
    ReturnType<typeof whole>,
  ];
  assert.equal(alignPages(...states).kind, 'moved');
  assert.equal(alignPages(...states, { scriptsChange: true }).kind, 'aligned');
});
