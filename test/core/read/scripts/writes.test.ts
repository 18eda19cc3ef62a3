import assert from 'node:assert/strict';
import { test } from 'node:test';
import { readScript } from '../../../../src/core/read/scripts/index.js';

/** Each as `kind names +- of whom`. */
function writes(script: string): string[] {
  return readScript(script).writes.map(({ kind, names, computed, gives, takes, anew, target }) => {
    const whom =
      target === 'anyone'
        ? 'anyone'
        : target
            .map(
              ({ type, id, classes }) =>
                `${type ?? ''}${id === undefined ? '' : `#${id}`}${classes.map((one) => `.${one}`).join('')}`,
            )
            .join(',') || 'nobody';
    const signs = `${gives ? '+' : ''}${takes ? '-' : ''}${anew ? '!' : ''}`;
    return `${kind} ${computed ? '?' : names.join(' ')} ${signs} of ${whom}`;
  });
}

test('lists of classes: what is given, taken and toggled, and whose', () => {
  assert.deepEqual(writes(`document.body.classList.toggle('dark')`), ['class dark +- of body']);
  assert.deepEqual(writes(`document.documentElement.classList.add('a', 'b')`), [
    'class a + of html',
    'class b + of html',
  ]);
  assert.deepEqual(writes(`document.querySelectorAll('.m a.x:not(.y)')[0].classList.remove('on')`), [
    'class on - of a.x',
  ]);
  assert.deepEqual(writes(`event.target.classList.replace('a', 'b')`), [
    'class a - of anyone',
    'class b + of anyone',
  ]);
});

test('names that are given once stand for what they are given', () => {
  const named = `const box = document.getElementById('box'), list = box.classList; list.add(ON); const ON = 'on'`;
  assert.deepEqual(writes(named), ['class on + of #box']);
  assert.deepEqual(writes(`let b = document.body; b = other(); b.classList.add('x')`), [
    'class x + of anyone',
  ]);
  assert.deepEqual(writes(`for (const tab of document.querySelectorAll('.tab')) tab.classList.add('on')`), [
    'class on + of .tab',
  ]);
  assert.deepEqual(writes(`document.querySelectorAll('li').forEach((one) => one.classList.add('on'))`), [
    'class on + of li',
  ]);
});

test('names in a table that is written out', () => {
  const table = `const IS = { late: 'is-late', full: 'is-full' };`;
  assert.deepEqual(writes(`${table} document.body.classList.add(IS.late)`), ['class is-late + of body']);
  assert.deepEqual(writes(`${table} document.body.classList.add(IS[state])`), [
    'class is-late is-full + of body',
  ]);
});

test('what a library calls is read too, and what is made is nobody of the page', () => {
  assert.deepEqual(writes(`$('.card, #top').addClass('open').removeClass('shut')`).sort(), [
    'class open + of .card,#top',
    'class shut - of .card,#top',
  ]);
  assert.deepEqual(writes(`$('<p>').addClass('x'); document.createElement('p').classList.add('y')`), [
    'class x + of nobody',
    'class y + of nobody',
  ]);
  assert.deepEqual(writes(`$('a').attr({ hidden: '', 'data-on': 1 })`), [
    'attribute hidden +- of a',
    'attribute data-on +- of a',
  ]);
});

test('a class attribute: written anew, added to, cleared of a word', () => {
  assert.deepEqual(writes(`document.body.className = wide ? 'wide' : 'thin'`), [
    'class wide thin +-! of body',
  ]);
  assert.deepEqual(writes(`document.body.className += ' wide'`), ['class wide + of body']);
  assert.deepEqual(writes(`document.body.className = document.body.className + ' wide'`), [
    'class wide +- of body',
  ]);
  assert.deepEqual(writes(`x.className = x.className.replace(/\\bwide\\b/, '')`), [
    'class wide +- of anyone',
  ]);
  assert.deepEqual(writes(`x.setAttribute('class', 'a b')`), ['class a b +-! of anyone']);
});

test('attributes, data attributes and ids', () => {
  assert.deepEqual(writes(`document.documentElement.dataset.bigTheme = 'dark'`), [
    'attribute data-big-theme +- of html',
  ]);
  assert.deepEqual(writes(`delete document.body.dataset.theme`), ['attribute data-theme +- of body']);
  assert.deepEqual(writes(`Object.assign(document.body, { hidden: true, ariaBusy: 'true', id: 'b' })`), [
    'attribute hidden +- of body',
    'attribute aria-busy +- of body',
    'id b +-! of body',
  ]);
});

test('a name that is put together, and a list that is given away, may be any word of the script', () => {
  assert.deepEqual(writes(`document.body.classList.add('is-' + state)`), ['class ? + of body']);
  assert.deepEqual(writes(`mark(document.body.classList)`), ['class ? +- of anyone']);
  assert.deepEqual(writes(`const { classList } = box`), ['class ? +- of anyone']);
});

test('a selector whose strings or escapes could hide where a compound begins means anyone', () => {
  assert.deepEqual(writes(`$('.card:contains("x, .y")').addClass('on')`), ['class on + of anyone']);
  assert.deepEqual(writes(`$('.ca\\\\,rd').addClass('on')`), ['class on + of anyone']);
  assert.deepEqual(writes(`$('.card[title="x, .y"]').addClass('on')`), ['class on + of .card']);
});
