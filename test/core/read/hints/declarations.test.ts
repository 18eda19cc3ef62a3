import assert from 'node:assert/strict';
import { test } from 'node:test';
import { readerOf } from '../../../support/model.js';
import { htmlPage } from '../../../support/site.js';

/** The winner of a property on the element with the id `it`, and what it wins against. */
function list(body: string, property: string, css = ''): string[] {
  const { reader, byId } = readerOf({ 'index.html': htmlPage(body, `<style>${css}</style>`) });
  return (reader.outcomes(byId('it')).get('')?.get(property) ?? []).map(
    ({ value, writtenIn }) => `${value} ${writtenIn.kind}`,
  );
}

test('an old attribute loses to any rule, one in a layer too, and wins over nothing', () => {
  const cell = '<table bgcolor="#def" id="it"><tr><td>x</table>';
  assert.deepEqual(list(cell, 'background-color'), ['#ddeeff old attribute']);
  assert.deepEqual(list(cell, 'background-color', '* { background: red }'), ['#ff0000 rule']);
  assert.deepEqual(list(cell, 'background-color', '@layer a { * { background: red } }'), ['#ff0000 rule']);
  assert.deepEqual(list(cell, 'background-color', '@media print { * { background: red } }'), [
    '#ff0000 rule',
    '#ddeeff old attribute',
  ]);
});

test('cellpadding stands on the table and styles the cells of that table alone', () => {
  const nested = (at: string, inner: string): string =>
    `<table cellpadding="5"><tr><td ${at}><table><tr><td ${inner}>x</table></table>`;
  assert.deepEqual(list(nested('id="it"', ''), 'padding-top'), ['5px old attribute']);
  assert.deepEqual(list(nested('', 'id="it"'), 'padding-top'), []);
});

test('the border of a table draws its cells, unless frame or rules draw them otherwise', () => {
  const cell = (at: string): string => `<table ${at}><tr><td id="it">x</table>`;
  assert.deepEqual(list(cell('border="3"'), 'border-top-width'), ['1px old attribute']);
  assert.deepEqual(list(cell('border="3"'), 'border-top-style'), ['inset old attribute']);
  assert.deepEqual(list(cell('border="" bordercolor="red"'), 'border-top-style'), ['solid old attribute']);
  assert.deepEqual(list(cell('border="0"'), 'border-top-style'), []);
  assert.deepEqual(list(cell('border="3" rules="rows"'), 'border-top-style'), []);
});

test('values are read as forgivingly as the standard reads them', () => {
  const colour = (value: string): string | undefined =>
    list(`<body text="${value}" id="it">`, 'color')[0]?.split(' ')[0];
  assert.equal(colour('chucknorris'), '#c00000');
  assert.equal(colour('#f00'), '#ff0000');
  assert.equal(colour('transparent'), undefined);
  const width = (value: string): string | undefined =>
    list(`<img width="${value}" id="it">`, 'width')[0]?.split(' ')[0];
  assert.equal(width(' 12.5px'), '12.5px');
  assert.equal(width('50% of it'), '50%');
  assert.equal(width('wide'), undefined);
  assert.deepEqual(list('<font size="+9" id="it">x</font>', 'font-size'), ['xxx-large old attribute']);
});

test('both sides of a picture reserve its space', () => {
  assert.deepEqual(list('<img width="40" height="30" id="it">', 'aspect-ratio'), [
    'auto 40/30 old attribute',
  ]);
  assert.deepEqual(list('<img width="40%" height="30" id="it">', 'aspect-ratio'), []);
});

test('attributes of an SVG are weak declarations, and bare numbers are pixels', () => {
  const svg = '<svg><rect id="it" fill="#F00" stroke-width="2" x="4"/></svg>';
  assert.deepEqual(list(svg, 'fill'), ['#ff0000 old attribute']);
  assert.deepEqual(list(svg, 'fill', 'rect { fill: blue }'), ['#0000ff rule']);
  assert.deepEqual(list(svg, 'stroke-width'), ['2px old attribute']);
  assert.deepEqual(list(svg, 'x'), ['4px old attribute']);
});
