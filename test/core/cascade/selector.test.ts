import assert from 'node:assert/strict';
import { test } from 'node:test';
import { compileSelectorList, specificityParts } from '../../../src/core/cascade/index.js';

function specificity(text: string): string {
  const list = compileSelectorList(text);
  assert.equal(list.kind, 'list', text);
  return list.kind === 'list'
    ? list.selectors.map((one) => specificityParts(one.specificity).join()).join(' ')
    : '';
}

test('specificity as Selectors 4 counts it', () => {
  assert.equal(specificity('*'), '0,0,0');
  assert.equal(specificity('#a .b c::before'), '1,1,2');
  assert.equal(specificity(':is(#a, .b) c, :where(#a) c'), '1,0,1 0,0,1');
  assert.equal(specificity(':not(.a.b, c)'), '0,2,0');
  assert.equal(specificity(':nth-child(2n of .a, #b)'), '1,1,0');
  assert.equal(specificity('a:has(> #b)'), '1,0,1');
  assert.equal(specificity('[x]:hover'), '0,2,0');
});

test('nesting takes the strongest parent, and a space where there is no &', () => {
  const parent = compileSelectorList('.a, #b');
  assert.equal(parent.kind, 'list');
  if (parent.kind !== 'list') return;
  const child = compileSelectorList('c, &:hover, > d', { parent: parent.selectors });
  assert.ok(child.kind === 'list');
  assert.deepEqual(
    child.selectors.map((one) => specificityParts(one.specificity).join()),
    ['1,0,1', '1,1,0', '1,0,1'],
  );
  assert.deepEqual(
    child.selectors.map(({ combinators }) => combinators.join()),
    [' ', '', '>'],
  );
});

test('a list with a broken part is invalid as a whole, except in forgiving places', () => {
  assert.equal(compileSelectorList('a, .b..c').kind, 'invalid');
  assert.equal(compileSelectorList('svg|a').kind, 'invalid');
  const forgiving = compileSelectorList(':is(a, :-x-unknown)');
  assert.ok(forgiving.kind === 'list' && !forgiving.unsure);
  const unforgiving = compileSelectorList('a, :-x-unknown');
  assert.ok(unforgiving.kind === 'list' && unforgiving.unsure);
});

test('in a scope a selector stands below its root, unless it names the root or stands in a rule of its own', () => {
  const texts = (text: string, parent?: string): string[] => {
    const above = parent === undefined ? undefined : compileSelectorList(parent, { scoped: true });
    const nested = above?.kind === 'list' ? { parent: above.selectors } : {};
    const list = compileSelectorList(text, { scoped: true, ...nested });
    assert.ok(list.kind === 'list', text);
    return list.selectors.map(({ compounds, combinators }) =>
      compounds
        .map(({ rest, classes }, at) => {
          const root = rest.some((one) => one.kind === 'scope root') ? 'root' : '';
          return `${at === 0 ? '' : combinators[at - 1]}${root}${classes.join('.')}`;
        })
        .join(''),
    );
  };
  assert.deepEqual(texts('.a'), ['root a']);
  assert.deepEqual(texts('> .a'), ['root>a']);
  assert.deepEqual(texts(':scope .a, .b :scope'), ['root a', 'b root']);
  assert.deepEqual(texts('.c', ':scope.a').length, 1);
  assert.doesNotMatch(texts('.c', ':scope.a').join(), /root.*root/);
});
