import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  chooseRules,
  houseSheet,
  NO_WISHES,
  parseWishes,
  renderWishes,
  revisionOf,
  snippetsOf,
  withWishes,
} from '../../../../src/core/ask/starter/index.js';
import { UsageError } from '../../../../src/core/base/usage-error.js';
import { modelOf } from '../../../support/model.js';
import { htmlPage } from '../../../support/site.js';

const LINK = '<link rel="stylesheet" href="line.css">';

function chosen(css: string, body: string, wishes = NO_WISHES) {
  const model = modelOf({
    ...Object.fromEntries(['a', 'b', 'c'].map((name) => [`${name}.html`, htmlPage(body, LINK)])),
    'line.css': css,
  });
  return { model, ...chooseRules(model, ['line.css'], (name) => name.startsWith('kw-'), wishes) };
}

test('of a list of selectors those are taken whose every name is wanted', () => {
  const { rules } = chosen(
    '.a, .b, .kw-x .a, #id .a, p.a { top: 0 }\n.b { left: 0 }',
    '<p class="a kw-x" id="id">x</p>',
  );
  assert.deepEqual(
    rules.map(({ selectors, part }) => [selectors, part]),
    [[['.a', 'p.a'], 'helpers']],
  );
});

test('what means something in its place only is left out, and told', () => {
  const { rules, left } = chosen(
    '.a { top: 0; & b { left: 0 } } @layer x { .a { right: 0 } } @scope (.a) { b { bottom: 0 } }',
    '<p class="a"><b>x</b></p>',
  );
  assert.deepEqual(
    rules.map(({ selectors }) => selectors),
    [['.a']],
  );
  assert.deepEqual(new Set(left.map(({ reason }) => reason)), new Set(['its place alone']));
});

test('values come along that a rule uses, through others, and in their sets', () => {
  const { rules } = chosen('.a { color: var(--ink, var(--sea)) }', '<p class="a">x</p>');
  const place = { path: 'line.css', line: 1, column: 1 };
  const declaration = { property: '--x', value: '', important: false, range: { start: 0, end: 0 } };
  const value = (name: string, of: string, sets: readonly [string, string][] = []) => ({
    ...{ name, kind: undefined, value: of, place, declaration, alias: undefined, note: undefined, uses: 1 },
    sets: sets.map(([where, own]) => ({ where, value: own, place, declaration })),
  });
  const named = [
    value('--ink', 'var(--deep)', [['.night', 'var(--moon)']]),
    value('--deep', '#123'),
    value('--moon', '#eee'),
    value('--other', '3px'),
  ];
  const { values, text } = houseSheet(rules, named, NO_WISHES);
  assert.deepEqual(
    values.map(({ name }) => name),
    ['--ink', '--deep', '--moon'],
  );
  assert.match(text, /\.night \{\n {2}--ink: var\(--moon\);\n\}/);
  const kept = houseSheet(rules, named, withWishes(NO_WISHES, { keep: ['--other'], leave: [] }));
  assert.ok(kept.values.some(({ name }) => name === '--other'));
});

test('a rule from a block within a block is set out on lines of its own', () => {
  const { rules } = chosen('@media print {\n\t.a {\n\t\ttop: 0;\n\t}\n}\n.a{left:0}', '<p class="a">x</p>');
  const { parts } = houseSheet(rules, [], NO_WISHES);
  assert.equal(parts.get('helpers'), '.a {left:0}\n');
  assert.equal(parts.get('media'), '@media print {\n  .a {\n  \ttop: 0;\n  }\n}\n');
});

test('wishes: the last word counts, they are sorted, and come back as they were', () => {
  const first = withWishes(NO_WISHES, { keep: ['.b', '.a'], leave: ['h2'] });
  const second = withWishes(first, { keep: ['h2'], leave: ['.a'], atLeast: 5 });
  assert.deepEqual(second, { format: 1, 'at-least': 5, keep: ['.b', 'h2'], leave: ['.a'] });
  assert.deepEqual(parseWishes(renderWishes(second)), second);
  for (const text of ['{', '[]', '{ "format": 2 }', '{ "format": 1, "keep": ["} x {"] }'])
    assert.throws(() => parseWishes(text), UsageError, text);
  assert.throws(() => withWishes(NO_WISHES, { keep: ['a b'], leave: [] }), UsageError);
  assert.throws(() => withWishes(NO_WISHES, { keep: ['.a'], leave: ['.a'] }), UsageError);
});

test('a revision names what came and went, by selector and by value', () => {
  const before = ':root { --a: 1px; --b: 2px }\n.x,\n.y { top: 0 }\n@media print { .x { left: 0 } }';
  const after = ':root { --a: 1px; --b: 3px }\n.x { top: 0 }\n';
  assert.deepEqual(revisionOf(before, after), {
    came: ['--b: 3px'],
    went: ['--b: 2px', '.y', '@media print .x'],
    same: 2,
  });
  assert.deepEqual(revisionOf('', ''), { came: [], went: [], same: 0 });
});

test('words are short, stand once, and call up the tag that wears a style most', () => {
  const names = ['fare-row', 'far-reach', 'fr', 'x', 'farewell', 'tide_table', 'tideTable'];
  const css = names.map((name) => `.${name} { top: 0 }`).join('\n');
  const { model, rules } = chosen(
    css,
    `<img class="x">${names.map((name) => `<b class="${name}">x</b>`).join('')}<p class="fr">y</p>`,
  );
  const found = snippetsOf(model, new Map([['values', ':root { --a: "$1\\\\"; }\n']]), rules);
  const words = [...found.values()].map(({ prefix }) => prefix);
  assert.equal(new Set(words).size, words.length);
  assert.ok(
    words.every((word) => word.length > 1),
    words.join(),
  );
  assert.deepEqual(found.get('.fr')?.body, ['<b class="fr">$0</b>']);
  assert.deepEqual(found.get('part: values')?.body, [':root { --a: "\\$1\\\\\\\\"; }']);
});
