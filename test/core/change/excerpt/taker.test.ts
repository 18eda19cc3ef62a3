import assert from 'node:assert/strict';
import { test } from 'node:test';
import { OutcomeTable, SiteModel, TruthTable } from '../../../../src/core/cascade/index.js';
import { type Excerpts, ExcerptTaker, LookOver } from '../../../../src/core/change/excerpt/index.js';
import { type PageElement, parsePage } from '../../../../src/core/read/markup/index.js';
import { htmlPage } from '../../../support/site.js';

const SHEET = '.tides td { padding: 2px }\n#pier { color: navy }\n';
const LINK = '<link rel="stylesheet" href="theme.css">';

/** What is kept of pages, in order. In: their bodies; pages kept whole; what stands in the head of each. */
function taken(
  bodies: readonly string[],
  whole: readonly string[] = [],
  headOf: (at: number) => string = () => '',
): Excerpts {
  const styles = new SiteModel(
    {
      pages: new Map(),
      components: new Set(),
      sheets: new Map([['theme.css', SHEET]]),
      copies: new Map(),
    },
    new OutcomeTable(new TruthTable()),
  );
  const pages = bodies.map((body, at) => htmlPage(body, LINK + headOf(at)));
  const look = new LookOver();
  for (const text of pages) look.add(text);
  const taker = new ExcerptTaker(styles, {
    site: look.overview,
    isWhole: (path) => whole.includes(path),
  });
  pages.forEach((text, at) => {
    taker.add(parsePage(`${at}.html`, text));
  });
  return taker.excerpts;
}

function elementsOf(pages: Excerpts['pages'], path: string): readonly PageElement[] {
  const text = pages.get(path);
  return text === undefined ? [] : parsePage(path, text).elements;
}

function namesIn({ pages }: Excerpts, path: string): string[] {
  const elements = elementsOf(pages, path);
  const body = elements.findIndex(({ name }) => name === 'body');
  return elements.slice(body + 1).map(({ name }) => name);
}

test('a page that holds nothing of its own is left out, and its elements are counted', () => {
  const found = taken(['<p>One <b>two</b></p>', '<p>Three <b>four</b></p>', '<p>Five <i>six</i></p>']);
  assert.deepEqual(
    [...found.leftOut].map(([path, { like }]) => [path, like]),
    [['1.html', '0.html']],
  );
  assert.deepEqual(namesIn(found, '0.html'), ['p', 'b']);
  assert.deepEqual(namesIn(found, '2.html'), ['p', 'i']);
  const elements = elementsOf(found.pages, '0.html');
  const fromEnd = elements.length - elements.findIndex(({ name }) => name === 'p');
  assert.equal(found.alike.get('0.html')?.get(fromEnd)?.count, 1);
});

test('styled tags are kept three times, and then are copies of the first', () => {
  const found = taken(Array.from({ length: 6 }, () => '<main><h2 style="color: teal">Low</h2></main>'));
  const styled = [...found.pages.keys()].filter((path) =>
    elementsOf(found.pages, path).some(({ style }) => style !== undefined),
  );
  assert.equal(styled.length, 3);
  assert.deepEqual([...found.copies.keys()], ['3.html', '4.html', '5.html']);
  assert.deepEqual([...found.leftOut.keys()], ['3.html', '4.html', '5.html']);
  for (const [copy] of found.copies.values()) assert.equal(copy!.like.path, '0.html');
});

test('a tag that is written otherwise, or leads to a file, is no copy', () => {
  const tags = ['<h2 style="color:teal">', '<h2 style="color: teal">', '<h2 style="background: url(a.png)">'];
  const found = taken([...tags, ...tags, ...tags, ...tags].map((tag) => `<main>${tag}Low</h2></main>`));
  const likes = [...found.copies].map(([path, [copy]]) => `${path} ${copy!.like.path}`);
  assert.deepEqual(likes, ['9.html 0.html', '10.html 1.html']);
});

test('an id that a rule asks for makes a tag that may change, styled or not', () => {
  const found = taken(['<p id="pier">One</p>', '<p id="pier">Two</p>', '<p id="quay">Three</p>']);
  assert.deepEqual([...found.copies.keys()], ['1.html']);
  assert.equal(found.copies.get('1.html')![0]!.like.path, '0.html');
});

