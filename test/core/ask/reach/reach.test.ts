import assert from 'node:assert/strict';
import { test } from 'node:test';
import { reachOf, readAsked } from '../../../../src/core/ask/reach/index.js';
import { undefeatedFor } from '../../../../src/core/cascade/index.js';
import { modelOf, readerOf } from '../../../support/model.js';

test('what is asked is told apart by how it is written', () => {
  const kind = (text: string): string | undefined => readAsked(text, (path) => path === 'line.css')?.kind;
  const expected: readonly (readonly [string, string | undefined])[] = [
    ['line.css:12', 'rule'],
    ['line.css:12:3', 'rule'],
    ['other.css:12', 'value'],
    ['--tide', 'custom property'],
    ['.kind', 'selector'],
    ['#top', 'selector'],
    ['#fff', 'value'],
    ['#1f3a56', 'value'],
    ['#facade', 'value'],
    ['#decades', 'selector'],
    ['p > a:hover', 'selector'],
    ['li:nth-child(2n+1)', 'selector'],
    ['[type="text"]', 'selector'],
    ['td', 'selector'],
    ['bold', 'value'],
    ['12px', 'value'],
    ['.5em', 'value'],
    ['rgb(1, 2, 3)', 'value'],
    ['"Lato", serif', 'value'],
    ['color: red', 'declaration'],
    ['font-weight:bold', 'declaration'],
    ['a:hover', 'selector'],
    ['', undefined],
  ];
  for (const [text, is] of expected) assert.equal(kind(text), is, text);
});

test('a declaration is counted once an element, by the best of its longhands, and who else says it', () => {
  const page = (body: string): string =>
    `<!DOCTYPE html><html><head><link rel="stylesheet" href="line.css"></head><body>${body}</body></html>`;
  const model = modelOf({
    'index.html': page('<p class="a">1</p><p class="a b">2</p><p style="padding: 4px">3</p>'),
    'other.html': page('<p class="a">4</p>'),
    'line.css':
      '.a { padding: 4px }\n.b { padding-left: 9px; padding-right: 9px; padding-top: 9px; padding-bottom: 9px }\n@media print { .a { padding: 1px } }\ni { padding: 4px }\n',
  });
  const asked = readAsked('padding: 4px', () => false);
  const found = reachOf(model, asked!, () => false);
  assert.deepEqual(
    found.declarations.map(({ selector, holder, wins, waits, beaten, pages, shared }) => [
      selector,
      holder,
      wins,
      waits,
      beaten,
      pages,
      shared.times,
    ]),
    [
      ['.a', 'theme', 2, 0, 1, 2, 2],
      ['', 'style attribute', 1, 0, 0, 1, 2],
    ],
  );
  const rule = reachOf(model, readAsked('line.css:3', (path) => path === 'line.css')!, () => false);
  assert.deepEqual(
    rule.declarations.map(({ value, wins, waits, beaten }) => [value, wins, waits, beaten]),
    [['1px', 0, 3, 0]],
  );
});

test('what stands for a longhand under any of its names', () => {
  const { reader, byId } = readerOf({
    'index.html':
      '<!DOCTYPE html><style>p { margin-left: 1px } .a { margin-inline-start: 2px } #it { all: unset }</style><p id="it" class="a">x</p><p id="b" class="a">y</p>',
  });
  const standing = (id: string, longhand: string): string[] =>
    undefeatedFor(reader.weighed(byId(id)).get(''), longhand, reader.table.truths).map(({ value }) => value);
  assert.deepEqual(standing('it', 'margin-left'), ['unset']);
  assert.deepEqual(standing('b', 'margin-left'), ['2px']);
  assert.deepEqual(standing('it', 'opacity'), ['unset']);
  assert.deepEqual(standing('b', 'opacity'), []);
});
