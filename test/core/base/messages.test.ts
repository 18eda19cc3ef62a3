import assert from 'node:assert/strict';
import { test } from 'node:test';
import { MESSAGES, messageText } from '../../../src/core/base/messages/index.js';
import { UsageError } from '../../../src/core/base/usage-error.js';

test('every message is one line with its parts in order', () => {
  for (const [code, [where, what, todo]] of Object.entries(MESSAGES)) {
    assert.match(code, /^[a-z]+(-[a-z]+)*$/);
    assert.notEqual(what, '', code);
    for (const part of [where, what, todo]) {
      assert.doesNotMatch(part, /\n|\.$/, code);
      assert.equal(part.replace(/\{[a-z]+\}/g, '').match(/[{}]/), null, code);
    }
  }
});

test('what differs is put in its place, and can be asked for', () => {
  const error = new UsageError('no-rule', { selector: '.{near}', near: '.b' });
  assert.match(error.message, /^\.\{near\}: no rule of the theme has this selector; did you mean \.b\?/);
  assert.deepEqual([error.code, error.name, error.values.near], ['no-rule', 'UsageError', '.b']);
  assert.equal(
    messageText('change-unfinished', {}).startsWith('.acervus: the last change was cut short'),
    true,
  );
});
