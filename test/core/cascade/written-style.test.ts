import assert from 'node:assert/strict';
import { test } from 'node:test';
import { isOpaque, isWrittenByEngine, writtenDeclarations } from '../../../src/core/cascade/index.js';

test('a style in which an engine writes values alone is read; one whose declarations it writes is not', () => {
  const read = [
    'color: red; width: {{ share }}%',
    'width: <%= boat["load"] %>px; color: red',
    'background: url(<?php echo $picture; ?>) no-repeat; color: red',
    `margin: ${'$'}{top}px auto; color: red !important`,
    '--share: {{{ share }}}; color: red',
    'color: red',
  ];
  for (const style of read) assert.equal(isOpaque(style), false, style);
  const opaque = [
    '{{ style }}',
    'color: red; {{ style }}',
    'color: red; {{ side }}: 3px',
    'color: red; margin-{{ side }}: 3px',
    '{% if late %}color: red{% endif %}; top: 0',
    'color: {% if late %}red{% else %}teal{% endif %}; top: 0',
    'width: {% if a %}1px; color: red; top: 0{% else %}2px{% endif %}',
    '<% if late %>color: red;<% end %> top: 0',
    'color: red; /* {{ note }} */ top: 0',
  ];
  for (const style of opaque) assert.equal(isOpaque(style), true, style);
});

test('engine text in marks of plain letters is a value, unless it begins or ends a branch', () => {
  const style = (code: string): string => `color: red; width: \u2060${code}\u2060px; top: 0`;
  for (const code of [
    '{share}',
    '{$boat.load}',
    '{format(x)}',
    '{form.width}',
    '{ifShut}',
    '@Model.Width',
    '@format(x)',
  ])
    assert.equal(isOpaque(style(code)), false, code);
  for (const code of [
    '{#if shut}',
    '{:else}',
    '{/if}',
    '{if $shut}',
    '{else}',
    '{foreachelse}',
    '@if(shut)',
    '@else',
    '@endforeach',
  ])
    assert.equal(isOpaque(style(code)), true, code);
});

test('what an engine writes is a part of its declaration, as it is written', () => {
  const declarations = writtenDeclarations('color: red; margin: {{ a; b }}px 0 !important; top: 0');
  assert.deepEqual(
    declarations.map(({ property, value, important }) => [property, value, important]),
    [
      ['color', 'red', false],
      ['margin', '{{ a; b }}px 0', true],
      ['top', '0', false],
    ],
  );
  assert.deepEqual(declarations.map(isWrittenByEngine), [false, true, false]);
});
