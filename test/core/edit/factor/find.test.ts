// Sets of declarations that repeat in sources: which are worth a name, and which name.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { type FoundMixin, findMixins, runsOf, type Written } from '../../../../src/core/edit/factor/index.js';
import { parseDeclarations } from '../../../../src/core/read/sheets/index.js';

/** In: rules of one file, each a selector and what it says. */
function foundIn(rules: Readonly<Record<string, string>>, given = new Map<string, string>()): FoundMixin[] {
  let text = '';
  const written: Written[] = [];
  for (const [selector, said] of Object.entries(rules)) {
    text += `${selector} {\n`;
    for (const one of said.split(';')) {
      const start = text.length;
      const [made] = parseDeclarations(one.replace(/\$[\w-]+/g, 'red')).declarations;
      text += one.trim();
      written.push({ file: 'a.scss', start, end: text.length, said: one.trim(), made: made!, selector });
      text += ';\n';
    }
    text += '}\n';
  }
  return findMixins(
    runsOf(written, () => text),
    { taken: new Set(['cover']), given },
  );
}

const shown = (found: readonly FoundMixin[]): string[] =>
  found.map(({ name, places, declarations }) => `${name} ${places.length}: ${declarations.join('; ')}`);

const CARD = 'padding: 4px; color: teal; border: 1px solid; font-weight: bold';

test('a row that stands in several rules is one thing, however the rules go on', () => {
  assert.deepEqual(
    shown(
      foundIn({
        '.fare-card': `margin: 0; ${CARD}`,
        '.crew-card': `${CARD}; display: block`,
        '.pier-card': CARD,
        '.plain': 'padding: 4px; color: teal',
      }),
    ),
    [`card 3: ${CARD}`],
  );
});

test('it is called by the word that people have, by its variables, by its classes, else by its look', () => {
  const four = (said: string, names = ['.a', '.b', '.c', '.d']): Record<string, string> =>
    Object.fromEntries(names.map((name) => [name, said]));
  const nameOf = (said: string, names?: string[]): string[] =>
    foundIn(four(said, names)).map(({ name }) => name);
  assert.deepEqual(nameOf('overflow: hidden; text-overflow: ellipsis; white-space: nowrap'), ['truncated']);
  assert.deepEqual(nameOf('color: $late-fare-ink; border-color: $late-fare-line; cursor: help'), [
    'late-fare',
  ]);
  assert.deepEqual(
    nameOf('color: teal; font-weight: bold; margin: 0', ['.a-note', '.b__note', '.c-note', '.d-note']),
    ['note'],
  );
  assert.deepEqual(nameOf('color: #067647; font-weight: bold; text-align: center').length, 1);
});

test('where something stands, and two that only meet, are no one thing', () => {
  assert.deepEqual(
    foundIn({
      '.a': 'color: teal; margin: 0',
      '.b': 'color: teal; margin: 0',
      '.c': 'color: teal; margin: 0',
      '.d': 'color: teal; margin: 0',
      '.e': 'color: teal; margin: 0',
    }),
    [],
  );
  assert.deepEqual(
    foundIn({
      '.a': 'left: 0; top: 3px; width: 9px',
      '.b': 'left: 0; top: 3px; width: 9px',
      '.c': 'left: 0; top: 3px; width: 9px',
    }),
    [],
  );
  const size = 'width: 100%; height: 100%';
  assert.deepEqual(shown(foundIn({ '.a': size, '.b': size, '.c': size, '.d': size, '.e': size })), [
    `full-size 5: ${size}`,
  ]);
});

test('a name that a person gave is kept, and a name in use is not given again', () => {
  const [first] = foundIn({ '.fare-card': CARD, '.crew-card': CARD, '.pier-card': CARD });
  const given = foundIn(
    { '.fare-card': CARD, '.crew-card': CARD, '.pier-card': CARD },
    new Map([[first!.id, 'ticket']]),
  );
  assert.deepEqual(
    given.map(({ name }) => name),
    ['ticket'],
  );
  const cover = 'position: absolute; top: 0; left: 0; width: 100%; height: 100%';
  const [one] = foundIn({ '.a': cover, '.b': cover, '.c': cover });
  assert.notEqual(one!.name, 'cover');
});
