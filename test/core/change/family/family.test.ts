import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { generateRules } from '../../../../src/core/change/family/generate.js';
import {
  type FamilyTable,
  findFamilies,
  replaceCopies,
  tableProblem,
} from '../../../../src/core/change/family/index.js';
import { findSection, planSection } from '../../../../src/core/change/family/section.js';
import { applyEdits } from '../../../../src/core/edit/text/index.js';
import { modelOf } from '../../../support/model.js';

type Plain = Readonly<Record<string, Readonly<Record<string, string>>>>;

const mapped = (plain: Plain): Map<string, Map<string, string>> =>
  new Map(Object.entries(plain).map(([key, values]) => [key, new Map(Object.entries(values))]));

function table(rows: Plain, rules: Plain, more: Partial<FamilyTable> = {}): FamilyTable {
  return {
    name: 'line',
    each: 'section',
    where: '.sk-{row}',
    off: undefined,
    ...more,
    rows: mapped(rows),
    rules: mapped(rules),
  };
}

const shown = (one: FamilyTable): string[] =>
  generateRules(one).map(({ selector, declarations }) => `${selector} { ${declarations.join('; ')} }`);

test('a row sets values, a rule is written once for all rows that have them', () => {
  assert.deepEqual(
    shown(
      table(
        { a: { ink: 'red', gap: '1px' }, b: { ink: 'blue' } },
        { h3: { color: '{ink}' }, '&::before, p > b': { margin: '0 {gap}' } },
      ),
    ),
    [
      '.sk-a { --line-ink: red; --line-gap: 1px }',
      '.sk-b { --line-ink: blue }',
      ':is(.sk-a, .sk-b) h3 { color: var(--line-ink) }',
      '.sk-a::before, .sk-a p > b { margin: 0 var(--line-gap) }',
    ],
  );
});

test('positions: named ones, those that take turns, and every third from the second on', () => {
  const each = 'position' as const;
  const rule = { '& h3': { color: '{ink}' } };
  const selectors = (rows: Plain): string[] =>
    generateRules(table(rows, rule, { each, where: '.row > li' })).map(({ selector }) => selector);
  assert.deepEqual(selectors({ first: { ink: 'red' }, '3n+2': { ink: 'blue' } }), [
    '.row > li:first-child',
    '.row > li:nth-child(3n+2)',
    '.row > li:is(:first-child, :nth-child(3n+2)) h3',
  ]);
  assert.deepEqual(
    selectors({ red: { ink: 'red' }, blue: { ink: 'blue' }, last: { ink: 'gray' } }).slice(0, 3),
    ['.row > li:nth-child(2n+1)', '.row > li:nth-child(2n+2)', '.row > li:last-child'],
  );
  assert.match(tableProblem(table({ a: { ink: 'x' } }, rule, { each })) ?? '', /leave \{row\} out/);
});

test('whatever rows come and go, the section is what the table says, and hands are left alone', () => {
  const name = fc.constantFrom('a', 'b', 'c', 'd', 'e');
  const rows = fc.uniqueArray(name, { minLength: 1, maxLength: 5 });
  const make = (names: readonly string[]): FamilyTable =>
    table(Object.fromEntries(names.map((one) => [one, { ink: `#00000${'abcde'.indexOf(one)}` }])), {
      h3: { color: '{ink}' },
      p: { top: '{ink}' },
    });
  const write = (text: string, one: FamilyTable): ReturnType<typeof planSection> & { text: string } => {
    const plan = planSection(text, one, 'line.family.yaml', generateRules(one));
    return { ...plan, text: applyEdits(text, plan.edits) };
  };
  fc.assert(
    fc.property(rows, rows, fc.boolean(), (before, after, hand) => {
      const around = 'i { left: 0 }\n';
      const first = write(around, make(before)).text;
      assert.equal(write(first, make(before)).text, first);
      const touched = hand ? first.replace(/(h3 \{\s*color: )[^;]*/, '$1teal') : first;
      const second = write(touched, make(after));
      assert.equal(second.byHand.length, hand ? 1 : 0);
      assert.ok(second.text.startsWith(around));
      assert.equal(/color: teal/.test(second.text), hand);
      // Written at once it reads the same, but for the rule that a hand was at.
      const fresh = write(around, make(after)).text;
      if (!hand) assert.equal(second.text, fresh);
      assert.equal(
        findSection(second.text, 'line')?.standing.length,
        findSection(fresh, 'line')?.standing.length,
      );
      assert.deepEqual(write(second.text, make(after)).edits, []);
    }),
  );
});

test('families that were copied are found by what they share, and put right without a difference', () => {
  const page = (name: string): string =>
    `<!DOCTYPE html><html><head><link rel="stylesheet" href="line.css"></head><body class="sk-${name}"><h3>a</h3><p class="x">b</p></body></html>`;
  const copied = (name: string, ink: string): string =>
    `.sk-${name} h3 { color: ${ink}; }\n.sk-${name} > .x { border: 1px solid ${ink}; padding: ${name.length}px 0; }\n`;
  const css = `h3 { margin: 0; }\n${copied('tarbek', 'red')}b { top: 0; }\n${copied('ulvay', 'blue')}${copied('holm', 'teal')}.sk-mole h3 { color: red; }\n`;
  const model = modelOf({
    'tarbek.html': page('tarbek'),
    'ulvay.html': page('ulvay'),
    'holm.html': page('holm'),
    'line.css': css,
  });
  const [family, ...others] = findFamilies(model, ['line.css']);
  assert.equal(others.length, 0);
  assert.deepEqual([...family!.table.rows.keys()], ['tarbek', 'ulvay', 'holm']);
  assert.deepEqual(
    [...family!.table.rules].map(([part, all]) => [part, ...all.values()]),
    [
      ['h3', '{ink}'],
      ['& > .x', '1px solid {ink}', '{padding} 0'],
    ],
  );
  const { differences, edits, places } = replaceCopies(model, family!, 'sk.family.yaml');
  assert.deepEqual(differences, []);
  assert.deepEqual(places, { before: 9, after: 9 });
  const text = applyEdits(css, edits);
  assert.match(text, /^h3 \{ margin: 0; \}\nb \{ top: 0; \}\n/);
  assert.match(text, /\.sk-mole h3 \{ color: red; \}\n$/);
  // Rules that differ in nothing but the name are a group, and two are no family.
  const same = modelOf({
    'index.html': page('a'),
    'line.css':
      '.x-a p { top: 0 } .x-b p { top: 0 } .x-c p { top: 0 } .y-a p { top: 1px } .y-b p { top: 2px }',
  });
  assert.deepEqual(findFamilies(same, ['line.css']), []);
});
