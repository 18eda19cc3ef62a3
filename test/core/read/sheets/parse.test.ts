import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { parseDeclarations, parseSheet } from '../../../../src/core/read/sheets/index.js';

const shape = (css: string): string[] =>
  parseSheet(css).rules.map(({ nesting, conditions, declarations }) =>
    [
      ...conditions.map(({ kind, text }) => `@${kind} ${text}`),
      nesting.join(' / '),
      declarations
        .map(({ property, value, important }) => `${property}=${value}${important ? '!' : ''}`)
        .join(';'),
    ].join(' | '),
  );

test('rules, importance and comments', () => {
  assert.deepEqual(shape('a, b { color : RED ! important; margin:0 } /* x */ i{}'), [
    'a, b | color=RED!;margin=0',
    'i | ',
  ]);
});

test('media, supports and container rules are conditions around their rules', () => {
  assert.deepEqual(shape('@media print { @supports (gap: 1px) { a { x: y } } }'), [
    '@media print | @supports (gap: 1px) | a | x=y',
  ]);
});

test('a lost brace nests what follows, as in a browser, and is reported where it was opened', () => {
  const sheet = parseSheet('.a { color: red;\n.b { margin: 0 }\n.c { top: 0 }');
  assert.deepEqual(
    sheet.rules.map(({ nesting }) => nesting.join(' / ')),
    ['.a', '.a / .b', '.a / .c'],
  );
  assert.deepEqual(
    sheet.defects.map(({ kind, range }) => [kind, range.start]),
    [['block never closed', 3]],
  );
});

test('a missing semicolon before a nested rule costs the declaration and the rule, as in a browser', () => {
  assert.deepEqual(shape('.a { color: red .b { margin: 0 } top: 0 }'), [
    '.a / color: red .b | margin=0',
    '.a | top=0',
  ]);
});

test('a stray closing brace takes the next rule with it', () => {
  const sheet = parseSheet('a { x: y } } b { x: y } c { x: y }');
  assert.deepEqual(
    sheet.rules.map(({ selector }) => selector),
    ['a', '} b', 'c'],
  );
  assert.equal(sheet.defects[0]?.kind, 'stray closing brace');
});

test('declarations after a nested rule are a rule of their own', () => {
  assert.deepEqual(shape('.a { x: 1; &:hover { x: 2 } x: 3 }'), [
    '.a | x=1',
    '.a / &:hover | x=2',
    '.a | x=3',
  ]);
});

test('imports count only before rules, with layer, supports and media', () => {
  const sheet = parseSheet(
    '@charset "utf-8"; @import url(a.css) layer(base) supports(display: grid) screen; a{x:y} @import "b.css";',
  );
  assert.deepEqual(
    sheet.imports.map(({ address, layer, conditions }) => [
      address,
      layer,
      conditions.map(({ text }) => text),
    ]),
    [['a.css', 'base', ['(display: grid)', 'screen']]],
  );
  assert.equal(sheet.defects[0]?.kind, 'import too late');
});

test('layers have full names, in order of appearance', () => {
  const sheet = parseSheet('@layer reset, kit; @layer kit { @layer tiles { a { x: y } } }');
  assert.deepEqual(sheet.layers, ['reset', 'kit', 'kit.tiles']);
  assert.equal(sheet.rules[0]?.layer, 'kit.tiles');
});

test('what cannot be decided yet is named, not guessed', () => {
  assert.deepEqual(
    parseSheet('@scope { p { x: y } } @media print { @layer a { p { x: y } } }').undecided.map(
      ({ what }) => what,
    ),
    ['a scope inside another, or without a root', 'a layer under a condition'],
  );
  assert.deepEqual(parseSheet('@scope (.card) to (.x, .y) { p { x: y } }').rules[0]!.scope, {
    start: '.card',
    end: '.x, .y',
  });
});

test('a style attribute keeps its good declarations and reports the rest', () => {
  const { declarations, defects } = parseDeclarations('color red; margin: 0 auto ;; *zoom: 1; Top:0');
  assert.deepEqual(
    declarations.map(({ property, value }) => `${property}:${value}`),
    ['margin:0 auto', 'top:0'],
  );
  assert.equal(defects.length, 2);
});

test('ranges lead back to the source, for any text', () => {
  const piece = fc.constantFrom(
    'a',
    '.b',
    '{',
    '}',
    ';',
    ':',
    ' ',
    '@media print',
    '"',
    '(',
    ')',
    '/*',
    '*/',
    'color',
    'red',
    '!important',
    '\n',
    '\\',
    'url(x',
    '--x',
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 40 }), (pieces) => {
      const css = pieces.join('');
      for (const { range, declarations } of parseSheet(css).rules) {
        assert.ok(range.start >= 0 && range.end <= css.length && range.start <= range.end);
        for (const one of declarations) {
          const written = css.slice(one.range.start, one.range.end).toLowerCase();
          assert.ok(written.includes('\\') || written.startsWith(one.property.toLowerCase()));
        }
      }
    }),
    { numRuns: 500 },
  );
});
