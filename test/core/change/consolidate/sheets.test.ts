import assert from 'node:assert/strict';
import { test } from 'node:test';
import { prove } from '../../../../src/core/proof/index.js';
import { adoptAll, homesOf } from '../../../support/model.js';
import { htmlPage } from '../../../support/site.js';

const page = (css: string, body = '<p class="box">x</p>', more = ''): string =>
  htmlPage(body, `${more}<style>\n    ${css}\n  </style>\n`);

test('a rule in the style blocks of several pages moves to the shared sheet, and empty blocks go', () => {
  const adopted = adoptAll({
    'a.html': page('.box { top: 0; left: 0 }'),
    'b.html': page('.box { left: 0; top: 0 }'),
    'c.html': page('.box{top:0;left:0}'),
  });
  assert.equal(adopted.ruleMoves.length, 1, 'order inside the rule tells them apart');
  const { text } = adoptAll({
    'a.html': page('.box { top: 0; left: 0 }'),
    'b.html': page('.box{top:0px;left:0}\n    .own { right: 0 }'),
  });
  assert.match(text('shared.css'), /\.box \{\n {2}top: 0;\n {2}left: 0;\n\}/);
  assert.doesNotMatch(text('a.html'), /<style/);
  assert.match(text('a.html'), /<link rel="stylesheet" href="shared\.css">/);
  assert.match(text('b.html'), /\.own \{ right: 0 \}/);
  assert.doesNotMatch(text('b.html'), /\.box/);
});

test('what stands in one page only, under a condition on the block, or in a broken block stays', () => {
  const moved = (a: string, b: string): number => adoptAll({ 'a.html': a, 'b.html': b }).ruleMoves.length;
  const rule = '.box { top: 0; left: 0 }';
  assert.equal(moved(page(rule), page(rule)), 1);
  assert.equal(moved(page(rule), page('.box { top: 1px; left: 9px }')), 0);
  assert.equal(moved(page(rule), page(rule).replace('<style>', '<style media="print">')), 0);
  assert.equal(moved(page(rule), page(rule).replace('<style>', '<style title="wide">')), 0);
  assert.equal(moved(page(`b { top: 0\n ${rule}`), page(`b { top: 0\n ${rule}`)), 0);
  assert.equal(
    moved(page(`@layer a { b { top: 0 } } ${rule}`), page(`@layer a { b { top: 0 } } ${rule}`)),
    0,
  );
  assert.equal(moved(page('.box { &:hover { top: 0 } }'), page('.box { &:hover { top: 0 } }')), 0);
});

test('a rule keeps the media it stands under', () => {
  const css = '@media print { .box { top: 0; left: 0 } }';
  const { text } = adoptAll({ 'a.html': page(css), 'b.html': page(css) });
  assert.match(text('shared.css'), /@media print \{\n {2}\.box \{\n {4}top: 0;\n {4}left: 0;\n {2}\}\n\}/);
  assert.doesNotMatch(text('a.html'), /@media/);
});

test('a block rule stays where moving it would change what wins', () => {
  // The shared sheet is linked last: there the block's rule would beat the sheet behind the block.
  const files = (order: 'block first' | 'sheet first'): Record<string, string> => {
    const link = '<link rel="stylesheet" href="t.css">\n  ';
    const html =
      order === 'sheet first'
        ? page('.box { top: 0; left: 0 }', undefined, link)
        : page('.box { top: 0; left: 0 }').replace('</head>', `${link}</head>`);
    return { 'a.html': html, 'b.html': html, 't.css': 'p { margin: 0 }\n.box { top: 2px; }' };
  };
  assert.doesNotMatch(adoptAll(files('sheet first')).text('a.html'), /<style/);
  const refused = adoptAll(files('block first'));
  assert.match(refused.text('a.html'), /<style>\s*\.box \{ top: 0 ?;? \}/);
  assert.deepEqual(prove(refused.before, refused.after).differences, []);
});

