import assert from 'node:assert/strict';
import { test } from 'node:test';
import { refuseTooLarge } from '../../src/commands/shared/memory.js';
import { UsageError } from '../../src/core/base/usage-error.js';

test('a site that would not fit into memory is refused with what would help', () => {
  refuseTooLarge(10_000_000, 2_000_000_000);
  assert.throws(
    () => refuseTooLarge(100_000_000, 4_345_000_000),
    (error) =>
      error instanceof UsageError &&
      /hold 100 MB/.test(error.message) &&
      /about 6200 MB/.test(error.message) &&
      /may take 4345 MB/.test(error.message) &&
      /--max-old-space-size=7000/.test(error.message),
  );
});
