// Which elements a selector matches: one page, and by selector the ids that Selectors 4 and HTML give. In the browser the same is
// asked of random selectors.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ALWAYS, compileSelectorList, Matcher, NEVER, TruthTable } from '../../../src/core/cascade/index.js';
import { parsePage } from '../../../src/core/read/markup/index.js';
import { htmlPage } from '../../support/site.js';

const PAGE = `
<section id="s1" class="fare  wide" data-x="one two" data-y="" lang="en-GB">
  <p id="p1" title="a-b">a</p>
  <p id="p2" class="fare" title="a">b</p>
  <b id="b1"></b>
  <p id="p3" class="Fare" title="A">c</p>
</section>
<section id="s2" dir="rtl">
  <form id="f1"><fieldset id="fs" disabled><legend id="lg"><input id="i1"></legend><input id="i2" required></fieldset>
    <input id="i3" type="checkbox" checked><input id="i4" type="number" readonly><input id="i5" placeholder="x">
    <select id="sl"><option id="o1" selected>1</option><option id="o2" disabled>2</option></select>
    <textarea id="ta" placeholder="y"></textarea><button id="bt">x</button></form>
  <a id="a1" href="#x">x</a><a id="a2">y</a><my-part id="mp"></my-part><svg id="sv"><g-part id="gp"/></svg>
  <details id="dt" open><summary id="sm">x</summary></details>
</section>
<div id="ed" contenteditable><i id="e1">x</i><i id="e2" contenteditable="false"><u id="e3">y</u></i></div>`;

const page = parsePage('index.html', htmlPage(PAGE));

/** The ids of the elements that a selector matches, and with `?` of those that are left open. */
function matched(selector: string): string {
  const list = compileSelectorList(selector);
  if (list.kind === 'invalid') return 'invalid';
  const matcher = new Matcher(page, new TruthTable());
  return page.elements
    .flatMap(({ id, index }) => {
      if (id === undefined) return [];
      const truths = list.selectors.map((one) => matcher.match(one, index));
      if (truths.includes(ALWAYS)) return [id];
      return truths.every((one) => one === NEVER) ? [] : [`${id}?`];
    })
    .join(' ');
}

const CASES: Readonly<Record<string, string>> = {
  '.fare': 's1 p2',
  '.fare.wide': 's1',
  'p:not(.fare)': 'p1 p3',
  '[title="a"]': 'p2',
  '[title="a" i]': 'p2 p3',
  '[title|="a"]': 'p1 p2',
  '[title^="a"]': 'p1 p2',
  '[title^=""]': '',
  '[title$="b"]': 'p1',
  '[title$=""]': '',
  '[title*="-"]': 'p1',
  '[title*=""]': '',
  '[data-x~="two"]': 's1',
  '[data-x~="one two"]': '',
  '[data-x~=""]': '',
  '[data-y]': 's1',
  '[data-y=""]': 's1',
  '[lang|="en"]': 's1',
  ':lang(en) > b': 'b1',
  'section > p:first-child': 'p1',
  'p:last-of-type': 'p3',
  'p:nth-child(2)': 'p2',
  'p:nth-child(-n+2)': 'p1 p2',
  'p:nth-last-child(1)': 'p3',
  'p:nth-of-type(odd)': 'p1 p3',
  'p:nth-child(1 of .fare)': 'p2',
  // What a person edits may come to have any siblings.
  'i:first-child': 'e1? e2?',
  'p:nth-child(2 of p)': 'p2',
  'p:nth-last-child(2 of p)': 'p2',
  'p:nth-of-type(2 of .fare)': 'invalid',
  'b:only-of-type': 'b1',
  'b:empty': 'b1',
  'p:empty': '',
  'p + p': 'p2',
  'p ~ p': 'p2 p3',
  'b + p': 'p3',
  'p + b + p': 'p3',
  'section ~ section': 's2',
  'section:has(> b)': 's1',
  'section:has(+ section)': 's1',
  'p:has(+ p)': 'p1',
  'p:has(~ b)': 'p1 p2',
  'section:has(summary)': 's2',
  ':is(p, b):not(#p1)': 'p2 b1 p3',
  ':where(.fare) > p': 'p1 p2 p3',
  'a:any-link': 'a1',
  'a:not(:any-link)': 'a2',
  'input:disabled': 'i2',
  'fieldset:disabled': 'fs',
  'option:disabled': 'o2',
  'option:enabled': 'o1',
  'a:disabled': '',
  'a:enabled': '',
  'input:required': 'i2',
  'p:required': '',
  'select:optional': 'sl',
  ':defined:is(p, my-part, g-part)': 'p1 p2 p3 mp? gp',
  'section:dir(rtl)': 's2',
  'p:dir(ltr)': 'p1 p2 p3',
  'input#p1': '',
  'P.fare': 'p2',
  ':root > p': '',
  'body > section': 's1 s2',
  'i:empty': 'e1?',
  'u:first-child': 'e3',
};

for (const [selector, expected] of Object.entries(CASES))
  test(`${selector} matches ${expected === '' ? 'nothing' : expected}`, () => {
    assert.equal(matched(selector), expected);
  });

test('what a person does is left open where it can happen, and nowhere else', () => {
  const open = (text: string): string => matched(text).replaceAll('?', '');
  assert.equal(open('a:focus'), 'a1 a2');
  assert.match(matched('b:hover'), /b1\?/);
  assert.match(matched('input:checked'), /i3\?/);
});
