import assert from 'node:assert/strict';
import { test } from 'node:test';
import { familyText, parseFamily } from '../../../../src/core/change/family/table-file.js';

const TABLE = `format: 1
family: deck
each: state
where: .deck-{row}
rows:
  '2': { ink: teal }
  '10': { ink: navy, gap: 4px }
  first: { ink: gray }
rules:
  '& > b': { color: '{ink}', margin: '0 {gap}' }
`;

test('rows and rules keep the order in which they are written, numbers too', () => {
  const { table, into } = parseFamily(TABLE, 'deck.family.yaml');
  assert.deepEqual([...table.rows.keys()], ['2', '10', 'first']);
  assert.deepEqual(
    [...(table.rows.get('10') ?? [])],
    [
      ['ink', 'navy'],
      ['gap', '4px'],
    ],
  );
  assert.deepEqual(
    [...(table.rules.get('& > b') ?? [])],
    [
      ['color', '{ink}'],
      ['margin', '0 {gap}'],
    ],
  );
  assert.equal(into, undefined);
  assert.equal(table.off, undefined);
});

test('JSON is taken too, and a table that was found reads back as it was', () => {
  const json = JSON.stringify({
    format: 1,
    family: 'deck',
    into: 'theme/deck.css',
    each: 'position',
    where: '.row > li',
    rows: { odd: { ink: '#fff' }, '3n+2': { ink: '#000' } },
    rules: { '&': { color: '{ink}' } },
    off: 'print',
  });
  const { table, into } = parseFamily(json, 'deck.json');
  assert.deepEqual([into, table.off, table.each], ['theme/deck.css', 'print', 'position']);
  const again = parseFamily(familyText(table, 'theme/deck.css'), 'deck.family.yaml');
  assert.deepEqual(again, { table, into });
  assert.match(familyText(table, 'theme/deck.css'), /^# Add a row .*\n\nformat: 1\nfamily: deck\n/);
  assert.match(familyText(table, 'theme/deck.css'), /rows:\n {2}odd: \{ ink: '?#fff'? \}\n/);
});
