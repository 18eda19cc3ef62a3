import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  declarationValidity,
  expandDeclaration,
  isFinished,
  longhands,
  normalValue,
} from '../../../../src/core/read/sheets/index.js';

const same = (property: string, ...values: string[]): void => {
  const forms = new Set(values.map((value) => normalValue(property, value, 'index.html')));
  assert.equal(forms.size, 1, [...forms].join(' / '));
};
const different = (property: string, a: string, b: string): void =>
  assert.notEqual(normalValue(property, a, 'index.html'), normalValue(property, b, 'index.html'));

test('spellings of one colour have one form', () => {
  same('color', '#FFF', '#ffffff', 'white', 'rgb(255, 255, 255)', 'RGB(255,255,255)');
  different('color', '#1f3a56', '#1e3a56');
  different('background-color', 'rgba(0, 0, 0, .5)', '#00000080');
});

test('names that people make up keep their case, and are no colours', () => {
  different('animation-name', 'Tide', 'tide');
  different('font-family', 'Red', '#ff0000');
  same('display', 'BLOCK', 'block');
});

test('a zero length needs no unit, except where a bare number means something else', () => {
  same('margin', '0px', '0', '0.0em');
  different('line-height', '0', '0px');
  different('flex', '1 1 0', '1 1 0px');
  different('width', '0', '0%');
});

test('numbers, weights, quotes and space have one form', () => {
  same('opacity', '.80', '0.8');
  same('font-weight', 'bold', '700');
  same('font-family', `'Lato' , serif`, `"Lato",serif`);
});

test('addresses are resolved against the file that holds them', () => {
  assert.equal(
    normalValue('background-image', 'url(../media/a.png)', 'fares/index.html'),
    normalValue('background-image', 'url("media/a.png")', 'index.html'),
  );
  assert.notEqual(
    normalValue('background-image', 'url(a.png)', 'fares/index.html'),
    normalValue('background-image', 'url(a.png)', 'index.html'),
  );
});

const parts = (property: string, value: string): Record<string, string> =>
  Object.fromEntries(
    expandDeclaration(property, value, 'index.html').map(({ longhand, value: form }) => [longhand, form]),
  );

test('simple shorthands are taken apart', () => {
  assert.deepEqual(parts('margin', '1px 2px'), {
    'margin-top': '1px',
    'margin-right': '2px',
    'margin-bottom': '1px',
    'margin-left': '2px',
  });
  const border = parts('border', '1px solid red');
  assert.equal(border['border-left-style'], 'solid');
  assert.equal(border['border-image-source'], 'initial');
  assert.equal(parts('background', '#FFF')['background-color'], '#ffffff');
  assert.equal(parts('background', '#FFF')['background-image'], 'initial');
});

test('other shorthands, and those with var(), compare by their text', () => {
  assert.equal(parts('font', '12px/1.5 Lato')['font-size'], parts('font', '12px / 1.5 Lato')['font-size']);
  assert.notEqual(parts('font', '12px/1.5 Lato')['font-size'], parts('font', '13px/1.5 Lato')['font-size']);
  assert.match(parts('margin', 'var(--gap)')['margin-top']!, /var\(--gap\)/);
});

test('longhands follow the specifications through nested shorthands and aliases', () => {
  assert.ok(longhands('border').set.includes('border-top-color'));
  assert.ok(longhands('border').reset.includes('border-image-width'));
  assert.deepEqual(longhands('word-wrap').set, ['overflow-wrap']);
  assert.ok(longhands('-moz-border-radius').set.includes('-moz-border-top-left-radius'));
});

test('only what every browser keeps is certain', () => {
  assert.equal(declarationValidity('color', 'red').validity, 'certain');
  assert.deepEqual(declarationValidity('colour', 'red'), {
    validity: 'unsure',
    complaint: 'unknown property',
  });
  assert.deepEqual(declarationValidity('text-align', 'centre'), {
    validity: 'unsure',
    complaint: 'unfitting value',
  });
  assert.deepEqual(declarationValidity('width', '-webkit-fill-available'), {
    validity: 'unsure',
    complaint: undefined,
  });
});

test('a value that only the end of the attribute closes is not finished', () => {
  for (const value of ['calc(1px + 2px', '"a', 'url(x', 'a /* b', 'a\\'])
    assert.equal(isFinished(value), false, value);
  for (const value of ['calc(1px + 2px)', '"a"', 'url(x)', 'a /* b */', `'it\\'s'`])
    assert.equal(isFinished(value), true, value);
});
