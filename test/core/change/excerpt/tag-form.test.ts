import assert from 'node:assert/strict';
import { test } from 'node:test';
import { inOtherTag, type TagForm, tagForm } from '../../../../src/core/change/excerpt/tag-form.js';
import { parsePage } from '../../../../src/core/read/markup/index.js';

/** The form of the first element of a body. */
function formOf(body: string, meant: readonly string[] = []): TagForm {
  const page = parsePage('pier.html', `<!DOCTYPE html><body>${body}`);
  const element = page.elements.find(({ parent }) => page.elements[parent]?.name === 'body')!;
  return tagForm(element, page, (name) => meant.includes(name));
}

test('tags that differ in what nothing goes by have one form', () => {
  const one = formOf('<p id="a" style="color: teal" title=\'High water\'>x</p>');
  const other = formOf('<p id="sailing-17" style="color: teal" title=\'Low\'>y</p>');
  assert.equal(one.text, '<p id="" style="color: teal" title=\'\'></p>');
  assert.equal(other.text, one.text);
  assert.deepEqual(one.free, [7, 8, 37, 47]);
});

test('styling, what a name stands for, scripts in addresses and values without quotes are no such thing', () => {
  const different = [
    '<p id="a" style="color: teal">',
    '<p id="a" style="color: navy">',
    '<p id="a" class="note" style="color: teal">',
    '<p id=a style="color: teal">',
  ].map((tag) => formOf(tag).text);
  assert.equal(new Set(different).size, 4);
  assert.equal(formOf('<p id="pier">', ['pier']).text, '<p id="pier">');
  assert.deepEqual(formOf('<a href="javascript:show()">x</a>').free, []);
});

test('an offset is found again in a tag whose values are shorter or longer', () => {
  const tags = ['<p id="a" title="" style="x">', '<p id="sailing" title="Low" style="x">'] as const;
  const [of, other] = [formOf(tags[0]).free, formOf(tags[1]).free];
  for (const part of ['<p', ' id=', ' title', ' style="', 'x', '>'])
    assert.equal(inOtherTag(tags[0].indexOf(part), of, other), tags[1].indexOf(part));
  for (const part of ['<p', ' style="', 'x', '>'])
    assert.equal(inOtherTag(tags[1].indexOf(part), other, of), tags[0].indexOf(part));
  assert.equal(inOtherTag(tags[1].indexOf('iling'), other, of), undefined);
});
