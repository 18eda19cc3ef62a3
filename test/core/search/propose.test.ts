import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { CLASS_NAME, nameSharings, propose } from '../../../src/core/search/index.js';
import { type Carrier, inlineCarriers } from '../../../src/core/stock/index.js';
import { modelOf, scriptsOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

function carriersOf(body: string): Carrier[] {
  const files = { 'index.html': htmlPage(body) };
  return inlineCarriers(modelOf(files), scriptsOf(files));
}

const sets = (body: string, atLeast = 2): string[] =>
  propose(carriersOf(body), atLeast).sharings.map(
    ({ keys, members }) => `${members.length} × ${keys.join(', ')}`,
  );

test('equal sets in any order and spelling are one style', () => {
  assert.deepEqual(
    sets('<p style="color: #FFF; top: 0"><p style="top:0; color:white"><p style="left: 1px">'),
    ['2 × color:#ffffff, top:0'],
  );
});

test('what unequal sets have in common is shared, and existing sets are used again', () => {
  const body =
    '<p style="top: 0; left: 0; width: 1px"><p style="top: 0; left: 0; width: 2px"><p style="top: 0; left: 0">';
  assert.deepEqual(sets(body), ['3 × left:0, top:0']);
});

test('below the wanted number nothing is made', () => {
  const { sharings, kept } = propose(carriersOf('<p style="top: 0"><p style="top: 0">'), 3);
  assert.deepEqual(sharings, []);
  assert.deepEqual(
    kept.map(({ reason }) => reason),
    Array(2).fill({ kind: 'written seldom', times: 2, atLeast: 3 }),
  );
});

test('every unit is in exactly one style or kept, whatever the input, and the result does not vary', () => {
  const declaration = fc.constantFrom(
    'top: 0',
    'left: 0',
    'color: red',
    'color: lime',
    'width: 4px',
    'margin: 0',
    'opacity: .5',
    'border: 0',
  );
  const style = fc.uniqueArray(declaration, {
    minLength: 1,
    maxLength: 5,
    selector: (text) => text.split(':')[0]!,
  });
  fc.assert(
    fc.property(fc.array(style, { maxLength: 14 }), fc.integer({ min: 2, max: 4 }), (styles, atLeast) => {
      const carriers = carriersOf(styles.map((one) => `<p style="${one.join('; ')}">`).join(''));
      const { sharings, kept } = propose(carriers, atLeast);
      const placed = [
        ...sharings.flatMap(({ members }) => members.flatMap(({ units }) => [...units])),
        ...kept.map(({ unit }) => unit),
      ];
      const all = carriers.flatMap(({ units }) => [...units]);
      assert.equal(placed.length, all.length);
      assert.deepEqual(new Set(placed), new Set(all));
      for (const { members } of sharings) assert.ok(members.length >= atLeast);
      assert.deepEqual(propose(carriers, atLeast), { sharings, kept });
    }),
    { numRuns: 200 },
  );
});

function namesOf(body: string, extra: Partial<Parameters<typeof nameSharings>[1]> = {}): string[] {
  return nameSharings(propose(carriersOf(body), 2).sharings, {
    platform: new Set(),
    taken: new Set(),
    sensitive: [],
    ...extra,
  });
}

test('names say what the elements are and what the style does', () => {
  assert.deepEqual(namesOf('<table><tr><td style="text-align: right"><td style="text-align: right">'), [
    'cell-right',
  ]);
  assert.deepEqual(namesOf('<img class="boat" style="opacity: .5"><img class="boat" style="opacity: .5">'), [
    'boat-faded',
  ]);
  assert.deepEqual(
    namesOf('<p style="color: #12305c; font-size: 12px"><b style="color: #12305c; font-size: 12px">'),
    ['navy-small'],
  );
});

test('the prefix of platform classes does not lead a name of ours', () => {
  const body = '<div class="kw-fares"><p style="top: 0"><p style="top: 0"></div>';
  assert.match(namesOf(body, { platform: new Set(['kw-fares', 'kw-row']) })[0]!, /^fares-text-/);
});

test('names are free, valid, and match no attribute selector on class', () => {
  const body =
    '<p style="color: red"><p style="color: red"><p style="color: #c00"><p style="color: #c00"><p style="color: #d00"><p style="color: #d00">';
  const names = namesOf(body, {
    taken: new Set(['text-red']),
    sensitive: [{ operator: '^=', value: 'text-' }],
  });
  assert.equal(new Set(names).size, 3);
  for (const name of names) {
    assert.match(name, CLASS_NAME);
    assert.notEqual(name, 'text-red');
    assert.ok(!name.startsWith('text-'));
    assert.doesNotMatch(name, /\d$/);
  }
});