test('a page that a person speaks of is kept as it is, and so is one with template text or a style block', () => {
  const body = '<p>One <b>two</b></p>';
  const bodies = [body, body, `${body}{{ more }}`, `${body}<style>b { color: red }</style>`, body];
  const found = taken(bodies, ['1.html']);
  assert.deepEqual([...found.pages.keys()], ['0.html', '1.html', '2.html', '3.html']);
  assert.deepEqual([...found.leftOut.keys()], ['4.html']);
  assert.deepEqual(namesIn(found, '1.html'), ['p', 'b']);
});

test('what stands beside what is kept stays, so that positions are what they were', () => {
  const rows = (last: string) =>
    `<table class="tides"><tr><td>1<td>2<td>3</table><ul><li>a<li>b<li><em>${last}</em></ul>`;
  const found = taken([rows('c'), rows('<u>d</u>')]);
  assert.deepEqual(namesIn(found, '1.html'), ['table', 'ul', 'li', 'li', 'li', 'em', 'u']);
});

test('an element that only its children bring about stays with them', () => {
  const table = (row: string) => `<table><caption>Tides</caption>${row}</table>`;
  const row = '<tr><td>1<td>2';
  const found = taken([table(row), table(row).replace('Tides', '<u>Tides</u>')]);
  assert.deepEqual(namesIn(found, '1.html'), ['table', 'caption', 'u', 'tbody', 'tr']);
});

test('what a script in a tag does keeps the tag; one that does nothing to the page does not', () => {
  const quiet = '<p>One <a href="javascript:show(2);">two</a></p>';
  const loud = '<p>One <i onclick="this.style.color = \'\'">two</i></p>';
  const found = taken([quiet, quiet, loud, loud]);
  assert.deepEqual([...found.leftOut.keys()], ['1.html']);
  assert.deepEqual(namesIn(found, '3.html'), ['p', 'i']);
});

test('pages whose scripts differ in texts alone are one form; a script that looks for what is there is another', () => {
  const page = (script: string) => `<main><p class="fare">One</p></main><script>${script}</script>`;
  const titled = (title: string) => page(`const note = "The class of ${title}"`);
  const found = taken([titled('Pier'), titled('Quay'), page('document.querySelector(".fare").focus()')]);
  assert.deepEqual([...found.leftOut.keys()], ['1.html']);
  assert.deepEqual(namesIn(found, '2.html'), ['main', 'p', 'script']);
});

test('a tag with an id, a title or an address of its own is written like the others', () => {
  const body = (at: number) => `<p id="sailing-${at}" title="Sailing ${at}" style="color: teal">${at}</p>`;
  const found = taken([0, 1, 2, 3, 4].map(body));
  assert.deepEqual([...found.copies.keys()], ['3.html', '4.html']);
  const asked = taken([0, 1, 2, 3, 4].map((at) => `${body(at)}<script>show('sailing-4')</script>`));
  assert.deepEqual([...asked.copies.keys()], ['3.html']);
});

test('what stands in a style block counts as what is linked does: a page with the same blocks is left out', () => {
  const bodies = Array.from({ length: 4 }, (_, at) => `<p>${at}</p>`);
  const block = (at: number) => `\n  <style>p { color: ${at === 2 ? 'navy' : 'teal'} }</style>`;
  const found = taken(bodies, [], (at) => `<meta name="pier" content="${'x'.repeat(at)}">${block(at)}`);
  assert.deepEqual([...found.leftOut.keys()], ['1.html', '3.html']);
  const { like, blocks } = found.leftOut.get('3.html')!;
  assert.equal(like, '0.html');
  const [{ start, like: there }] = blocks as [(typeof blocks)[0]];
  assert.equal(start, there.start + 3);
  assert.equal(there.end - there.start, block(0).length);
});

test('of what no rule for anything styled could find, the ancestors further up do not matter', () => {
  const below = (name: string) => `<${name}><div><b>x</b></div></${name}>`;
  assert.deepEqual(namesIn(taken([below('section'), below('article')]), '1.html'), ['article', 'div']);
  // Once one of its kind is styled somewhere, a rule for that one could reach it.
  const styled = taken([below('section'), below('article'), '<b style="color: teal">x</b>']);
  assert.deepEqual(namesIn(styled, '1.html'), ['article', 'div', 'b']);
});
