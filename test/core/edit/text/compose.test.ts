import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { applyEdits, composeEdits, type Edit, originalOffset } from '../../../../src/core/edit/text/index.js';
import { writeRules } from '../../../../src/core/edit/text/shared-sheet.js';
import { joinShorthands } from '../../../../src/core/edit/text/shorthands.js';
import { parseDeclarations } from '../../../../src/core/read/sheets/index.js';
import type { Part } from '../../../../src/core/read/sheets/shared-sheet.js';

/** Edits that fit a text of this length. */
function fitting(raw: readonly (readonly [number, number, string])[], length: number): Edit[] {
  const edits: Edit[] = [];
  let at = 0;
  for (const [start, size, text] of [...raw].sort((a, b) => a[0] - b[0])) {
    const from = Math.min(Math.max(at, start), length);
    const to = Math.min(from + size, length);
    edits.push({ start: from, end: to, text });
    at = to + 1;
    if (at > length) break;
  }
  return edits;
}

const cuts = fc.array(fc.tuple(fc.nat(40), fc.nat(6), fc.string({ maxLength: 4 })), { maxLength: 5 });
const texts = fc.string({ maxLength: 40 });

test('two lists of edits in one have the same result', () => {
  fc.assert(
    fc.property(texts, cuts, cuts, (text, first, second) => {
      const one = fitting(first, text.length);
      const between = applyEdits(text, one);
      const two = fitting(second, between.length);
      assert.equal(applyEdits(text, composeEdits(text, one, two)), applyEdits(between, two));
    }),
    { numRuns: 500 },
  );
});

test('edits that touch nothing compose to nothing more than they were', () => {
  const edits = [{ start: 2, end: 3, text: 'x' }];
  assert.deepEqual(composeEdits('abcdef', edits, []), edits);
  assert.deepEqual(composeEdits('abcdef', [], edits), edits);
});

test('an offset outside of edits is found again in the original', () => {
  fc.assert(
    fc.property(texts, cuts, fc.nat(40), (text, raw, at) => {
      const edits = fitting(raw, text.length);
      const offset = Math.min(at, text.length);
      if (edits.some(({ start, end }) => offset >= start && offset <= end)) return;
      const moved = edits
        .filter(({ end }) => end <= offset)
        .reduce((sum, edit) => sum + edit.text.length - (edit.end - edit.start), offset);
      assert.equal(originalOffset(edits, moved), offset);
    }),
    { numRuns: 500 },
  );
});

const joined = (css: string): string =>
  joinShorthands(parseDeclarations(css).declarations.map((declaration) => ({ declaration, holder: 'a.css' })))
    .map(({ declaration: { property, value, important } }) => `${property}: ${value}${important ? '!' : ''}`)
    .join('; ');

test('four sides are written as one, in the shortest way', () => {
  const four = (box: string, ...values: string[]): string =>
    ['top', 'right', 'bottom', 'left'].map((side, i) => `${box}-${side}: ${values[i]}`).join('; ');
  assert.equal(joined(four('margin', '0', '0', '0', '0')), 'margin: 0');
  assert.equal(joined(four('padding', '1px', '2px', '1px', '2px')), 'padding: 1px 2px');
  assert.equal(joined(four('margin', '1px', 'auto', '3px', 'auto')), 'margin: 1px auto 3px');
  assert.equal(joined(four('margin', '1px', '2px', '3px', '4px')), 'margin: 1px 2px 3px 4px');
  assert.equal(
    joined(`color: red; ${four('margin', '0', '0', '0', '0')}; top: 0`),
    'color: red; margin: 0; top: 0',
  );
});

test('sides that are not four, not alike in weight, or of another kind stay apart', () => {
  for (const css of [
    'margin-top: 0; margin-right: 0; margin-bottom: 0',
    'margin-top: 0; margin-right: 0; margin-bottom: 0; margin-left: inherit',
    'margin-top: 0; margin-right: 0; margin-bottom: 0; margin-left: calc(1px + 2px)',
    'margin-top: 0; margin-right: 0; margin-bottom: 0; margin-left: 0; margin-inline-start: 1px',
  ])
    assert.equal(joined(css), css);
  assert.match(
    joined('margin-top: 0 !important; margin-right: 0; margin-bottom: 0; margin-left: 0'),
    /^margin-top: 0!; /,
  );
});

function written(text: string, rules: readonly (readonly [Part, string])[], names = {}): string {
  const edits = writeRules(
    text,
    { path: 'shared.css', partNames: names },
    rules.map(([part, selector]) => ({
      selectors: selector.split(', '),
      part,
      declarations: parseDeclarations('top: 0').declarations.map((declaration) => ({
        declaration,
        holder: 'a.html',
      })),
    })),
  );
  return applyEdits(text, edits);
}

test('a new sheet has its parts in order, each with a heading', () => {
  assert.equal(
    written('', [
      ['components', '.b'],
      ['elements', 'p'],
      ['components', '.a'],
    ]),
    '/* part: elements */\n\np {\n  top: 0;\n}\n\n/* part: components */\n\n.b {\n  top: 0;\n}\n\n.a {\n  top: 0;\n}\n',
  );
});

test('a part that is new goes in front of the next one, and what people wrote stays', () => {
  const text = '/* mine */\nb { left: 0 }\n\n/* part: components */\n\n.x {\n\ttop: 0;\n}\n';
  assert.equal(
    written(text, [
      ['elements', 'p'],
      ['overrides', '.y.y, .z'],
      ['components', '.c'],
    ]),
    '/* mine */\nb { left: 0 }\n\n/* part: elements */\n\np {\n\ttop: 0;\n}\n\n/* part: components */\n\n.x {\n\ttop: 0;\n}\n\n.c {\n\ttop: 0;\n}\n\n/* part: overrides */\n\n.y.y,\n.z {\n\ttop: 0;\n}\n',
  );
});

test('headings are called what the house calls them, and found again', () => {
  const names = { components: 'pieces' };
  const once = written('', [['components', '.a']], names);
  assert.equal(written(once, [['components', '.b']], names), `${once}\n.b {\n  top: 0;\n}\n`);
  assert.match(once, /^\/\* part: pieces \*\//);
});
