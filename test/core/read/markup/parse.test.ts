import assert from 'node:assert/strict';
import { test } from 'node:test';
import { elementsOfTag, parsePage } from '../../../../src/core/read/markup/index.js';

const doctype = '<!DOCTYPE html>';

test('elements come in document order with the source range of their attributes', () => {
  const text = `${doctype}<ul><li CLASS='quay  long' style="color: red">Tarbek</ul>`;
  const item = parsePage('index.html', text).elements.find(({ name }) => name === 'li')!;
  const range = item.tag!.attributes.get('class')!;
  assert.equal(text.slice(range.start, range.end), `CLASS='quay  long'`);
  assert.deepEqual(item.classes, ['quay', 'long']);
});

test('elements made anew by misnested formatting share the tag they came from', () => {
  const page = parsePage('index.html', `${doctype}<p><b class="x">one<p>two</b>`);
  const bold = page.elements.filter(({ name }) => name === 'b');
  assert.equal(bold.length, 2);
  assert.equal(bold[0]!.tag, bold[1]!.tag);
});

test('a page without a doctype is in quirks mode', () => {
  assert.equal(parsePage('a.html', '<html><p>x').quirks, true);
  assert.equal(parsePage('a.html', `${doctype}<p>x`).quirks, false);
});

test('a second class attribute is a defect with its place', () => {
  const text = '<!DOCTYPE html><p class="a" class="b">x';
  const [defect] = parsePage('a.html', text).defects;
  assert.equal(defect?.kind, 'doubled attribute');
  assert.equal(text.slice(defect!.range.start, defect!.range.end), 'class');
});

test('template text in values and in tags is told apart', () => {
  const page = parsePage(
    'a.html',
    `${doctype}<p id="a" class="{{ kind }}">x<p id="b" {% if open %}{{ more }}{% endif %}>y<p id="c" class="z">z`,
  );
  const templated = ['a', 'b', 'c'].map(
    (id) => page.elements.find((element) => element.id === id)!.templated,
  );
  assert.deepEqual(templated, ['values', 'tag', 'no']);
});

test('style attributes inside a template element are inert', () => {
  const page = parsePage('a.html', `${doctype}<template><p style="color: red">x</p></template>`);
  assert.equal(page.inert.length, 1);
  assert.equal(
    page.elements.some(({ style }) => style !== undefined),
    false,
  );
});

test('a style block knows its offset, with CR LF line ends too', () => {
  const text = `${doctype}\r\n<head><style>\r\n.a { color: red }\r\n</style></head>`;
  const [reference] = parsePage('a.html', text).sheets;
  assert.ok(reference?.kind === 'block' && reference.offset !== undefined);
  assert.ok(text.startsWith(reference.text, reference.offset));
});

test('sheets in noscript apply where scripting is off', () => {
  const page = parsePage(
    'a.html',
    `${doctype}<head><noscript><link rel="stylesheet" href="plain.css"></noscript></head>`,
  );
  assert.equal(page.sheets[0]?.scriptingOff, true);
});

test('a page nested as deep as it is long is read, and left alone', () => {
  const deep = parsePage('index.html', `<!DOCTYPE html><title>x</title>${'<div>'.repeat(20_000)}x`);
  assert.equal(deep.elements.length, 20_004);
  assert.ok(deep.depth > 20_000);
  const inert = parsePage('index.html', `<template>${'<b style="top: 0">'.repeat(9000)}</template>`);
  assert.equal(inert.inert.length, 9000);
});

test('an attribute with a prefix is not the one without', () => {
  const { elements } = parsePage('index.html', '<svg><a xlink:href="#x" href="#y"></a></svg>');
  assert.deepEqual(
    elements.at(-1)!.attributes.map(({ name, value }) => `${name}=${value}`),
    ['xlink:href=#x', 'href=#y'],
  );
});

test('several elements can come from one tag, and are found by it', () => {
  const page = parsePage('index.html', '<!DOCTYPE html><p><b class="x">a<p>b</b>c');
  const made = page.elements.filter(({ name }) => name === 'b');
  assert.equal(made.length, 2);
  assert.deepEqual(
    elementsOfTag(page, made[1]!.tag),
    made.map(({ index }) => index),
  );
  assert.deepEqual(elementsOfTag(page, undefined), []);
});
