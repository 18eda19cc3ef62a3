import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  componentKind,
  isBuilderMarkup,
  isModule,
  isServedInPlace,
  isTemplate,
  looksFromTop,
  makesNoPage,
  mayLoadSheets,
  pageEvidence,
  sheetStem,
  unreadEnding,
} from '../../../../src/core/read/kinds/index.js';
import { BUILD_ENDINGS, TEMPLATE_ENDINGS } from '../../../../src/core/read/templates/index.js';

test('whatever an engine reads is a template, may load a sheet, and is numbered in a build', () => {
  for (const ending of TEMPLATE_ENDINGS) {
    assert.ok(isTemplate(`views/fares.${ending.toUpperCase()}`), ending);
    assert.ok(mayLoadSheets(`views/fares.${ending}`), ending);
    assert.ok(isBuilderMarkup(`views/fares.${ending}`), ending);
  }
  for (const file of ['views/farestwig', 'php', 'views.erb/fares'])
    assert.equal(isTemplate(file), false, file);
  for (const ending of BUILD_ENDINGS) assert.ok(isBuilderMarkup(`views/fares.${ending}`), ending);
});

test('what is not read may load a sheet all the same', () => {
  for (const file of ['a.pug', 'a.xhtml', 'a.svg', 'a.php5', 'a.md', 'a.astro', 'a.vue', 'a.latte'])
    assert.ok(mayLoadSheets(file), file);
  for (const file of ['a.css', 'a.png', 'a.js', 'html', 'a.twig.bak'])
    assert.equal(mayLoadSheets(file), false, file);
  assert.equal(unreadEnding('views/menu.PUG'), '.pug');
  assert.equal(unreadEnding('views/menu.twig'), undefined);
});

test('what comes of a template may be no page', () => {
  for (const file of ['mail.txt.erb', 'menu.js.ejs', 'fare.test.tsx', 'fare.stories.vue', 'sum.csv.php'])
    assert.ok(makesNoPage(file) && !isTemplate(file), file);
  for (const file of ['fares.html.erb', 'fare.tsx', 'test.vue', 'fares.blade.php'])
    assert.ok(!makesNoPage(file) && isTemplate(file), file);
});

test('other questions about endings', () => {
  assert.equal(componentKind('a/fare.tsx'), 'jsx');
  assert.equal(componentKind('a/fare.js'), 'jsx');
  assert.equal(componentKind('a/fare.ts'), undefined);
  assert.ok(isModule('a/fare.ts') && isModule('a/fare.vue') && !isModule('a/fare.css'));
  assert.ok(isServedInPlace('a.php') && isServedInPlace('a.jsp') && !isServedInPlace('a.twig'));
  assert.ok(looksFromTop('a.twig') && looksFromTop('a.html') && !looksFromTop('a.erb'));
  assert.equal(sheetStem('theme/line.min.css'), 'theme/line');
  assert.equal(sheetStem('theme/line.css'), 'theme/line');
});

test('a doctype or a body marks a page; a head may be a part’s; a title begins a page without these', () => {
  assert.equal(pageEvidence('<!DOCTYPE html><p>'), 'frame');
  assert.equal(pageEvidence('<title>x</title><body class="a">'), 'frame');
  assert.equal(pageEvidence('<head>\n<title>x</title></head>'), 'head');
  assert.equal(pageEvidence('<link rel="stylesheet" href="a.css"><p>'), 'metadata');
  for (const part of ['<p>x</p>', '<header>x</header>', '<bodyguard>', '<linked x>', ''])
    assert.equal(pageEvidence(part), 'none');
});
