import assert from 'node:assert/strict';
import { cpSync } from 'node:fs';
import { test } from 'node:test';
import { renameDocument } from '../../src/commands/rename/document.js';
import { surveyDocument } from '../../src/commands/survey/document.js';
import { acervus, DEMO, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const SHEETS =
  '  <link rel="stylesheet" href="platform/kit.css">\n  <link rel="stylesheet" href="theme/line.css">\n';

function site(script = ''): string {
  return makeSite({
    'index.html': htmlPage(
      `<p class="book wide">A</p>\n<p class='wide book'>B</p>\n<p class=book>C</p>\n<template><b class="book">D</b></template>\n<p class="bookish">E</p>\n<script src="theme/line.js"></script>`,
      SHEETS,
    ),
    'card.tpl': '<p class="{% if x %}book{% else %}kw-go{% endif %} tide">F</p>\n',
    'platform/kit.css': '.kw-go { color: gray; }\n',
    'theme/line.css':
      '.book, a > .book.wide:not(.bookish) { color: teal; }\n[class~="book"] { top: 0; }\n@media print { .wide .book::after { content: ".book"; } }\n.slip { color: teal; }\n.ticket { color: teal; }\n',
    'theme/line.js': `document.querySelector('.book > b').classList.add('book');\n${script}`,
  });
}

const run = async (folder: string, ...args: readonly string[]) => {
  const done = await acervus('rename', ...args, folder, '--json');
  return { code: done.code, told: renameDocument.parse(JSON.parse(done.stdout)) };
};

test('a class is renamed in markup, sheets, templates and sure strings, and nothing looks different', async () => {
  const folder = site();
  const { code, told } = await run(folder, '.book', '.berth');
  assert.equal(code, 0);
  assert.deepEqual(told.counts, { markup: 5, sheets: 4, scripts: 2, removed: 0 });
  assert.match(
    read(folder, 'index.html'),
    /<p class="berth wide">A<\/p>\n<p class='wide berth'>B<\/p>\n<p class=berth>C<\/p>\n<template><b class="berth">/,
  );
  assert.match(read(folder, 'index.html'), /class="bookish"/);
  assert.match(read(folder, 'card.tpl'), /\{% if x %\}berth\{% else %\}kw-go/);
  assert.match(
    read(folder, 'theme/line.css'),
    /^\.berth, a > \.berth\.wide:not\(\.bookish\) \{[^\n]*\n\[class~="berth"\] \{[^\n]*\n@media print \{ \.wide \.berth::after \{ content: "\.book"; \} \}/,
  );
  assert.match(read(folder, 'theme/line.js'), /querySelector\('\.berth > b'\)\.classList\.add\('berth'\)/);
});

test('strings that nobody can be sure of are listed and refused, unless --scripts', async () => {
  const folder = site("var name = 'book';\n");
  const before = snapshot(folder);
  const { code, told } = await run(folder, 'book', 'berth');
  assert.deepEqual([code, told.refused], [1, 'not every place is sure']);
  assert.deepEqual(
    told.unsure.map(({ place, what }) => [place.path, place.line, what]),
    [['theme/line.js', 2, "var name = 'book';"]],
  );
  assert.deepEqual(snapshot(folder), before);
  assert.equal((await run(folder, 'book', 'berth', '--scripts')).code, 0);
  assert.match(read(folder, 'theme/line.js'), /var name = 'berth';/);
});

test('a name that is taken is refused; --merge makes two equal classes one, and only equal ones', async () => {
  const folder = makeSite({
    'index.html': htmlPage(
      '<p class="slip">A</p>\n<p class="ticket slip">B</p>\n<p class="loud">C</p>',
      SHEETS,
    ),
    'platform/kit.css': '',
    'theme/line.css': '.slip { color: teal; }\n\n.ticket { color: #008080; }\n\n.loud { color: red; }\n',
  });
  assert.equal((await run(folder, 'slip', 'ticket')).told.refused, 'the new name is taken');
  assert.equal((await run(folder, 'loud', 'ticket', '--merge')).told.refused, 'it would look different');
  const { told } = await run(folder, 'slip', 'ticket', '--merge');
  assert.equal(told.counts.removed, 1);
  assert.match(read(folder, 'index.html'), /<p class="ticket">A<\/p>\n<p class="ticket">B<\/p>/);
  assert.equal(read(folder, 'theme/line.css'), '.ticket { color: #008080; }\n\n.loud { color: red; }\n');
});

test('a class of the platform is not renamed, and mistakes get one line', async () => {
  const folder = site();
  assert.equal((await run(folder, 'kw-go', 'go')).told.refused, 'the platform styles it');
  for (const [args, message] of [
    [['.nobody', '.x'], /\.nobody: is written nowhere on the site/],
    [['.book', 'two words'], /two words: is no class/],
    [['.book', 'book'], /is the same name/],
  ] as const) {
    const wrong = await acervus('rename', ...args, folder);
    assert.equal(wrong.code, 2);
    assert.match(wrong.stderr, message);
  }
});

test('on the demo a renamed class leaves every page as it looks', async () => {
  const folder = makeSite({});
  cpSync(DEMO, folder, { recursive: true });
  assert.equal((await run(folder, '.btn-book', '.book-now')).told.strays, 0);
  const texts = [...snapshot(folder)].filter(([file]) => !file.startsWith('.acervus'));
  assert.ok(texts.every(([, bytes]) => !Buffer.from(bytes, 'base64').toString().includes('btn-book')));
  assert.equal((await acervus('undo', folder)).code, 0);
  assert.equal(read(folder, 'theme/skerrin.css'), read(DEMO, 'theme/skerrin.css'));
});

test('survey checks the names that expressions choose', async () => {
  const folder = makeSite({
    'index.html': htmlPage(
      '<p>x</p>\n<script src="line.js"></script>',
      '<style>.is-full { top: 0 } .is-open { top: 1px } .row-odd { top: 2px }</style>\n',
    ),
    'card.tpl': `<p class="{{ x ? 'is-full' : 'is-opne' }} {{ y ? '.is-full' : 'is-free' }} {% if z %}row-odd{% else %}row-evn{% endif %} tide-{{ kind }}"></p>\n<p :class="{ 'is-full': a, 'is-gone': b }"></p>\n`,
    'line.js': "el.classList.toggle(n > 0 ? 'is-open' : 'is-shut');\n",
  });
  const run = await acervus('survey', folder, '--json');
  const { broken } = surveyDocument.parse(JSON.parse(run.stdout));
  assert.deepEqual(
    broken
      .filter(({ kind }) => kind !== 'rule without a use')
      .map(({ message, place }) => `${place.path}: ${message}`)
      .sort(),
    [
      'card.tpl: .is-full has a rule, and .is-free, chosen instead of it, has none',
      'card.tpl: .is-gone is chosen by an expression and has no rule',
      'card.tpl: .is-opne has no rule; did you mean .is-open?',
      'card.tpl: .row-odd has a rule, and .row-evn, chosen instead of it, has none',
      'card.tpl: an expression chooses ".is-full", which wants no dot: is-full',
      'line.js: .is-open has a rule, and .is-shut, chosen instead of it, has none',
    ],
  );
});
