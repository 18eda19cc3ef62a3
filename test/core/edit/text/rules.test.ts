import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { applyEdits, editRule, ruleBehind, withoutRule } from '../../../../src/core/edit/text/index.js';
import { parseSheet } from '../../../../src/core/read/sheets/index.js';

const edited = (text: string, ...changes: readonly [string, string | undefined][]): string => {
  const [rule] = parseSheet(text).rules;
  return applyEdits(
    text,
    editRule(
      text,
      rule!,
      changes.map(([property, value]) => ({ property, value, important: false })),
    ),
  );
};

test('a value is changed in place, a declaration added as the others are written, one taken out with its line', () => {
  assert.equal(edited('a { color: red; top: 0 }', ['color', 'navy']), 'a { color: navy; top: 0 }');
  assert.equal(edited('a{color:red}', ['color', 'navy']), 'a{color:navy}');
  assert.equal(edited('a { color: red !important; }', ['color', 'navy']), 'a { color: navy; }');
  assert.equal(edited('a {\n\tcolor: red\n}', ['top', '0']), 'a {\n\tcolor: red;\n\ttop: 0;\n}');
  assert.equal(edited('a{color:red}', ['top', '0']), 'a{color:red; top: 0;}');
  assert.equal(edited('a {}', ['top', '0']), 'a { top: 0; }');
  assert.equal(edited('a {\n}', ['top', '0']), 'a {\n  top: 0;\n}');
  assert.equal(
    edited('a {\r\n  color: red;\r\n  top: 0;\r\n}', ['color', undefined]),
    'a {\r\n  top: 0;\r\n}',
  );
  assert.equal(edited('a { color: red; top: 0 }', ['top', undefined]), 'a { color: red; }');
  assert.equal(
    edited('a { color: red; /* why */ top: 0 }', ['color', undefined], ['left', '1px']),
    'a { /* why */ top: 0; left: 1px; }',
  );
});

test('what a later declaration of the same rule would hide goes behind it', () => {
  assert.equal(
    edited('a { margin-left: 1px; margin: 0; }', ['margin-left', '4px']),
    'a { margin: 0; margin-left: 4px; }',
  );
  assert.equal(edited('a { color: red; color: blue; }', ['color', 'navy']), 'a { color: red; color: navy; }');
});

test('a rule is put behind another in its own block, and taken out with the line it stands on', () => {
  const text = 'a { top: 0 }\n\n@media print {\n  b {\n    top: 1px;\n  }\n}\nc { top: 2px }\n';
  const [a, b, c] = parseSheet(text).rules;
  assert.equal(
    applyEdits(text, [ruleBehind(text, b!, 'i', ['left: 0'])]),
    text.replace('  }\n}', '  }\n\n  i {\n    left: 0;\n  }\n}'),
  );
  assert.equal(applyEdits(text, [withoutRule(text, a!)]), text.replace('a { top: 0 }\n\n', ''));
  assert.equal(applyEdits(text, [withoutRule(text, c!)]), text.replace('c { top: 2px }\n', ''));
});

test('whatever is changed, the rule then says it, and the rest of the sheet is as it was', () => {
  const declaration = fc.constantFrom(
    'color: red',
    'top:0',
    'margin: 1px 2px',
    'margin-left: 3px',
    'padding: 0 !important',
  );
  const change = fc.constantFrom<readonly [string, string | undefined]>(
    ['color', 'navy'],
    ['margin', '9px'],
    ['margin-left', '7px'],
    ['top', undefined],
    ['z-index', '2'],
  );
  fc.assert(
    fc.property(
      fc.array(declaration, { maxLength: 4 }),
      fc.constantFrom(' ', '\n  ', ''),
      fc.boolean(),
      fc.uniqueArray(change, { selector: ([name]) => name, maxLength: 3 }),
      (own, gap, ends, changes) => {
        const text = `i { left: 0 }\nb {${own.map((one) => `${gap}${one}`).join(';')}${ends && own.length > 0 ? ';' : ''}${gap === '' ? '' : ' '}}\nu { left: 1px }\n`;
        const rule = parseSheet(text).rules[1]!;
        const after = applyEdits(
          text,
          editRule(
            text,
            rule,
            changes.map(([property, value]) => ({ property, value, important: false })),
          ),
        );
        const { rules, defects } = parseSheet(after);
        assert.deepEqual(defects, [], after);
        assert.equal(rules.length, 3, after);
        assert.ok(after.startsWith('i { left: 0 }\nb {') && after.endsWith('}\nu { left: 1px }\n'), after);
        for (const [property, value] of changes)
          assert.equal(
            rules[1]!.declarations.findLast((one) => one.property === property)?.value,
            value,
            after,
          );
      },
    ),
  );
});
