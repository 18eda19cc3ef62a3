import assert from 'node:assert/strict';
import { test } from 'node:test';
import { prove } from '../../../src/core/proof/index.js';
import { selectorsOf } from '../../../src/core/search/index.js';
import { adoptAll, modelOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

function differences(before: Record<string, string>, after: Record<string, string>): string[] {
  const first = modelOf(before);
  return prove(first, modelOf(after, first.table)).differences.map((one) =>
    one.kind === 'style' ? `${one.shown}${one.target} ${one.property}` : `${one.page}: ${one.what}`,
  );
}

const sheet = '<link rel="stylesheet" href="a.css">';

test('a rule in place of an attribute is equal when nothing else is stronger', () => {
  const before = { 'index.html': htmlPage('<p style="color: red">', sheet), 'a.css': 'p { color: lime }' };
  const after = {
    'index.html': htmlPage('<p class="x">', sheet),
    'a.css': 'p { color: lime } .x { color: #F00 }',
  };
  assert.deepEqual(differences(before, after), []);
});

test('a stronger rule, a state and a medium are all seen', () => {
  const rules = '#a { color: lime } .b:hover { top: 0 } @media print { .c.c { left: 0 } }';
  const before = {
    'index.html': htmlPage(
      '<p id="a" style="color: red"><p class="b" style="top: 1px"><p class="c" style="left: 1px">',
      sheet,
    ),
    'a.css': rules,
  };
  const after = {
    'index.html': htmlPage('<p id="a" class="x"><p class="b y"><p class="c z">', sheet),
    'a.css': `${rules} .x { color: red } .y { top: 1px } .z { left: 1px }`,
  };
  assert.deepEqual(differences(before, after), ['p#a.x color', 'p.b.y top', 'p.c.z left']);
});

test('elements that the edit did not touch are watched too', () => {
  const rules = 'p:not([style]) + b { color: red } [class="x"]::before { top: 0 }';
  const before = {
    'index.html': htmlPage('<p style="top: 0"></p><b>b</b><i class="x" style="left: 0">i</i>', sheet),
    'a.css': rules,
  };
  const after = {
    'index.html': htmlPage('<p class="n"></p><b>b</b><i class="x m">i</i>', sheet),
    'a.css': `${rules} .n { top: 0 } .m { left: 0 }`,
  };
  assert.deepEqual(differences(before, after), ['b color', 'i.x.m::before top']);
});

test('anything else that moves in the markup is a difference', () => {
  const page = (body: string): Record<string, string> => ({ 'index.html': htmlPage(body) });
  assert.deepEqual(differences(page('<p>a</p>'), page('<p>b</p>')), ['index.html: text changed']);
  assert.deepEqual(differences(page('<a href="x">a</a>'), page('<a href="y">a</a>')), [
    'index.html: href of <a> changed',
  ]);
  assert.deepEqual(differences(page('<p>a</p>'), page('<p>a</p><hr>')), ['index.html: <hr> is new']);
  assert.deepEqual(differences({ ...page('a'), 'b.html': htmlPage('b') }, page('a')), [
    'b.html: the page is gone',
  ]);
  assert.deepEqual(differences(page('<template>a</template>'), page('<template>b</template>')), [
    'index.html: text changed',
  ]);
});

test('sheets may come and go when nothing depends on them', () => {
  const before = {
    'index.html': htmlPage('<p>x', `${sheet}\n  <style>.unused { top: 0 }</style>`),
    'a.css': 'p { top: 0 }',
    'b.css': 'p { top: 0 }',
  };
  const after = { ...before, 'index.html': htmlPage('<p>x', '<link rel="stylesheet" href="b.css">') };
  assert.deepEqual(differences(before, after), []);
  assert.deepEqual(differences(before, { ...after, 'b.css': 'p { top: 0 } @font-face { font-family: x }' }), [
    'index.html: its @font-face, @keyframes or other definitions changed',
  ]);
});

test('a link that a rule would show is a difference', () => {
  const css = 'head > :nth-child(odd) { display: block }';
  const two = '<p style="top: 0">a<p style="top: 0">b<p>c';
  const one = adoptAll({
    'index.html': htmlPage(two, `<style>${css}</style><!-- three children: the link would be the fourth -->`),
  });
  assert.equal(one.styles.length, 1);
  const other = adoptAll({ 'index.html': htmlPage(two, `<meta name="x"><style>${css}</style>`) });
  assert.deepEqual(
    other.kept.map(({ reason }) => reason.kind),
    ['proof', 'proof'],
  );
});

test('a page that cannot be decided is equal only while it is untouched', () => {
  const rules = '@media print { @layer a { p { top: 0 } } }';
  const before = { 'index.html': htmlPage('<p style="top: 0">', `<style>${rules}</style>`) };
  assert.deepEqual(differences(before, before), []);
  const after = { 'index.html': htmlPage('<p class="x">', `<style>${rules} .x { top: 0 }</style>`) };
  assert.match(differences(before, after)[0]!, /cannot be decided: a layer under a condition/);
});

test('sheets on other hosts, and what scripts do that is not followed, are named as assumptions', () => {
  const files = {
    'index.html': htmlPage(
      '<p>x<script>go(); box.append(more)</script><script src="https://far.invalid/x.js"></script>',
      '<link rel="stylesheet" href="https://fonts.invalid/a.css">',
    ),
  };
  const model = modelOf(files);
  const same = prove(model, modelOf(files, model.table)).assumptions;
  assert.match(same[0]!, /^https:\/\/fonts\.invalid\/a\.css \(on 1 page\)/);
  assert.equal(same.length, 1, 'nothing is assumed of scripts where nothing changed');
  const changed = { 'index.html': files['index.html'].replace('<p>', '<p style="top: 0">') };
  const { assumptions } = prove(model, modelOf(changed, model.table));
  assert.match(assumptions[1]!, /^https:\/\/far\.invalid\/x\.js was not read \(on 1 page\): taken to/);
  assert.match(assumptions[2]!, /^index\.html:\d+:\d+ puts in, moves or takes out elements \(on 1 page\)/);
});

test('the class is repeated, or stands under an id that is there, when it must win over more', () => {
  const two = '<p style="color: red">a<p style="color: red">b<p style="color: red">b<p>c<p>c<p>c';
  const selectors = (body: string, css: string): string[] =>
    adoptAll({ 'index.html': htmlPage(body, `<style>${css}</style>`) }).styles.flatMap(selectorsOf);
  assert.deepEqual(selectors(two, 'p { color: lime }'), ['.text-red']);
  assert.deepEqual(selectors(two, 'body p { color: lime }'), ['.text-red']);
  assert.deepEqual(selectors(`<div class="m">${two}</div>`, '.m p { color: lime }'), [
    '.m-text-red.m-text-red',
  ]);
  assert.deepEqual(selectors(`<div id="main">${two}</div>`, '#main p { color: lime }'), ['#main .text-red']);
  // Where an important rule wins anyway, what loses to it can go.
  assert.deepEqual(selectors(two, 'p { color: lime !important }'), []);
});

test('what nothing allowed can beat stays, and names the stronger rule', () => {
  const body = '<p id="a" style="color: red">a<p style="color: red">b<p style="color: red">c';
  const { styles, kept } = adoptAll({ 'index.html': htmlPage(body, '<style>#a { color: lime }</style>') });
  assert.equal(styles[0]?.members.length, 2);
  assert.deepEqual(
    kept.map(({ reason }) => (reason.kind === 'stronger rule' ? reason.selector : reason.kind)),
    ['#a'],
  );
});

test('what the proof does not vouch for is left out, the rest is carried out', () => {
  const files = {
    'a.html': htmlPage(
      '<p style="top: 0">a<p style="top: 0">b<p>c',
      '<style>p:not([style]) { left: 0 }</style>',
    ),
    'b.html': htmlPage('<p style="top: 0">c<p style="top: 0">d<p>e'),
  };
  const { styles, kept, before, after, text } = adoptAll(files);
  assert.deepEqual(
    styles[0]?.members.map(({ styledTag }) => styledTag.page.path),
    ['b.html', 'b.html'],
  );
  assert.deepEqual(
    kept.map(({ reason }) => reason.kind),
    ['proof', 'proof'],
  );
  assert.deepEqual(prove(before, after).differences, []);
  assert.equal(text('a.html'), files['a.html']);
});

test('a component moves only what holds under every page that may include it', () => {
  const part = '<p style="top: 0">a</p><p style="top: 0">b</p>';
  const pages = (css: string): Record<string, string> => ({
    'index.html': htmlPage('', `<style>${css}</style>`),
    'part.tpl': part,
  });
  assert.equal(adoptAll(pages('p { top: 1px }')).styles.length, 1);
  assert.equal(adoptAll(pages('#menu p { top: 1px }')).styles.length, 0);
  assert.match(adoptAll(pages('p { top: 1px }')).text('index.html'), /shared\.css/);
});

test('an outdated element may become a neutral one where nothing tells them apart', () => {
  const page = (body: string, css = ''): Record<string, string> => ({
    'index.html': htmlPage(body, `<style>${css}</style>`),
  });
  const font = ['<p><font color="red">x</font>', '<p><span style="color: red">x</span>'] as const;
  assert.deepEqual(differences(page(font[0]), page(font[1])), []);
  const centre = ['<center>x</center>', '<div style="text-align: -webkit-center">x</div>'] as const;
  assert.deepEqual(differences(page(centre[0]), page(centre[1])), []);
  for (const css of ['font { top: 0 }', 'p > :not(span) { top: 0 }', 'p font { color: revert }'])
    assert.notDeepEqual(differences(page(font[0], css), page(font[1], css)), [], css);
  assert.notDeepEqual(differences(page(centre[0]), page('<div>x</div>')), []);
  assert.notDeepEqual(differences(page('<p><font>x</font>'), page('<p><b>x</b>')), []);
  const quirks = (text: string): Record<string, string> => ({ 'index.html': `<html><body>${text}` });
  assert.notDeepEqual(differences(quirks(font[0]), quirks(font[1])), []);
});

test('a token on :root reaches a component, unless something else may set it', () => {
  const files = (css: string, body = ''): Record<string, string> => ({
    'index.html': htmlPage(body, '<link rel="stylesheet" href="t.css">'),
    'part.tpl': '<p class="a">x</p>',
    't.css': css,
  });
  const before = '.a { color: teal }';
  const token = ':root { --sea: teal } .a { color: var(--sea) }';
  assert.deepEqual(differences(files(before), files(token)), []);
  assert.notDeepEqual(differences(files(before), files(`${token} body { --sea: red }`)), []);
  assert.notDeepEqual(differences(files(before), files(`@media print { ${token} }`)), []);
  const inline = '<div style="--sea: red"></div>';
  assert.notDeepEqual(differences(files(before, inline), files(token, inline)), []);
});

test('a value and the custom property that holds it are the same, where that is certain', () => {
  const before = {
    'index.html': htmlPage('<p class="a">x<b class="b">y</b>', '<link rel="stylesheet" href="t.css">'),
    't.css': '.a { color: #123456; border: 1px solid red } .b { margin: 0 4px }',
  };
  const withSheet = (css: string): string[] => differences(before, { ...before, 't.css': css });
  const same = [
    ':root { --ink: #123456 } .a { color: var(--ink); border: 1px solid red } .b { margin: 0 4px }',
    ':root { --line: red } .a { color: #123456; border: 1px solid var(--line) } .b { margin: 0 4px }',
    ':root { --a: 4px; --gap: var(--a) } .a { color: #123456; border: 1px solid red } .b { margin: 0 var(--gap) }',
    '.a { color: var(--ink, #123456); border: 1px solid red } .b { margin: 0 var(--x, var(--y, 4px)) }',
    ':root { --ink: lime } .a { --ink: #123456; color: var(--ink); border: 1px solid red } .b { margin: 0 4px }',
  ];
  for (const css of same) assert.deepEqual(withSheet(css), [], css);
  const different = [
    ':root { --ink: #123457 } .a { color: var(--ink); border: 1px solid red } .b { margin: 0 4px }',
    ':root { --ink: #123456 } body { --ink: blue } .a { color: var(--ink); border: 1px solid red } .b { margin: 0 4px }',
    ':root { --ink: #123456 } @media print { p { --ink: blue } } .a { color: var(--ink); border: 1px solid red } .b { margin: 0 4px }',
    '.a { --ink: #123456 } .a:hover { --ink: red } .a { color: var(--ink); border: 1px solid red } .b { margin: 0 4px }',
    ':root { --a: var(--b); --b: var(--a) } .a { color: var(--a, #123456); border: 1px solid red } .b { margin: 0 4px }',
    '@property --ink { syntax: "<color>"; inherits: false; initial-value: red } :root { --ink: #123456 } .a { color: var(--ink); border: 1px solid red } .b { margin: 0 4px }',
    '.a { color: var(--none); border: 1px solid red } .b { margin: 0 4px }',
    ':root { --ink: 4px } .a { color: var(--ink, #123456); border: 1px solid red } .b { margin: 0 4px }',
  ];
  for (const css of different) assert.notDeepEqual(withSheet(css), [], css);
});

test('a custom property that the page already writes about is not passed over', () => {
  const page = (css: string): Record<string, string> => ({
    'index.html': htmlPage('<p class="a">x', `<style>${css}</style>`),
  });
  const found = differences(
    page('.a { top: var(--tide, 1px) }'),
    page(':root { --tide: 2px } .a { top: var(--tide, 1px) }'),
  );
  assert.equal(found.length, 1);
  assert.match(found[0]!, /--tide/);
});

test('template text in a style or an old attribute must stay as it is written', () => {
  const page = (body: string): Record<string, string> => ({ 'index.html': htmlPage(body) });
  for (const [one, two] of [
    ['<p style="color: {{ a }}">x', '<p style="color: {{ b }}">x'],
    ['<p style="color: {{ a }}">x', '<p>x'],
    ['<img width="{{ a }}">', '<img width="{{ b }}">'],
    ['<table bgcolor="{{ a }}"><tr><td>x</table>', '<table><tr><td>x</table>'],
  ] as const)
    assert.notDeepEqual(differences(page(one), page(two)), [], one);
});

test('an old attribute may become the CSS that says the same, and nothing else', () => {
  const page = (body: string): Record<string, string> => ({ 'index.html': htmlPage(body) });
  const same = [
    ['<p align="center">x', '<p style="text-align: -webkit-center">x'],
    // Where no box stands inside, the standard's word places nothing else.
    ['<p align="center">x', '<p style="text-align: center">x'],
    ['<table bgcolor="#def"><tr><td>x</table>', '<table style="background-color: #DEF"><tr><td>x</table>'],
    ['<table cellpadding="4"><tr><td>x</table>', '<table><tr><td style="padding: 4px">x</table>'],
    ['<img width="40">', '<img style="width: 40px">'],
  ] as const;
  for (const [one, two] of same) assert.deepEqual(differences(page(one), page(two)), [], one);
  const different = [
    ['<div align="center"><p>x</div>', '<div style="text-align: center"><p>x</div>'],
    ['<table cellpadding="4"><tr><td>x</table>', '<table style="padding: 4px"><tr><td>x</table>'],
    ['<img width="40" height="30">', '<img style="width: 40px; height: 30px">'],
    ['<table rules="all"><tr><td>x</table>', '<table><tr><td>x</table>'],
    ['<p width="40">x', '<p>x'],
  ] as const;
  for (const [one, two] of different) assert.notDeepEqual(differences(page(one), page(two)), [], one);
});

test('a custom property that keyframes change is not put in', () => {
  const keyframes = '@keyframes tide { to { --ink: red } }';
  const page = (css: string): Record<string, string> => ({
    'index.html': htmlPage('<p class="a">x', `<style>${keyframes} ${css}</style>`),
  });
  const [before, after] = [
    page('.a { color: teal }'),
    page(':root { --ink: teal } .a { color: var(--ink) }'),
  ];
  assert.notDeepEqual(differences(before, after), []);
});

test('a class that only another component knows is no new class to a template', () => {
  const files = (css: string): Record<string, string> => ({
    'index.html': htmlPage('<p>x', '<link rel="stylesheet" href="t.css">'),
    'a.tpl': '<p class="{{ kind }}">x',
    'b.tpl': '<p class="late">y',
    't.css': css,
  });
  const found = differences(files('p { left: 0 }'), files('p { left: 0 } .late { top: 0 }'));
  assert.ok(found.length === 2, found.join('\n'));
});

test('a page whose sheets are in doubt, and that stays as it is, minds only rules that could match on it', () => {
  for (const head of [
    '<base href="/line/">',
    `<meta http-equiv="Content-Security-Policy" content="style-src 'self'">`,
  ]) {
    const inDoubt = { 'doubt.html': htmlPage('<h4 class="low">x</h4>', `${head}${sheet}`) };
    const before = {
      'index.html': htmlPage('<p style="top: 0">', sheet),
      'a.css': 'p { left: 0 }',
      ...inDoubt,
    };
    const after = (css: string): Record<string, string> => ({
      ...before,
      'index.html': htmlPage('<p class="x">', sheet),
      'a.css': `p { left: 0 } ${css}`,
    });
    assert.deepEqual(differences(before, after('.x { top: 0 }')), []);
    for (const css of [
      '.x, .low { top: 0 }',
      '.x, h4 { top: 0 }',
      '.x, h4:hover { top: 0 }',
      '.x, * { top: 0 }',
    ])
      assert.match(
        differences(before, after(css))[0] ?? '',
        /^doubt\.html: it changed, and the page cannot/,
        css,
      );
  }
});

test('such a page that an engine fills may have any name that is known, and none that is new', () => {
  const files = (css: string, tag: string): Record<string, string> => ({
    'index.html': htmlPage(`<p ${tag}>`, sheet),
    'old.html': htmlPage('<p class="known">', sheet),
    'a.css': css,
    'doubt.html': htmlPage('<h4 class="{{ which }}">{{ text }}</h4>', `<base href="{{ root }}">${sheet}`),
  });
  const before = files('', 'style="top: 0"');
  assert.deepEqual(differences(before, files('.new { top: 0 }', 'class="new"')), []);
  assert.match(differences(before, files('.known { top: 0 }', 'class="known"')).join(), /doubt\.html/);
});

test('an outdated element keeps its name where a rule rolls back to what browsers say of it', () => {
  const rules = (name: string): Record<string, string> => ({
    'index.html': htmlPage(`<${name}>x</${name}>`, sheet),
    'a.css': 'i { top: 0 }',
  });
  const rolledBack = (css: string): string[] => {
    const all = `${css} .n { text-align: -webkit-center }`;
    const before = { ...rules('center'), 'a.css': all };
    const after = { ...before, 'index.html': htmlPage('<div class="n">x</div>', sheet) };
    return differences(before, after).filter((one) => one.includes('takes back what browsers say'));
  };
  assert.equal(rolledBack('center, div { color: revert }').length, 1);
  assert.equal(rolledBack('center, div { color: revert-layer }').length, 1);
  assert.equal(rolledBack('center, div { all: unset }').length, 1);
  assert.equal(rolledBack('center, div { color: red }').length, 0);
});

test('a page that may have other sheets than it says is compared with those of every page', () => {
  for (const head of [
    '<base href="/line/">',
    `<meta http-equiv="Content-Security-Policy" content="style-src 'self'">`,
  ]) {
    const before = {
      // Compared first, when what the other page links is not seen yet.
      'a.html': htmlPage('<h4 class="low">x</h4>', `${head}<link rel="stylesheet" href="a.css">`),
      'b.html': htmlPage('<p>', '<link rel="stylesheet" href="b.css">'),
      'a.css': 'p { left: 0 }',
      'b.css': 'p { left: 0 }',
    };
    const after = {
      ...before,
      'a.css': 'p { left: 0 } .n { top: 0 }',
      'b.css': 'p { left: 0 } .low { top: 0 }',
    };
    assert.match(differences(before, after)[0] ?? '', /^a\.html: it changed, and the page cannot/, head);
  }
});

test('a sheet that a page may load by its base is compared, though its address leads to another file', () => {
  const before = {
    'index.html': htmlPage('<h4>x</h4>', '<base href="line/"><link rel="stylesheet" href="a.css">'),
    'a.css': 'p { left: 0 }',
    'line/a.css': 'p { left: 0 }',
  };
  const after = (css: string): Record<string, string> => ({ ...before, 'line/a.css': css });
  assert.equal(differences(before, after('p { left: 0 } h4 { top: 0 }')).length, 1);
  assert.equal(differences(before, after('p { left: 0 } h5 { top: 0 }')).length, 0);
});
