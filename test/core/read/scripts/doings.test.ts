import assert from 'node:assert/strict';
import { test } from 'node:test';
import { readScript } from '../../../../src/core/read/scripts/index.js';

const doingsOf = (text: string): string[] =>
  readScript(text)
    .doings.map(({ kind }) => kind)
    .sort();

test('what a script has made and puts behind others is told from what it moves', () => {
  const make = "const row = document.createElement('tr');";
  for (const text of [
    `${make} row.innerHTML = '<td>x'; table.append(row)`,
    `${make} table.appendChild(row)`,
    "table.append(document.createElement('tr'), 'text')",
    "table.insertAdjacentHTML('beforeend', html)",
    'const copy = row.cloneNode(true); list.append(copy)',
    `let one; one = document.createElement('li'); list.append(one)`,
  ])
    assert.deepEqual(doingsOf(text), ['elements behind'], text);
  for (const text of [
    'for (const row of rows) table.append(row)',
    'rows.sort(by).forEach((row) => table.appendChild(row))',
    'const row = table.rows[0]; table.append(row)',
    `${make} table.prepend(row)`,
    `${make} table.insertBefore(row, first)`,
    "let row = document.createElement('tr'); row = old; table.append(row)",
    "table.insertAdjacentHTML('afterbegin', html)",
    "table.innerHTML = '<tr>'",
    'function add(row) { table.append(row) }',
  ])
    assert.ok(doingsOf(text).includes('elements'), text);
});
