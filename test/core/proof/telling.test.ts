// What makes no difference, and what only seems to make none.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { OutcomeTable, TruthTable } from '../../../src/core/cascade/index.js';
import { prove } from '../../../src/core/proof/index.js';
import { modelOf } from '../../support/model.js';

/** Whether two sheets are one to a page. */
function same(before: string, after: string, body: string, html = '<html dir="rtl">', extra = ''): boolean {
  const table = new OutcomeTable(new TruthTable());
  const site = (css: string): Record<string, string> => ({
    'a.html': `<!doctype html>${html}<head><title>x</title><style>${extra}${css}</style></head><body>${body}</body></html>`,
  });
  return prove(modelOf(site(before), table), modelOf(site(after), table)).differences.length === 0;
}

test('a logical side is the side that it sets where the markup alone says which', () => {
  const p = '<p class="a">x</p>';
  const [left, start] = ['.a { margin-left: 8px }', '.a { margin-inline-end: 8px }'];
  assert.ok(same(left, start, p));
  assert.ok(!same(left, '.a { margin-inline-start: 8px }', p));
  assert.ok(same(left, '.a { margin-inline-start: 8px }', p, '<html>'));
  assert.ok(same(left, start, '<div dir="ltr"><div dir="rtl"><p class="a">x</p></div></div>'));
  assert.ok(same('.a { border-left: 1px solid red }', '.a { border-inline-end: 1px solid red }', p));
  assert.ok(same('.a { top: 1px; left: 2px }', '.a { inset-block-start: 1px; inset-inline-end: 2px }', p));
  // The later of the two wins, whatever it is called.
  assert.ok(same('.a { margin-left: 3px }', '.a { margin-left: 8px; margin-inline-end: 3px }', p));
  for (const [body, html, extra] of [
    [p, '<html dir="auto">', ''],
    [p, '<html dir="rtl">', 'main { direction: ltr }'],
    [p, '<html dir="rtl">', '.x { writing-mode: vertical-rl }'],
    ['<bdi><b class="a">x</b></bdi>', '<html dir="rtl">', ''],
    [`${p}<script>document.documentElement.dir = q</script>`, '<html dir="rtl">', ''],
    [`<b onclick="f()">x</b>${p}`, '<html dir="rtl">', ''],
    [`<div style="direction: ltr">${p}</div>`, '<html dir="rtl">', ''],
  ] as const)
    assert.ok(!same(left, start, body, html, extra), `${html} ${extra} ${body}`);
});

test('what a browser comes to by itself need not be said, where nothing stands behind it', () => {
  for (const css of [
    '.a { margin-left: 0 }',
    '.a { padding: 0 }',
    '.a { border: none }',
    '.a { float: none }',
  ])
    assert.ok(same(css, '', '<p class="a">x</p>'), css);
  assert.ok(same('.a { margin: 0 }', '', '<div class="a">x</div>'));
  assert.ok(same('.a { border: 0 }', '', '<span class="a">x</span>'));
  for (const [css, body] of [
    ['.a { margin: 0 }', '<p class="a">x</p>'],
    ['.a { padding: 0 }', '<ul class="a"><li>x</ul>'],
    ['.a { padding: 0 }', '<table><tr><td class="a">x</table>'],
    ['.a { border: 0 }', '<iframe class="a"></iframe>'],
    ['.a { margin: 0 }', '<div class="a" popover>x</div>'],
    ['.a { color: initial }', '<div class="a">x</div>'],
    ['.a { border-width: 0 } p { border-style: solid }', '<p class="a">x</p>'],
    // What stands inside takes the width, line or none.
    ['.a { border-width: 0 } b { border: solid; border-width: inherit }', '<p class="a"><b>x</b></p>'],
    [
      '.a { border-width: 0 }',
      '<p class="a"><b style="border-top-width: inherit; border-style: solid">x</b></p>',
    ],
  ] as const)
    assert.ok(!same(css, css.replace(/^\.a \{[^}]*\}/, ''), body), css);
  // A colour that is inherited tells nothing of a width.
  const colour = 'b { border-color: inherit }';
  assert.ok(same(`.a { border-width: 0 } ${colour}`, colour, '<p class="a"><b>x</b></p>'));
  // It beats what is weaker, under this name or another.
  assert.ok(
    !same('p { margin-left: 4px } .a { margin-left: 0 }', 'p { margin-left: 4px }', '<p class="a">x</p>'),
  );
  const weaker = 'p { margin-inline-start: 4px }';
  assert.ok(!same(`${weaker} .a { margin-left: 0 }`, weaker, '<p class="a">x</p>', '<html dir="auto">'));
  assert.ok(!same(`${weaker} .a { margin-right: 0 }`, weaker, '<p class="a">x</p>'));
});

test('of states that say the same it makes no difference which comes first', () => {
  const body = '<a class="a" href="#">x</a>';
  assert.ok(same('.a:hover { top: 0 } .a:focus { top: 0 }', '.a:focus { top: 0 } .a:hover { top: 0 }', body));
  assert.ok(
    !same('.a:hover { top: 0 } .a:focus { top: 1px }', '.a:focus { top: 1px } .a:hover { top: 0 }', body),
  );
});

test('a browser’s own word for aligned text is the standard’s where lines of text are all there is', () => {
  const [own, plain] = ['.a { text-align: -webkit-center }', '.a { text-align: center }'];
  assert.ok(same(own, plain, '<p class="a">x <b>y <i>z</i></b><br></p>'));
  assert.ok(!same(own, plain, '<div class="a">x <p>y</p></div>'));
  assert.ok(!same(own, plain, '<p class="a">x <b>y</b></p>', '<html>', 'b { display: block }'));
  assert.ok(!same(own, plain, '<p class="a">x <b style="display: block">y</b></p>'));
  assert.ok(!same(own, plain, '<p class="a">x <input></p>'));
  assert.ok(!same(own, plain, '<p class="a">x</p>', '<html>', '.a::before { content: "x"; display: block }'));
});
