import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ByReads } from '../../src/site/files/by-reads.js';

test('what was made of files is made anew when one of them is another, comes or goes', () => {
  const texts = new Map([
    ['a.scss', '1'],
    ['b.scss', '2'],
  ]);
  const made: string[] = [];
  const memory = new ByReads<string>(10);
  const files = {
    read: (file: string) => (texts.has(file) ? Buffer.from(texts.get(file)!) : undefined),
  };
  const get = (): string =>
    memory.get('a', files, ({ read }) => {
      made.push('a');
      // `_b.scss` is looked for first.
      const part = read('_b.scss') ?? read('b.scss');
      return `${read('a.scss')?.toString()} ${part?.toString()}`;
    });
  assert.deepEqual([get(), get(), made.length], ['1 2', '1 2', 1]);
  texts.set('c.scss', 'of no interest');
  assert.deepEqual([get(), made.length], ['1 2', 1]);
  texts.set('b.scss', '3');
  assert.deepEqual([get(), made.length], ['1 3', 2]);
  texts.set('_b.scss', '4');
  assert.deepEqual([get(), made.length], ['1 4', 3]);
  texts.delete('_b.scss');
  assert.equal(get(), '1 3');
});
