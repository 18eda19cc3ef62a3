import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ALWAYS } from '../../../src/core/cascade/index.js';
import { readerOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

/** When a selector matches #it, on a page with a script of the site, or of a library. */
function when(selector: string, body: string, script: string, library = false): string {
  const file = library ? 'vendor/x.js' : 'theme/x.js';
  const { reader, byId } = readerOf({
    'index.html': htmlPage(body, `<style>${selector} { color: red }</style><script src="${file}"></script>`),
    [file]: script,
  });
  const [outcome] = reader.outcomes(byId('it')).get('')?.get('color') ?? [];
  if (outcome === undefined) return 'never';
  return outcome.condition === ALWAYS ? 'always' : reader.table.truths.text(outcome.condition);
}

test('a class that a script gives or takes is a state, here and above', () => {
  const dark = `document.body.classList.toggle('dark')`;
  assert.equal(
    when('body.dark p', '<p id="it">', dark),
    'a script gives it .dark on ancestor 1'.replace('ancestor 1', 'its parent'),
  );
  assert.equal(when('body.wide p', '<p id="it">', dark), 'never');
  assert.equal(when('p.dark', '<p id="it">', dark), 'never');
  assert.equal(when('.on', '<p id="it" class="on">', `e.classList.remove('on')`), 'scripts leave it .on');
  assert.equal(when('.on', '<p id="it" class="on">', `e.classList.add('on')`), 'always');
  assert.equal(when('p:not(.on)', '<p id="it">', `e.classList.add('on')`), 'not (a script gives it .on)');
});

test('only whom a script means is changed by it', () => {
  const script = `document.querySelectorAll('.tab').forEach((tab) => tab.classList.add('on'))`;
  assert.equal(when('.on', '<p id="it" class="tab">', script), 'a script gives it .on');
  assert.equal(when('.on', '<p id="it">', script), 'never');
  // One script's class is another one's way to find the element.
  const chain = `${script}; e.classList.add('tab')`;
  assert.equal(when('.on', '<p id="it">', chain), 'a script gives it .on');
});

test('attributes and what goes by them', () => {
  const theme = `document.documentElement.dataset.theme = 'dark'`;
  assert.equal(
    when('[data-theme=dark] p', '<p id="it">', theme),
    '[data-theme=dark] from nothing on ancestor 2',
  );
  assert.equal(when('button:disabled', '<button id="it">', 'b.disabled = busy'), ':disabled');
  assert.equal(when('button:disabled', '<button id="it">', ''), 'never');
  assert.equal(when('[class~=on]', '<p id="it" class="on">', `e.classList.add('off')`), 'always');
  assert.equal(
    when('[class|=on]', '<p id="it" class="on">', `e.classList.add('off')`),
    '[class|=on] from "on"',
  );
});

test('what a condition holds of at first is part of it: what differs at first is not equal', () => {
  const script = `e.classList.toggle('late'); x.append(y)`;
  const pairs = [
    ['[class="on"]', '<p id="it" class="on">', '<p id="it" class="go">'],
    ['[class^=la]', '<p id="it" class="late on">', '<p id="it" class="on">'],
    ['p:nth-child(1 of .on)', '<b class="on">x</b><p id="it" class="on">', '<b>x</b><p id="it" class="on">'],
    ['p:nth-child(1 of .on)', '<p id="it" class="on">', '<p id="it">'],
  ] as const;
  for (const [selector, one, other] of pairs)
    assert.notEqual(when(selector, one, script), when(selector, other, script), selector);
  // Words that a selector does not ask about make no difference.
  const spread = (own: string): string => when('[class*=lat]', `<p id="it" class="${own}">`, script);
  assert.equal(spread('late'), spread('late on'));
});

test('a name that is put together may be any that begins so', () => {
  const script = `e.classList.add('is-' + state)`;
  assert.equal(when('.is-late', '<p id="it">', script), 'a script gives it .is-late');
  assert.equal(when('.late', '<p id="it">', script), 'never');
});

test('a library changes what it names, and what it means outright', () => {
  const script = `var S = '.drop'; x.classList.add('show'); document.body.classList.add('modal')`;
  assert.equal(when('.show', '<p id="it" class="drop">', script, true), 'a script gives it .show');
  assert.equal(when('.show', '<p id="it" class="card">', script, true), 'never');
  assert.equal(when('.modal p', '<p id="it">', script, true), 'a script gives it .modal on its parent');
});

test('what a script moves may come under any ancestor, and what it fills may be empty', () => {
  const moves = `document.body.append(document.querySelector('.a'))`;
  assert.equal(when('.box p', '<p id="it" class="a">', moves), 'a script moves it under .box');
  assert.equal(when('.box b', '<p class="a"><b id="it">x</b>', moves), 'a script moves it under .box');
  assert.equal(when('.box p', '<p id="it" class="b">', moves), 'never');
  assert.equal(when('.box p', '<p id="it">', `x.append(document.createElement('p'))`), 'never');
  assert.match(when('p:nth-child(2)', '<p><p id="it">', `x.append(y)`), /its position is/);
  assert.match(when('i + p', '<b>a</b><p id="it">', `x.append(y)`), /a sibling not in the file is i/);
  assert.equal(when('p:empty', '<p id="it">x', `x.textContent = y`), ':empty');
  assert.equal(when('p:empty', '<p id="it">x', `go()`), 'never');
});

test('what is not understood in a script gives any class that its words could mean', () => {
  const rule = 'body.dark p';
  const gives = 'a script gives it .dark on its parent';
  for (const script of [
    "var key = 'className'; document.body[key] = 'dark'",
    "var all = { className: 'dark' }; Object.assign(document.body, { ...all })",
    "Object.entries({ className: 'dark' }).forEach(([key, value]) => { document.body[key] = value })",
    'Object.keys({ dark: 1 }).forEach((key) => document.body.classList.add(key))',
    "Element.prototype.setAttribute.call(document.body, 'class', 'dark')",
    "document.body.className = ['da', 'rk'].join('')",
    "document.body.className = night ? 'x' : part + '-dark' + 'rk'",
    "document.body.shade('dark')",
  ])
    assert.equal(when(rule, '<p id="it">', script), gives, script);
  assert.equal(when(rule, '<p id="it">', "document.body.shade('light')"), 'never');
});

test('a class that the markup keeps for a script may be given by one that takes names from there', () => {
  const script = 'document.body.classList.add(event.target.dataset.look)';
  const body = (look: string): string => `<p id="it" data-look="${look}">`;
  assert.equal(when('body.dark p', body('dark'), script), 'a script gives it .dark on its parent');
  assert.equal(when('body.dark p', body('light'), script), 'never');
});
