import assert from 'node:assert/strict';
import { test } from 'node:test';
import { likeOnes, nearWearers, type StyleForms } from '../../../../src/core/ask/sampler/near.js';
import { modelOf } from '../../../support/model.js';
import { htmlPage } from '../../../support/site.js';

const styles = (all: Readonly<Record<string, readonly string[]>>): Map<string, StyleForms> =>
  new Map(Object.entries(all).map(([name, forms]) => [name, { name, forms: new Set(forms) }]));

test('styles are alike that have two things in common, and two apart at most', () => {
  const found = likeOnes(
    styles({
      '.a': ['color: teal', 'top: 0', 'left: 0'],
      '.b': ['color: teal', 'top: 0', 'right: 0'],
      '.c': ['color: teal'],
      '.d': ['color: teal', 'top: 0', 'margin: 0', 'padding: 0'],
      '.e': ['color: teal', 'top: 0', 'left: 0'],
    }),
  );
  assert.deepEqual(
    found.get('.a')?.map(({ name, own, others }) => [name, own, others]),
    [
      ['.b', ['left: 0'], ['right: 0']],
      ['.e', [], []],
    ],
  );
  assert.deepEqual([found.has('.c'), found.has('.d')], [false, false]);
});

test('an element nearly wears the class that its style attribute says most of, unless it wears it', () => {
  const page = (body: string) => htmlPage(body);
  const model = modelOf({
    'index.html': page(
      '<p style="color: teal; top: 0">1</p><p class="fare" style="color: teal; top: 0">2</p><p style="color: teal; top: 0; margin: 3px">3</p><p style="margin: 9px">4</p>',
    ),
    'other.html': page('<b style="COLOR: teal;top:0px">5</b>'),
  });
  const found = nearWearers(
    model,
    styles({
      '.fare': ['color: #008080', 'top: 0', 'left: 0'],
      '.lone': ['padding: 0'],
      h2: ['margin: 9px'],
    }),
  );
  const fare = found.get('.fare');
  assert.deepEqual([fare?.elements, fare?.lacks, fare?.place.path], [3, ['left: 0'], 'index.html']);
  assert.deepEqual([...found.keys()], ['.fare']);
});
