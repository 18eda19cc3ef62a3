import assert from 'node:assert/strict';
import { test } from 'node:test';
import { applyEdits, emptyPart, partRange, writeRules } from '../../../../src/core/edit/text/index.js';

const SHARED = { path: 'shared.css', partNames: {} };

const rule = (selector: string, part: 'overrides' | 'components' = 'overrides') => ({
  selectors: [selector],
  part,
  declarations: [
    {
      declaration: { property: 'top', value: '0', important: false, range: { start: 0, end: 0 } },
      holder: 'shared.css',
    },
  ],
});

test('a part is found between its heading and the next', () => {
  const text = applyEdits('', writeRules('', SHARED, [rule('.a', 'components'), rule('.b')]));
  const inside = (part: 'overrides' | 'components' | 'tokens'): string | undefined => {
    const range = partRange(text, part);
    return range && text.slice(range.start, range.end).replace(/\s+/g, ' ').trim();
  };
  assert.equal(inside('components'), '.a { top: 0; }');
  assert.equal(inside('overrides'), '.b { top: 0; }');
  assert.equal(inside('tokens'), undefined);
  const named = applyEdits(
    '',
    writeRules('', { path: 'shared.css', partNames: { overrides: 'beats the kit' } }, [rule('.b')]),
  );
  assert.ok(partRange(named, 'overrides', { overrides: 'beats the kit' }) !== undefined);
  assert.equal(partRange(named, 'overrides'), undefined);
});

test('a heading goes with the last rule under it, and what was there before it is as it was', () => {
  for (const before of [
    '',
    'p { margin: 0; }\n',
    'p { margin: 0; }\n\n/* part: components */\n\n.a {\n  top: 0;\n}\n',
  ]) {
    const text = applyEdits(before, writeRules(before, SHARED, [rule('.b')]));
    assert.notEqual(text, before);
    const emptied = text.replace(/\n?\.b \{[^}]*\}\n/, '');
    const heading = emptyPart(emptied, 'overrides');
    assert.ok(heading !== undefined, JSON.stringify(emptied));
    assert.equal(applyEdits(emptied, [heading]), before);
    assert.equal(emptyPart(text, 'overrides'), undefined);
  }
});
