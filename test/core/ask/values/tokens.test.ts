// Kinds of values, and the way out to design tokens and back.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { type NamedValue, readTokens, toTokens, valuesOf } from '../../../../src/core/ask/values/index.js';
import { kindOf, valueForm, valuesIn } from '../../../../src/core/ask/values/kinds.js';
import { parseSheet } from '../../../../src/core/read/sheets/index.js';

function named(css: string): readonly NamedValue[] {
  return valuesOf({ sheets: [{ path: 'a.css', text: css, sheet: parseSheet(css) }], styles: [], blocks: [] })
    .named;
}

test('the kind of a value is told by its property, its shape, its name, and what it is used for', () => {
  const kinds: readonly (readonly [name: string, value: string, kind: string | undefined])[] = [
    ['--a', '#FFF', 'color'],
    ['--a', 'rgb(1 2 3 / 50%)', 'color'],
    ['--a', 'teal', 'color'],
    ['--a', 'linear-gradient(red, blue)', 'gradient'],
    ['--a', '.2s', 'duration'],
    ['--a', '0 1px 2px #000', 'shadow'],
    ['--a', 'inset 0 1px 2px 3px rgba(0, 0, 0, 0.5)', 'shadow'],
    ['--corner', '4px', 'radius'],
    ['--text-small', '13px', 'fontSize'],
    ['--gap', '1.5rem', 'dimension'],
    ['--weight-strong', '700', 'fontWeight'],
    ['--line-tight', '1.2', 'lineHeight'],
    ['--columns', '3', 'number'],
    ['--font-head', '"Tern Sans", serif', 'fontFamily'],
    ['--a', 'auto', undefined],
    ['--a', 'calc(1px + 2px)', undefined],
  ];
  for (const [name, value, kind] of kinds) assert.equal(kindOf(name, value), kind, `${name}: ${value}`);
  assert.equal(kindOf('--x', '4px', 'radius'), 'radius');
  const found = (property: string, value: string) =>
    valuesIn(property, value).map(({ kind, value: own }) => `${kind} ${own}`);
  assert.deepEqual(found('border', '1px solid #d9c9a3'), ['color #d9c9a3']);
  assert.deepEqual(found('background', 'linear-gradient(#fff, #000)'), [
    'gradient linear-gradient(#fff, #000)',
  ]);
  assert.deepEqual(found('border-top-left-radius', '3px'), ['radius 3px']);
  for (const nothing of ['inherit', 'none', 'var(--a)', '0', 'transparent'])
    assert.deepEqual(found('color', nothing), []);
  assert.equal(valueForm('color', '#FFF'), valueForm('color', 'rgb(255, 255, 255)'));
  assert.equal(valueForm('fontFamily', '"A B",serif'), valueForm('fontFamily', "'A B', serif"));
});

test('every type that the format has goes out, and comes back as it was', () => {
  const css = `:root {
  --tide: #1f3a56;
  --haze: #1f3a5680;
  --gap: 1.5rem;
  --slow: 250ms;
  --strong: 700;
  --lift: 0px 1px 3px 0px #000000;
  --lifts: 0px 1px 3px 0px #000000, inset 0px 0px 1px 2px #ffffff;
  --face: "Tern Sans", Georgia, serif;
  --weight-head: bold;
  --same: var(--tide);
}`;
  const values = named(css);
  const { tokens, left } = toTokens(values);
  assert.deepEqual(left, []);
  const back = readTokens(JSON.stringify(tokens));
  assert.ok(typeof back !== 'string', String(back));
  const said = new Map(back.map(({ property, value }) => [property, value]));
  for (const { name, value } of values) assert.equal(said.get(name), value, name);
});

test('what the format has no word for stays out, and is named', () => {
  const { tokens, left } = toTokens(
    named(
      ':root { --a: 2em; --b: linear-gradient(red, blue); --c: calc(1px); --d: var(--none); --e: var(--a) }',
    ),
  );
  assert.deepEqual(left, ['--a', '--b', '--c', '--d', '--e']);
  assert.deepEqual(tokens, {});
});

test('aliases in a ring end', () => {
  const { left } = toTokens(named(':root { --a: var(--b); --b: var(--a) }'));
  assert.deepEqual(left, ['--a', '--b']);
});

test('a file of somebody else is read by its types: inherited, nested, aliased', () => {
  const file = {
    $description: 'of the fleet',
    brand: {
      $type: 'color',
      deep: {
        sea: { $value: { colorSpace: 'srgb', components: [0, 0, 1] } },
        sky: { $value: '{brand.deep.sea}' },
      },
      wide: { $value: { colorSpace: 'display-p3', components: [1, 0, 0], alpha: 0.5 } },
    },
    space: { small: { $type: 'dimension', $value: { value: 4, unit: 'px' } } },
    type: { body: { $type: 'fontFamily', $value: ['Tern "One"', 'serif'] } },
    ratio: { $type: 'number', $value: 1.25 },
  };
  const read = readTokens(JSON.stringify(file));
  assert.ok(typeof read !== 'string', String(read));
  assert.deepEqual(
    read.map(({ property, value }) => `${property}: ${value}`),
    [
      '--brand-deep-sea: #0000ffff',
      '--brand-deep-sky: var(--brand-deep-sea)',
      '--brand-wide: color(display-p3 1 0 0 / 0.5)',
      '--space-small: 4px',
      '--type-body: "Tern \\"One\\"", serif',
      '--ratio: 1.25',
    ],
  );
});

test('a value that is none of its type, or would end the declaration, is told by its path', () => {
  const wrong: readonly (readonly [type: string, value: unknown])[] = [
    ['color', 'red; } body {'],
    ['color', { colorSpace: 'srgb', components: [1] }],
    ['dimension', { value: 3, unit: 'px; }' }],
    ['dimension', '3px'],
    ['number', '1'],
    ['fontWeight', 'bold; }'],
    ['shadow', { color: '#000' }],
    ['border', {}],
  ];
  for (const [type, value] of wrong) {
    const read = readTokens(JSON.stringify({ group: { one: { $type: type, $value: value } } }));
    assert.match(String(read), /^group\.one: /, `${type} ${JSON.stringify(value)}`);
  }
  let deep: object = { $value: 1, $type: 'number' };
  for (let at = 0; at < 40; at++) deep = { a: deep };
  assert.match(String(readTokens(JSON.stringify(deep))), /nested without end/);
});
