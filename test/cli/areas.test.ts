// Areas of a theme that share no sheet: each keeps its own, whatever the others are.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { prove } from '../../src/core/proof/index.js';
import { adopt, draft } from '../../src/index.js';
import { modelOf } from '../support/model.js';
import { htmlPage, makeSite, read } from '../support/site.js';

const NOTE = 'style="color: teal; margin: 0 0 3px"';
const NOTES = `<p ${NOTE}>a</p>\n<p ${NOTE}>b</p>\n`;

/** What is written out of a database, in a document with sheets of its own. */
const EXPORT =
  '<!doctype html>\n<html>\n<head>\n<title><%= title %></title>\n<style>\nul.toc { padding: 4px }\nul.toc li { list-style-type: none }\n</style>\n</head>\n<body>\n<%= formatted content %>\n</body>\n</html>\n';

test('rules for what is filled in stay where no other sheet could be linked', async () => {
  const site = makeSite({ 'app/views/log.html.erb': EXPORT, 'app/views/logs.html.erb': EXPORT });
  const { upkeep } = await draft(site);
  assert.equal(upkeep.after, upkeep.now);
});

test('what is lost to no element that anybody sees is a difference on pages that are filled', () => {
  const lost = (body: string, after: string): string[] => {
    const css = '.due { color: red }\n.due b { top: 0 }\n@media print { .due b { left: 0 } }\n';
    const files = (text: string): Record<string, string> => ({
      'index.html': htmlPage(body, '<link rel="stylesheet" href="a.css">'),
      'a.css': text,
    });
    const before = modelOf(files(css));
    const { differences } = prove(before, modelOf(files(after), before.table), { keepsUnseen: true });
    return differences.map((one) =>
      one.kind === 'style' ? one.property : one.kind === 'page' ? (one.rule ?? one.what) : one.what,
    );
  };
  const filled = '<p>x</p>{{ body }}';
  const rest = '.due { color: red }\n@media print { .due b { left: 0 } }';
  assert.deepEqual(lost(filled, rest), ['.due b']);
  assert.deepEqual(lost('<p>x</p>', rest), []);
  // Under another condition it is another rule; under a wider selector it still holds.
  assert.deepEqual(lost(filled, '.due { color: red }\n@media print { .due b { top: 0; left: 0 } }'), [
    '.due b',
  ]);
  assert.deepEqual(lost(filled, '.due { color: red }\nb { top: 0 }\n@media print { b { left: 0 } }'), []);
  assert.deepEqual(
    lost(filled, '.due { color: red }\n.due b { top: 1px }\n@media print { .due b { left: 0 } }'),
    [],
  );
  // What another sheet of the page says anyway is not lost.
  const doubled = (own: string): Record<string, string> => ({
    'index.html': htmlPage(
      filled,
      `<link rel="stylesheet" href="a.css"><link rel="stylesheet" href="b.css">`,
    ),
    'a.css': own,
    'b.css': '.due b { top: 0 }',
  });
  const first = modelOf(doubled('.due b { top: 0 }\ni { top: 0 }'));
  const then = modelOf(doubled('i { top: 0 }'), first.table);
  assert.deepEqual(prove(first, then, { keepsUnseen: true }).differences, []);
  // Of what is there, the elements themselves tell.
  assert.deepEqual(lost('<p class="due">x<b>y</b></p>{{ body }}', `b { top: 0 }${rest}`), []);
});

test('parts that may stand anywhere are one area, and pages beside them keep their own sheets', async () => {
  const help = (note: string): string =>
    htmlPage(`<p ${note}>a</p><p ${note}>b</p>`, '<link rel="stylesheet" href="help.css">');
  const site = makeSite({
    'app/views/layouts/base.html.erb':
      "<!doctype html>\n<html>\n<head>\n<%= stylesheet_link_tag 'line', 'small', media: 'all' %>\n<%= stylesheet_link_tag 'rtl' if rtl? %>\n</head>\n<body>\n<%= yield %>\n</body>\n</html>\n",
    'app/views/log.html.erb': EXPORT,
    'app/views/_fares.html.erb': `<div class="fares">${NOTES}</div>`,
    'public/stylesheets/line.css':
      '.fares { color: #123456 }\n.crew { color: #123456; border: 1px solid #123456 }\n',
    'public/stylesheets/small.css': '@media (max-width: 30em) { .fares { color: #123456 } }\n',
    'public/stylesheets/rtl.css': '.fares { direction: rtl }\n',
    'public/help/a.html': help('style="color: navy"'),
    'public/help/b.html': help('style="color: navy"'),
    'public/help/help.css': 'body { margin: 0 }\n',
    'public/404.html': htmlPage('<h1>Nothing here</h1>'),
  });
  const { styles } = await draft(site);
  // What is there already is written nowhere.
  for (const { home, 'written into': into } of styles)
    if (home === 'existing class') assert.equal(into, undefined);
  await adopt(site);
  assert.match(read(site, 'public/help/help.css'), /color: navy/);
  assert.doesNotMatch(read(site, 'public/help/a.html'), /style=/);
  // The log may show the part, and has none of the sheets.
  assert.match(read(site, 'app/views/_fares.html.erb'), /style=/);
});

test('a new rule goes into the sheet for all media', async () => {
  const site = makeSite({
    'index.html': htmlPage(
      NOTES,
      '<link rel="stylesheet" href="line.css"><link rel="stylesheet" href="small.css">',
    ),
    'line.css': 'body { margin: 0 }\n',
    'small.css': '@media (max-width: 30em) { body { margin: 4px } }\n',
  });
  await draft(site);
  await adopt(site);
  assert.match(read(site, 'line.css'), /teal/);
});
