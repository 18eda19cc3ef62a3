import assert from 'node:assert/strict';
import { test } from 'node:test';
import { adoptAll, homesOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

const homes = (body: string, css = '', options: Parameters<typeof adoptAll>[1] = {}): string[] =>
  homesOf(adoptAll({ 'index.html': htmlPage(body, `<style>${css}</style>`) }, options));

test('what is already given goes: a declaration that changes nothing, an old attribute that a rule beats', () => {
  assert.deepEqual(homes('<p style="color: red">a<p>b', 'p { color: #F00 }'), [
    'given { color:#ff0000 } × 1',
  ]);
  assert.deepEqual(homes('<p align="center">a<p>b', 'p { text-align: left }'), [
    'given { text-align:-webkit-center } × 1',
  ]);
  assert.deepEqual(homes('<p style="color: red">a<p>b', 'p { color: red } p:hover { color: lime }'), []);
  const table = '<table cellpadding="3"><tr><td>a</table>';
  assert.deepEqual(homes(table, 'td { padding: 0 }'), ['given {  cells padding:3px } × 1']);
  assert.deepEqual(homes(`${table}<table><tr><th>b</table>`, '@media print { td { padding: 0 } }'), []);
});

test('a class that says the same is used, not made again, where nothing else hangs on it', () => {
  const body = '<p style="color: red; top: 0">a<p style="top: 0; color: red">b<p style="left: 0">c';
  const css = '.low { color: red; top: 0 }';
  assert.deepEqual(homes(body, css), ['.low (exists) { color:#ff0000; top:0 } × 2']);
  for (const more of ['.low + p { left: 0 }', '.low:hover { left: 0 }', '.low { left: 0 }'])
    assert.ok(!homes(body, `${css} ${more}`).join().includes('exists'), more);
});

test('a class whose parts have rules of their own is used where the parts look so already', () => {
  const css = '.box { color: red; top: 0 } .box b { left: 0 }';
  const box = (part: string): string => `<p style="color: red; top: 0">a ${part}</p>`;
  const there = '<p class="box">c <b>c</b></p><p>d';
  assert.ok(
    homes(box('a') + box('b') + there, css)
      .join()
      .includes('.box (exists)'),
  );
  assert.ok(
    homes(box('<b style="left: 0">x</b>').repeat(2) + there, css)
      .join()
      .includes('.box (exists)'),
  );
  assert.ok(
    !homes(box('<b>x</b>').repeat(2) + there, css)
      .join()
      .includes('.box (exists)'),
  );
});

test('a class that a script names is not put on elements', () => {
  const body = '<p style="color: red; top: 0">a<p style="top: 0; color: red">b<p>c<script>f(".low")</script>';
  assert.ok(!homes(body, '.low { color: red; top: 0 }').join().includes('exists'));
});

test('a rule on the element where all of them say it, on a group of them, or in a scope', () => {
  assert.deepEqual(homes('<p style="top: 0">a<p style="top: 0">b<b>c'), ['p { top:0 } × 2']);
  assert.deepEqual(
    homes(
      '<h2 style="top: 0">a</h2><h2 style="top: 0">b</h2><h3 style="top: 0">c</h3><h3 style="top: 0">d</h3><p>e',
    ),
    ['h2, h3 { top:0 } × 4'],
  );
  assert.deepEqual(homes('<div class="m"><p style="top: 0">a<p style="top: 0">b</div><p>c'), [
    '.m > p { top:0 } × 2',
  ]);
  assert.deepEqual(homes('<p class="q" style="top: 0">a<p class="q" style="top: 0">b<p>c'), [
    '.q { top:0 } × 2',
  ]);
});

test('a selector may reach further where nothing changes for it, and is not stronger than it must be', () => {
  const css = '.own { color: lime }';
  assert.deepEqual(homes('<p style="color: red">a<p style="color: red">b<p class="own">c', css), [
    'p { color:#ff0000 } × 2',
  ]);
  assert.deepEqual(homes('<p style="color: red">a<p style="color: red">b<p>c', 'p { color: red }'), [
    'given { color:#ff0000 } × 2',
  ]);
});

test('an old attribute becomes CSS that wins no more than it did', () => {
  const cells = (css: string): string[] =>
    homes('<table><tr><td bgcolor="#def">a<td bgcolor="#def">b<tr><td>c</table>', css);
  assert.match(cells('')[0]!, /^(tr:|\.).*background-color:#ddeeff/);
  const weak = cells('td:hover { background-color: lime }')[0]!;
  assert.match(weak, /background-color:#ddeeff/);
  assert.deepEqual(cells('* { background-color: lime }'), ['given { background-color:#ddeeff } × 2']);
  assert.match(cells('@media print { * { background-color: lime } }').join(), /^$/);
});

test('what a table says of its cells is said of them, not of those of a table inside', () => {
  const inner = '<table><tr><td>in</table>';
  const { styles, text } = adoptAll({
    'index.html': htmlPage(
      `<div class="a"><table border="1"><tr><td>a${inner}</table><table border="1"><tr><td>b</table></div>`,
    ),
  });
  assert.equal(styles.length, 1);
  assert.match(
    text('shared.css'),
    /> \* > tr > td,\n.*> \* > tr > th \{\n {2}border-width: 1px;\n {2}border-style: inset;/,
  );
});

test('stripes are found by their period and offset', () => {
  const rows = (count: number, is: (at: number) => boolean): string =>
    `<table class="t">${Array.from({ length: count }, (_, i) => `<tr${is(i + 1) ? ' style="color: red"' : ''}><td>x`).join('')}</table>`;
  const of = (is: (at: number) => boolean): string => homes(rows(9, is) + rows(6, is) + rows(8, is))[0] ?? '';
  assert.match(
    of((at) => at % 2 === 1),
    /^\.t tr:nth-child\(odd\) /,
  );
  assert.match(
    of((at) => at % 2 === 0),
    /^\.t tr:nth-child\(even\) /,
  );
  assert.match(
    of((at) => at % 3 === 2),
    /^\.t tr:nth-child\(3n\+2\) /,
  );
  assert.match(
    of((at) => at === 1),
    /^\.t tr:first-child /,
  );
  assert.match(
    of((at) => at > 1),
    /^\.t tr:not\(:first-child\) /,
  );
});

test('the first cell of every row is found, and cells of striped rows', () => {
  const row = (style: string): string => `<tr><td style="${style}">a<td>b<td>c`;
  assert.match(homes(`<table>${row('color: red').repeat(4)}</table>`)[0]!, /^td:first-child \{ color/);
  const striped = Array.from({ length: 8 }, (_, i) =>
    i % 2 === 0 ? '<tr><td style="top: 0">a' : '<tr><td>a',
  );
  assert.match(homes(`<table>${striped.join('')}</table>`)[0]!, /^tr:nth-child\(odd\) > td \{ top:0/);
});

test('what nothing else tells apart gets a class, with the reason why', () => {
  const { styles } = adoptAll({
    'index.html': htmlPage(
      '<p style="color: red">a<p>b<p style="color: red">c<p>d<p>e<p style="color: red">f',
    ),
  });
  assert.equal(styles[0]?.home.kind, 'new class');
  assert.equal(styles[0]?.instead, 'p would also reach 3 elements that differ, such as on index.html');
});

test('font and center become neutral elements, and what they say a style', () => {
  const { text } = adoptAll({
    'index.html': htmlPage(
      '<p><font color="red">a</font><p><font color="red">b</font><p><span>c</span><center>d</center><center>e</center>',
    ),
  });
  assert.doesNotMatch(text('index.html'), /font|<center|<\/center/);
  assert.match(text('index.html'), /<span class="[\w-]+">a<\/span>/);
  assert.match(text('shared.css'), /text-align: center/);
});

test('sizes of pictures stay unless a person wants them moved', () => {
  const body = '<img width="40" height="30"><img width="40" height="30"><img>';
  assert.deepEqual(homes(body), []);
  assert.equal(homes(body, '', { styledTags: { pictureSizes: 'move' } }).length, 1);
});

test('a script that reads an old attribute keeps it', () => {
  const body = '<table><tr><td bgcolor="red">a<td bgcolor="red">b<td>c</table>';
  assert.equal(homes(`${body}<script>x.bgColor = "lime"</script>`).length, 0);
  assert.equal(homes(`${body}<script>x.getAttribute("bgcolor")</script>`).length, 0);
});

test('an attribute that says what an element is may pick it out', () => {
  const field = (type: string, style = ''): string => `<p><input type="${type}"${style}>`;
  const body = field('text', ' style="top: 0"').repeat(3) + field('radio').repeat(2);
  assert.deepEqual(homes(body), ['input[type="text"] { top:0 } × 3']);
});

test('rules that rival each other are not put into one selector', () => {
  const body = ['red', 'lime', 'blue']
    .map(
      (colour) =>
        `<div class="${colour}"><h2 style="color: ${colour}">a</h2><h2 style="color: ${colour}">b</h2></div>`,
    )
    .join('');
  assert.deepEqual(homes(body).sort(), [
    '.blue > h2 { color:#0000ff } × 2',
    '.lime > h2 { color:#00ff00 } × 2',
    '.red > h2 { color:#ff0000 } × 2',
  ]);
});

test('a rule that most of what it reaches would have to be shielded from is none', () => {
  const own = Array.from({ length: 6 }, (_, i) => `<p style="width: ${i + 3}px">x`).join('');
  const [home] = homes(`<p style="width: 1px">a<p style="width: 1px">b${own}`);
  assert.match(home ?? '', /^\.[\w-]+ \{ width:1px \} × 2/);
});

test('a component may be included anywhere: only selectors that need no scope reach it', () => {
  const { styles, text } = adoptAll({
    'index.html': htmlPage('<div class="m"><p style="top: 0">a<p style="top: 0">b</div><p>c'),
    'part.tpl': '<p style="top: 0">d</p><p>e</p>',
  });
  for (const style of styles)
    for (const { styledTag } of style.members)
      if (styledTag.page.path === 'part.tpl') assert.notEqual(style.home.kind, 'existing selector');
  assert.match(text('part.tpl'), /<p>e<\/p>/);
});

test('pages that cannot be decided are left as they are, and nothing is to reach them', () => {
  const bad = htmlPage('<p style="top: 0">a<p style="top: 0">b', '<base href="/x/">');
  const { text, kept } = adoptAll({
    'bad.html': bad,
    'good.html': htmlPage('<p style="top: 0">a<p style="top: 0">b'),
  });
  assert.equal(text('bad.html'), bad);
  assert.match(text('shared.css'), /^p \{/m);
  assert.deepEqual(
    kept.map(({ reason }) => reason.kind),
    ['page undecided', 'page undecided'],
  );
});

test('positions are counted among all siblings, and not found where template text may put more', () => {
  const cell = (text: string, style = ''): string => `<td${style}>${text}</td>`;
  const row = `<tr>${cell('a', ' style="top: 0"')}${cell('b')}${cell('c')}</tr>`;
  assert.match(homes(`<table>${row.repeat(3)}</table>`)[0]!, /^td:first-child/);
  assert.match(homes(`<table>${row.replace('<tr>', '<tr>{{ more }}').repeat(3)}</table>`)[0] ?? '', /^\./);
  const loop = '<table>{% for x in y %}<tr><td style="top: 0">a<td>b</tr><tr><td>c</tr>{% endfor %}</table>';
  assert.doesNotMatch(homes(loop.repeat(3)).join(), /tr:/);
  const mixed = '<h2>t</h2><p>a</p><p style="top: 0">b</p>';
  assert.doesNotMatch(homes(`${`<div>${mixed}</div>`.repeat(2)}<p>c`)[0] ?? '', /nth-child\(3n/);
});

test('cells that only some rows have keep out of a rule on the column', () => {
  const rows = Array.from({ length: 5 }, (_, i) =>
    i === 2 ? '<tr><td>own<td style="top: 0">x' : '<tr><td style="top: 0">a<td>b',
  ).join('');
  const [home] = homes(`<table>${rows}</table>`);
  assert.match(home ?? '', /^\.[\w-]+ \{ top:0 \} × 5/);
});
