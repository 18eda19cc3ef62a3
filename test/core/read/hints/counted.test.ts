import assert from 'node:assert/strict';
import { test } from 'node:test';
import { writtenHints } from '../../../../src/core/read/hints/index.js';
import { hasTemplateText, maskTemplateText, parsePage } from '../../../../src/core/read/markup/index.js';

function hints(body: string): string[] {
  return parsePage('a.html', `<!DOCTYPE html><body>${body}`).elements.flatMap(writtenHints);
}

test('outdated attributes and elements are styling, where the standard says so', () => {
  assert.deepEqual(
    hints('<table bgcolor="#eef" cellpadding=4><tr valign=top><td align=center nowrap>x</table>'),
    ['bgcolor="#eef"', 'cellpadding="4"', 'valign="top"', 'align="center"', 'nowrap=""'],
  );
  assert.deepEqual(hints('<center><font color=red size=4>x</font></center>'), [
    '<center>',
    '<font>',
    'color="red"',
    'size="4"',
  ]);
  assert.deepEqual(hints('<img hspace=12 border=0 src=a.png alt=x>'), ['hspace="12"', 'border="0"']);
});

test('the same names elsewhere are not', () => {
  assert.deepEqual(hints('<p width=4 bgcolor=red>x<span align=left>y</span><input width=3>'), []);
  assert.deepEqual(hints('<svg width="4"><rect width="4" height="4"/></svg>'), []);
});

test('template text of the common families is known, and masked without moving anything', () => {
  for (const text of ['{{ a }}', '{% if a %}', '<% a %>', '<?php a() ?>', ['x $', '{a} y'].join('')]) {
    assert.ok(hasTemplateText(text), text);
    const masked = maskTemplateText(text);
    assert.equal(masked.length, text.length);
    assert.equal(hasTemplateText(masked), false);
  }
  for (const text of ['{ a }', 'a < b', '100%', '$5 {x}']) assert.equal(hasTemplateText(text), false, text);
});
