// Files that template engines read: which of them make pages, and which are parts.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { isTemplate, makesNoPage } from '../../src/core/read/kinds/index.js';
import { parsePage } from '../../src/core/read/markup/index.js';
import { openFolder } from '../../src/site/files/files.js';
import { holdsMarkup, isPart, unreadEndings } from '../../src/site/files/templates.js';
import { SiteReader } from '../../src/site/rendering/reader.js';
import { suggestedSheets } from '../../src/site/rendering/suggestion.js';
import { makeSite } from '../support/site.js';

test('what makes a page is told by the ending, and by the one in front of it', () => {
  for (const file of ['a.html.erb', 'a.php', 'b/c.twig', 'd.blade.php', 'e.liquid'])
    assert.ok(isTemplate(file), file);
  for (const file of ['a.js.erb', 'mail.txt.twig', 'feed.xml.php', 'a.html', 'a.test.tsx', 'a.pug'])
    assert.equal(isTemplate(file), false, file);
  assert.ok(makesNoPage('menu.js.ejs') && !makesNoPage('menu.html.ejs'));
});

test('what nothing marks as a whole page is a part, whatever an engine says of it', () => {
  assert.ok(isPart('a.twig', '<p>a</p>'));
  assert.ok(isPart('a.html', '{% extends "b" %}<p>a</p>'));
  assert.ok(isPart('a.html', '{# goes behind the <body> #}<p>a</p>'));
  assert.equal(isPart('a.html', '<p>a</p>'), false);
  assert.ok(isPart('a.html', '<p ng-repeat="one in crew">a</p>'));
  assert.equal(isPart('a.html', '<!DOCTYPE html><p ng-if="late">a</p>'), false);
  assert.equal(isPart('a.component.html', '<p ng-if="late">a</p>'), false, 'a sheet beside it styles it');
  assert.equal(isPart('a.erb', '<!DOCTYPE html><%= yield %>'), false);
});

test('code alone is no markup', () => {
  assert.equal(holdsMarkup('a.php', '<?php function fare() { return "<p>"; }'), false);
  assert.ok(holdsMarkup('a.php', '<?php fare(); ?><p>a</p>'));
});

test('kinds that are not read are counted, most first', () => {
  const counts = unreadEndings(['a.pug', 'b.styl', 'c.PUG', 'd.html', 'e.css', 'f.riot']);
  assert.deepEqual(
    [...counts],
    [
      ['.pug', 2],
      ['.riot', 1],
      ['.styl', 1],
    ],
  );
});

test('a template whose sheet lies beside it is left whole', () => {
  assert.match(parsePage('a.component.html', '<p>{{ fare }}</p>', true).unread ?? '', /a sheet beside it/);
  assert.equal(parsePage('a.html', '<p>{{ fare }}</p>', true).unread, undefined);
});

const readerOf = (files: Record<string, string>, config = {}): SiteReader =>
  new SiteReader(openFolder(makeSite(files)), config);

test('a page of plain markup among templates is a part like these; one elsewhere is a page', () => {
  const reader = readerOf({
    'views/a.html': '{% include "b" %}<p>a</p>',
    'views/b.html': '<p>b</p>',
    'help/c.html': '<p>c</p>',
    'views/d.html': '<!doctype html><p>d</p>',
  });
  const parts = reader.pagePaths.filter((file) => reader.isComponent(file));
  assert.deepEqual(parts, ['views/a.html', 'views/b.html']);
  const named = readerOf({ 'a.twig': '<p>', 'b.twig': '<p>' }, { components: ['b.twig'] });
  assert.deepEqual(
    named.pagePaths.filter((file) => named.isComponent(file)),
    ['b.twig'],
  );
});

test('a person says which sheets style what; where no layout shows anything, the one sheet does', () => {
  const files = {
    'a/x.twig': '<p>',
    'b/y.twig': '<p>',
    'css/one.css': 'p { top: 0 }',
    'css/min.min.css': 'b{top:0}',
  };
  assert.deepEqual(readerOf(files).sheetsFor('a/x.twig'), ['css/one.css']);
  const said = readerOf(files, { sheets: { 'a/**': ['css/two.css'] } });
  assert.deepEqual([said.sheetsFor('a/x.twig'), said.sheetsFor('b/y.twig')], [['css/two.css'], undefined]);
  const layout = readerOf({ ...files, 'l.twig': '<!doctype html>{{ x }}' });
  assert.equal(layout.sheetsFor('a/x.twig'), undefined);
});

test('what could be said lies beside the sources of sheets, for all parts', () => {
  const suggested = (files: Record<string, string>, config = {}) => suggestedSheets(readerOf(files, config));
  const parts = { 'layout/a.ejs': '<p>', 'layout/b/c.ejs': '<p>' };
  assert.deepEqual(suggested({ ...parts, 'source/css/a/x.styl': '', 'source/css/b.styl': '' }), {
    'layout/**': ['source/css/house.css'],
  });
  assert.deepEqual(suggested({ 'a.hbs': '<p>', 'b/c.hbs': '<p>' }), { '**': ['house.css'] });
  assert.equal(suggested(parts, { sheets: {} }), undefined);
  // The sheet that names their classes goes with it, and not what takes its place where one reads from the right.
  const names = Array.from({ length: 9 }, (_, at) => `sailing-${at}`);
  const sheet = names.map((name) => `.${name} { top: 0 }`).join('\n');
  const worn = { 'layout/a.ejs': names.map((name) => `<p class="${name}">`).join('') };
  assert.deepEqual(suggested({ ...worn, 'css/line-rtl.css': sheet, 'css/line.css': sheet }), {
    'layout/**': ['css/line.css', 'css/house.css'],
  });
});
