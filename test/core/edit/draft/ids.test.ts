// A style is found again by its id in drafts that are years old.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { styleId } from '../../../../src/core/edit/draft/index.js';

const keys = ['color:#ff0000', 'top:0'];

test('ids are those of the first drafts', () => {
  const movables: never[] = [];
  assert.equal(
    styleId({ home: { kind: 'existing selector', selectors: ['.fare > b'] }, keys, movables }),
    'd6dc2214',
  );
  assert.equal(styleId({ home: { kind: 'new class' } as never, keys, movables }), '7c954254');
});
