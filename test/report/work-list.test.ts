// The work list in its forms: text of a site is nothing that a spreadsheet, a reader of Markdown or a browser would obey.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { keepWorkList } from '../../src/report/work-list.js';
import type { WorkItem } from '../../src/site/visiting/work-list.js';
import { makeSite, read } from '../support/site.js';

const ITEM: WorkItem = {
  page: 'fares.html',
  address: 'http://skerrin.example/fares?a=1&b=2',
  anchor: 'b 1"',
  heading: 'Fares *now*',
  text: '=HYPERLINK("http://evil.example")',
  element: 'p#b1.`x`',
  path: [1],
  styleOut: ['content: "`<b>`"'],
  styleLeft: 'margin: 0',
  classIn: ['fare'],
  classOut: ['old'],
  attributesOut: ['align="center"'],
  state: 'open',
};

function kept(items: readonly WorkItem[]): (form: string) => string {
  const folder = makeSite({});
  keepWorkList(folder, { format: 1, items: [...items] }, 'http://skerrin.example');
  return (form) => read(folder, `work-list.${form}`);
}

test('Markdown: a box to tick, what to do in code, and no markup of the site’s own', () => {
  const text = kept([ITEM, { ...ITEM, state: 'done' }, { ...ITEM, state: 'gone', text: 'x' }])('md');
  assert.match(text, /^1 of 3 to do\.$/m);
  assert.match(
    text,
    /^- \[ \] “=HYPERLINK\("http:\/\/evil\.example"\)” under “Fares \\\*now\\\*” `` p#b1\.`x` ``$/m,
  );
  assert.match(text, /^ {2}- take out of the style `` content: "`<b>`" ``; keep `margin: 0`$/m);
  assert.match(text, /^ {2}- give it the class `fare`$/m);
  assert.match(text, /^ {2}- take away the class `old`$/m);
  assert.match(text, /^- \[x\] “x” .* \(is not there any more\)$/m);
  assert.match(text, /^## <http:\/\/skerrin\.example\/fares\?a=1&b=2>$/m);
});

test('CSV: quoted, and no formula', () => {
  const [head, row] = kept([ITEM])('csv').split('\r\n');
  assert.equal(head, '"state","address","heading","text","element","to do"');
  assert.match(
    row ?? '',
    /^"open","http:\/\/skerrin\.example\/fares\?a=1&b=2#b%201%22","Fares \*now\*","'=HYPERLINK\(""http/,
  );
});

test('HTML: escaped, with a policy, to be worked from without scripts', () => {
  const page = kept([{ ...ITEM, text: '<img src=x onerror=alert(1)>' }])('html');
  assert.doesNotMatch(page, /<img|<script|onerror=alert\(1\)>/);
  assert.match(page, /&lt;img src=x onerror=alert\(1\)&gt;/);
  assert.match(page, /default-src 'none'/);
  assert.match(page, /href="http:\/\/skerrin\.example\/fares\?a=1&amp;b=2#b%201%22"/);
  assert.match(page, /1 to do, in the editor of the platform/);
  assert.match(kept([{ ...ITEM, state: 'done' }])('html'), /All is done\./);
});
