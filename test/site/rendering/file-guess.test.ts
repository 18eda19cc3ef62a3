// Which file is meant by an address that only a server or a template engine could resolve.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { guessFile } from '../../../src/site/rendering/file-guess.js';

const FILES = [
  'app/views/site.html.erb',
  'public/css/house.css',
  'public/stylesheets/application.css',
  'public/themes/winter/stylesheets/application.css',
  'static/line/js/fares.js',
  'static/line/house.css',
];

const guess = (address: string, served: Record<string, string> = {}, holder = 'app/views/site.html.erb') =>
  guessFile(address, holder, FILES, new Map(Object.entries(served)));

test('what of an address is written out tells the file', () => {
  assert.equal(guess('{{ root }}/css/house.css?v=2'), 'public/css/house.css');
  assert.equal(guess("{% static 'line/house.css' %}"), 'static/line/house.css');
  assert.equal(guess('{% static "line/js/fares.js" %}'), 'static/line/js/fares.js');
  assert.equal(guess('/css/house.css'), 'public/css/house.css');
});

test('a name that a call is given is the file near the top, not that of another theme', () => {
  assert.equal(guess('engine:application.css'), 'public/stylesheets/application.css');
  assert.equal(guess('engine:line/js/fares.js'), 'static/line/js/fares.js');
});

test('of two the one beside the page is meant', () => {
  assert.equal(guess('engine:house.css', {}, 'static/page.html'), 'static/line/house.css');
  assert.equal(guess('engine:house.css', {}, 'public/page.html'), 'public/css/house.css');
});

test('where folders are served goes before how a path ends', () => {
  assert.equal(guess('/assets/house.css', { 'static/line': '/assets' }), 'static/line/house.css');
  assert.equal(guess('/house.css', { 'public/css': '/' }), 'public/css/house.css');
});

test('what is not there, or is no address of that kind, is not guessed', () => {
  for (const address of [
    'engine:other.css',
    '/other.css',
    '{{ theme_css }}',
    'house.css',
    '../css/house.css',
  ])
    assert.equal(guess(address), undefined, address);
});
