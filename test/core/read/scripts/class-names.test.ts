import assert from 'node:assert/strict';
import { test } from 'node:test';
import { parsePage } from '../../../../src/core/read/markup/index.js';
import { classMentions, expressionMentions } from '../../../../src/core/read/scripts/index.js';
import { chosenInMarkup, chosenInScript } from '../../../../src/core/stock/chosen.js';

const told = (text: string): string[] =>
  classMentions(text).map(({ name, how, start, end }) => {
    assert.equal(text.slice(start, end), name);
    return `${how} ${name}`;
  });

test('where the syntax tree is sure that a string is a class, a selector, or neither', () => {
  assert.deepEqual(told("e.classList.add('a', x ? 'b' : 'c')"), ['class a', 'class b', 'class c']);
  assert.deepEqual(told("e.className = 'a b'; e.className += ' c'; e.setAttribute('class', 'd')"), [
    'class a',
    'class b',
    'class c',
    'string class',
    'class d',
  ]);
  assert.deepEqual(told("$('.a > p.b').toggleClass('c'); q.querySelectorAll('#x .d')"), [
    'selector a',
    'selector b',
    'class c',
    'selector d',
  ]);
  assert.deepEqual(told(`var n = 'a'; f('b'); list.add('c'); \`d \${x}\``), [
    'string a',
    'string b',
    'string c',
    'string d',
  ]);
  assert.deepEqual(told("this is no script 'a'").at(-1), 'string a');
});

test('expressions in attributes: strings and keys are names', () => {
  const names = (text: string): string[] =>
    expressionMentions(text)
      .map(({ name }) => name)
      .sort();
  assert.deepEqual(names("{ 'is-full': full, open: x > 0 }"), ['is-full', 'open']);
  assert.deepEqual(names("full ? 'a' : 'b c'"), ['a', 'b', 'c']);
  assert.deepEqual(names("full | kind: 'a'"), ['a']);
});

test('what expressions choose, and instead of what', () => {
  const chosen = (body: string): string[] =>
    chosenInMarkup(parsePage('x.tpl', body, true)).map(({ name, dotted, partners, offset }) => {
      assert.ok(
        body.slice(offset).startsWith(dotted ? `.${name}` : name) || body.slice(offset).startsWith(name),
        body,
      );
      return `${dotted ? '.' : ''}${name} | ${partners.join(' ')}`;
    });
  assert.deepEqual(chosen(`<p class="x {{ a ? 'one' : 'two' }}">`), ['one | two', 'two | one']);
  assert.deepEqual(
    chosen('<p class="x {% if a %}one{% elsif b %}two{% else %}three four{% endif %}">').sort(),
    ['four | one two', 'one | two three four', 'three | one two', 'two | one three four'],
  );
  assert.deepEqual(chosen('<p class="tide-{{ kind }} {% if a %}is-{{ b }} one{% endif %}">'), ['one | ']);
  assert.deepEqual(chosen(`<p class="<?php if ($a): ?>one<?php else: ?>two<?php endif ?>">`).length, 2);
  assert.deepEqual(chosen(`<p class="{{ a ? '.one' : '' }}">`), ['.one | ']);
  assert.deepEqual(
    chosenInScript("e.classList.add(n ? 'a' : '.b'); f(n ? 'c' : 'd')").map(({ name, dotted, partners }) => [
      name,
      dotted,
      partners,
    ]),
    [
      ['a', false, ['b']],
      ['b', true, ['a']],
    ],
  );
});
