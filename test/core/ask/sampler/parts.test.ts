import assert from 'node:assert/strict';
import { test } from 'node:test';
import { kindOfElement, STYLE_KINDS } from '../../../../src/core/ask/sampler/kinds.js';
import { headingAt, headingsOf } from '../../../../src/core/ask/sampler/parts.js';
import { parseSheet } from '../../../../src/core/read/sheets/index.js';

const headings = (css: string): string[] => headingsOf(parseSheet(css)).map(({ text }) => text);

test('a heading stands by itself, or is drawn; a remark on the rule behind it is none', () => {
  assert.deepEqual(headings('/* Skerrin Line */\n\n.a { top: 0 }'), ['Skerrin Line']);
  assert.deepEqual(headings('/* what a crossing costs */\n.a { top: 0 }'), []);
  assert.deepEqual(headings('/* ==== Boxes ==== */\n.a { top: 0 }'), ['Boxes']);
  assert.deepEqual(headings('/*----------\n  Words\n----------*/\n.a { top: 0 }'), ['Words']);
  assert.deepEqual(headings('.a { top: 0 } /* beside a rule */\n\n'), []);
  assert.deepEqual(headings('.a {\n  /* within */\n\n  top: 0;\n}'), []);
  assert.deepEqual(headings(`/* ${'long '.repeat(20)}*/\n\n`), []);
  assert.deepEqual(headings('/* */\n\n/**/\n\n/* Ends. */\n\n'), ['Ends']);
  assert.deepEqual(headings('/* Windows */\r\n\r\n.a { top: 0 }\r\n'), ['Windows']);
});

test('what stands under a heading is told by the last one before it', () => {
  const css = '.a { top: 0 }\n/* One */\n\n.b { top: 0 }\n/* == Two == */\n.c { top: 0 }\n';
  const found = headingsOf(parseSheet(css));
  assert.deepEqual(
    ['.a', '.b', '.c'].map((name) => headingAt(found, css.indexOf(name))),
    [undefined, 'One', 'Two'],
  );
});

test('every element is of some kind, and of one', () => {
  const kinds = ['p', 'a', 'div', 'ul', 'td', 'input', 'img', 'kw-anything'].map((name) =>
    kindOfElement({ name }),
  );
  assert.deepEqual(kinds, [
    'text',
    'links and buttons',
    'boxes',
    'lists',
    'tables',
    'forms',
    'pictures',
    'boxes',
  ]);
  assert.deepEqual([...new Set(kinds)].sort(), [...STYLE_KINDS].sort());
});
