import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { type Page, parsePage, parseUnplaced } from '../../../../src/core/read/markup/index.js';
import { scriptedSite, site } from '../../../support/generate.js';
import { Seeds } from '../../../support/seeds.js';
import { DEMO, htmlPage } from '../../../support/site.js';

/** All of a page that does not tell where something stands in the file. */
function withoutPlaces(page: Page): unknown {
  const { elements, texts, sheets, scripts, quirks, kind, base, depth, hasTemplatedTags, hasPolicy, isMail } =
    page;
  return {
    elements: elements.map(({ tag: _, ...rest }) => rest),
    sheets: sheets.map((one) => (one.kind === 'link' ? { ...one, range: undefined } : one)),
    scripts: scripts.map((one) => (one.kind === 'link' ? one.address : one)),
    ...{ texts, quirks, kind, base, depth, hasTemplatedTags, hasPolicy, isMail },
  };
}

const ODD = [
  'before <p>all',
  '<table border=1><tr><td bgcolor=red>a<b>b<td>c</b><td><input type=hidden>d</table>',
  '<b class=x><p>mis<i>nested</b>tags</i></p><a href=x>one<a href=y>two</a>',
  '<svg viewBox="0 0 1 1"><a xlink:href="x"><font color=red>y</font></a></svg><math><mi>x</mi></math>',
  '<center><font size=2>old</font><noscript><link rel=stylesheet href=n.css></noscript></center>',
  '<frameset><frame src=a></frameset>',
  '<!-- <script>go()</script> --><script>go()</script>\r\n<script>\r\ngo()</script><p onclick="go()" class=a>a<a href="javascript:go()">b</a>',
  '<!-- <script>go()</script> --><script>go()</script><SCRIPT>gone()</SCRIPT><script>a()</script><script>\nb()</script>',
  '<select><option>a<option selected>b</select><script src="go.js"></script><p>a',
];

test('a page without places is the page, but for the places', () => {
  const pages = [...ODD, ...ODD.map((body) => htmlPage(body)), '', '<!DOCTYPE html>\r\n<p>line\r\nends'];
  for (const file of ['index.html', 'fares/index.html'])
    pages.push(readFileSync(path.join(DEMO, file), 'utf8').replaceAll(/<style[\s\S]*?<\/style>/g, ''));
  for (const seed of new Seeds('core/markup/unplaced', 40))
    pages.push(...Object.values(seed % 2 === 0 ? site(seed) : scriptedSite(seed)));
  let read = 0;
  for (const text of pages) {
    const page = parseUnplaced('a.html', text);
    if (page === undefined) continue;
    read++;
    assert.deepEqual(withoutPlaces(page), withoutPlaces(parsePage('a.html', text)), text);
  }
  assert.ok(read > 20, `${read} pages`);
});

test('what is told by its place is read with places', () => {
  assert.equal(parseUnplaced('a.html', htmlPage('<p>a', '<style>p { top: 0 }</style>')), undefined);
  assert.equal(parseUnplaced('a.html', htmlPage('<template><p>a</template>')), undefined);
  assert.equal(parseUnplaced('a.html', htmlPage('<p class="{{ name }}">a')), undefined);
  assert.notEqual(parseUnplaced('a.html', htmlPage('<script src="go.js"></script><p>a')), undefined);
});
