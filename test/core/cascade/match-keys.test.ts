import assert from 'node:assert/strict';
import { test } from 'node:test';
import { type SiteModel, TruthTable } from '../../../src/core/cascade/index.js';
import { MatchKeys } from '../../../src/core/cascade/match-keys.js';
import { modelOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

test('equal matches of equal sheets have one name, whatever was named between', () => {
  const keys = new MatchKeys();
  const none = keys.with('', 'layers', 0);
  const one = keys.with(none, 'sheet', 1);
  assert.notEqual(keys.with(none, 'sheet', 2), one);
  assert.notEqual(keys.with(none, 'other sheet', 1), one);
  assert.notEqual(keys.with(one, 'sheet', 1), one);
  assert.equal(keys.with(keys.with('', 'layers', 0), 'sheet', 1), one);
});

/** The names of what matches each element of a page, in order. */
function keysOn(model: SiteModel, path: string): string[] {
  const page = model.page(path)!;
  const [reader] = model.readersOf(page);
  const first = page.elements.findIndex(({ name }) => name === 'body') + 1;
  return page.elements.slice(first).map(({ index }) => reader!.matchKey(index));
}

test('what matches is named alike on any page with the same sheets, rules that look at siblings too', () => {
  const css = '.a { top: 0 } .a + .b { left: 0 } li:nth-child(2) { right: 0 }';
  const body = '<p class="a">x<p class="b">y<p class="b">z<ul><li>1<li>2<li>3</ul>';
  const model = modelOf({
    'index.html': htmlPage(body, `<style>${css}</style>`),
    'other.html': htmlPage(body, `<title>Another</title><style>${css}</style>`),
    'more.html': htmlPage(body, `<style>${css} p { bottom: 0 }</style>`),
  });
  const [a, b, late, list, one, two, three] = keysOn(model, 'index.html');
  assert.equal(new Set([a, b, late, two]).size, 4);
  assert.deepEqual([list, one, three], [late, late, late]);
  assert.deepEqual(keysOn(model, 'other.html'), [a, b, late, list, one, two, three]);
  // With one rule more it is another sheet.
  assert.notEqual(keysOn(model, 'more.html')[0], a);
});

test('a condition on another element is the same, however it is asked for', () => {
  const truths = new TruthTable();
  assert.equal(truths.literalOn(':hover', 'its parent'), truths.literal(':hover on its parent'));
  assert.equal(truths.literalOn(':hover', 'its parent'), truths.literalOn(':hover', 'its parent'));
  assert.notEqual(truths.literalOn(':hover', 'ancestor 2'), truths.literalOn(':hover', 'its parent'));
  assert.notEqual(truths.literalOn(':focus', 'its parent'), truths.literalOn(':hover', 'its parent'));
});

test('of an attribute counts what is asked of it: where a link leads is nothing to :link', () => {
  const css =
    'a:link { top: 0 } [title] { left: 0 } a[href$=".pdf" i] { right: 0 } [lang|="kw"] b { bottom: 0 }';
  const body =
    '<a href="a.html">1</a><a href="b.html" title="x">2</a><a href="c.html" title="y">3</a><a href="d.PDF">4</a>' +
    '<a>5</a><p lang="kw-GB"><b>6</b></p><p lang="kwik"><b>7</b></p>';
  const model = modelOf({ 'index.html': htmlPage(body, `<style>${css}</style>`) });
  const [one, two, three, four, five, , six, , seven] = keysOn(model, 'index.html');
  assert.equal(new Set([one, two, four, five, six]).size, 5);
  assert.equal(two, three);
  assert.notEqual(seven, six);
});

test('where a script writes an attribute, what stands in the file counts', () => {
  const css = 'a[rel="next"] { top: 0 }';
  const script = 'document.querySelector("a").setAttribute("rel", next)';
  const keys = (more: string) =>
    new Set(
      keysOn(
        modelOf({
          'index.html': htmlPage(
            `<a rel="up">1</a><a rel="down">2</a><a rel="next">3</a>${more}`,
            `<style>${css}</style>`,
          ),
        }),
        'index.html',
      ).slice(0, 3),
    ).size;
  assert.deepEqual([keys(''), keys(`<script>${script}</script>`)], [2, 3]);
});
