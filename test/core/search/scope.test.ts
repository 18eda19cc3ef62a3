import assert from 'node:assert/strict';
import { test } from 'node:test';
import { prove } from '../../../src/core/proof/index.js';
import { adoptAll, homesOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

const body = (name: string, style: string): string =>
  htmlPage(`<p style="${style}">a<p>b<p style="${style}">c<p>d<p>e<p style="${style}">f`).replace(
    '<body>',
    `<body class="${name}">`,
  );
const files = {
  'fares/a.html': body('fares', 'color: red'),
  'fares/b.html': body('fares', 'color: red'),
  'crew.html': body('crew', 'top: 0'),
};

test('everything goes to the shared sheet by default', () => {
  assert.equal(homesOf(adoptAll(files))[0], '.text-red { color:#ff0000 } × 6');
  assert.match(adoptAll(files).text('shared.css'), /top: 0[\s\S]*color: red/);
});

test('what a section uses may stand under its body class', () => {
  const { text } = adoptAll(files, { scope: 'section' });
  assert.match(text('shared.css'), /^\.fares \.text-red \{/m);
  assert.match(text('shared.css'), /^\.crew \./m);
});

test('what one page uses may stand in its own block, which needs no link', () => {
  const adopted = adoptAll(files, { scope: 'page' });
  const { text, before, after } = adopted;
  assert.doesNotMatch(text('shared.css'), /top: 0/);
  assert.match(
    text('crew.html'),
    /<style>\n {4}\.crew \.[\w-]+ \{\n {6}top: 0;\n {4}\}\n {2}<\/style>\n<\/head>/,
  );
  assert.doesNotMatch(text('crew.html'), /shared\.css/);
  assert.deepEqual(prove(before, after).differences, []);
  const { pages, sheets } = after.sources;
  assert.deepEqual(homesOf(adoptAll(Object.fromEntries([...pages, ...sheets]), { scope: 'page' })), []);
});
