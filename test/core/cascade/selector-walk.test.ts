import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  asksMoreThanNames,
  type ComplexSelector,
  classesIn,
  compileSelectorList,
  eachCompound,
  namesIn,
  onlyClass,
  onlyName,
  rangesOfClass,
  writtenClasses,
} from '../../../src/core/cascade/index.js';

function selectors(text: string): readonly ComplexSelector[] {
  const list = compileSelectorList(text);
  assert.equal(list.kind, 'list', text);
  return list.kind === 'list' ? list.selectors : [];
}

test('every name is found, wherever in a selector it stands', () => {
  const text =
    'main#top > .a:is(.b, i.c:not(.d)) :where(.e)+.f:has(> .g, + #near):nth-child(2n of .h) ~ [class~=no].i';
  const [selector] = selectors(text);
  assert.deepEqual([...classesIn([selector!])].sort(), [...'abcdefghi']);
  assert.deepEqual([...namesIn(selector!)].filter((name) => name.startsWith('#')).sort(), ['#near', '#top']);
});

test('a compound is the subject, stands before it, or inside an argument', () => {
  const found: string[] = [];
  const [selector] = selectors('.a .b:not(.c .d)');
  eachCompound(selector!, ({ classes }, place) => found.push(`${classes.join('')} ${place}`));
  assert.deepEqual(found, ['a before', 'b subject', 'c inside', 'd inside']);
});

test('what says a name alone is told from what says more', () => {
  const only = (text: string): unknown[] => {
    const [selector] = selectors(text);
    return [onlyName(selector!), onlyClass(selector!), asksMoreThanNames(selector!)];
  };
  assert.deepEqual(only('.a'), ['.a', 'a', false]);
  assert.deepEqual(only('#a'), ['#a', undefined, false]);
  for (const text of ['p.a', '.a.b', '.b .a'])
    assert.deepEqual(only(text), [undefined, undefined, false], text);
  for (const text of ['.a:hover', '.a::before', '[x]', '.a:is(.b)'])
    assert.deepEqual(only(text), [undefined, undefined, true], text);
});

test('classes are found where they are written, escapes read', () => {
  const text = '.a:is(.b\\+c, .a) > [title=".a"]';
  assert.deepEqual(
    writtenClasses(text).map(({ name }) => name),
    ['a', 'b+c', 'a'],
  );
  assert.deepEqual(
    rangesOfClass(text, 'a').map(({ start, end }) => text.slice(start, end)),
    ['a', 'a'],
  );
});
