// Template text in a class attribute may give any class that a sheet names, wherever in a selector it names it.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { prove } from '../../../src/core/proof/index.js';
import { modelOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

/** Properties that differ when a sheet becomes another, on a page with the tag. */
function changed(before: string, after: string, tag = '<p class="{{ cls }}">x</p>'): string[] {
  const site = (css: string): Record<string, string> => ({
    'index.html': htmlPage(`<div>${tag}</div>`, '<link rel="stylesheet" href="a.css">'),
    'a.css': css,
  });
  const first = modelOf(site(before));
  return prove(first, modelOf(site(after), first.table)).differences.map((one) =>
    one.kind === 'style' ? one.property : one.what,
  );
}

test('a class inside :is, :where, :not, :has, nth-child and @scope may be given, as one that stands alone', () => {
  for (const [before, after] of [
    [':is(.x) { color: red }', '.x { color: blue }'],
    [':where(.x) { color: red }', ':where(.x) { color: blue }'],
    ['p:not(.x) { color: red }', ''],
    ['p:not(.x) { color: red }', 'p { color: red }'],
    ['@scope (.x) { :scope { color: red } }', '@scope (.x) { :scope { color: blue } }'],
    ['@scope (div) to (.x) { p { color: red } }', '@scope (div) { p { color: red } }'],
    ['div:has(.x) { color: red }', 'div:has(.x) { color: blue }'],
    ['p:nth-child(1 of .x) { color: red }', 'p:nth-child(1 of .x) { color: blue }'],
    ['p:is(:not(:is(.x))) { color: red }', 'p:is(:not(:is(.x))) { color: blue }'],
  ] as const)
    assert.deepEqual(changed(before, after), ['color'], `${before} to ${after}`);
});

test('a class that template text may give is no difference where both states say the same of it', () => {
  for (const css of [
    ':is(.x) { color: red }',
    'p:not(.x) { color: red }',
    '@scope (.x) { p { color: red } }',
  ])
    assert.deepEqual(changed(css, `${css} .nowhere b { top: 0 }`), []);
  assert.deepEqual(changed(':is(.x) { color: red }', '.x { color: red }'), []);
});

test('where nothing in the tag is template text, a class that it does not wear changes nothing', () => {
  assert.deepEqual(changed(':is(.x) { color: red }', '.x { color: blue }', '<p class="y">x</p>'), []);
});