test('addresses in a moved rule lead from the sheet where they led from the page', () => {
  const css = '.box { background: url(media/a.png); left: 0 }';
  const { text } = adoptAll(
    { 'fares/a.html': page(css), 'fares/b.html': page(css) },
    { shared: { path: 'theme/shared.css', partNames: {} } },
  );
  assert.match(text('theme/shared.css'), /url\(\.\.\/fares\/media\/a\.png\)/);
  const apart = adoptAll({ 'fares/a.html': page(css), 'crew/b.html': page(css) });
  assert.match(apart.text('fares/a.html'), /\.box \{ background: url/);
  assert.match(apart.text('shared.css'), /\.box \{\s*left: 0;\s*\}/);
});

const linked = '<link rel="stylesheet" href="t.css">';

test('rules of a sheet with the same declarations become one, with all their selectors', () => {
  const css =
    '#a {\n  top: 0;\n  left: 0;\n}\n\n.b {\n  top: 0;\n  left: 0;\n}\n\nb { right: 0; }\n\n#c {\n  left: 0px;\n  top: 0;\n}\n';
  const { text, ruleMoves } = adoptAll({
    'a.html': htmlPage('<p id="a">x<p class="b">y<p id="c">z', linked),
    't.css': css,
  });
  assert.equal(ruleMoves.length, 1);
  assert.equal(text('t.css'), '#a,\n.b,\n#c {\n  top: 0;\n  left: 0;\n}\n\nb { right: 0; }\n');
});

test('rules are not grouped where the order of the cascade forbids it, or a browser may drop one of them', () => {
  const grouped = (css: string, body = '<p class="a b c">x'): number =>
    adoptAll({ 'a.html': htmlPage(body, linked), 't.css': css }).ruleMoves.length;
  const rule = '{ top: 0; left: 0 }';
  assert.equal(grouped(`.a ${rule} .b ${rule}`), 1);
  const between = `.a ${rule} .c { top: 1px; left: 1px } .b ${rule}`;
  assert.equal(grouped(between, '<p class="a c">x<p class="c b">y'), 0);
  assert.equal(grouped(`.a ${rule} .b::-x-new ${rule}`), 0);
  assert.equal(grouped(`.a ${rule} @media print { .b ${rule} }`), 0);
  assert.equal(grouped('.a { top: 0 } .b { top: 0 }'), 1, 'neighbours that say nothing else');
  assert.equal(
    grouped('.a { top: 0; left: 0 } .c { right: 0 } .b { top: 0 }'),
    0,
    'one value in common is chance',
  );
});

test('a platform sheet is never written, whatever it repeats', () => {
  const css = '.a { top: 0; left: 0 }\n.b { top: 0; left: 0 }\n';
  const { text, ruleMoves } = adoptAll({
    'a.html': htmlPage('<p class="a">x<p class="b">y', '<link rel="stylesheet" href="platform/kit.css">'),
    'platform/kit.css': css,
  });
  assert.equal(ruleMoves.length, 0);
  assert.equal(text('platform/kit.css'), css);
});

test('a page that must do without a rule keeps it out of the shared sheet, or keeps to itself', () => {
  const css = '.box b { top: 0; left: 0 }';
  const files = {
    'a.html': page(css),
    'b.html': page(css),
    'bare.html': htmlPage('<p style="right: 0">x<p>y<p style="right: 0">z<p>u<p>v<p style="right: 0">w'),
    'part.tpl': '<b>in a box, perhaps</b>',
  };
  const adopted = adoptAll(files);
  assert.deepEqual(prove(adopted.before, adopted.after).differences, []);
  assert.equal(adopted.text('part.tpl'), files['part.tpl']);
  // Either the rule moved and the bare page stayed apart, or the other way round.
  const apart = !adopted.text('bare.html').includes('shared.css');
  assert.equal(adopted.ruleMoves.length, apart ? 1 : 0);
});

test('a class and a selector that say the same end up in one rule', () => {
  const body = `<div class="m"><p style="top: 0; left: 0">a<p style="top: 0; left: 0">b</div>
    <h2 style="top: 0; left: 0">c</h2><h2>d</h2><h2 style="top: 0; left: 0">e</h2><h2>f</h2><h2>g</h2><h2 style="top: 0; left: 0">h</h2>`;
  const adopted = adoptAll({ 'a.html': htmlPage(`${body}<p>i`) });
  assert.equal(homesOf(adopted).length, 2);
  assert.equal(adopted.text('shared.css').match(/top: 0;/g)?.length, 1);
});
